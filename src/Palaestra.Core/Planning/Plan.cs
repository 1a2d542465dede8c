using System.Text.Json.Serialization;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>The dose of one side of an exercise.</summary>
public sealed record SideDose
{
    /// <param name="range">
    /// Share of the movement that is asked for; where the dose says one too the smaller holds.
    /// </param>
    [JsonConstructor]
    public SideDose(
        Side side,
        Dose dose,
        double range = 1,
        Message? rangeEnds = null,
        double? rangeLoadPercent = null
    )
    {
        Side = side;
        // What cannot be a share is kept as it is, for the check to name it.
        Dose = range > 1 || dose.Range <= 1 && !(range >= dose.Range) ? dose with { Range = range } : dose;
        RangeEnds = rangeEnds;
        RangeLoadPercent = rangeLoadPercent;
    }

    /// <summary>The side it is for.</summary>
    public Side Side { get; init; }

    /// <summary>Reps, sets and hold, over the range, at the height and under the load that were held clean.</summary>
    public Dose Dose { get; init; }

    /// <summary>Share of the movement that is asked for, <see cref="PlanRange.Least"/> to 1: the dose's own.</summary>
    public double Range => Dose.Range;

    /// <summary>Where a shorter range ends, in words; none at the full range.</summary>
    public Message? RangeEnds { get; init; }

    /// <summary>
    /// What a shorter range asks for of the full one, in the direction of the ladder; none at the full range, and where that
    /// direction is not asked for.
    /// </summary>
    public double? RangeLoadPercent { get; init; }
}

/// <summary>Why an exercise is done less, or not at all, for a while.</summary>
public enum SpellKind
{
    /// <summary>It hurt at its lowest: it rests.</summary>
    Rest,

    /// <summary>Half the sets after a flare.</summary>
    Half,
}

/// <summary>A while in which an exercise rests or is halved, and what it goes back to.</summary>
/// <param name="Until">The last day of it; none: counted in visits. <paramref name="Visits"/>: visits still to come in it.</param>
/// <param name="RungId">What it goes back to, at <paramref name="Then"/>.</param>
public sealed record Spell(
    SpellKind Kind,
    DateOnly? Until,
    int? Visits,
    string RungId,
    IReadOnlyList<SideDose> Then
);

/// <summary>One exercise of a plan. Doses stand in the order they are done: the weaker side first.</summary>
/// <param name="Changes">What to change about it for this client, from cautions.</param>
/// <param name="Minutes">Time for all sides and sets, rests and set-up included.</param>
/// <param name="ChangedOn">The day one thing about it was changed because it had stalled: standing still is counted from there.</param>
/// <param name="Spell">Why it rests or is halved for a while; none: it does not.</param>
/// <param name="Notes">What stands first on its card and on the home programme: the cue that worked, the set-up to try.</param>
/// <param name="BarOverride">The practitioner's written reason for a rung that a precaution bars; none otherwise.</param>
public sealed record PlanItem(
    Guid Id,
    string RungId,
    Message For,
    IReadOnlyList<SideDose> Doses,
    IReadOnlyList<Reason> Reasons,
    IReadOnlyList<Message> Changes,
    string Cue,
    double Minutes = 0,
    string? BarOverride = null,
    DateOnly? ChangedOn = null,
    Spell? Spell = null,
    IReadOnlyList<Message>? Notes = null
)
{
    /// <summary>It stays in the plan and is not done for now.</summary>
    [JsonIgnore]
    public bool Resting => Spell is { Kind: SpellKind.Rest };

    /// <summary>What halves it for now, and what it goes back to, for the client; none where it is done as it stands.</summary>
    public Message? HalvedWords() =>
        Spell is { Kind: SpellKind.Half, Until: { } until } && Spell.Then is [var then, ..]
            ? Message.Of("plan.halved", ("until", until), ("dose", then.Dose.Said()))
            : null;

    /// <summary>As it is to be done on a day: after the last day of halved sets it is as before.</summary>
    public PlanItem On(DateOnly day) =>
        Spell is { Kind: SpellKind.Half, Until: { } until } && day > until
            ? this with
            {
                Spell = null,
                Doses = [.. Doses.Select(d => Spell.Then.FirstOrDefault(then => then.Side == d.Side) ?? d)],
            }
            : this;
}

