using NodaTime;
using Palaestra.Data.Audit;
using Palaestra.Server.People;

namespace Palaestra.Server.Audit;

/// <summary>Notes who looked at a record, what left the house, and who was refused.</summary>
public static class AuditedRequests
{
    /// <summary>Files and prints.</summary>
    private static readonly HashSet<string> Exports =
    [
        "GetSheetPdf",
        "GetCalendarFile",
        "GetLetterPdf",
        "GetHomeLogFile",
        "GetTraceFile",
        "MakeBackup",
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
                                At = Instant.FromDateTimeOffset(
                                    services.GetRequiredService<TimeProvider>().GetUtcNow()
                                ),
                                Kind = kind,
                                AccountId = who.AccountId,
                                By = who.SignIn?.Name ?? "",
                                What = named.EndpointName,
                                Episode = Id(context, "id"),
                                Visit = Id(context, "visitId"),
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
            and < 300 when operation is "SignIn" or "SignOut" or "TakeInvitation" or "Reauthenticate" =>
                AuditKind.SignIn,
            >= 200 and < 300 when Exports.Contains(operation) => AuditKind.Export,
            >= 200 and < 300 when IsRecord(context) && HttpMethods.IsGet(context.Request.Method) =>
                AuditKind.View,
            _ => null,
        };

    /// <summary>Under an episode or a visit stands what belongs to one client.</summary>
    private static bool IsRecord(HttpContext context) =>
        context.Request.Path.StartsWithSegments("/api/episodes")
        || context.Request.Path.StartsWithSegments("/api/visits");

    private static Guid? Id(HttpContext context, string name) =>
        Guid.TryParse(context.Request.RouteValues[name] as string, out var id) ? id : null;
}
