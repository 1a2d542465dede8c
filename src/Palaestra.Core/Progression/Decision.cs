using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>What becomes of an exercise on one side.</summary>
public enum Outcome
{
    StepUp,
    Add,
    Stay,
    Ease,
    StepDown,
    Stop,
}

/// <summary>The proposal for one exercise and side.</summary>
/// <param name="RungId">The rung it moves to (or stays on).</param>
/// <param name="Evidence">The numbers the rule saw, in words.</param>
/// <param name="WouldChange">What would have changed it, found by trying; none when nothing tried did.</param>
public sealed record Decision(
    Guid PlanItemId,
    Side Side,
    Outcome Outcome,
    string RuleId,
    string RungId,
    Dose Dose,
    IReadOnlyList<string> Evidence,
    string? WouldChange
);

/// <summary>Everything the rules look at for one visit.</summary>
/// <param name="Visit">Ordinal of the visit to decide.</param>
/// <param name="Visits">Performances of this visit and the ones before, in any order.</param>
/// <param name="LastWorkDate">The last day with training before this visit; none if never.</param>
public sealed record DecideInput(
    int Visit,
    DateOnly Date,
    ClientProfile Profile,
    string PolicyId,
    IReadOnlyList<PlanItem> Items,
    CheckIn CheckIn,
    IReadOnlyList<Performance> Visits,
    DateOnly? LastWorkDate
);
