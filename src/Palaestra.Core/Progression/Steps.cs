using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Progression;

/// <summary>Why something is made easier: it says in which directions a step may ask no more.</summary>
internal enum EaseCause
{
    /// <summary>Pain has no direction: no more in any.</summary>
    Pain,

    /// <summary>No more where the trunk gave way, nor in the ladder's own direction.</summary>
    Faults,
    Away,
}

/// <summary>A way to ask less.</summary>
/// <param name="Words">What is done, in words.</param>
internal sealed record Step(Outcome Outcome, Rung Rung, Dose Dose, Message Words);

/// <summary>
/// Steps that are true to load: down is less and up is more, by the body model, for a typical body. Rungs are ordered for
/// teaching; a lower one need not ask less of this client.
/// </summary>
internal static class Steps
{
    /// <summary>Stops of a shorter range, as they are picked on the tablet.</summary>
    public static readonly IReadOnlyList<double> RangeStops = [0.25, 0.5, 0.75, 1];

    /// <summary>
    /// The first way to ask less, in this order: what cured the fault within the session; what was put on top; range, height, weight, dose of the
    /// same rung; a lower rung; a rung of another ladder for the direction; half the dose. None where nothing is left.
    /// </summary>
    public static Step? Down(DecisionCase c, EaseCause cause) =>
        Cured(c, cause)
        ?? Plain(c)
        ?? ShorterRange(c)
        ?? OtherHeight(c, cause)
        ?? Lighter(c)
        ?? LessDose(c)
        ?? LowerRung(c, cause)
        ?? OtherLadder(c, cause)
        ?? HalfDose(c);

    /// <summary>Only steps of the rung: after a long time away one of them, or a lower rung.</summary>
    public static Step? LowerRung(DecisionCase c, EaseCause cause)
    {
        foreach (var rung in c.AllBelow)
        {
            var start = c.StartOf(rung);
            if (AsksNoMore(c, rung, start, cause))
            {
                return To(c, Outcome.StepDown, rung, start, Message.Of("ease.level", ("rung", rung.Id)));
            }
        }
        return null;
    }

    /// <summary>A setting that was clean in today's eased sets, where the set as asked was not.</summary>
    private static Step? Cured(DecisionCase c, EaseCause cause)
    {
        if (cause != EaseCause.Faults || c.Today(c.Side) is not { } today)
        {
            return null;
        }
        var clean = today
            .Sets.Where(set =>
                set is { Setting: not null, RungId: null, BreakingReps: 0, PainOver: false }
                && set.CleanReps > 0
            )
            .Select(set => set.Setting!.Value)
            .Where(setting => !setting.SettingCovers(c.Dose))
            .ToList();
        if (clean.Count == 0)
        {
            return null;
        }
        var dose = c.Dose.WithSettingOf(clean.MaxBy(setting => setting.Range));
        return To(c, Outcome.Ease, c.Rung, dose, Message.Of("ease.cured", ("setting", dose.SettingSaid())));
    }

    /// <summary>What made it harder without being a rung comes off first. The model knows no load of it: that alone is less.</summary>
    private static Step? Plain(DecisionCase c) =>
        c.Library.FindModifier(c.Dose.Modifier) is { Harder: true } modifier
            ? new(
                Outcome.Ease,
                c.Rung,
                c.Dose with
                {
                    Modifier = null,
                },
                Message.Of("ease.plain", ("modifier", modifier.Id))
            )
            : null;

    /// <summary>A heavier weight is there, and it is over what is trained under the breaking load.</summary>
    public static bool Waits(DecisionCase c) =>
        c.Rung.Loads is { } loads
        && BreakingLoad.Most(c) is { } most
        && loads.FirstOrDefault(kg => kg > (c.Dose.Load ?? loads[0]) + 1e-9) is > 0 and var next
        && next > most + 1e-9;

