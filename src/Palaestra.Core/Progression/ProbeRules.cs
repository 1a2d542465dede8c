using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Who is ready to try one up, what a try grants, and what is carried over. Common practice; thresholds from the policy.</summary>
internal static class ProbeRules
{
    /// <summary>
    /// D-READY for one side: clean for the policy's visits at a share of the target's time, with enough clean work to tell, not
    /// hard, steady and felt in place. Pain rules and whatever else fired are looked at by the caller. Schools that move on by
    /// the calendar or by long holds grant in their own way.
    /// </summary>
    public static ProbeOffer? Ready(DecisionCase c)
    {
        if (
            c.Policy.MovingOn != MovingOn.Mastery
            || c.Item.Spell is not null
            || c.Today(c.Side) is not { } today
            || c.ProbesToday.Count > 0
            || !c.Day.MayProbe
            || Waits(c)
            || today.Tremor > 0 && !c.Day.OwnTremor
            || FaultRules.FeltElsewhere(c, today)
            || today.Effort is not { } effort
            || effort > c.Judgement.ReadyEffortMax
            || Running(c) is not { } running
            || Next(c) is not { } next
        )
        {
            return null;
        }
        return new(
            next.Rung.Id,
            next.Dose,
            [running, Message.Of("effort.told", ("effort", effort))],
            ItemChanges.Of(next.Rung, c.Day.Profile, c.Library)
        );
    }

    /// <summary>
    /// The visits running that speak for it, in words; none where they are too few or too small. A long time between two
    /// visits ends the run.
    /// </summary>
    private static Message? Running(DecisionCase c)
    {
        var move = c.Rung.MoveSeconds;
        var least = c.Judgement.ReadyShare * c.Goal.Seconds(move) - 1e-9;
        var visits = new List<Performance>();
        foreach (var done in c.History(c.Side))
        {
            if (
                !c.Clean(done)
                || done.Prescribed.Seconds(move) < least
                || !done.Prescribed.SettingCovers(c.Dose)
                || visits.Count > 0
                    && visits[^1].Date.DayNumber - done.Date.DayNumber >= c.Judgement.AwayTwoDays
            )
            {
                break;
            }
            visits.Add(done);
        }
        var home = visits.Count > 0 && AdvanceRules.HomeAgrees(c, c.Side);
        var reps = visits.Sum(done => done.CleanReps);
        var seconds = visits.Sum(done => done.CleanSeconds);
        if (
            visits.Count + (home ? 1 : 0) < c.Judgement.ReadyVisits
            || (reps < c.Judgement.ReadyReps && seconds < c.Judgement.ReadySeconds)
        )
        {
            return null;
        }
        return Message.Of(
            "ready.clean",
            ("visits", visits.Count >= c.Judgement.ReadyVisits ? visits.Count : null),
            ("reps", reps)
        );
    }

    /// <summary>After a try that did not hold two visits, after one that hurt four.</summary>
    private static bool Waits(DecisionCase c)
    {
        var last = (c.Input.Probes ?? [])
            .Where(p => p.PlanItemId == c.Item.Id && p.Visit < c.Input.Visit)
            .GroupBy(p => p.Visit)
            .MaxBy(visit => visit.Key);
        if (last is null)
        {
            return false;
        }
        var gap = last.Any(p => Painful(c, p)) ? c.Judgement.ProbeGapPainful : c.Judgement.ProbeGap;
        return c.Input.Visit - last.Key < gap;
    }

    /// <summary>The next thing harder: range, then height, load or band, then the rung above; at its start dose, one set.</summary>
    private static (Rung Rung, Dose Dose)? Next(DecisionCase c)
    {
        if (c.Dose.Range < c.Goal.Range - 1e-9)
        {
            var wider = Steps.RangeStops.First(stop => stop > c.Dose.Range + 1e-9);
            return (
                c.Rung,
                OneSet(c.StartOf(c.Rung).WithSettingOf(c.Dose) with { Range = Math.Min(wider, c.Goal.Range) })
            );
        }
        if (c.HarderSetting() is { } setting)
        {
            return (c.Rung, OneSet(setting));
        }
        return !Steps.Waits(c) && c.Above is { } above
            ? (above, OneSet(c.StartOf(above)) with { Range = c.RangeOf(above) })
            : null;
    }

    private static Dose OneSet(Dose dose) => dose with { Sets = 1, Fewer = 0 };

