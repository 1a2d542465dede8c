using System.Text.Json.Serialization;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>What becomes of an exercise on one side.</summary>
public enum Outcome
{
    /// <summary>The rung above.</summary>
    StepUp,

    /// <summary>More of the same.</summary>
    Add,

    /// <summary>As it is.</summary>
    Stay,

    /// <summary>Less of the same.</summary>
    Ease,

    /// <summary>The rung below.</summary>
    StepDown,

    /// <summary>Not for now.</summary>
    Stop,

    /// <summary>Stalled: one thing is changed: the ladder, the strategy or the switch-on.</summary>
    Change,
}

/// <summary>A rule that fired, what it asked for by itself, and what it saw.</summary>
public sealed record FiredRule(string RuleId, Outcome Outcome, IReadOnlyList<Message> Evidence);

/// <summary>The proposal for one exercise and side: the mildest of all that the rules ask for.</summary>
/// <param name="RuleId">The rule whose outcome is taken. <paramref name="Fired"/>: all that fired, that one first.</param>
/// <param name="RungId">The rung it moves to (or stays on).</param>
/// <param name="Evidence">The numbers the rules saw, in words; pain that rose comes first.</param>
/// <param name="WouldChange">What would have changed it, found by trying; none when nothing tried did.</param>
/// <param name="ChangedOn">The day of a change; it goes with the exercise into the next plan.</param>
/// <param name="Todo">What to do beside it; none where the outcome says it all.</param>
/// <param name="Strategy">The other strategy that a change proposes, or <paramref name="Activation"/>; none of both: another ladder.</param>
/// <param name="Spell">A while of rest, or of half the sets, that begins.</param>
/// <param name="LoadMore">By how much the load rises in the ladder's own direction, share of the present one, below 0 for less; none where the rung stays as it is or neither asks for it.</param>
/// <param name="Probe">D-READY: one set one up that may be tried today; none where it is not ready.</param>
/// <param name="Notes">What is to stand first on the card and on the home programme from now on.</param>
public sealed record Decision(
    Guid PlanItemId,
    Side Side,
    Outcome Outcome,
    string RuleId,
    string RungId,
    Dose Dose,
    IReadOnlyList<Message> Evidence,
    Message? WouldChange,
    SpinalStrategy? Strategy = null,
    [property: JsonPropertyName("switchOn")] Activation? Activation = null,
    Message? Todo = null,
    DateOnly? ChangedOn = null,
    IReadOnlyList<FiredRule>? Fired = null,
    Spell? Spell = null,
    double? LoadMore = null,
    IReadOnlyList<Message>? Notes = null,
    ProbeOffer? Probe = null
)
{
    /// <summary>The evidence that says how long nothing has changed.</summary>
    public const string StandstillId = "plateau.same";

    /// <summary>How long nothing has changed; of a decision made before messages had ids, the first of its evidence. A stalled exercise only.</summary>
    [JsonIgnore]
    public Message Standstill => Evidence.FirstOrDefault(said => said.Id == StandstillId) ?? Evidence[0];

    /// <summary>Ids of all rules that fired, the deciding one first.</summary>
    public IReadOnlyList<string> Rules =>
        [
            .. (Fired ?? [])
                .Select(rule => rule.RuleId)
                .Prepend(RuleId)
                .Concat(Probe is null ? [] : ["D-READY"])
                .Distinct(),
        ];
}

/// <summary>Everything the rules look at for one visit. What is absent was not asked or is not known.</summary>
/// <param name="Visit">Ordinal of the visit to decide.</param>
/// <param name="Visits">Performances of this visit and the ones before, in any order.</param>
/// <param name="LastWorkDate">The last day with training before this visit; none if never, or not known: then nothing is concluded.</param>
/// <param name="Home">The home log since the last visit; none or empty: nothing was brought, and nothing is concluded.</param>
/// <param name="OpenedOn">First day of the episode, for the calendar school; none: the map is not looked at.</param>
/// <param name="Entries">Entry rungs of the last screen, for another ladder when one stalls.</param>
/// <param name="Equipment">What is at hand; none: everything.</param>
/// <param name="Strategy">In force. <paramref name="Activation"/> likewise; none: they are not changed.</param>
/// <param name="Pain">Earlier check-ins, for the reference pain; none: this visit's usual pain is its own reference.</param>
/// <param name="Sessions">Pain of this session and of earlier ones; none: as far as the sets of today tell.</param>
/// <param name="Raises">What earlier visits made harder; none: nothing that is known.</param>
/// <param name="SetUps">Changes of set-up that were tried.</param>
/// <param name="HomePain">Pain by day in the home log since the last visit.</param>
/// <param name="KnownTremor">The client trembles by themselves: shaking says nothing of effort.</param>
/// <param name="Broke">Loads at which form broke in the last screen, by rung; none: none that is known.</param>
/// <param name="Probes">What was tried one up at this visit and earlier ones; none: nothing that is known.</param>
/// <param name="HomeLong">The home log of two weeks or more of the same exercises; none: not so long, or not written down.</param>
/// <param name="WeakestSector">Lowest direction of the last screen, to be screened again after a long time away.</param>
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
    [property: JsonPropertyName("switchOn")] Activation? Activation = null,
    PainHistory? Pain = null,
    IReadOnlyList<SessionPain>? Sessions = null,
    IReadOnlyList<Raise>? Raises = null,
    IReadOnlyList<SetUpTry>? SetUps = null,
    IReadOnlyList<HomePain>? HomePain = null,
    bool KnownTremor = false,
    Sector? WeakestSector = null,
    IReadOnlyList<BrokeLoad>? Broke = null,
    IReadOnlyList<ProbeDone>? Probes = null,
    IReadOnlyList<HomeWork>? HomeLong = null
);

/// <summary>The smallest load of a screen at which form broke. <paramref name="Load"/>: kilograms, above 0.</summary>
public sealed record BrokeLoad(string RungId, double Load);
