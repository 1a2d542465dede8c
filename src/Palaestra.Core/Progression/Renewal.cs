using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Progression;

/// <summary>
/// Old records read as of today: rungs that moved to another ladder under their new id, so that history goes on. What was stored
/// stays as it was written.
/// </summary>
public static class Renewal
{
    /// <summary>An event stored under ids that were renamed since, under those of now.</summary>
    public static CaptureEvent Of(CaptureEvent e, PracticeLibrary library) =>
        e switch
        {
            TrialStarted started when library.Today(started.RungId) is var now && now != started.RungId =>
                started with
                {
                    RungId = now,
                    TaskId = TaskOf(started, now, library),
                },
            ExerciseAdded added => added with { RungId = library.Today(added.RungId) },
            _ => e,
        };

    /// <summary>A plan stored under ids that were renamed since, under those of now.</summary>
    public static Plan Of(Plan plan, PracticeLibrary library) =>
        plan with
        {
            Items = [.. plan.Items.Select(item => Of(item, library))],
        };

    /// <summary>A record stored under ids that were renamed since, under those of now.</summary>
    public static DecideInput Of(DecideInput input, PracticeLibrary library) =>
        input with
        {
            Items = [.. input.Items.Select(item => Of(item, library))],
            Visits = [.. input.Visits.Select(done => done with { RungId = library.Today(done.RungId) })],
            Broke = input.Broke is null
                ? null
                : [.. input.Broke.Select(broke => broke with { RungId = library.Today(broke.RungId) })],
            Probes = input.Probes is null
                ? null
                : [.. input.Probes.Select(probe => probe with { RungId = library.Today(probe.RungId) })],
            Raises = input.Raises is null
                ? null
                : [.. input.Raises.Select(raise => raise with { RungId = library.Today(raise.RungId) })],
        };

    private static PlanItem Of(PlanItem item, PracticeLibrary library) =>
        item with
        {
            RungId = library.Today(item.RungId),
            Spell = item.Spell is { } spell ? spell with { RungId = library.Today(spell.RungId) } : null,
        };

    /// <summary>A rung looked at for itself stays so; a climb of a ladder that is no more becomes its rungs, each for itself.</summary>
    private static string? TaskOf(TrialStarted started, string now, PracticeLibrary library) =>
        library.FindTask(started.TaskId) is { } task
        && (task.Ladder is not null || task.Id.StartsWith(ScreenTask.RungPrefix, StringComparison.Ordinal))
            ? ScreenTask.RungPrefix + now
            : started.TaskId;
}
