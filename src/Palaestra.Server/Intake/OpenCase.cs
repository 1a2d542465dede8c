using Palaestra.Server.Problems;

namespace Palaestra.Server.Intake;

/// <summary>
/// The case that an address speaks of. A handler that asks for it is not called without one: the address is answered with 404.
/// </summary>
public sealed class OpenCase
{
    private CaseFile? file;

    /// <exception cref="InvalidOperationException">The address names neither a visit nor an episode.</exception>
    public CaseFile File =>
        file ?? throw new InvalidOperationException("No case was opened for this address.");

    /// <summary>Opens the case before a handler that asks for one: of the visit of the address, or of its episode.</summary>
    public static EndpointFilterDelegate Find(
        EndpointFilterFactoryContext handler,
        EndpointFilterDelegate next
    ) =>
        IsAskedBy(handler.MethodInfo)
            ? async call => await Opened(call.HttpContext) ?? await next(call)
            : next;

    public static bool IsAskedBy(System.Reflection.MethodInfo handler) =>
        handler.GetParameters().Any(parameter => parameter.ParameterType == typeof(OpenCase));

    private static async Task<IResult?> Opened(HttpContext context)
    {
        var files = context.RequestServices.GetRequiredService<CaseFiles>();
        var ofVisit = IdOf(context, "visitId");
        var found =
            ofVisit is { } visit ? await files.OfVisit(visit)
            : IdOf(context, "id") is { } ofEpisode ? await files.OfEpisode(ofEpisode)
            : throw new InvalidOperationException("The address names neither a visit nor an episode.");
        context.RequestServices.GetRequiredService<OpenCase>().file = found;
        return found is null ? Problem.NotFound(ofVisit is null ? "episode" : "visit")
            // What was called off is no visit of the case; at the desk it can be put back.
            : ofVisit is { } id && found.Visits.All(v => v.Id != id)
                ? Problem.Conflict(Message.Of("visit.called-off"))
            : null;
    }

    private static Guid? IdOf(HttpContext context, string name) =>
        Guid.TryParse(context.Request.RouteValues[name] as string, out var id) ? id : null;
}
