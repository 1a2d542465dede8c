using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Faults, and work that was not done clean. Common practice; thresholds from the policy.</summary>
internal static class FaultRules
{
    public static Decision? Cap(DecisionCase c)
    {
        if (c.Today(c.Side) is not { Tried: > 0 } today || today.CueFixed)
        {
            return null;
        }
        var share = (double)today.BreakingReps / today.Tried;
        return share >= c.Policy.FaultCapFraction - 1e-9
            ? c.EaseOneStep(
                "D-FAULT-CAP",
                EaseCause.Faults,
                [
                    Message.Of(
                        "fault.no-cue",
                        ("fault", FaultOf(today)),
                        ("broken", today.BreakingReps),
                        ("tried", today.Tried)
                    ),
                    .. EasedWords(today),
                ]
            )
            : null;
    }

    public static Decision? Cue(DecisionCase c)
    {
        if (c.Today(c.Side) is not { BreakingReps: > 0, CueFixed: true } today)
        {
            return null;
        }
        var cue = today.Sets.Select(set => set.Cue).LastOrDefault(words => words is not null) ?? c.Item.Cue;
        return c.Stay(
            "D-FAULT-CUE",
            Message.Of(
                "fault.cue",
                ("fault", FaultOf(today)),
                ("broken", today.BreakingReps),
                ("tried", today.Tried)
            ),
            Message.Of("fault.coach")
        ) with
        {
            Notes = string.IsNullOrWhiteSpace(cue) ? null : [Message.Plain(cue)],
        };
    }

    public static Decision? DoneLess(DecisionCase c)
    {
        if (c.Today(c.Side) is not { } now || c.History(c.Side).Skip(1).FirstOrDefault() is not { } before)
        {
            return null;
        }
        var least = c.Policy.DoneLessFraction;
        return now.DoneFraction >= least || before.DoneFraction >= least
            ? null
            : c.EaseOneStep(
                "D-DONE-LESS",
                EaseCause.Faults,
                [
                    Message.Of("done-less", ("now", now.DoneFraction), ("before", before.DoneFraction)),
                    .. EasedWords(now),
                ]
            );
    }

    /// <summary>Breath held through a set that a cue did not clear: the next is easier.</summary>
    public static Decision? Breath(DecisionCase c) =>
        c.Today(c.Side) is { } today
        && today.Sets.Any(set =>
            set.CueFixed == false && c.Library.Means(set.FirstFault, FaultMeaning.BreathHold)
        )
            ? c.EaseOneStep("D-BREATH", EaseCause.Faults, Message.Of("breath.held"))
            : null;

    /// <summary>Share of a set, above which it counts as most of it.</summary>
    public const double MostOfASet = 0.5;

    /// <summary>Trembling through most of a set: nothing is added, unless the client trembles by themselves, or it stayed clean with ease for some visits.</summary>
    public static Decision? Tremor(DecisionCase c)
    {
        if (c.Day.OwnTremor || c.Today(c.Side) is not { Tremor: > MostOfASet } today)
        {
            return null;
        }
        var running = c.History(c.Side)
            .TakeWhile(done => c.Clean(done) && done.Effort <= c.Judgement.TremorEffortMax)
            .Count();
        return running >= c.Judgement.TremorVisits
            ? null
            : c.Stay("D-TREMOR", Message.Of("tremor.most", ("share", today.Tremor)));
    }

    /// <summary>Felt in the wrong place at visits running: the set-up is changed, not the rung; after some tries another way is sought.</summary>
    public static Decision? SetUp(DecisionCase c)
    {
        var wrong = c
            .Sides.Select(side => c.History(side).TakeWhile(done => WrongPlace(c, done) is not null).ToList())
            .MaxBy(visits => visits.Count);
        if (
            wrong is not { Count: > 0 }
            || wrong.Count < c.Judgement.SetupVisits
            || wrong[0].Visit != c.Input.Visit
        )
        {
            return null;
        }
        var place = WrongPlace(c, wrong[0])!;
        var tries = (c.Input.SetUps ?? []).Count(t => t.PlanItemId == c.Item.Id && t.Place == place.Id);
        var felt = Message.Of("setup.felt", ("place", place.Id), ("visits", wrong.Count));
        if (tries >= c.Judgement.SetupTries)
        {
            return StallRules.Change(c, "D-SETUP", [felt, Message.Of("setup.tries", ("tries", tries))])
                ?? c.Stay("D-SETUP", felt, Message.Of("setup.tries-screen", ("tries", tries)));
        }
        return c.Stay("D-SETUP", felt, Message.Of("setup.change", ("change", place.Change))) with
        {
            Todo = Message.Of("setup.change", ("change", place.Change)),
            Notes = [Message.Of("setup.note", ("change", place.Change))],
        };
    }

    public static bool FeltElsewhere(DecisionCase c, Performance done) => WrongPlace(c, done) is not null;

    private static Library.FeltPlace? WrongPlace(DecisionCase c, Performance done) =>
        done
            .Sets.Select(set => c.Library.FeltPlaces.FirstOrDefault(p => p.Id == set.Felt))
            .LastOrDefault(place => place is not null)
            is { AsIntended: false, Change: not null } place
            ? place
            : null;

    private static IEnumerable<Message> EasedWords(Performance today) =>
        today.Eased
            ?
            [
                Message.Of(
                    "fault.eased",
                    ("eased", today.Sets.Count(set => set.Eased)),
                    ("sets", today.Sets.Count)
                ),
            ]
            : [];

    /// <summary>The first fault that was marked; none where control was lost without a mark.</summary>
    private static string? FaultOf(Performance today) =>
        today.Sets.Select(set => set.FirstFault).FirstOrDefault(fault => fault is not null);
}
