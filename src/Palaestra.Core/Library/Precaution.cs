using Palaestra.Core.Charts;

namespace Palaestra.Core.Library;

/// <summary>What a precaution does to a rung it speaks of.</summary>
public enum PrecautionEffect
{
    /// <summary>Allowed, and wanted.</summary>
    Prefer,

    /// <summary>Allowed with a change.</summary>
    Caution,

    /// <summary>Never proposed; only with a written reason.</summary>
    Bar,
}

/// <summary>The most of a rung that a precaution lets through.</summary>
/// <param name="Hold">Seconds of one hold; none: any.</param>
/// <param name="Seconds">Seconds of work at a stretch, that is in one set of one side; none: any.</param>
public sealed record DoseLimit(double? Hold = null, double? Seconds = null)
{
    /// <summary>Nothing is limited.</summary>
    public static readonly DoseLimit None = new();

    /// <summary>The tighter of each.</summary>
    public DoseLimit And(DoseLimit other) => new(Least(Hold, other.Hold), Least(Seconds, other.Seconds));

    /// <param name="moveSeconds">Seconds one rep takes without its hold.</param>
    public bool LetsThrough(Dose dose, double moveSeconds) =>
        !(dose.Hold > Hold) && !(dose.Reps * (dose.Hold + moveSeconds) > Seconds);

    private static double? Least(double? a, double? b) =>
        a is null ? b
        : b is null ? a
        : Math.Min(a.Value, b.Value);
}

/// <summary>
/// One line of a precaution. It looks for a ladder, a feature of the rung, a position, some rungs, a rung and those above it,
/// a spinal strategy, or everything; exactly one is given.
/// </summary>
/// <param name="OnItsSide">Holds only for the side the precaution names.</param>
/// <param name="Range">For a change that shortens the movement: the share of it that is left, above 0 to 1.</param>
/// <param name="From">A rung; the rungs above it on its ladder are meant too.</param>
/// <param name="Unless">A feature that lets a rung off.</param>
/// <param name="When">Options of the precaution it holds for; none: for all of them.</param>
/// <param name="Beyond">It holds only for more than this dose; none: for any dose.</param>
/// <param name="WorkingSide">The side the precaution names is the only one that is trained.</param>
/// <param name="InAll">Of a position: seconds of work in it over the whole plan.</param>
public sealed record PrecautionRule(
    PrecautionEffect Effect,
    string Words,
    string? Ladder = null,
    string? Feature = null,
    string? Strategy = null,
    string? Change = null,
    bool OnItsSide = false,
    double? Range = null,
    string? Position = null,
    IReadOnlyList<string>? Rungs = null,
    string? From = null,
    bool Everything = false,
    string? Unless = null,
    IReadOnlyList<string>? When = null,
    DoseLimit? Beyond = null,
    bool WorkingSide = false,
    double? InAll = null
)
{
    /// <summary>Whether the rule speaks of that rung.</summary>
    public bool Concerns(Rung rung, Ladder ladder) =>
        (
            Everything
            || Ladder == ladder.Id
            || Position == rung.Position
            || (Feature is { } feature && rung.Features.Contains(feature))
            || Rungs?.Contains(rung.Id) == true
            || (
                From is { } from && ladder.IndexOf(from) is >= 0 and var low && ladder.IndexOf(rung.Id) >= low
            )
        ) && (Unless is null || !rung.Features.Contains(Unless));
}

/// <summary>Something to tick beside a precaution: a third of pregnancy, a line of the surgeon's note.</summary>
public sealed record PrecautionOption(string Id, string Words, LegReach? Reach = null);

/// <summary>What a precaution is to the rules, whatever the content calls it.</summary>
public enum PrecautionMeaning
{
    /// <summary>Asked about at every visit, for each leg; its options say how far down it runs.</summary>
    LegPain,
}

/// <summary>A condition of the client that bars, changes or favours rungs.</summary>
/// <param name="Options">What to tick beside it. Nothing ticked: all of them hold, which is the stricter.</param>
/// <param name="Many">Whether more than one option can be ticked.</param>
/// <param name="Dated">Whether somebody is to look at it again from a date on.</param>
/// <param name="Below">Every client below this age has it, in whole years; none: it is ticked.</param>
/// <param name="NoProbes">D-READY: nothing is tried one up; steps are earned in full.</param>
/// <param name="OwnTremor">D-TREMOR: the client trembles by themselves; shaking says nothing of effort.</param>
/// <param name="CountsBending">The week's bending is added up and held against the policy's limit.</param>
/// <param name="Means">What it is to the rules; none for most.</param>
/// <param name="BendingWhen">Options for which it is; none: for all.</param>
public sealed record Precaution(
    string Id,
    string Name,
    string Tag,
    bool Sided,
    string Explains,
    IReadOnlyList<PrecautionRule> Rules,
    IReadOnlyList<PrecautionOption>? Options = null,
    bool Many = false,
    bool Dated = false,
    int? Below = null,
    bool CountsBending = false,
    bool NoProbes = false,
    bool OwnTremor = false,
    IReadOnlyList<string>? BendingWhen = null,
    PrecautionMeaning? Means = null
);

/// <summary>What is said of a plan for a client below some age.</summary>
/// <param name="RuleId">P-GUARDIAN or P-YOUNG-ARCH.</param>
/// <param name="Below">Whole years.</param>
/// <param name="Goal">Only with this goal. <paramref name="Precaution"/>: only with this precaution; none: always.</param>
public sealed record AgeNote(
    string RuleId,
    int Below,
    string Words,
    string? Goal = null,
    string? Precaution = null
);

/// <summary>A finding that stops the session until a practitioner has recorded what was done.</summary>
/// <param name="SameDay">Send on the same day.</param>
/// <param name="LaterVisits">Asked from the second visit on: it tells of a change.</param>
/// <param name="Emergency">Stop, and emergency care.</param>
/// <param name="Worry">What a set was stopped for that is this red flag; none: no such answer is.</param>
/// <param name="Chart">What on a body chart asks for it at once; none: nothing does.</param>
public sealed record DangerSign(
    string Id,
    string Words,
    bool SameDay,
    bool LaterVisits = false,
    bool Emergency = false,
    Worry? Worry = null,
    ChartTrigger? Chart = null
);

/// <summary>What of a body chart makes a question wanted.</summary>
/// <param name="Zones">Any of them is enough.</param>
/// <param name="Kinds">Any of them is enough; none: any kind.</param>
/// <param name="BothSides">Only where it is on both sides.</param>
public sealed record ChartTrigger(
    IReadOnlyList<ChartZone> Zones,
    IReadOnlyList<PainKind>? Kinds = null,
    bool BothSides = false
);
