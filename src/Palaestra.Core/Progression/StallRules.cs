using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Standing still, being away, and a home programme that was not done. Common practice; thresholds from the policy.</summary>
internal static class StallRules
{
    /// <summary>Rules that keep things as they are: for ever, were it not for D-PLATEAU.</summary>
    private static readonly HashSet<string> Waiting =
    [
        "D-FAULT-CUE",
        "D-ONE-SIDE",
        "D-STAY",
        "D-CAP-HOLD",
        "D-MASTER",
        "D-FAULT-CAP",
        "D-TREMOR",
        "D-BREATH",
        "D-DONE-LESS",
    ];

    /// <summary>
    /// In place of a decision to stay as before: the same dose of the same rung with no change beyond measurement error, for
    /// the policy's visits or weeks; also at the top of a ladder, and where nothing is left to ease. One thing is changed:
    /// another ladder for the same direction, else the strategy, else the switch-on. Never under a rule about pain, nor after
    /// time away; a side that only waits for the other has not stalled.
    /// </summary>
    public static Decision? Plateau(DecisionCase c, Decision instead, IReadOnlyList<Decision> fired)
    {
        if (
            instead.Outcome != Outcome.Stay
            || !Waiting.Contains(instead.RuleId)
            || fired.Any(d => RuleGroups.PainOrAway.Contains(d.RuleId))
            || instead.RuleId == "D-ONE-SIDE" && !AdvanceRules.IsWeaker(c)
            || Standstill(c) is not { } still
        )
        {
            return null;
        }
        IReadOnlyList<Message> evidence = [.. instead.Evidence, still];
        return Change(c, "D-PLATEAU", evidence)
            ?? c.Stay("D-PLATEAU", [.. evidence, Message.Of("plateau.nothing")]) with
            {
                Todo = Message.Of("screen.again"),
            };
    }

    /// <summary>The one thing that is changed; none when nothing is left to change.</summary>
    public static Decision? Change(DecisionCase c, string rule, IReadOnlyList<Message> evidence)
    {
        Decision To(Rung rung, Dose dose, Message todo) =>
            c.Make(Outcome.Change, rule, rung, dose, evidence) with
            {
                Todo = Message.Of("change.then-screen", ("change", todo)),
                ChangedOn = c.Input.Date,
            };
        if (c.Library.LadderOf(c.Rung.Id).Direction == Direction.None)
        {
            return null;
        }
        if (c.Others.For(c) is { } other && Steps.AsksNoMore(c, other, c.StartOf(other), EaseCause.Faults))
        {
            return To(
                other,
                Steps.Fitted(c.StartOf(other), other, c.Dose.Seconds(c.Rung.MoveSeconds)),
                Message.Of("change.ladder", ("rung", other.Id))
            );
        }
        if (
            c.Input.Strategy is not null and not SpinalStrategy.Neutral
            && c.Library.PositionOf(c.Rung).OnBack
        )
        {
            return To(c.Rung, c.Dose, Message.Of("change.strategy")) with
            {
                Strategy = SpinalStrategy.Neutral,
            };
        }
        if (c.Input.Activation is { } now)
        {
            var to = now == Activation.Brace ? Activation.DrawIn : Activation.Brace;
            return To(c.Rung, c.Dose, Message.Of("change.activation", ("activation", to))) with
            {
                Activation = to,
            };
        }
        return null;
    }

    private static Message? Standstill(DecisionCase c)
    {
        if (c.Today(c.Side) is not { } today)
        {
            return null;
        }
        var smallest = SmallestChange(c, today.Prescribed);
        var series = new List<Performance>();
        foreach (
            var done in c.History(c.Side)
                .TakeWhile(p => p.Prescribed == today.Prescribed && !(p.Date <= c.Item.ChangedOn))
        )
        {
            var values = series.Append(done).Select(ValueOf).ToList();
            if (values.Max() - values.Min() >= smallest)
            {
                break;
            }
            series.Add(done);
        }
        var days = series[0].Date.DayNumber - series[^1].Date.DayNumber;
        var visits = series.Count;
        if (visits < c.Policy.PlateauVisits && (visits < 2 || days < 7 * c.Policy.PlateauWeeks))
        {
            return null;
        }
        return Message.Of(
            Decision.StandstillId,
            ("visits", visits),
            ("days", days),
            ("values", series.AsEnumerable().Reverse().Select(ValueOf)),
            ("reps", today.Prescribed.TotalReps > 1),
            ("smallest", smallest)
        );
    }

    /// <summary>Sets are counted one by one, so the error of their sum grows with the root of their number.</summary>
    private static double SmallestChange(DecisionCase c, Dose dose) =>
        c.Library.Norms.Errors.First(e => e.Of == (dose.TotalReps > 1 ? "reps" : "seconds")).SmallestChange
        * Math.Sqrt(dose.Sets);

    /// <summary>Clean reps; of a single long hold its clean seconds.</summary>
    private static double ValueOf(Performance done) =>
        done.Prescribed.TotalReps > 1 ? done.CleanReps : done.CleanSeconds;

    /// <summary>
    /// After a stretch without training one step down, after a long one two, and a screen again; a clean return after a
    /// short one keeps the old dose. Where it is not known when they last trained, nothing is concluded.
    /// </summary>
    public static Decision? Away(DecisionCase c)
    {
        if (!c.Returned)
        {
            return null;
        }
        var words = Message.Of("away.days", ("days", c.DaysAway));
        var long_ = c.DaysAway >= c.Judgement.AwayTwoDays;
        if (!long_ && c.Today(c.Side) is { } today && c.Clean(today))
        {
            return c.Stay("D-AWAY", words, Message.Of("away.clean"));
        }
        var todo =
            c.DaysAway >= c.Judgement.AwayScreenDays ? Message.Of("away.screen-first")
            : long_ && c.Input.WeakestSector is { } weakest
                ? Message.Of("away.screen-sector", ("sector", weakest))
            : long_ ? Message.Of("away.screen-weakest")
            : null;
        if (Steps.Down(c, EaseCause.Away) is not { } first)
        {
            return c.Stay("D-AWAY", words, Message.Of("away.nothing")) with { Todo = todo };
        }
        var step =
            long_ && Second(c, first) is { } second
                ? second with
                {
                    Words = Message.Of("ease.twice", ("first", first.Words), ("second", second.Words)),
                }
                : first;
        return c.Make(
            step.Rung.Id == c.Rung.Id ? Outcome.Ease : Outcome.StepDown,
            "D-AWAY",
            step.Rung,
            step.Dose,
            [words, step.Words]
        ) with
        {
            Todo = todo,
        };
    }

    private static Step? Second(DecisionCase c, Step first) =>
        Steps.Down(
            new DecisionCase(
                c.Input,
                c.Item with
                {
                    RungId = first.Rung.Id,
                    Doses = [new(c.Side, first.Dose)],
                },
                c.Side,
                c.Library,
                c.Others,
                c.Day
            ),
            EaseCause.Away
        );

    /// <summary>Too little done at home: nothing is added until it is known why. A step that was earned passes.</summary>
    public static Decision? Home(DecisionCase c, Decision instead)
    {
        if (
            instead.Outcome != Outcome.Add
            || c.Sides.Select(s => c.Home(s)?.Share).Min() is not { } share
            || share >= c.Policy.HomeLessFraction
        )
        {
            return null;
        }
        return c.Stay("D-HOME", [.. instead.Evidence, Message.Of("home.less", ("share", share))]);
    }
}
