using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Data;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Keeping;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Screening;

public sealed record EventBatch(IReadOnlyList<CaptureEvent> Events);

/// <summary>Where a screen stands: what is planned, what was done, and what comes next.</summary>
/// <param name="States">By task of the battery, in its order.</param>
/// <param name="Searches">By ladder and side, for every ladder that is planned or was tried.</param>
/// <param name="Allowances">What precautions say of rungs; rungs they say nothing of are not listed.</param>
/// <param name="Stop">For tablets that cannot reach the server. <paramref name="PainNow"/>: when the visit began; none if not asked.</param>
/// <param name="ClockOff">Trials with taps that came more than a day off their own time.</param>
/// <param name="Earlier">The last screen before this visit; none at the first.</param>
public sealed record ScreenView(
    BatteryView Battery,
    IReadOnlyList<TaskState> States,
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<RungSearch> Searches,
    IReadOnlyList<Allowance> Allowances,
    EarlierScreen? Earlier,
    double? LegLength,
    Visits.StopRules Stop,
    int? PainNow,
    IReadOnlyList<Guid> ClockOff
);

public sealed record EarlierScreen(Guid VisitId, Instant At);

public sealed record VisitEvents(IReadOnlyList<CaptureEvent> Events);

public static class ScreeningEndpoints
{
    public static void MapScreening(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/visits/{visitId:guid}").WithTags("Screening");
        group
            .MapPost("/events", Append)
            .Described(
                "AppendEvents",
                "Stores capture events of a visit; those known already are counted and left.",
                404,
                409
            );
        group
            .MapGet("/events", Events)
            .Described("GetEvents", "Capture events of a visit, in the order they happened.", 404);
        group.MapGet("/screen", Screen).Described("GetScreen", "Where the screen of a visit stands.");
        group
            .MapPost("/battery/proposal", Propose)
            .Described(
                "ProposeBattery",
                "Which tasks to screen in the minutes there are. Nothing is stored."
            );
        group
            .MapPut("/battery", StoreBattery)
            .Described("StoreBattery", "Writes which tasks are screened, on the version that was read.", 409);
    }

    private static Task<Results<Ok<EventsTaken>, ProblemHttpResult>> Append(
        Guid visitId,
        EventBatch batch,
        EventLog log,
        WhoIsHere who,
        Live.VisitNews news
    ) => Store(visitId, batch.Events, who.Name, who.AccountId, log, news);

    /// <summary>Stores events under a name, and tells the other tablets.</summary>
    internal static async Task<Results<Ok<EventsTaken>, ProblemHttpResult>> Store(
        Guid visitId,
        IReadOnlyList<CaptureEvent> events,
        string by,
        Guid? account,
        EventLog log,
        Live.VisitNews news
    )
    {
        try
        {
            var taken = await log.Append(visitId, events, by, account);
            if (taken?.Value is { Stored: > 0 })
            {
                news.Tell(visitId);
            }
            return taken switch
            {
                null => Problem.NotFound("visit"),
                { IsValid: true } => TypedResults.Ok(taken.Value!),
                _ => Problem.Fields(taken.Errors),
            };
        }
        catch (DbUpdateException problem) when (!StoreFault.Is(problem))
        {
            // The same batch arrived twice at once; the other one won. The tablet sends again and all are known.
            return Problem.Conflict(Message.Of("events.twice"));
        }
    }

    private static async Task<Results<Ok<VisitEvents>, ProblemHttpResult>> Events(
        Guid visitId,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        var events = await EventsOf(visitId, db, library);
        return events.Count > 0 || await db.Visits.AnyAsync(visit => visit.Id == visitId)
            ? TypedResults.Ok(new VisitEvents(events))
            : Problem.NotFound("visit");
    }

    /// <summary>In the order they happened; empty where there is no such visit.</summary>
    internal static async Task<IReadOnlyList<CaptureEvent>> EventsOf(
        Guid visitId,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        var events = await db
            .Events.AsNoTracking()
            .Where(e => e.VisitId == visitId)
            .Select(e => e.Event)
            .ToListAsync();
        return [.. events.Select(e => Renewal.Of(e, library)).OrderBy(e => e.At).ThenBy(e => e.Id)];
    }

    private static Task<Results<Ok<ScreenView>, ProblemHttpResult>> Screen(
        Guid visitId,
        OpenCase open,
        PracticeLibrary library,
        Batteries batteries
    ) =>
        Task.FromResult<Results<Ok<ScreenView>, ProblemHttpResult>>(
            TypedResults.Ok(ViewOf(open.File, visitId, library, batteries))
        );

    internal static ScreenView ViewOf(
        CaseFile file,
        Guid visitId,
        PracticeLibrary library,
        Batteries batteries
    )
    {
        var visit = file.Visit(visitId);
        var battery = batteries.Of(file, visit);
        var screen = Batteries.Screened(file, visit);
        var planned = battery.Battery.Items.Select(i => library.FindTask(i.TaskId)?.Ladder).ToHashSet();
        var searches =
            from ladder in library.TrainedLadders
            where
                planned.Contains(ladder.Id)
                || screen.Any(t => RungFinder.Climbs(t, library) && ladder.IndexOf(t.RungId) >= 0)
            from side in new[] { Side.Left, Side.Right }
            select RungFinder.Search(
                ladder,
                side,
                screen,
                file.Profile,
                file.Policy,
                library,
                battery.Battery.Missing
            );
        var allowances =
            from rung in library.Ladders.SelectMany(ladder => ladder.Rungs)
            from side in rung.TaskSides
            let allowance = Allowance.Of(library, file.Profile.Precautions, rung, side)
            where allowance.Notes.Count > 0
            select allowance;
        return new ScreenView(
            battery,
            batteries.States(file, visit, battery.Battery),
            file.Trials(visitId),
            [.. searches],
            [.. allowances],
            file.EarlierScreen(visitId) is { } earlier
                ? new EarlierScreen(earlier.Id, earlier.PlannedAt)
                : null,
            file.Visits.SelectMany(v => file.Trials(v.Id))
                .Select(t => t.LegLength)
                .LastOrDefault(l => l is not null),
            new Visits.StopRules(file.Policy.FaultsInARow, file.Policy.Pain),
            file.PainAt(visit),
            file.ClockOff(visitId)
        );
    }

    private static async Task<Results<Ok<Battery>, ProblemHttpResult>> Propose(
        Guid visitId,
        ProposalForm form,
        OpenCase open,
        Batteries batteries
    )
    {
        var file = open.File;
        var proposal = batteries.Propose(file, form);
        return proposal.IsValid ? TypedResults.Ok(proposal.Value!) : Problem.Fields(proposal.Errors);
    }

    private static async Task<Results<Ok<BatteryView>, ProblemHttpResult>> StoreBattery(
        Guid visitId,
        BatteryForm form,
        OpenCase open,
        PalaestraDb db,
        Batteries batteries
    )
    {
        var file = open.File;
        var visit = file.Visit(visitId);
        var made = batteries.ByHand(file, visit, form);
        if (!made.IsValid)
        {
            return Problem.Fields(made.Errors);
        }
        if (form.Version != visit.BatteryVersion)
        {
            return Problem.Conflict(Message.Of("battery.shown"), batteries.Of(file, visit));
        }
        visit.Battery = made.Value!;
        visit.BatteryVersion++;
        if (!await db.SavedFirst())
        {
            return Problem.Conflict(Message.Of("battery.again"));
        }
        return TypedResults.Ok(new BatteryView(visit.Battery, visit.BatteryVersion));
    }
}
