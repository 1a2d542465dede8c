using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Red flags and pain come before anything that was done well. Common practice; thresholds from the policy.</summary>
internal static class PainRules
{
    public static Decision? Refer(DecisionCase c) =>
        c.Day.Refer.Count == 0
            ? null
            : c.Make(Outcome.Stop, "D-REFER", c.Rung, c.Dose, [.. c.Day.Refer, Message.Of("refer.stop")]);

    /// <summary>Too much pain in this exercise: it is eased on both sides; at its lowest it rests, or another ladder takes its place.</summary>
    public static Decision? Stop(DecisionCase c) =>
        c.Sides.Select(side => StopWhy(c, side)).FirstOrDefault(why => why is not null) is { } why
            ? EaseOrRest(c, "D-PAIN-STOP", why)
            : null;

    private static Message? StopWhy(DecisionCase c, Side side)
    {
        if (c.Today(side) is not { Sets.Count: > 0 } today)
        {
            return null;
        }
        var over = c.PainSets(today);
        if (today.Sets.Any(set => set.EndedForPain))
        {
            return Message.Of("stop.ended", ("side", side));
        }
        if (over > 0 && over >= c.Judgement.StopShare * today.Sets.Count - 1e-9)
        {
            return Message.Of("stop.over", ("over", over), ("sets", today.Sets.Count), ("side", side));
        }
        var at = c.Input.CheckIn.PainNow;
        // Where pain is tolerable up to a limit, a rise below that limit is not too much.
        var counts = today.Sets.Where(set =>
            c.Policy.Pain.Rule == PainRuleKind.NoRise || set.Over(c.Policy.Pain, at)
        );
        return counts.Any(set => set.Rise(at) >= c.Judgement.StopRise)
                ? Message.Of("stop.rise", ("points", today.Sets.Max(s => s.Rise(at))), ("side", side))
            : today.Sets.Any(set => set.PainMost >= c.Judgement.StopPeak && !(set.Rise(at) <= 0))
                ? Message.Of("stop.peak", ("pain", today.Sets.Max(s => s.PainMost)), ("side", side))
            : null;
    }

    private static Decision EaseOrRest(DecisionCase c, string rule, params IReadOnlyList<Message> evidence)
    {
        if (Steps.Down(c, EaseCause.Pain) is { } step)
        {
            return c.Make(step.Outcome, rule, step.Rung, step.Dose, [.. evidence, step.Words]);
        }
        var lowest = c.AllBelow.LastOrDefault() ?? c.Rung;
        return c.Make(
            Outcome.Stop,
            rule,
            c.Rung,
            c.Dose,
            [.. evidence, Message.Of("rest.begins", ("visits", c.Judgement.RestVisits), ("rung", lowest.Id))]
        ) with
        {
            Spell = new(
                SpellKind.Rest,
                null,
                c.Judgement.RestVisits,
                lowest.Id,
                [new(c.Side, c.StartOf(lowest))]
            ),
        };
    }

    /// <summary>Over the limit in fewer sets, or a small rise that was still there at the end at two visits running.</summary>
    public static Decision? Watch(DecisionCase c)
    {
        if (c.Sides.Any(side => StopWhy(c, side) is not null))
        {
            return null;
        }
        var over = c.Sides.Sum(side => c.Today(side) is { } today ? c.PainSets(today) : 0);
        if (over > 0)
        {
            return c.Stay("D-PAIN-WATCH", Message.Of("watch.over", ("sets", over)));
        }
        return c.Sides.Any(side =>
            Lasted(c, c.Today(side)) && Lasted(c, c.History(side).Skip(1).FirstOrDefault())
        )
            ? c.Stay("D-PAIN-WATCH", Message.Of("watch.lasted"))
            : null;
    }

    private static bool Lasted(DecisionCase c, Performance? done)
    {
        if (done?.Sets.LastOrDefault(set => set.PainMost is not null) is not { } last)
        {
            return false;
        }
        var checkIn = done.Visit == c.Input.Visit ? c.Input.CheckIn.PainNow : null;
        var from = done.Sets.FirstOrDefault(set => set.PainBefore is not null)?.PainBefore ?? checkIn;
        return (last.PainAfter ?? last.PainPeak) - from >= 1;
    }

    /// <summary>After a session in which pain rose, the exercises in which it did are eased.</summary>
    public static Decision? Session(DecisionCase c)
    {
        if (c.Day.Holds.FirstOrDefault(rule => rule.RuleId == "D-PAIN-SESSION") is not { } session)
        {
            return null;
        }
        var rise = c.Sides.Select(c.Rise).Max();
        return rise >= c.Policy.Pain.Rise
            ? c.EaseOneStep(
                "D-PAIN-SESSION",
                EaseCause.Pain,
                Message.Of("session.rise", ("points", rise)),
                session.Words
            )
            : c.Stay("D-PAIN-SESSION", session.Words, Message.Of("day.nothing-added"));
    }

