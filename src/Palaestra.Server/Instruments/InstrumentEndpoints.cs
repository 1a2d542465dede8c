using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Description;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Instruments;

/// <param name="Scripts">What a simulated device can be told to do; empty for a real one.</param>
public sealed record DeviceView(
    string Device,
    InstrumentSetup Setup,
    bool Connected,
    double? Battery,
    IReadOnlyList<double>? Neutral,
    IReadOnlyList<InstrumentScript> Scripts
)
{
    public static DeviceView Of(LiveDevice device) =>
        new(
            device.Name,
            device.Setup,
            device.Connected,
            device.Battery,
            device.NeutralLevels,
            device.Scripts
        );
}

public sealed record ScriptForm(string Script);

public static class InstrumentEndpoints
{
    public static void MapInstruments(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/instruments").WithTags("Instruments");
        group.MapGet("", All).Described("GetInstruments", "Instruments that are connected.");
        group
            .MapGet("/{device}/stream", Stream)
            .Described("WatchInstrument", "Server-sent events: what an instrument reads.", 404);
        group
            .MapPost("/{device}/neutral", TakeNeutral)
            .Described("TakeNeutral", "Takes what an instrument reads now for neutral.", 404, 409, 422);
        group
            .MapPost("/{device}/script", Begin)
            .Described("BeginScript", "Tells a simulated instrument what to play.", 404);
    }

    private static Ok<IReadOnlyList<DeviceView>> All(LiveDevices devices) =>
        TypedResults.Ok<IReadOnlyList<DeviceView>>([.. devices.Devices.Select(DeviceView.Of)]);

    private static Results<ServerSentEventsResult<LivePart>, ProblemHttpResult> Stream(
        string device,
        LiveDevices devices,
        TimeProvider time,
        IHostApplicationLifetime server,
        OpenSignIns signIns,
        HttpContext context
    )
    {
        if (devices.Find(device) is not { } found)
        {
            return Problem.NotFound("instrument");
        }
        var stop = CancellationTokenSource.CreateLinkedTokenSource(
            context.RequestAborted,
            server.ApplicationStopping,
            signIns.EndOf(SignInClaim.Of(context.User)!.Value)
        );
        context.Response.RegisterForDispose(stop);
        return TypedResults.ServerSentEvents(found.Watch(time.GetUtcNow(), stop.Token));
    }

    private static Results<Ok<DeviceView>, ProblemHttpResult> TakeNeutral(
        string device,
        LiveDevices devices,
        TimeProvider time
    )
    {
        if (devices.Find(device) is not { } found)
        {
            return Problem.NotFound("instrument");
        }
        if (!found.Connected)
        {
            return Problem.Conflict(Message.Of("instrument.away"));
        }
        var neutral = found.Calibrate(time.GetUtcNow());
        return neutral.Errors.Count > 0
            ? Problem.Fields(neutral.Errors)
            : TypedResults.Ok(DeviceView.Of(found));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Begin(
        string device,
        ScriptForm form,
        LiveDevices devices,
        IInstrumentSource source,
        CancellationToken gone
    )
    {
        if (devices.Find(device) is not { } found)
        {
            return Problem.NotFound("instrument");
        }
        if (found.Scripts.All(script => script.Id != form.Script))
        {
            return Problem.Field("script", Message.Of("instrument.script"));
        }
        await source.Tell(new InstrumentLine("do", device, Script: form.Script), gone);
        return TypedResults.NoContent();
    }
}
