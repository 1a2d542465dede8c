using Palaestra.Data.Audit;
using Palaestra.Server.Clinics;
using Palaestra.Server.People;

namespace Palaestra.Server.Audit;

/// <summary>Notes who looked at a record, what left the house, and who was refused.</summary>
public static class AuditedRequests
{
    /// <summary>Files and prints.</summary>
    private static readonly HashSet<string> Exports =
    [
        "GetSheetPdf",
        "GetHomePage",
        "GetRecordFile",
        "GetClinicRecordsFile",
        "GetCalendarFile",
        "GetVisitInvitation",
        "GetLetterPdf",
        "GetHomeLogFile",
        "GetTraceFile",
        "MakeBackup",
        "GetBodyChartPicture",
        "GetClinicViewFile",
        "GetResearchFile",
    ];

    public static void UseAudit(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                await next(context);
                if (
                    context.GetEndpoint()?.Metadata.GetMetadata<IEndpointNameMetadata>() is { } named
                    && KindOf(context, named.EndpointName) is { } kind
                )
                {
                    var services = context.RequestServices;
                    var who = services.GetRequiredService<WhoIsHere>();
                    services
                        .GetRequiredService<AuditWriter>()
                        .Tell(
                            new AuditNote
                            {
                                At = services.GetRequiredService<ClinicClock>().Now,
                                Kind = kind,
                                AccountId = who.AccountId,
                                By = who.SignIn?.Name ?? "",
                                What = named.EndpointName,
                                Person = Id(context, "clientId"),
                                Episode = Under(context, "/api/episodes") ? Id(context, "id") : null,
                                Visit = context.Items[Visit] as Guid? ?? Id(context, "visitId"),
                            }
                        );
                }
            }
        );

    private static AuditKind? KindOf(HttpContext context, string operation) =>
        context.Response.StatusCode switch
        {
            StatusCodes.Status401Unauthorized
            or StatusCodes.Status403Forbidden
            or StatusCodes.Status429TooManyRequests => AuditKind.Refusal,
            >= 200
            and < 300
                when operation
                    is "SignIn"
                        or "SignOut"
                        or "TakeInvitation"
                        or "Reauthenticate"
                        or "Lock"
                        or "Unlock" => AuditKind.SignIn,
            >= 200 and < 300 when Exports.Contains(operation) => AuditKind.Export,
            // One that was kept before pictures were written down: the store tells nothing of it.
            >= 200 and < 300 when operation is "RemovePhoto" && !context.Items.ContainsKey(Visit) =>
                AuditKind.Change,
            >= 200 and < 300 when IsRecord(context) && HttpMethods.IsGet(context.Request.Method) =>
                AuditKind.View,
            _ => null,
        };

    /// <summary>Where what belongs to one client stands.</summary>
    private static readonly string[] Records =
    [
        "/api/episodes",
        "/api/visits",
        "/api/traces",
        "/api/photos",
        "/api/practice/recorded/items",
    ];

    private static bool IsRecord(HttpContext context) => Array.Exists(Records, at => Under(context, at));

    private static bool Under(HttpContext context, string at) => context.Request.Path.StartsWithSegments(at);

    private const string Visit = "audited-visit";

    /// <summary>Whose record it is, where the address does not say.</summary>
    public static void IsAbout(this HttpContext context, Guid visitId) => context.Items[Visit] = visitId;

    private static Guid? Id(HttpContext context, string name) =>
        Guid.TryParse(context.Request.RouteValues[name] as string, out var id) ? id : null;
}
