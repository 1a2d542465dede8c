using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>One set one up, as it was tried at the end of an exercise.</summary>
/// <param name="Visit">Ordinal of the visit, <paramref name="On"/> that day.</param>
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
    /// <summary>The tries of a visit: of each exercise and side the first that counts; a second one the same day tells no more.</summary>
    public static IReadOnlyList<ProbeDone> FromTrials(
        int visit,
        DateOnly date,
        IReadOnlyList<PlanItem> items,
        IReadOnlyList<Trial> trials
    ) =>
        [
            .. from item in items
            from side in item.Doses
            let first = trials
                .Where(t =>
                    t is { Open: false, Purpose: TrialPurpose.Session, Probe: true }
                    && t.PlanItemId == item.Id
                    && t.For == side.Side
                )
                .MinBy(t => t.StartedAt)
            where first is not null
            let dose = first.Target with
            {
                Sets = 1,
                Load = first.Load ?? first.Target.Load,
            }
            select new ProbeDone(
                item.Id,
                side.Side,
                visit,
                date,
                first.RungId,
                dose,
                Performance.Set(first, first.RungId, dose)
            ),
        ];
}

/// <summary>What is offered in a session, once an exercise is done.</summary>
public sealed record SessionProbe(Guid PlanItemId, Side Side, ProbeOffer Offer)
{
    /// <summary>In the plan's order; of a two-sided exercise both sides, those tried already left out.</summary>
    public static IReadOnlyList<SessionProbe> Of(DecideInput input, PracticeLibrary library)
    {
        var before = input with { Probes = [.. (input.Probes ?? []).Where(p => p.Visit < input.Visit)] };
        var today = (input.Probes ?? []).Where(p => p.Visit == input.Visit).ToList();
        var begun = today
            .GroupBy(p => p.PlanItemId)
            .Where(item => item.All(p => p.Set is { BreakingReps: 0, PainOver: false, EndedForPain: false }))
            .Select(item => item.Key)
            .ToHashSet();
        return
        [
            .. from decision in DecisionEngine.Bare(input, library)
            let offer = decision.Probe
            where offer is not null
            select new SessionProbe(decision.PlanItemId, decision.Side, offer),
            // The other side of what was begun: offered as it was before the first one, where that held.
            .. from decision in begun.Count == 0 ? [] : DecisionEngine.Bare(before, library)
            let offer = decision.Probe
            where
                offer is not null
                && begun.Contains(decision.PlanItemId)
                && today.All(p => p.PlanItemId != decision.PlanItemId || p.Side != decision.Side)
                && new DayFacts(input, library).Holds.Count == 0
            select new SessionProbe(decision.PlanItemId, decision.Side, offer),
        ];
    }
}

/// <summary>One set one up that may be tried today, at the end of this exercise and warm.</summary>
/// <param name="RungId">The next rung, or the same where range, height, load or band grow.</param>
/// <param name="Dose">One set. <paramref name="Evidence"/>: why it is ready.</param>
public sealed record ProbeOffer(string RungId, Dose Dose, IReadOnlyList<string> Evidence);