    /// <summary>
    /// D-PROBE: what was tried today. Clean on every side grants it, with what is carried over (D-CARRY); everything else
    /// stays. Rules about pain hold it back like anything that is earned.
    /// </summary>
    public static Decision? Probe(DecisionCase c)
    {
        var tried = c.ProbesToday;
        if (tried.Count == 0)
        {
            return null;
        }
        var evidence = tried.Select(p => Words(c, p)).ToList();
        var asked = c.Library.Rung(tried[0].RungId).TaskSides;
        var gap = tried.Any(p => Painful(c, p)) ? c.Judgement.ProbeGapPainful : c.Judgement.ProbeGap;
        if (asked.Any(side => tried.All(p => p.Side != side)))
        {
            return c.Stay("D-PROBE", [.. evidence, Message.Of("probe.one-side")]);
        }
        if (c.Sides.Any(side => c.Today(side) is null))
        {
            return c.Stay("D-PROBE", [.. evidence, Message.Of("probe.not-done")]);
        }
        if (Next(c) is not { } next || tried.Any(p => !Fits(p, next)))
        {
            return c.Stay("D-PROBE", [.. evidence, Message.Of("probe.not-start")]);
        }
        if (tried.Any(p => p.Set.PainMost is null) && c.Day.Session?.EndMinutes is null)
        {
            return c.Stay("D-PROBE", [.. evidence, Message.Of("probe.pain-unknown")]);
        }
        if (tried.Any(p => !Held(c, p)))
        {
            return c.Stay("D-PROBE", [.. evidence, Message.Of("probe.stays", ("gap", gap))]);
        }
        var mine = tried.FirstOrDefault(p => p.Side == c.Side) ?? tried[0];
        var rung = next.Rung;
        var dose = Carried(c, rung, next.Dose, mine);
        var carried = Message.Of("probe.carry", ("share", c.Judgement.CarryShare), ("dose", dose.Said()));
        return c.Make(
            rung.Id == c.Rung.Id ? Outcome.Add : Outcome.StepUp,
            "D-PROBE",
            rung,
            dose,
            [.. evidence, carried]
        ) with
        {
            Fired = [new("D-CARRY", Outcome.StepUp, [carried])],
        };
    }

    /// <summary>
    /// D-CARRY: up to a share of the old clean time, at most so many times what the try showed, within the new rung's target;
    /// the start dose at least, and no more than that for an irritable client.
    /// </summary>
    /// <param name="next">In the setting that is granted.</param>
    private static Dose Carried(DecisionCase c, Rung rung, Dose next, ProbeDone probe)
    {
        var start = c.StartOf(rung).WithSettingOf(next);
        if (c.Level == Intake.Irritability.High)
        {
            return start;
        }
        var old = (c.Today(c.Side)?.DoneFraction ?? 0) * c.Dose.Seconds(c.Rung.MoveSeconds);
        var limit = Math.Min(
            c.Judgement.CarryShare * Math.Min(old, c.Dose.Seconds(c.Rung.MoveSeconds)),
            c.Judgement.CarryTimes * probe.Dose.Seconds(rung.MoveSeconds)
        );
        var options =
            from sets in Enumerable.Range(start.Sets, Math.Max(1, rung.Target.Sets - start.Sets + 1))
            from reps in Enumerable.Range(start.Reps, Math.Max(1, rung.Target.Reps - start.Reps + 1))
            let option = start with
            {
                Sets = sets,
                Reps = reps,
            }
            where option.Seconds(rung.MoveSeconds) <= limit + 1e-9 && rung.Allows(option)
            orderby option.Seconds(rung.MoveSeconds) descending, sets
            select (Dose?)option;
        return options.FirstOrDefault() is { } most
            ? DosePlanner.Within(most, c.AllowanceOf(rung, c.Side).Limit, rung, c.Policy)
            : start;
    }

    /// <summary>What comes next, in its setting and with at least as much work: a shorter set tells less.</summary>
    private static bool Fits(ProbeDone probe, (Rung Rung, Dose Dose) next) =>
        probe.RungId == next.Rung.Id
        && probe.Dose.SettingCovers(next.Dose)
        && probe.Dose.Seconds(next.Rung.MoveSeconds) >= next.Dose.Seconds(next.Rung.MoveSeconds) - 1e-9;

    /// <summary>As clean as a set of the plan would have to be, without a cue, and not over the limit for pain.</summary>
    private static bool Held(DecisionCase c, ProbeDone probe)
    {
        var grace = probe.Dose.Reps / c.Judgement.BrokenPer;
        return !Painful(c, probe)
            && probe.Set is { Eased: false, CueFixed: null }
            && probe.Set.CleanReps >= probe.Dose.Reps - grace
            && probe.Set.BreakingReps <= grace
            && !(probe.Set.Tremor > FaultRules.MostOfASet && !c.Day.OwnTremor);
    }

    /// <summary>By its own pain before; where that was not asked by that visit's check-in.</summary>
    private static bool Painful(DecisionCase c, ProbeDone probe) =>
        probe.Set.Over(
            c.Policy.Pain,
            probe.Visit == c.Input.Visit
                ? c.Input.CheckIn.PainNow
                : c.Input.Pain?.CheckIns.FirstOrDefault(past => past.Visit == probe.Visit)?.Now
        );

    private static Message Words(DecisionCase c, ProbeDone probe) =>
        Message.Of(
            "probe.tried",
            ("side", probe.Side),
            ("rung", probe.RungId),
            ("setting", probe.Dose.SettingSaid()),
            ("clean", probe.Set.CleanReps),
            ("reps", probe.Dose.Reps),
            ("hurt", Painful(c, probe))
        );
}
