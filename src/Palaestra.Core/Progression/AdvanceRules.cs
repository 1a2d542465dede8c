using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>What clean work earns. Common practice; thresholds from the policy.</summary>
internal static class AdvanceRules
{
    public static Decision? OneSide(DecisionCase c)
    {
        if (
            c.Item.Doses.Count < 2
            || c.Today(Side.Left) is not { } left
            || c.Today(Side.Right) is not { } right
        )
        {
            return null;
        }
        var (leftMet, rightMet) = (left.Meets(c.Goal), right.Meets(c.Goal));
        if (leftMet == rightMet)
        {
            return null;
        }
        var weaker = leftMet ? Side.Right : Side.Left;
        var evidence = new List<string>
        {
            $"The {weaker.Other().Word()} meets the target, the {weaker.Word()} does not ({DecisionCase.DoneWords(leftMet ? right : left)}).",
            "The rung is held for both.",
        };
        if (c.Side != weaker)
        {
            return c.Stay("D-ONE-SIDE", evidence);
        }
        if (c.Today(c.Side) is { PainSets: > 0 })
        {
            return c.Stay("D-ONE-SIDE", [.. evidence, "No extra work for a side that hurt."]);
        }
        var extra = ExtraWork(c);
        return extra == c.Dose
            ? c.Stay("D-ONE-SIDE", evidence)
            : c.Make(
                Outcome.Add,
                "D-ONE-SIDE",
                c.Rung,
                extra,
                [.. evidence, "Extra work for the weaker side."]
            );
    }

    private static Dose ExtraWork(DecisionCase c)
    {
        var other = c.Item.Doses.First(d => d.Side == c.Side.Other()).Dose;
        // Once the weaker side already has more than the other, it keeps its extra and gets no further one.
        return c.Dose.TotalReps > other.TotalReps
            ? c.Dose
            : DosePlanner.ForWeakerSide(c.Dose, c.Rung, c.Level, c.Policy);
    }

    public static Decision? Master(DecisionCase c)
    {
        if (!c.Sides.All(s => Met(c, s) >= VisitsAsked(c)))
        {
            return null;
        }
        var effort = c.Sides.Select(s => c.Today(s)?.Effort).Max();
        var evidence = new List<string> { MetWords(c) };
        if (effort > c.Policy.MasteryEffortMax)
        {
            return c.Stay(
                "D-MASTER",
                [.. evidence, $"But effort {effort} of 10 is over {c.Policy.MasteryEffortMax}."]
            );
        }
        if (effort is not null)
        {
            evidence.Add($"Effort {effort} of 10.");
        }
        if (c.Above is not { } higher)
        {
            return c.Stay("D-MASTER", [.. evidence, "No higher rung is open."]);
        }
        return WaitsForTheMap(c, higher) is { } wait
            ? c.Stay("D-CALENDAR", [.. evidence, wait])
            : c.Make(Outcome.StepUp, "D-MASTER", higher, c.StartOf(higher), evidence);
    }

    /// <summary>The calendar school asks for one clean visit and waits for its week; all others for the policy's visits.</summary>
    private static int VisitsAsked(DecisionCase c) =>
        c.Policy.MovingOn == MovingOn.Calendar ? 1 : c.Policy.MasteryVisits;

    /// <summary>
    /// Visits running at the target, counted back from today; a stretch without training ends the run. A home log that says
    /// the same stands for one visit, once.
    /// </summary>
    private static int Met(DecisionCase c, Side side)
    {
        var met = MetAtVisits(c, side);
        return met > 0 && HomeAgrees(c, side) ? met + 1 : met;
    }

    private static int MetAtVisits(DecisionCase c, Side side)
    {
        if (c.Today(side) is null)
        {
            return 0;
        }
        var met = c.History(side).TakeWhile(done => done.Meets(c.Goal)).Count();
        return c.Returned ? Math.Min(met, 1) : met;
    }

    private static bool HomeAgrees(DecisionCase c, Side side) =>
        c.Home(side) is { Share: { } share } home
        && share >= c.Policy.HomeAgreesFraction
        && !c.Policy.Pain.Exceeded(c.Input.CheckIn.UsualPain, home.WorstPain ?? 0);

