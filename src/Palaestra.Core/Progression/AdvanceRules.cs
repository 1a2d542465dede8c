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
        var (leftMet, rightMet) = (c.Meets(left), c.Meets(right));
        if (leftMet == rightMet)
        {
            return null;
        }
        var weaker = leftMet ? Side.Right : Side.Left;
        var mine = leftMet ? right : left;
        var evidence = new List<Message>
        {
            Message.Of(
                "one-side.held",
                ("strong", weaker.Other()),
                ("weak", weaker),
                ("done", DecisionCase.Done(mine))
            ),
            Message.Of("one-side.both"),
        };
        if (c.Side != weaker)
        {
            return c.Stay("D-ONE-SIDE", evidence);
        }
        if (c.Clean(mine))
        {
            // Clean below the target: it builds like any other.
            return null;
        }
        if (NoExtra(c, mine) is { } no)
        {
            return c.Stay("D-ONE-SIDE", [.. evidence, no]);
        }
        var extra = ExtraWork(c, mine);
        return extra.TotalReps == c.Dose.TotalReps && extra.Sets == c.Dose.Sets
                ? c.Stay("D-ONE-SIDE", evidence)
            : extra.Seconds(c.Rung.MoveSeconds) > c.Dose.Seconds(c.Rung.MoveSeconds)
                ? c.Make(
                    Outcome.Add,
                    "D-ONE-SIDE",
                    c.Rung,
                    extra,
                    [.. evidence, Message.Of("one-side.extra", ("dose", extra.Said()))]
                )
            : c.Make(
                Outcome.Stay,
                "D-ONE-SIDE",
                c.Rung,
                extra,
                [.. evidence, Message.Of("one-side.short-sets", ("dose", extra.Said()))]
            );
    }

    /// <summary>Whether this side is the one that does not meet the target, of two.</summary>
    public static bool IsWeaker(DecisionCase c) => c.Today(c.Side) is { } today && !c.Meets(today);

    /// <summary>No extra work for a side that hurt, was exhausted or did nothing.</summary>
    private static Message? NoExtra(DecisionCase c, Performance done) =>
        c.PainSets(done) > 0 || done.Sets.Any(set => set.EndedForPain) ? Message.Of("one-side.hurt")
        : done.Effort >= c.Judgement.ExhaustedEffort
            ? Message.Of("one-side.exhausted", ("effort", done.Effort))
        : done.AllCleanReps == 0 ? Message.Of("one-side.none-clean")
        : null;

    /// <summary>
    /// A quarter more than was clean, never over a quarter more than was prescribed, in sets half as long; where over half
    /// was broken not more than prescribed. Once it has more than the other side it keeps that.
    /// </summary>
    private static Dose ExtraWork(DecisionCase c, Performance done)
    {
        var other = c.Item.Doses.First(d => d.Side == c.Side.Other()).Dose;
        return c.Dose.TotalReps > other.TotalReps
            ? c.Dose
            : DosePlanner.ShortSets(
                c.Dose,
                done.AllCleanReps,
                done.BreakingReps * 2 > done.Tried ? 0 : c.Policy.WeakerExtraFraction,
                c.Rung,
                c.Policy
            );
    }

    public static Decision? Master(DecisionCase c)
    {
        if (!c.Sides.All(s => Met(c, s) >= VisitsAsked(c)))
        {
            return null;
        }
        var effort = c.Sides.Select(s => c.Today(s)?.Effort).Max();
        var evidence = new List<Message> { MetWords(c) };
        if (effort > c.Policy.MasteryEffortMax)
        {
            return c.Stay(
                "D-MASTER",
                [
                    .. evidence,
                    Message.Of("master.effort-over", ("effort", effort), ("most", c.Policy.MasteryEffortMax)),
                ]
            );
        }
        if (effort is not null)
        {
            evidence.Add(Message.Of("effort.told", ("effort", effort)));
        }
        if (c.HarderSetting() is { } setting)
        {
            return Up(c, Outcome.Add, c.Rung, setting, evidence);
        }
        if (Steps.Waits(c))
        {
            return c.Stay("D-UNDER-BREAK", [.. evidence, BreakingLoad.Words(c)]);
        }
        if (c.Above is not { } higher)
        {
            if (c.HarderByModifier() is { } dose)
            {
                evidence.Add(Message.Of("master.with-modifier", ("modifier", dose.Modifier)));
                return Up(c, Outcome.Add, c.Rung, dose, evidence) with { Todo = TopWords };
            }
            return c.Stay("D-MASTER", [.. evidence, Message.Of("master.top")]) with { Todo = TopWords };
        }
        return WaitsForTheMap(c, higher) is { } wait
            ? c.Stay("D-CALENDAR", [.. evidence, wait])
            : Up(c, Outcome.StepUp, higher, c.StartOf(higher), evidence);
    }

    private static Message TopWords => Message.Of("master.nothing-harder");

    /// <summary>Says by how much the load rises; a rise above the policy's share is tried with one set first.</summary>
    private static Decision Up(DecisionCase c, Outcome outcome, Rung rung, Dose dose, List<Message> evidence)
    {
        var more = Steps.LoadMore(c, rung, dose);
        if (more is { } share)
        {
            evidence.Add(Message.Of("master.load-change", ("share", Math.Abs(share)), ("falls", share < 0)));
        }
        var steep = more > c.Judgement.ProbeGrowth + 1e-9;
        return c.Make(
            outcome,
            "D-MASTER",
            rung,
            steep ? dose with { Sets = 1, Fewer = 0 } : dose,
            evidence
        ) with
        {
            Todo = steep ? Message.Of("master.steep") : null,
        };
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
        var met = c.History(side).Take(VisitsAsked(c)).TakeWhile(c.Meets).Count();
        return c.Returned ? Math.Min(met, 1) : met;
    }

    /// <summary>Most of the home programme was done, and it is written that it did not hurt.</summary>
    public static bool HomeAgrees(DecisionCase c, Side side) =>
        c.Home(side) is { Share: { } share } home
        && share >= c.Policy.HomeAgreesFraction
        && !c.Day.HomeMild
        && home.WorstPain is { } worst
        && !c.Policy.Pain.Exceeded(c.Day.Reference.Value, worst);

    private static Message MetWords(DecisionCase c)
    {
        var home = c.Sides.Min(s => MetAtVisits(c, s)) < VisitsAsked(c);
        return Message.Of(
            "master.met",
            ("target", c.Goal.Said()),
            ("both", c.Item.Doses.Count > 1),
            ("visits", home ? null : VisitsAsked(c))
        );
    }

    /// <summary>The calendar proposes, clean work grants: a rung the map has not come to yet is not given.</summary>
    private static Message? WaitsForTheMap(DecisionCase c, Rung higher)
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
            ? Message.Of("calendar.waits", ("rung", higher.Id), ("week", stage.From), ("now", week))
            : null;
    }

    public static Decision? Build(DecisionCase c)
    {
        if (c.Today(c.Side) is not { } today || !c.Clean(today) || c.Meets(today))
        {
            return null;
        }
        var clean = Message.Of(
            "build.clean",
            ("all", today.AllClean),
            ("done", DecisionCase.Done(today)),
            ("target", c.Goal.Said())
        );
        if (c.Sides.Any(side => c.Today(side) is null))
        {
            return c.Stay("D-BUILD", clean, Message.Of("build.other-side", ("side", c.Side.Other())));
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
            return c.Day.Calm || !c.Rung.Features.Contains(Rung.ShortHoldsFeature)
                ? null
                : c.Stay("D-CAP-HOLD", clean, Message.Of("build.cap-hold", ("most", c.Policy.Sore.HoldMax)));
        }
        var growth = more.Seconds(move) / c.Dose.Seconds(move) - 1;
        // The smallest step may be larger than a fifth, but only once in a week.
        if (room < c.Policy.WeeklyGrowth && growth > room)
        {
            return c.Stay("D-BUILD", clean, Message.Of("build.this-week"));
        }
        return c.Make(
            Outcome.Add,
            "D-BUILD",
            c.Rung,
            more,
            [clean, Message.Of("build.growth", ("share", growth))]
        );
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
        c.Today(c.Side) is { } today && c.Meets(today)
            ? c.Stay("D-CONFIRM", Message.Of("confirm.once"))
            : null;
}