/// <summary>A rung the client's precautions forbid, and why.</summary>
public sealed record ForbiddenRung(string RungId, Message Why);

/// <summary>Something to look at before accepting. Blocking warnings must be mended or given a written reason.</summary>
public sealed record PlanWarning(Guid? ItemId, string RuleId, Message Words, bool Blocks);

/// <summary>A plan as proposed or edited, before it is stored as a revision.</summary>
public sealed record Plan(
    IReadOnlyList<PlanItem> Items,
    SpinalStrategy Strategy,
    [property: JsonPropertyName("switchOn")] Activation Activation,
    string PolicyId,
    int PolicyVersion,
    string LibraryVersion,
    double TotalMinutes,
    IReadOnlyList<PlanWarning> Warnings
)
{
    /// <summary>As it is to be done on a day, without what rests.</summary>
    public Plan ToDoOn(DateOnly day) =>
        this with
        {
            Items = [.. Items.Where(item => !item.Resting).Select(item => item.On(day))],
        };
}

/// <summary>What a plan is made from.</summary>
/// <param name="MinutesPerDay">Minutes the client really has, 1 to 90.</param>
/// <param name="Body">For the load of a shorter range; none: a typical body.</param>
/// <param name="Goals">What the client wants to do again, by id.</param>
/// <param name="Equipment">What is at hand, by id; none: it was not asked, and only a mat is taken to be.</param>
/// <param name="Age">Whole years, 0 to 120; none: not known. Under 16 planks and loads are held back.</param>
/// <param name="Locked">Exercises that stay as they are.</param>
/// <param name="LeftOut">Rungs that are not wanted.</param>
public sealed record PlanInput(
    ClientProfile Profile,
    Findings.ScreenFindings Findings,
    string PolicyId,
    SpinalStrategy Strategy,
    [property: JsonPropertyName("switchOn")] Activation Activation,
    double MinutesPerDay,
    BodySize? Body = null,
    IReadOnlyList<string>? Goals = null,
    IReadOnlyList<string>? Equipment = null,
    IReadOnlyList<PlanItem>? Locked = null,
    IReadOnlyList<string>? LeftOut = null,
    int? Age = null
)
{
    /// <summary>Minutes a day at least.</summary>
    public const double MinutesMin = 1;

    /// <summary>Minutes a day at most.</summary>
    public const double MinutesMax = 90;

    internal bool Left(string rungId) => LeftOut?.Contains(rungId) == true;
}

/// <summary>What a plan is worth, in points, and from what. See docs/planning.md.</summary>
/// <param name="Cover">Directions that need it, by how much of what is on offer for them is taken.</param>
/// <param name="Rest">Everything else: three exercises, a base, goals, what suits, less what it costs.</param>
public sealed record PlanScore(double Points, double Cover, double Rest);

/// <summary>Another plan, told by what it changes.</summary>
/// <param name="MinutesPerDay">For how many minutes it was sought.</param>
/// <param name="Added">Rungs that come in, and <paramref name="Dropped"/>, that go.</param>
/// <param name="Words">One sentence.</param>
public sealed record OtherPlan(
    double MinutesPerDay,
    double TotalMinutes,
    double Points,
    IReadOnlyList<string> RungIds,
    IReadOnlyList<string> Added,
    IReadOnlyList<string> Dropped,
    Message Words
);

/// <param name="NotChosen">Ladders that the plan leaves out, with the reason.</param>
/// <param name="Score">None when nothing fits the minutes, and the plan is only the nearest to it.</param>
/// <param name="RunnerUp">The best plan with other exercises in the same minutes; none where there is no other.</param>
/// <param name="FiveLess">With five minutes less; none below a minute.</param>
/// <param name="Notes">What could not be met, and what was done instead: P-NEAREST-…, P-LOCK-….</param>
public sealed record PlanProposal(
    Plan Plan,
    [property: JsonPropertyName("stirredUp")] Irritability Irritability,
    IReadOnlyList<ForbiddenRung> Forbidden,
    IReadOnlyList<Reason> NotChosen,
    PlanScore? Score = null,
    OtherPlan? RunnerUp = null,
    OtherPlan? FiveLess = null,
    OtherPlan? FiveMore = null,
    IReadOnlyList<Reason>? Notes = null
);
