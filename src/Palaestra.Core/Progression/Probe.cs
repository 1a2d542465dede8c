using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>One set one up, as it was tried at the end of an exercise.</summary>
/// <param name="Visit">Ordinal of the visit, <paramref name="On"/> that day.</param>
/// <param name="Side">Of what was tried: a rung of both sides may be followed by one of each.</param>
/// <param name="RungId">What was tried: a higher rung, or the same in a harder setting, at <paramref name="Dose"/>, of one set.</param>
public sealed record ProbeDone(
    Guid PlanItemId,
    Side Side,
    int Visit,
    DateOnly On,
    string RungId,
    Dose Dose,
    SetDone Set
)
{
    /// <summary>The tries of a visit: of each exercise and side the worst, by pain and then by what was clean.</summary>
    public static IReadOnlyList<ProbeDone> FromTrials(
        int visit,
        DateOnly date,
        IReadOnlyList<PlanItem> items,
        IReadOnlyList<Trial> trials
    ) =>
        [
            .. from item in items
            from side in trials
                .Where(t =>
                    t is { Open: false, Purpose: TrialPurpose.Session, Probe: true }
                    && t.PlanItemId == item.Id
                )
                .GroupBy(t => t.Side)
            select side.Select(t => Of(item.Id, visit, date, t))
                .OrderByDescending(probe => probe.Set.PainOver || probe.Set.EndedForPain)
                .ThenBy(probe => (double)probe.Set.CleanReps / probe.Dose.Reps)
                .First(),
        ];

    private static ProbeDone Of(Guid item, int visit, DateOnly date, Trial trial)
    {
        var dose = trial.Target with { Sets = 1, Load = trial.Load ?? trial.Target.Load };
        return new(
            item,
            trial.Side,
            visit,
            date,
            trial.RungId,
            dose,
            Performance.Set(trial, trial.RungId, dose)
        );
    }
}

/// <summary>What is offered in a session, once an exercise is done.</summary>
/// <param name="Side">Of what is tried.</param>
public sealed record SessionProbe(Guid PlanItemId, Side Side, ProbeOffer Offer)
{
    /// <summary>
    /// The other side of what was begun first, then in the plan's order; every side of what is tried, those tried already left
    /// out.
    /// </summary>
    public static IReadOnlyList<SessionProbe> Of(DecideInput input, PracticeLibrary library)
    {
        var today = (input.Probes ?? []).Where(p => p.Visit == input.Visit).ToList();
        var offered = Sides(DecisionEngine.Bare(input, library), library);
        var begun = today
            .GroupBy(p => p.PlanItemId)
            .Where(item => item.All(p => p.Set is { BreakingReps: 0, PainOver: false, EndedForPain: false }))
            .Select(item => item.Key)
            .ToHashSet();
        if (begun.Count == 0 || new DayFacts(input, library).Holds.Count > 0)
        {
            return [.. offered];
        }
        // The other side of what was begun and held: offered as it was before the first.
        var before = input with
        {
            Probes = [.. input.Probes!.Where(p => p.Visit < input.Visit)],
        };
        return
        [
            .. Sides(DecisionEngine.Bare(before, library), library)
                .Where(probe =>
                    begun.Contains(probe.PlanItemId)
                    && today.All(p => p.PlanItemId != probe.PlanItemId || p.Side != probe.Side)
                ),
            .. offered,
        ];
    }

    private static IEnumerable<SessionProbe> Sides(
        IReadOnlyList<Decision> decisions,
        PracticeLibrary library
    ) =>
        from item in decisions.Where(d => d.Probe is not null).GroupBy(d => d.PlanItemId)
        from side in library.Rung(item.First().Probe!.RungId).TaskSides
        let own = item.FirstOrDefault(d => d.Side == side) ?? item.First()
        select new SessionProbe(item.Key, side, own.Probe!);
}

/// <summary>One set one up that may be tried today, at the end of this exercise and warm.</summary>
/// <param name="RungId">The next rung, or the same where range, height, load or band grow.</param>
/// <param name="Dose">One set. <paramref name="Evidence"/>: why it is ready.</param>
/// <param name="Changes">What the client's cautions change about it.</param>
public sealed record ProbeOffer(
    string RungId,
    Dose Dose,
    IReadOnlyList<Message> Evidence,
    IReadOnlyList<Message> Changes
);
