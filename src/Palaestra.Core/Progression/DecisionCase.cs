using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>One exercise on one side at one visit: the facts the D-rules look at, and the steps they may take.</summary>
internal sealed class DecisionCase
{
    private readonly List<Performance> history;

    public DecisionCase(
        DecideInput input,
        PlanItem item,
        Side side,
        PracticeLibrary library,
        OtherLadders others
    )
    {
        Others = others;
        Input = input;
        Item = item;
        Side = side;
        Library = library;
        Policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
        Rung = library.Rung(item.RungId);
        Dose = item.Doses.First(d => d.Side == side).Dose;
        Level = StirredUpLevel.Of(input.Profile, Policy);
        Goal = GoalOf(Rung);
        history = [.. input.Visits.Where(Concerns)];
        history.Sort((a, b) => b.Visit.CompareTo(a.Visit));
    }

    public DecideInput Input { get; }
    public OtherLadders Others { get; }
    public PlanItem Item { get; }
    public Side Side { get; }
    public PracticeLibrary Library { get; }
    public Policy Policy { get; }
    public Rung Rung { get; }
    public Dose Dose { get; }
    public StirredUp Level { get; }

    /// <summary>The dose that, met clean, earns the next rung: by the school, within what the precautions let through.</summary>
    public Dose Goal { get; }

    public IEnumerable<Side> Sides => Item.Doses.Select(d => d.Side);

    /// <summary>What was done of this rung on one side, the latest visit first.</summary>
    public IEnumerable<Performance> History(Side of) => history.Where(done => done.Side == of);

    public Performance? Today(Side of) =>
        history.Find(done => done.Side == of) is { } latest && latest.Visit == Input.Visit ? latest : null;

    private bool Concerns(Performance done) =>
        done.PlanItemId == Item.Id && done.RungId == Item.RungId && done.Visit <= Input.Visit;

    public HomeWork? Home(Side of) =>
        Input.Home?.FirstOrDefault(home => home.PlanItemId == Item.Id && home.Side == of);

    /// <summary>Days without training before this visit; none where the last day is not known.</summary>
    public int? DaysAway => Input.LastWorkDate is { } last ? Input.Date.DayNumber - last.DayNumber : null;

    public bool Returned => DaysAway >= Policy.AwayDays;

    private DoseLimit Limit => Allowance.Of(Library, Input.Profile.Precautions, Rung, Side).Limit;

    private Dose GoalOf(Rung rung) =>
        DosePlanner.Within(
            Policy.MovingOn == MovingOn.Endurance && rung.Endurance is { } one ? one : rung.Target,
            Limit,
            rung,
            Policy
        );

    /// <summary>The next dose toward the goal, within the growth a week allows and what sore holds and precautions let through.</summary>
    /// <param name="room">Share of the present clean time that may still be added this week.</param>
    public Dose? Harder(double room)
    {
        var more =
            Policy.MovingOn == MovingOn.Endurance && Rung.Endurance is not null
                ? DoseStep.Longer(Dose, Rung, Goal, room)
                : DoseStep.Harder(Dose, Rung, Goal, room);
        return more is { } dose && Held(dose) != Dose ? Held(dose) : null;
    }

    /// <summary>D-CAP-HOLD: while the back is not calm no hold grows beyond the policy's seconds.</summary>
    private Dose Held(Dose dose)
    {
        var most =
            Level == StirredUp.Low ? double.PositiveInfinity : Math.Max(Policy.Sore.HoldMax, Dose.Hold);
        return DosePlanner.Within(dose with { Hold = Math.Min(dose.Hold, most) }, Limit, Rung, Policy);
    }

    public Dose StartOf(Rung rung) =>
        DosePlanner.Within(
            DosePlanner.Start(rung, Level, Policy),
            Allowance.Of(Library, Input.Profile.Precautions, rung, Side).Limit,
            rung,
            Policy
        );

    public Rung? Above => Step(+1);

    public Rung? Below => Step(-1);

    /// <summary>Not barred by a precaution, not closed by the school, with everything at hand.</summary>
    public bool Open(Rung rung) =>
        !Policy.Closes(rung)
        && (Input.Equipment is not { } have || rung.Equipment.All(have.Contains))
        && !Allowance.Of(Library, Input.Profile.Precautions, rung, Side.Both).Barred;

    /// <summary>The next rung of the ladder that is open.</summary>
    private Rung? Step(int by)
    {
        var ladder = Library.LadderOf(Rung.Id);
        // Neutral positions are no ladder of difficulty: nothing is above or below them.
        if (ladder.Direction == Direction.None)
        {
            return null;
        }
        for (var i = ladder.IndexOf(Rung.Id) + by; i >= 0 && i < ladder.Rungs.Count; i += by)
        {
            if (Open(ladder.Rungs[i]))
            {
                // What waits until the back is calm is not climbed past.
                var waits =
                    by > 0
                    && Level != StirredUp.Low
                    && ladder.Rungs[i].Features.Any(Policy.Sore.Avoids.Contains);
                return waits ? null : ladder.Rungs[i];
            }
        }
        return null;
    }

    /// <summary>Dose first, then the rung; at the lowest rung with the smallest dose it stays and says so.</summary>
    public Decision EaseOneStep(string rule, params IReadOnlyList<string> evidence)
    {
        if (DoseStep.Easier(Dose, Rung) is { } easier)
        {
            return Make(Outcome.Ease, rule, Rung, easier, evidence);
        }
        return Below is { } lower
            ? Make(Outcome.StepDown, rule, lower, StartOf(lower), evidence)
            : Stay(
                rule,
                [
                    .. evidence,
                    "Already the smallest dose of the lowest rung: coach, or choose another ladder.",
                ]
            );
    }

    public Decision Stay(string rule, params IReadOnlyList<string> evidence) =>
        Make(Outcome.Stay, rule, Rung, Dose, evidence);

    public Decision Make(Outcome outcome, string rule, Rung to, Dose next, IReadOnlyList<string> evidence) =>
        new(Item.Id, Side, outcome, rule, to.Id, next, evidence, null);

    public static string DoneWords(Performance today) =>
        $"{today.CleanReps} of {today.Prescribed.TotalReps} clean";
}
