using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Finds, by trying small changes of the input, the smallest one that gives another decision.</summary>
internal static class Counterfactual
{
    private sealed record Change(string Words, Func<DecideInput, DecideInput> Apply);

    public static string? Of(Decision decision, DecideInput input, PracticeLibrary library)
    {
        foreach (var change in Changes(decision, input))
        {
            var other = DecisionEngine
                .Bare(change.Apply(input), library)
                .First(d => d.PlanItemId == decision.PlanItemId && d.Side == decision.Side);
            if (other.Outcome != decision.Outcome)
            {
                return $"{change.Words}, and this would be: {Words(other.Outcome)}.";
            }
        }
        return null;
    }

    public static string Words(Outcome outcome) =>
        outcome switch
        {
            Outcome.StepUp => "step up",
            Outcome.Add => "add",
            Outcome.Stay => "stay",
            Outcome.Ease => "ease the dose",
            Outcome.StepDown => "step down",
            _ => "stop",
        };

    /// <summary>Better changes first for what did not advance, worse ones for what did; each from small to large.</summary>
    private static IEnumerable<Change> Changes(Decision decision, DecideInput input)
    {
        var check = input.CheckIn;
        if (check.DangerSigns.Count > 0)
        {
            yield return new(
                "Without the danger sign",
                i => i with { CheckIn = i.CheckIn with { DangerSigns = [] } }
            );
        }
        for (var less = 1; check.NextDayPain - less >= 0; less++)
        {
            var by = less;
            yield return new(
                $"{by} less pain the day after",
                i => i with { CheckIn = i.CheckIn with { NextDayPain = i.CheckIn.NextDayPain - by } }
            );
        }
        if (check.SettledHours is not null)
        {
            yield return new(
                "Settled within the day",
                i => i with { CheckIn = i.CheckIn with { SettledHours = 0 } }
            );
        }
        if (check.NextDayPain > check.UsualPain && check.SettledHours is not null)
        {
            yield return new(
                "No soreness after the last work",
                i =>
                    i with
                    {
                        CheckIn = i.CheckIn with { NextDayPain = i.CheckIn.UsualPain, SettledHours = 0 },
                    }
            );
        }
        yield return new("No set over the pain limit", i => Each(i, decision, bothSides: true, WithoutPain));
        var today = input.Visits.FirstOrDefault(p => Is(p, decision) && p.Visit == input.Visit);
        for (var more = 1; today is not null && more <= today.Prescribed.TotalReps - today.CleanReps; more++)
        {
            var by = more;
            yield return new(
                $"{by} more clean {(by == 1 ? "rep" : "reps")}{On(decision.Side)}",
                i => Each(i, decision, bothSides: false, p => WithMoreClean(p, by))
            );
        }
        if (today is { AllClean: true })
        {
            yield return new("One more visit like this", i => Repeated(i, decision));
            for (var fewer = 1; fewer <= today.CleanReps; fewer++)
            {
                var by = fewer;
                yield return new(
                    $"{by} fewer clean {(by == 1 ? "rep" : "reps")}{On(decision.Side)}",
                    i => Each(i, decision, bothSides: false, p => WithMoreClean(p, -by))
                );
            }
        }
        for (var less = 1; today?.Effort - less >= 0; less++)
        {
            var by = less;
            yield return new(
                $"Effort {by} lower",
                i =>
                    Each(
                        i,
                        decision,
                        bothSides: true,
                        p => p with { Sets = [.. p.Sets.Select(s => s with { Effort = s.Effort - by })] }
                    )
            );
        }
        yield return new(
            "Everything asked for done clean",
            i => Each(i, decision, bothSides: true, AllClean)
        );
    }

    private static string On(Side side) => side == Side.Both ? "" : $" on the {side.Word()}";

    private static bool Is(Performance p, Decision d) => p.PlanItemId == d.PlanItemId && p.Side == d.Side;

    private static DecideInput Each(
        DecideInput input,
        Decision d,
        bool bothSides,
        Func<Performance, Performance> change
    ) =>
        input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p.Visit == input.Visit && p.PlanItemId == d.PlanItemId && (bothSides || p.Side == d.Side)
                        ? change(p)
                        : p
                ),
            ],
        };

    private static Performance WithoutPain(Performance p) =>
        p with
        {
            Sets = [.. p.Sets.Select(set => set with { PainOver = false })],
        };

    private static Performance AllClean(Performance p) =>
        p with
        {
            Sets =
            [
                .. Enumerable
                    .Range(0, p.Prescribed.Sets)
                    .Select(_ => new SetDone(
                        p.Prescribed.Reps,
                        p.Prescribed.Reps,
                        0,
                        0,
                        p.Prescribed.Reps * p.Prescribed.Hold,
                        false,
                        null,
                        p.Effort,
                        null
                    )),
            ],
        };

    /// <summary>Moves reps between clean and broken, set by set, without changing how many were asked for.</summary>
    private static Performance WithMoreClean(Performance p, int by)
    {
        var left = Math.Abs(by);
        var sets = new List<SetDone>();
        foreach (var set in p.Sets)
        {
            var room = by > 0 ? Math.Max(0, p.Prescribed.Reps - set.CleanReps) : set.CleanReps;
            var step = Math.Min(left, room) * Math.Sign(by);
            left -= Math.Abs(step);
            sets.Add(
                set with
                {
                    CleanReps = set.CleanReps + step,
                    Reps = Math.Max(set.Reps, set.CleanReps + step),
                    BreakingReps = Math.Max(0, set.BreakingReps - step),
                }
            );
        }
        while (by > 0 && left > 0)
        {
            var reps = Math.Min(left, p.Prescribed.Reps);
            left -= reps;
            sets.Add(new SetDone(reps, reps, 0, 0, reps * p.Prescribed.Hold, false, null, p.Effort, null));
        }
        return p with { Sets = sets };
    }

    /// <summary>Today's work again, as a next visit.</summary>
    private static DecideInput Repeated(DecideInput input, Decision d) =>
        input with
        {
            Visit = input.Visit + 1,
            Visits =
            [
                .. input.Visits,
                .. input
                    .Visits.Where(p => p.Visit == input.Visit && p.PlanItemId == d.PlanItemId)
                    .Select(p => p with { Visit = input.Visit + 1 }),
            ],
        };
}
