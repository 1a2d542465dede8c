using System.Text.Json.Serialization;
using Palaestra.Core.Library;

namespace Palaestra.Core.Capture;

/// <summary>Whether a trial ought to be stopped, and why; none while it may go on.</summary>
public sealed record StopAdvice(Guid TrialId, StopTrigger? Stop);

/// <summary>One set of a session that was done; of a rung with ways that are counted apart, one way of it.</summary>
public sealed record SetWork(
    Guid PlanItemId,
    Side Side,
    int Set,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Way = null
);

/// <summary>What the events of a visit say of its session, plan aside.</summary>
/// <param name="Skipped">Exercises left out. <paramref name="Added"/>: taken in, by their own ids, in order.</param>
/// <param name="Done">Sets that ended, in the order they began; probes are none.</param>
/// <param name="Pain">Pain over the session; none where nothing was done in one.</param>
public sealed record SessionFold(
    IReadOnlyList<Guid> Skipped,
    IReadOnlyList<Guid> Added,
    IReadOnlyList<SetWork> Done,
    SessionPainFold? Pain
);

/// <param name="Peak">The most told in any set. <paramref name="End"/>: asked again at the end, else the last value told; none where none was.</param>
public sealed record SessionPainFold(int? Peak, int? End);

/// <summary>All that a list of events folds to: what the tablet and the server must both say.</summary>
public sealed record FoldAnswer(
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<StopAdvice> Stop,
    SessionFold Session
)
{
    /// <param name="painAtStart">Pain when the visit began, 0 to 10; none if not known.</param>
    public static FoldAnswer Of(
        IReadOnlyList<CaptureEvent> events,
        Policy policy,
        PracticeLibrary library,
        int? painAtStart = null
    )
    {
        var trials = TrialFold.Trials(events, library, policy.Pain, painAtStart);
        var standing = TrialFold.Effective(events);
        var session = trials.Where(t => t.Purpose == TrialPurpose.Session).ToList();
        var (peak, end, _) = SessionPain.Told(standing, session);
        return new FoldAnswer(
            trials,
            [.. trials.Select(trial => new StopAdvice(trial.Id, StopSigns.Of(trial, policy, library)))],
            new SessionFold(
                [.. standing.OfType<ExerciseSkipped>().Select(e => e.PlanItemId).Distinct()],
                [.. standing.OfType<ExerciseAdded>().Select(e => e.PlanItemId)],
                [
                    .. session
                        .Where(t => t is { Open: false, Probe: false, PlanItemId: not null })
                        .Select(t => new SetWork(t.PlanItemId!.Value, t.For, t.Set, t.Variant)),
                ],
                session.Count == 0 ? null : new SessionPainFold(peak, end)
            )
        );
    }
}