    /// <summary>
    /// After a flare what was raised lately is taken back, all that one visit raised. Where nothing was raised, half the sets
    /// for some days. A second time within weeks asks for a review and cuts no further.
    /// </summary>
    public static Decision? Flare(DecisionCase c)
    {
        if (c.Day.Flares.Count == 0)
        {
            return null;
        }
        var rule = c.Day.Flares[0].RuleId;
        IReadOnlyList<Message> evidence = [.. c.Day.Flares.Select(f => f.Words)];
        if (c.Day.SecondFlare)
        {
            return c.Stay(rule, [.. evidence, Message.Of("flare.second", ("weeks", c.Judgement.FlareWeeks))]);
        }
        var raised = c.Day.LastRaised();
        if (raised.FirstOrDefault(r => r.PlanItemId == c.Item.Id && r.Side == c.Side) is { } mine)
        {
            return TakenBack(c, rule, mine, evidence);
        }
        if (raised.Count > 0 || c.Day.Flares.All(f => f.RuleId == "D-PAIN-DRIFT"))
        {
            return c.Stay(rule, [.. evidence, Message.Of("flare.not-raised")]);
        }
        if (c.Item.Spell is { Kind: SpellKind.Half })
        {
            return c.Stay(rule, [.. evidence, Message.Of("flare.halved-already")]);
        }
        var half = Steps.Halved(c.Dose);
        return c.Make(
            half == c.Dose ? Outcome.Stay : Outcome.Ease,
            rule,
            c.Rung,
            half,
            [.. evidence, Message.Of("flare.half", ("days", c.Judgement.HalfDays))]
        ) with
        {
            Spell = new(
                SpellKind.Half,
                c.Input.Date.AddDays(c.Judgement.HalfDays),
                null,
                c.Rung.Id,
                [new(c.Side, c.Dose)]
            ),
        };
    }

    private static Decision TakenBack(
        DecisionCase c,
        string rule,
        Raise raise,
        IReadOnlyList<Message> evidence
    )
    {
        var rung = c.Library.FindRung(raise.RungId);
        if (rung is null || !c.Open(rung) || !Steps.AsksNoMore(c, rung, raise.Dose, EaseCause.Pain))
        {
            return c.EaseOneStep(rule, EaseCause.Pain, evidence);
        }
        var words = Message.Of(
            "flare.taken-back",
            ("on", raise.On),
            ("rung", rung.Id),
            ("dose", raise.Dose.Said())
        );
        return c.Make(
            rung.Id == c.Rung.Id ? Outcome.Ease : Outcome.StepDown,
            rule,
            rung,
            rung.Id == c.Rung.Id
                ? raise.Dose
                : Steps.Fitted(raise.Dose, rung, c.Dose.Seconds(c.Rung.MoveSeconds)),
            [.. evidence, words]
        );
    }

    /// <summary>Pain moved down a leg: that exercise is eased; what is barred for that leg gives way; nothing goes above what it was.</summary>
    public static Decision? Leg(DecisionCase c)
    {
        if (c.Day.Remembered.Count == 0)
        {
            return null;
        }
        var words = Message.Of(
            "leg.memory",
            ("sides", c.Day.Remembered),
            ("visits", c.Judgement.LegVisits),
            ("days", c.Judgement.LegDays)
        );
        var here = c.Day.Session?.Legs?.Any(leg => leg.PlanItemId == c.Item.Id) == true;
        return here
            ? EaseOrRest(c, "D-LEG-MEMORY", Message.Of("leg.here"), words)
            : c.Stay("D-LEG-MEMORY", words);
    }

    /// <summary>A rung that the precautions bar by now: a lower one that is open, another ladder, else it is taken out.</summary>
    public static Decision? Barred(DecisionCase c)
    {
        var allowance = c.AllowanceOf(c.Rung, c.Side);
        if (!allowance.Barred || !string.IsNullOrWhiteSpace(c.Item.BarOverride))
        {
            return BarredModifier(c);
        }
        var rule =
            c.Day.Remembered.Count > 0
            && allowance.Bars.All(bar => bar.PrecautionId == Intake.LegPain.Of(c.Library)?.Id)
                ? "D-LEG-MEMORY"
                : "D-BARRED";
        var why = Message.Of("bar.now", ("why", allowance.BarWords));
        if (Steps.LowerRung(c, EaseCause.Pain) is { } lower)
        {
            return c.Make(lower.Outcome, rule, lower.Rung, lower.Dose, [why, lower.Words]);
        }
        return c.Others.For(c) is { } other && Steps.AsksNoMore(c, other, c.StartOf(other), EaseCause.Pain)
            ? c.Make(
                Outcome.StepDown,
                rule,
                other,
                Steps.Fitted(c.StartOf(other), other, c.Dose.Seconds(c.Rung.MoveSeconds)),
                [why, Message.Of("ease.other-ladder", ("rung", other.Id))]
            )
            : c.Make(Outcome.Stop, rule, c.Rung, c.Dose, [why, Message.Of("bar.out")]);
    }

    /// <summary>What is put on top of a rung and a precaution bars by now comes off.</summary>
    private static Decision? BarredModifier(DecisionCase c) =>
        c.Library.FindModifier(c.Dose.Modifier) is { } modifier
        && modifier.BarredFor(c.Day.Profile) is { } id
        && string.IsNullOrWhiteSpace(c.Item.BarOverride)
            ? c.Make(
                Outcome.Ease,
                "D-BARRED",
                c.Rung,
                c.Dose with
                {
                    Modifier = null,
                },
                [Message.Of("bar.modifier", ("modifier", modifier.Id), ("precaution", id))]
            )
            : null;

    /// <summary>Rules about the whole visit under which nothing is added anywhere.</summary>
    public static IEnumerable<Decision> Holding(DecisionCase c) =>
        c
            .Day.Holds.Where(rule =>
                rule.RuleId is not "D-PAIN-SESSION" && c.Day.Flares.All(f => f.RuleId != rule.RuleId)
            )
            .Select(rule => c.Stay(rule.RuleId, rule.Words, Message.Of("day.nothing-added")));
}
