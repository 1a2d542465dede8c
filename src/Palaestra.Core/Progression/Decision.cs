using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
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

    /// <summary>Stalled: one thing is changed: the ladder, the strategy or the switch-on.</summary>
    Change,
}

/// <summary>The proposal for one exercise and side.</summary>
/// <param name="RungId">The rung it moves to (or stays on).</param>
/// <param name="Evidence">The numbers the rule saw, in words.</param>
/// <param name="WouldChange">What would have changed it, found by trying; none when nothing tried did.</param>
/// <param name="ChangedOn">The day of a change; it goes with the exercise into the next plan.</param>
/// <param name="Todo">What a change asks to do; none where the outcome says it all.</param>
/// <param name="Strategy">The other strategy that a change proposes, or <paramref name="SwitchOn"/>; none of both: another ladder.</param>
public sealed record Decision(
    Guid PlanItemId,
    Side Side,
    Outcome Outcome,
    string RuleId,
    string RungId,
    Dose Dose,
    IReadOnlyList<string> Evidence,
    string? WouldChange,
    SpinalStrategy? Strategy = null,
    SwitchOn? SwitchOn = null,
    string? Todo = null,
    DateOnly? ChangedOn = null
);

/// <summary>Everything the rules look at for one visit.</summary>
/// <param name="Visit">Ordinal of the visit to decide.</param>
/// <param name="Visits">Performances of this visit and the ones before, in any order.</param>
/// <param name="LastWorkDate">The last day with training before this visit; none if never.</param>
/// <param name="Home">The home log since the last visit; none or empty: nothing was brought, and nothing is concluded.</param>
/// <param name="OpenedOn">First day of the episode, for the calendar school; none: the map is not looked at.</param>
/// <param name="Entries">Entry rungs of the last screen, for another ladder when one stalls.</param>
/// <param name="Equipment">What is at hand; none: everything.</param>
/// <param name="Strategy">In force. <paramref name="SwitchOn"/> likewise; none: they are not changed.</param>
public sealed record DecideInput(
    int Visit,
    DateOnly Date,
    ClientProfile Profile,
    string PolicyId,
    IReadOnlyList<PlanItem> Items,
    CheckIn CheckIn,
    IReadOnlyList<Performance> Visits,
    DateOnly? LastWorkDate,
    IReadOnlyList<HomeWork>? Home = null,
    DateOnly? OpenedOn = null,
    IReadOnlyList<RungSearch>? Entries = null,
    IReadOnlyList<string>? Equipment = null,
    SpinalStrategy? Strategy = null,
    SwitchOn? SwitchOn = null
);
