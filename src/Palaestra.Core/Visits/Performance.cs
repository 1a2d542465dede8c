using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Visits;

/// <summary>One set as it was done.</summary>
/// <param name="CleanReps">Without a cue. <paramref name="CuedCleanReps"/>: after one.</param>
/// <param name="BreakingReps">Reps in which the trunk gave way.</param>
/// <param name="CueFixed">True or false when a cue was given; none when not.</param>
/// <param name="PainOver">Pain went over the policy's limit.</param>
/// <param name="Eased">Done easier than asked: a shorter range, fewer seconds, a shorter lever, more support or a lower rung.</param>
public sealed record SetDone(
    int Reps,
    int CleanReps,
    int CuedCleanReps,
    int BreakingReps,
    double CleanSeconds,
    bool PainOver,
    bool? CueFixed,
    int? Effort,
    string? FirstFault,
    bool Eased = false
);

/// <summary>What one side of one exercise did in one visit, against what was asked.</summary>
/// <param name="Visit">Ordinal of the visit in the episode, 1 or more; later visits have larger ones.</param>
public sealed record Performance(
    int Visit,
    DateOnly Date,
    Guid PlanItemId,
    string RungId,
    Side Side,
    Dose Prescribed,
    IReadOnlyList<SetDone> Sets
)
{
    /// <summary>Sets done as they were asked for: only these speak for or against the dose.</summary>
    private IEnumerable<SetDone> AsAsked => Sets.Where(set => !set.Eased);

    public int Reps => AsAsked.Sum(set => set.Reps);
    public int CleanReps => AsAsked.Sum(set => set.CleanReps);
    public int AllCleanReps => AsAsked.Sum(set => set.CleanReps + set.CuedCleanReps);
    public int BreakingReps => AsAsked.Sum(set => set.BreakingReps);

    /// <summary>Reps begun: one that gave way and was never finished is among them.</summary>
    public int Tried => AsAsked.Sum(set => Math.Max(set.Reps, set.BreakingReps));
    public double CleanSeconds => AsAsked.Sum(set => set.CleanSeconds);
    public bool Eased => Sets.Any(set => set.Eased);
    public int PainSets => Sets.Count(set => set.PainOver);
    public int? Effort => Sets.Select(set => set.Effort).Max();

    /// <summary>Clean reps, cued ones included, over those asked for; 0 or more.</summary>
    public double DoneFraction => (double)AllCleanReps / Prescribed.TotalReps;

    /// <summary>Some cue was given and every cue given held.</summary>
    public bool CueFixed => Sets.Any(set => set.CueFixed == true) && Sets.All(set => set.CueFixed != false);

    /// <summary>Every set and rep asked for was clean, without a cue or a painful set.</summary>
    public bool AllClean =>
        PainSets == 0
        && AsAsked.Count() >= Prescribed.Sets
        && CleanReps >= Prescribed.TotalReps
        && BreakingReps == 0;

    /// <summary>All clean at a dose that covers the target.</summary>
    public bool Meets(Dose target) => AllClean && Prescribed.Covers(target);

    public static IReadOnlyList<Performance> FromTrials(
        int visit,
        DateOnly date,
        IReadOnlyList<Planning.PlanItem> items,
        IReadOnlyList<Trial> trials
    ) =>
        [
            .. from item in items
            from side in item.Doses
            let sets = trials
                .Where(t =>
                    t is { Open: false, Purpose: TrialPurpose.Session }
                    && t.PlanItemId == item.Id
                    && t.For == side.Side
                )
                .OrderBy(t => t.StartedAt)
                .Select(t => Set(t, item.RungId))
                .ToList()
            where sets.Count > 0
            select new Performance(visit, date, item.Id, item.RungId, side.Side, side.Dose, sets),
        ];

    private static SetDone Set(Trial trial, string asked) =>
        new(
            trial.Total,
            trial.Clean.Reps,
            trial.Clean.CuedReps,
            trial.BreakingReps,
            trial.Clean.Seconds,
            trial.PainOverLimit || trial.EndReason == EndReason.Pain,
            trial.CueGiven ? trial.CueWorked ?? false : null,
            trial.Effort,
            trial.FirstBreak?.Fault,
            trial.RungId != asked || trial.Eased.Count > 0
        );
}
