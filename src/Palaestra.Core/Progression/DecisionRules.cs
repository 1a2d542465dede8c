using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>
/// The D-rules in their order; the first that fires wins. All common practice; thresholds come from the policy.
/// </summary>
internal sealed class DecisionRules(DecideInput input, PlanItem item, Side side, PracticeLibrary library)
{
    private readonly Policy policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
    private readonly Rung rung = library.Rung(item.RungId);
    private readonly Dose dose = item.Doses.First(d => d.Side == side).Dose;

    private List<Performance> History(Side of) =>
        [
            .. input
                .Visits.Where(p => p.PlanItemId == item.Id && p.RungId == item.RungId && p.Side == of)
                .OrderByDescending(p => p.Visit),
        ];

    private Performance? Today(Side of) => History(of).FirstOrDefault(p => p.Visit == input.Visit);

    private IEnumerable<Side> ItemSides => item.Doses.Select(d => d.Side);

    public Decision Decide() =>
        Refer()
        ?? PainStop()
        ?? PainNext()
        ?? FaultCap()
        ?? FaultCue()
        ?? DoneLess()
        ?? OneSide()
        ?? Master()
        ?? Build()
        ?? Confirm()
        ?? Away()
        ?? Make(
            Outcome.Stay,
            "D-STAY",
            rung,
            dose,
            [Today(side) is null ? "Not done today." : DoneWords(Today(side)!)]
        );

    private Decision? Refer()
    {
        var check = input.CheckIn;
        if (check.DangerSigns.Count == 0)
        {
            return null;
        }
        var why = check.DangerSigns.Select(id =>
            library.DangerSigns.FirstOrDefault(s => s.Id == id)?.Words ?? id
        );
        return Make(Outcome.Stop, "D-REFER", rung, dose, [.. why, "Stop everything and send on."]);
    }

    private Decision? PainStop()
    {
        var sets = ItemSides.Sum(s => Today(s)?.PainSets ?? 0);
        if (sets < policy.PainStopSets)
        {
            return null;
        }
        var evidence = $"Pain over the limit in {sets} sets.";
        return Below() is { } lower
            ? Make(Outcome.StepDown, "D-PAIN-STOP", lower, StartOf(lower), [evidence])
            : Make(Outcome.Stop, "D-PAIN-STOP", rung, dose, [evidence, "Already at the lowest rung."]);
    }

    private Decision? PainNext()
    {
        var check = input.CheckIn;
        var rise = check.NextDayPain - check.UsualPain;
        var slow = check.SettledHours > policy.SettleHours;
        if (rise is null || rise < policy.NextDayRise)
        {
            return slow
                ? EaseOneStep(
                    "D-PAIN-NEXT",
                    $"Took {check.SettledHours:0.#} h to settle, over {policy.SettleHours:0.#} h."
                )
                : null;
        }
        return EaseOneStep(
            "D-PAIN-NEXT",
            $"Pain {check.NextDayPain} the day after, usual {check.UsualPain}."
        );
    }

    private Decision? FaultCap()
    {
        if (Today(side) is not { Reps: > 0 } today || today.CueFixed)
        {
            return null;
        }
        var share = (double)today.BreakingReps / today.Reps;
        return share > policy.FaultCapFraction
            ? EaseOneStep(
                "D-FAULT-CAP",
                $"{FaultWords(today)} in {today.BreakingReps} of {today.Reps} reps; no cue fixed it."
            )
            : null;
    }

    private Decision? FaultCue() =>
        Today(side) is { BreakingReps: > 0, CueFixed: true } today
            ? Make(
                Outcome.Stay,
                "D-FAULT-CUE",
                rung,
                dose,
                [
                    $"{FaultWords(today)} in {today.BreakingReps} of {today.Reps} reps; one cue fixed it.",
                    "Coach at the same dose.",
                ]
            )
            : null;

    private Decision? DoneLess()
    {
        var history = History(side);
        if (history.Count < 2 || Today(side) is null)
        {
            return null;
        }
        var (now, before) = (history[0], history[1]);
        if (now.DoneFraction >= policy.DoneLessFraction || before.DoneFraction >= policy.DoneLessFraction)
        {
            return null;
        }
        var words =
            $"{now.DoneFraction:P0} and {before.DoneFraction:P0} of the work was clean, two visits running.";
        return EaseOneStep("D-DONE-LESS", words);
    }

    private Decision? OneSide()
    {
        if (item.Doses.Count < 2 || Today(Side.Left) is not { } left || Today(Side.Right) is not { } right)
        {
            return null;
        }
        var (leftMet, rightMet) = (left.MeetsTarget(rung), right.MeetsTarget(rung));
        if (leftMet == rightMet)
        {
            return null;
        }
        var weaker = leftMet ? Side.Right : Side.Left;
        var evidence = new List<string>
        {
            $"The {weaker.Other().Word()} meets the target, the {weaker.Word()} does not ({DoneWords(leftMet ? right : left)}).",
            "The rung is held for both.",
        };
        if (side != weaker)
        {
            return Make(Outcome.Stay, "D-ONE-SIDE", rung, dose, evidence);
        }
        var extra = ExtraWork();
        return extra == dose
            ? Make(Outcome.Stay, "D-ONE-SIDE", rung, dose, evidence)
            : Make(Outcome.Add, "D-ONE-SIDE", rung, extra, [.. evidence, "Extra work for the weaker side."]);
    }

    private Dose ExtraWork()
    {
        var other = item.Doses.First(d => d.Side == side.Other()).Dose;
        var level = StirredUpLevel.Of(input.Profile, policy);
        // Once the weaker side already has more than the other, it keeps its extra and gets no further one.
        return dose.TotalReps > other.TotalReps ? dose : DosePlanner.ForWeakerSide(dose, rung, level, policy);
    }

