using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Standing still, being away, and home work that was not done. Common practice; thresholds from the policy.</summary>
internal static class StallRules
{
    /// <summary>Rules that keep things as they are: for ever, were it not for D-PLATEAU.</summary>
    private static readonly HashSet<string> Waiting = ["D-FAULT-CUE", "D-ONE-SIDE", "D-STAY"];

    /// <summary>
    /// In place of a decision to stay as before: the same dose of the same rung with no change beyond measurement error, for
    /// the policy's visits or weeks. One thing is changed: another ladder for the same direction, else the strategy, else the
    /// switch-on.
    /// </summary>
    public static Decision? Plateau(DecisionCase c, Decision instead)
    {
        if (
            instead.Outcome != Outcome.Stay
            || !Waiting.Contains(instead.RuleId)
            || Standstill(c) is not { } still
        )
        {
            return null;
        }
        IReadOnlyList<string> evidence = [.. instead.Evidence, still];
        return Change(c, "D-PLATEAU", evidence) ?? c.Stay("D-PLATEAU", [.. evidence, "Screen again."]);
    }

    /// <summary>The one thing that is changed; none when nothing is left to change.</summary>
    public static Decision? Change(DecisionCase c, string rule, IReadOnlyList<string> evidence)
    {
        Decision To(Rung rung, Dose dose, string todo) =>
            c.Make(Outcome.Change, rule, rung, dose, evidence) with
            {
                Todo = $"{todo} Screen again.",
                ChangedOn = c.Input.Date,
            };
        if (c.Library.LadderOf(c.Rung.Id).Direction == Direction.None)
        {
            return null;
        }
        if (c.Others.For(c) is { } other)
        {
            return To(
                other,
                c.StartOf(other),
                $"Another ladder for the same direction: {other.Name.ToLowerInvariant()}. Watch the first set."
            );
        }
        if (c.Input.Strategy is not null and not SpinalStrategy.Neutral && c.Rung.Position == "supine")
        {
            return To(c.Rung, c.Dose, "Another strategy: neutral.") with
            {
                Strategy = SpinalStrategy.Neutral,
            };
        }
        if (c.Input.SwitchOn is { } now)
        {
            var to = now == SwitchOn.Brace ? SwitchOn.DrawIn : SwitchOn.Brace;
            var words = to == SwitchOn.Brace ? "brace" : "draw in with the pelvic floor";
            return To(c.Rung, c.Dose, $"Another switch-on: {words}.") with { SwitchOn = to };
        }
        return null;
    }

    private static string? Standstill(DecisionCase c)
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
        var told = string.Join(", ", series.AsEnumerable().Reverse().Select(p => $"{ValueOf(p):0.#}"));
        var unit = today.Prescribed.TotalReps > 1 ? "clean reps" : "clean seconds";
        return $"No clear change in {visits} visits and {days} days: {told} {unit}; {smallest:0.#} would be one.";
    }

    /// <summary>Sets are counted one by one, so the error of their sum grows with the root of their number.</summary>
    private static double SmallestChange(DecisionCase c, Dose dose) =>
        c.Library.Norms.Errors.First(e => e.Of == (dose.TotalReps > 1 ? "reps" : "seconds")).SmallestChange
        * Math.Sqrt(dose.Sets);

    /// <summary>Clean reps; of a single long hold its clean seconds.</summary>
    private static double ValueOf(Performance done) =>
        done.Prescribed.TotalReps > 1 ? done.CleanReps : done.CleanSeconds;

    /// <summary>
    /// After a stretch without training: one step down where the return was not clean or is still to come; a clean return is
    /// repeated before anything is added.
    /// </summary>
    public static Decision? Away(DecisionCase c, Decision instead)
    {
        if (!c.Returned || instead.Outcome is Outcome.Ease or Outcome.StepDown or Outcome.Stop)
        {
            return null;
        }
        var words = $"{c.DaysAway} days without training.";
        if (c.Today(c.Side) is { AllClean: true })
        {
            return c.Stay("D-AWAY", words, "Clean today: once more before anything is added.");
        }
        return c.Below is { } lower
            ? c.Make(
                Outcome.StepDown,
                "D-AWAY",
                lower,
                c.StartOf(lower),
                [words, "One step down, then check again."]
            )
            : c.EaseOneStep("D-AWAY", words);
    }

    /// <summary>Too little done at home: whatever was earned, nothing is added until it is known why.</summary>
    public static Decision? Home(DecisionCase c, Decision instead)
    {
        if (
            instead.Outcome is not (Outcome.Add or Outcome.StepUp)
            || c.Sides.Select(s => c.Home(s)?.Share).Min() is not { } share
            || share >= c.Policy.HomeLessFraction
        )
        {
            return null;
        }
        return c.Stay(
            "D-HOME",
            [.. instead.Evidence, $"But {share:P0} of the home work was done: ask why before adding."]
        );
    }
}