    /// <summary>Not for one long hold: it is done at the end of its way.</summary>
    private static Step? ShorterRange(DecisionCase c)
    {
        if (
            !c.Rung.HasRange
            || c.Dose is { TotalReps: 1, Hold: > 0 }
            || RangeStops.LastOrDefault(stop => stop < c.Dose.Range - 1e-9) is not (> 0 and var stop)
        )
        {
            return null;
        }
        return To(
            c,
            Outcome.Ease,
            c.Rung,
            c.Dose with
            {
                Range = stop,
            },
            Message.Of("ease.range", ("share", stop))
        );
    }

    /// <summary>The next easier height of the surface, where that asks no more: over a short range a higher counter can.</summary>
    private static Step? OtherHeight(DecisionCase c, EaseCause cause)
    {
        var next = c
            .Rung.EasierHeights(c.Dose.Height)
            .Where(h => AsksNoMore(c, c.Rung, c.Dose with { Height = h }, cause))
            .Select(h => (double?)h)
            .FirstOrDefault();
        return next is { } height
            ? To(
                c,
                Outcome.Ease,
                c.Rung,
                c.Dose with
                {
                    Height = height,
                },
                Message.Of("ease.height", ("higher", height > (c.Dose.Height ?? 0)), ("height", height))
            )
            : null;
    }

    private static Step? Lighter(DecisionCase c)
    {
        if (c.Dose.Load is { } load && (c.Rung.Loads ?? []).Any(kg => kg < load - 1e-9))
        {
            var less = c.Rung.Loads!.Last(kg => kg < load - 1e-9);
            return To(
                c,
                Outcome.Ease,
                c.Rung,
                c.Dose with
                {
                    Load = less,
                },
                Message.Of("ease.lighter", ("load", less))
            );
        }
        return c.Dose.Band is > Band.Light and var band
            ? To(c, Outcome.Ease, c.Rung, c.Dose with { Band = band - 1 }, Message.Of("ease.band"))
            : null;
    }

    private static Step? LessDose(DecisionCase c) =>
        DoseStep.Easier(c.Dose, c.Rung, c.Policy.WeeklyGrowth) is { } less
            ? To(c, Outcome.Ease, c.Rung, less, Message.Of("ease.less", ("dose", less.Said())))
            : null;

    private static Step? OtherLadder(DecisionCase c, EaseCause cause) =>
        c.Others.For(c) is { } other && AsksNoMore(c, other, c.StartOf(other), cause)
            ? To(
                c,
                Outcome.StepDown,
                other,
                c.StartOf(other),
                Message.Of("ease.other-ladder-watch", ("rung", other.Id))
            )
            : null;

    private static Step? HalfDose(DecisionCase c)
    {
        var half = Halved(c.Dose);
        return half == c.Dose
            ? null
            : To(c, Outcome.Ease, c.Rung, half, Message.Of("ease.half", ("dose", half.Said())));
    }

    /// <summary>Half the sets, and no more than half the reps where sets shrink; of one set half the reps; of one rep half the hold, at least two seconds.</summary>
    public static Dose Halved(Dose dose)
    {
        if (dose.Sets > 1)
        {
            var half = dose with { Sets = dose.Sets / 2, Fewer = dose.Sets / 2 == 1 ? 0 : dose.Fewer };
            while (half.Reps > 1 && half.TotalReps * 2 > dose.TotalReps)
            {
                half = half with { Reps = half.Reps - 1 };
            }
            return half;
        }
        if (dose.Reps > 1)
        {
            return dose with { Reps = dose.Reps / 2, Fewer = 0 };
        }
        return dose.Hold > DosePlanner.LeastHold
            ? dose with
            {
                Hold = Math.Max(DosePlanner.LeastHold, Math.Floor(dose.Hold / 2)),
            }
            : dose;
    }