    private Decision? Master()
    {
        if (!ItemSides.All(s => MetInARow(s) >= policy.MasteryVisits))
        {
            return null;
        }
        var effort = ItemSides.Select(s => Today(s)?.Effort).Max();
        if (effort > policy.MasteryEffortMax)
        {
            return Make(
                Outcome.Stay,
                "D-MASTER",
                rung,
                dose,
                [
                    $"Target clean {policy.MasteryVisits} visits running, but effort {effort} of 10 is over {policy.MasteryEffortMax}.",
                ]
            );
        }
        var evidence = new List<string>
        {
            $"{rung.Target.Words()} clean on {(item.Doses.Count > 1 ? "both sides" : "every rep")}, {policy.MasteryVisits} visits running.",
        };
        if (effort is not null)
        {
            evidence.Add($"Effort {effort} of 10.");
        }
        return Above() is { } higher
            ? Make(Outcome.StepUp, "D-MASTER", higher, StartOf(higher), evidence)
            : Make(Outcome.Stay, "D-MASTER", rung, dose, [.. evidence, "No higher rung is open."]);
    }

    /// <summary>What the practitioner's own choice means in rung and dose; stays where the choice has nowhere to go.</summary>
    public Decision Chosen(Outcome outcome) =>
        outcome switch
        {
            Outcome.StepUp when Above() is { } higher => Make(outcome, Override, higher, StartOf(higher), []),
            Outcome.StepDown when Below() is { } lower => Make(outcome, Override, lower, StartOf(lower), []),
            Outcome.Add => Make(
                outcome,
                Override,
                rung,
                DoseStep.Harder(dose, rung, policy.WeeklyGrowth) ?? dose,
                []
            ),
            Outcome.Ease => Make(outcome, Override, rung, DoseStep.Easier(dose, rung) ?? dose, []),
            Outcome.Stop => Make(outcome, Override, rung, dose, []),
            _ => Make(Outcome.Stay, Override, rung, dose, []),
        };

    private const string Override = "D-OVERRIDE";

    private int MetInARow(Side of) =>
        Today(of) is null ? 0 : History(of).TakeWhile(p => p.MeetsTarget(rung)).Count();

    private Decision? Build()
    {
        if (Today(side) is not { AllClean: true } today || today.MeetsTarget(rung))
        {
            return null;
        }
        if (DoseStep.Harder(dose, rung, policy.WeeklyGrowth) is not { } more)
        {
            return null;
        }
        var growth = more.Seconds(rung.MoveSeconds) / dose.Seconds(rung.MoveSeconds) - 1;
        return Make(
            Outcome.Add,
            "D-BUILD",
            rung,
            more,
            [$"All {today.CleanReps} clean; target {rung.Target.Words()}.", $"Clean time +{growth:P0}."]
        );
    }

    private Decision? Confirm() =>
        Today(side) is { } today && today.MeetsTarget(rung)
            ? Make(Outcome.Stay, "D-CONFIRM", rung, dose, ["Target clean once; once more confirms it."])
            : null;

    private Decision? Away()
    {
        if (input.LastWorkDate is not { } last)
        {
            return null;
        }
        var days = input.Date.DayNumber - last.DayNumber;
        if (days < policy.AwayDays)
        {
            return null;
        }
        var words = $"{days} days without training.";
        return Below() is { } lower
            ? Make(
                Outcome.StepDown,
                "D-AWAY",
                lower,
                StartOf(lower),
                [words, "One step down, then check again."]
            )
            : Make(Outcome.Ease, "D-AWAY", rung, DoseStep.Easier(dose, rung) ?? dose, [words]);
    }

    /// <summary>Dose first, then the rung; at the lowest rung with the smallest dose it stays and says so.</summary>
    private Decision EaseOneStep(string rule, string evidence)
    {
        if (DoseStep.Easier(dose, rung) is { } easier)
        {
            return Make(Outcome.Ease, rule, rung, easier, [evidence]);
        }
        return Below() is { } lower
            ? Make(Outcome.StepDown, rule, lower, StartOf(lower), [evidence])
            : Make(
                Outcome.Stay,
                rule,
                rung,
                dose,
                [evidence, "Already the smallest dose of the lowest rung: coach, or choose another ladder."]
            );
    }

    private Dose StartOf(Rung of) => DosePlanner.Start(of, StirredUpLevel.Of(input.Profile, policy), policy);

    private Rung? Above() => Step(+1);

    private Rung? Below() => Step(-1);

    /// <summary>The next rung of the ladder that no precaution bars.</summary>
    private Rung? Step(int by)
    {
        var ladder = library.LadderOf(rung.Id);
        for (var i = ladder.IndexOf(rung.Id) + by; i >= 0 && i < ladder.Rungs.Count; i += by)
        {
            // Neutral positions are no ladder of difficulty: nothing is above or below them.
            if (
                ladder.Screened
                && !Allowance.Of(library, input.Profile.Precautions, ladder.Rungs[i], Side.Both).Barred
            )
            {
                return ladder.Rungs[i];
            }
        }
        return null;
    }

    private string FaultWords(Performance today)
    {
        var code = today.Sets.Select(set => set.FirstFault).FirstOrDefault(fault => fault is not null);
        var name = code is null ? "Control was lost" : library.FindFault(code)?.Name ?? code;
        return char.ToUpperInvariant(name[0]) + name[1..];
    }

    private static string DoneWords(Performance today) =>
        $"{today.CleanReps} of {today.Prescribed.TotalReps} clean";

    private Decision Make(Outcome outcome, string rule, Rung to, Dose next, IReadOnlyList<string> evidence) =>
        new(item.Id, side, outcome, rule, to.Id, next, evidence, null);
}
