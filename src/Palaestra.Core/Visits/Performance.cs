using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Visits;

/// <summary>One set as it was done.</summary>
/// <param name="CleanReps">Without a cue. <paramref name="CuedCleanReps"/>: after one.</param>
/// <param name="BreakingReps">Reps in which the trunk gave way.</param>
/// <param name="CueFixed">True or false when a cue was given; none when not.</param>
/// <param name="PainOver">Pain went over the policy's limit.</param>
public sealed record SetDone(
    int Reps,
    int CleanReps,
    int CuedCleanReps,
    int BreakingReps,
    double CleanSeconds,
    bool PainOver,
    bool? CueFixed,
    int? Effort,
    string? FirstFault
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
    public int Reps => Sets.Sum(set => set.Reps);
    public int CleanReps => Sets.Sum(set => set.CleanReps);
    public int AllCleanReps => Sets.Sum(set => set.CleanReps + set.CuedCleanReps);
    public int BreakingReps => Sets.Sum(set => set.BreakingReps);
    public int PainSets => Sets.Count(set => set.PainOver);
    public int? Effort => Sets.Select(set => set.Effort).Max();

    /// <summary>Clean reps, cued ones included, over those asked for; 0 or more.</summary>
    public double DoneFraction => (double)AllCleanReps / Prescribed.TotalReps;

    /// <summary>Some cue was given and every cue given held.</summary>
    public bool CueFixed => Sets.Any(set => set.CueFixed == true) && Sets.All(set => set.CueFixed != false);

    /// <summary>Every set and rep asked for was clean, without a cue or a painful set.</summary>
    public bool AllClean =>
        PainSets == 0
        && Sets.Count >= Prescribed.Sets
        && CleanReps >= Prescribed.TotalReps
        && BreakingReps == 0;

    /// <summary>All clean at a dose that covers the rung's target.</summary>
    public bool MeetsTarget(Rung rung) => AllClean && rung.Id == RungId && Prescribed.Covers(rung.Target);

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
                    && t.Side == side.Side
                )
                .OrderBy(t => t.StartedAt)
                .Select(Set)
                .ToList()
            where sets.Count > 0
            select new Performance(visit, date, item.Id, item.RungId, side.Side, side.Dose, sets),
        ];

    private static SetDone Set(Trial trial) =>
        new(
            trial.Total,
            trial.Clean.Reps,
            trial.Clean.CuedReps,
            trial.BreakingReps,
            trial.Clean.Seconds,
            trial.PainOverLimit || trial.EndReason == EndReason.Pain,
            trial.CueGiven ? trial.CueWorked ?? false : null,
            trial.Effort,
            trial.FirstBreak?.Fault
        );
}