    /// <summary>
    /// The step with as much work as the present dose has at most; where it hardly lowers the greatest demand, a fifth less.
    /// </summary>
    private static Step To(DecisionCase c, Outcome outcome, Rung rung, Dose dose, Message words)
    {
        var present = c.Dose.Seconds(c.Rung.MoveSeconds);
        var changes = rung.Id != c.Rung.Id || !dose.SettingCovers(c.Dose);
        var hardly =
            changes
            && !(
                Greatest(c, rung, dose)
                < Greatest(c, c.Rung, c.Dose) - Tolerance(c, Greatest(c, c.Rung, c.Dose))
            );
        var most = hardly ? present * (1 - c.Policy.Judgement.HardlyLess) : present;
        return new(outcome, rung, Fitted(dose, rung, most), words);
    }

    /// <summary>The dose, less sets, then reps, then seconds, until its work is not above so many seconds; at least one rep.</summary>
    public static Dose Fitted(Dose dose, Rung rung, double seconds)
    {
        var limit = seconds + 1e-6;
        while (dose.Seconds(rung.MoveSeconds) > limit)
        {
            if (dose.Sets > 1)
            {
                dose = dose with { Sets = dose.Sets - 1 };
            }
            else if (dose.Reps > 1)
            {
                dose = dose with { Reps = dose.Reps - 1, Fewer = 0 };
            }
            else if (dose.Hold > 1)
            {
                dose = dose with
                {
                    Hold = Math.Max(1, Math.Min(dose.Hold - 1, Math.Floor(limit - rung.MoveSeconds))),
                };
            }
            else
            {
                break;
            }
        }
        return dose;
    }

    /// <summary>Whether a rung in a setting asks no more than the present one, where that counts for the cause.</summary>
    public static bool AsksNoMore(DecisionCase c, Rung rung, Dose dose, EaseCause cause)
    {
        var now = Load(c, c.Rung, c.Dose);
        var then = Load(c, rung, dose);
        return Counting(c, cause).All(d => NoMore(c, Amount(now, d, c), Amount(then, d, c)));
    }

    private static bool NoMore(DecisionCase c, double now, double then) =>
        then < c.Policy.Judgement.AsideNewtonMetres || then <= now + Tolerance(c, now);

    private static double Tolerance(DecisionCase c, double now) =>
        Math.Max(c.Policy.Judgement.NoMoreShare * now, c.Policy.Judgement.NoMoreNewtonMetres);

    private static IEnumerable<Direction> Counting(DecisionCase c, EaseCause cause) =>
        cause switch
        {
            EaseCause.Pain => All,
            EaseCause.Faults => c.GaveWay().Append(c.Ladder.Direction),
            _ => [c.Ladder.Direction],
        };

    private static readonly Direction[] All =
    [
        Direction.Front,
        Direction.Back,
        Direction.Side,
        Direction.Twist,
        Direction.Pelvis,
    ];

    private static Demands Load(DecisionCase c, Rung rung, Dose dose) =>
        c.Library.Settings.Of(rung, Side.Left, dose);

    /// <summary>The most in a direction, on whichever side.</summary>
    private static double Amount(Demands demands, Direction direction, DecisionCase c) =>
        Math.Max(
            demands.In(direction, OnSide.Task, Side.Left),
            demands.In(direction, OnSide.Other, Side.Left)
        );

    private static double Greatest(DecisionCase c, Rung rung, Dose dose)
    {
        var load = Load(c, rung, dose);
        return All.Max(direction => Amount(load, direction, c));
    }

    /// <summary>
    /// By how much another rung or setting asks more in the ladder's own direction: share of the present, and of at least
    /// 10 N·m. None where neither asks for it.
    /// </summary>
    public static double? LoadMore(DecisionCase c, Rung rung, Dose dose)
    {
        var direction = c.Ladder.Direction;
        if (direction == Direction.None)
        {
            return null;
        }
        var now = Amount(Load(c, c.Rung, c.Dose), direction, c);
        var then = Amount(Load(c, rung, dose), direction, c);
        return now < 0.05 && then < 0.05 ? null : (then - now) / Math.Max(now, SmallLoad);
    }

    /// <summary>Newton metres under which a share says nothing. Common practice.</summary>
    private const double SmallLoad = 10;
}