    private static string MetWords(DecisionCase c)
    {
        var atVisits = c.Sides.Min(s => MetAtVisits(c, s));
        var where = c.Item.Doses.Count > 1 ? "on both sides" : "every rep";
        var visits =
            VisitsAsked(c) == 1 ? "today"
            : atVisits >= VisitsAsked(c) ? $"{VisitsAsked(c)} visits running"
            : "today, and the home log says the same";
        return $"{c.Goal.Words()} clean {where}, {visits}.";
    }

    /// <summary>The calendar proposes, clean work grants: a rung the map has not come to yet is not given.</summary>
    private static string? WaitsForTheMap(DecisionCase c, Rung higher)
    {
        if (c.Policy.MovingOn != MovingOn.Calendar || c.Input.OpenedOn is not { } opened)
        {
            return null;
        }
        var ladder = c.Library.LadderOf(higher.Id);
        // Of a ladder the map does not name it says nothing: there clean work alone decides.
        var stages = c.Library.TwelveWeeks.Where(s => s.Rungs.Any(id => ladder.IndexOf(id) >= 0)).ToList();
        var stage = stages.FirstOrDefault(s =>
            s.Rungs.Any(id => ladder.IndexOf(id) >= ladder.IndexOf(higher.Id))
        );
        var week = (c.Input.Date.DayNumber - opened.DayNumber) / 7 + 1;
        return stage is not null && week < stage.From
            ? $"The map comes to {higher.Name.ToLowerInvariant()} in week {stage.From}; this is week {week}."
            : null;
    }

    public static Decision? Build(DecisionCase c)
    {
        if (c.Today(c.Side) is not { AllClean: true } today || today.Meets(c.Goal))
        {
            return null;
        }
        var clean = $"All {today.CleanReps} clean; target {c.Goal.Words()}.";
        if (c.Sides.Any(side => c.Today(side) is null))
        {
            return c.Stay(
                "D-BUILD",
                clean,
                $"But the {c.Side.Other().Word()} was not done today: nothing is added."
            );
        }
        var move = c.Rung.MoveSeconds;
        var room = c.Policy.WeeklyGrowth;
        if (WeekBefore(c) is { } before)
        {
            var grown = c.Dose.Seconds(move) / before.Seconds(move) - 1;
            room = (1 + room) / (1 + grown) - 1;
        }
        if (c.Harder(room) is not { } more)
        {
            return c.Level == StirredUp.Low
                ? null
                : c.Stay(
                    "D-CAP-HOLD",
                    clean,
                    $"No hold grows over {c.Policy.Sore.HoldMax:0} s until the back is calm."
                );
        }
        var growth = more.Seconds(move) / c.Dose.Seconds(move) - 1;
        // The smallest step may be larger than a fifth, but only once in a week.
        if (room < c.Policy.WeeklyGrowth && growth > room)
        {
            return c.Stay("D-BUILD", clean, "Clean time was already added this week: repeat.");
        }
        return c.Make(Outcome.Add, "D-BUILD", c.Rung, more, [clean, $"Clean time +{growth:P0}."]);
    }

    /// <summary>The smaller dose that was asked for within the last seven days; none where it has not grown.</summary>
    private static Dose? WeekBefore(DecisionCase c)
    {
        var move = c.Rung.MoveSeconds;
        var recent = c.History(c.Side)
            .Where(p => p.Visit < c.Input.Visit && c.Input.Date.DayNumber - p.Date.DayNumber < 7)
            .Select(p => p.Prescribed)
            .Where(dose => dose.Seconds(move) < c.Dose.Seconds(move))
            .ToList();
        return recent.Count == 0 ? null : recent.MinBy(dose => dose.Seconds(move));
    }

    public static Decision? Confirm(DecisionCase c) =>
        c.Today(c.Side) is { } today && today.Meets(c.Goal)
            ? c.Stay("D-CONFIRM", "Target clean once; once more confirms it.")
            : null;
}
