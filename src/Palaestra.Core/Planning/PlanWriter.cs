using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Writes the chosen options out as a plan: order, doses, reasons, changes, words.</summary>
internal sealed class PlanWriter(
    PlanInput input,
    Irritability level,
    Policy policy,
    PracticeLibrary library,
    Func<Guid> newId
)
{
    /// <summary>Floor first, standing last (P-ORDER); in one position the base first, then what does most for the weak link.</summary>
    public Plan Plan(IReadOnlyList<PlanOption> options)
    {
        var weak = input.Findings.WeakLink?.Sector;
        var ordered = options
            .OrderBy(option => option.Position)
            .ThenByDescending(option => option.Basic)
            .ThenByDescending(option => weak is { } sector ? option.Cover[(int)sector] : 0)
            .ThenByDescending(option => option.Cover.Sum())
            .ThenBy(option => option.Key, StringComparer.Ordinal);
        return PlanTime.WithMinutes(
            new Plan(
                [.. ordered.Select(option => option.Locked ?? Item(option, option.Candidate!))],
                input.Strategy,
                input.Activation,
                policy.Id,
                policy.Version,
                library.Version,
                0,
                []
            ),
            library,
            policy
        );
    }

    private PlanItem Item(PlanOption option, Candidate candidate)
    {
        var rung = candidate.Rung;
        var body = input.Body ?? BodySize.Typical;
        var doses = option
            .Doses.Select(dose => PlanRange.Cautious(dose, rung, input.Profile, body, library))
            .ToList();
        return new PlanItem(
            newId(),
            rung.Id,
            PurposeWords(candidate),
            doses,
            [.. Purpose(candidate), .. candidate.Why, .. DoseReasons(option, candidate, doses)],
            ItemChanges.Of(rung, input.Profile, library),
            rung.Cues[0]
        );
    }

    private IEnumerable<Reason> Purpose(Candidate candidate)
    {
        if (!candidate.Basic)
        {
            yield return MainPurpose(candidate);
        }
        var served = library.Goals.Where(goal => goal.Ladders.Contains(candidate.Ladder.Id));
        foreach (
            var goal in served.Where(goal =>
                input.Goals?.Contains(goal.Id) == true && goal.Fits(candidate.Rung)
            )
        )
        {
            yield return new("P-GOAL", Message.Of("plan.goal", ("goal", goal.Id)));
        }
        if (candidate.Allowance.Preferred)
        {
            yield return new("P-PREFER", PreferWords(candidate));
        }
    }

    private static Message PreferWords(Candidate candidate)
    {
        var notes = candidate
            .Allowance.Notes.Where(note => note.Effect == PrecautionEffect.Prefer)
            .Select(note => Message.Of("tagged", ("tag", note.Tag), ("words", note.Words)))
            .Distinct();
        return Message.Of("plan.prefer", ("notes", notes));
    }

    private Reason MainPurpose(Candidate candidate)
    {
        if (input.Findings.WeakLink is { } weak)
        {
            if (candidate.Asks(weak.Sector, library) > 0)
            {
                return new(
                    "P-WEAK",
                    Message.Of("plan.weak", ("weak", weak.Words), ("percent", weak.Percent))
                );
            }
            if (
                Sectors.Of(candidate.Ladder.Direction, candidate.Ladder.On, Side.Left) is { } ahead
                && (ahead == weak.Sector || ahead.Mirror() == weak.Sector)
            )
            {
                return new(
                    "P-WEAK",
                    Message.Of("plan.weak-leads", ("weak", weak.Words), ("percent", weak.Percent))
                );
            }
        }
        var lacking = input
            .Findings.Control.Where(control =>
                control.Percent < 100 - policy.EvenPercent && candidate.Asks(control.Sector, library) > 0
            )
            .OrderBy(control => control.Percent)
            .ThenBy(control => control.Sector)
            .ToList();
        if (lacking.Count > 0)
        {
            return new(
                "P-COVER",
                Message.Of("plan.cover", ("sector", lacking[0].Sector), ("percent", lacking[0].Percent))
            );
        }
        return candidate.Why.Any(reason => reason.RuleId == "P-ENTRY")
            ? new("P-KEEP", Message.Of("plan.keep"))
            : new("P-UNSEEN", Message.Of("plan.unseen"));
    }

    private IEnumerable<Reason> DoseReasons(
        PlanOption option,
        Candidate candidate,
        IReadOnlyList<SideDose> doses
    )
    {
        var start = DosePlanner.Start(candidate.Rung, level, policy);
        yield return new($"P-DOSE-{level.ToString().ToUpperInvariant()}", DoseWords(start));
        var dose = option.Doses.MinBy(side => side.Dose.TotalReps)!.Dose;
        if (dose.Fewer > 0)
        {
            yield return new("P-DESCENDING", Message.Of("plan.descending", ("dose", dose.Said())));
        }
        if (
            policy.Endurance == HoldEndurance.OneLong
            && level == Irritability.Low
            && candidate.Rung.Endurance is not null
        )
        {
            yield return new("P-ONE-LONG", Message.Of("plan.one-long", ("dose", dose.Said())));
        }
        if (dose.Sets < start.Sets)
        {
            yield return new("P-FEWER-SETS", Message.Of("plan.fewer-sets"));
        }
        if (dose.Sets > start.Sets)
        {
            yield return new("P-MORE-SETS", Message.Of("plan.more-sets"));
        }
        if (DosePlanner.Within(start, candidate.Allowance.Limit, candidate.Rung, policy) != start)
        {
            var why = candidate
                .Allowance.Limits.Select(note =>
                    Message.Of("tagged.no", ("tag", note.Tag), ("words", note.Words))
                )
                .Distinct();
            yield return new("P-LIMIT", Message.Of("plan.limit", ("why", why)));
        }
        if (candidate.Sides.Count < candidate.Rung.TaskSides.Count)
        {
            yield return new(
                "P-WORKING-SIDE",
                Message.Of(
                    "plan.working-side",
                    ("side", candidate.Sides[0]),
                    ("why", candidate.Allowance.Notes.First(n => n.WorkingSide is not null).Words)
                )
            );
        }
        else if (candidate.Weaker is { } weaker && option.Doses.Count == 2)
        {
            yield return new(
                "P-WEAKER",
                Message.Of("plan.weaker", ("side", weaker), ("dose", option.Doses[0].Dose.Said()))
            );
        }
        if (doses.Where(d => d.Range < 1).ToList() is { Count: > 0 } shorter)
        {
            var words = shorter.Select(d =>
                Message.Of("plan.shorter-range", ("side", d.Side), ("range", PlanRange.Words(d)))
            );
            yield return new("P-RANGE", Message.Of("plan.ranges", ("ranges", words)));
        }
    }

    private Message DoseWords(Dose dose) =>
        level switch
        {
            Irritability.High => Message.Of("plan.dose-high", ("dose", dose.Said())),
            Irritability.Moderate => Message.Of("plan.dose-moderate", ("dose", dose.Said())),
            _ => Message.Of("plan.dose-low", ("dose", dose.Said())),
        };

    /// <summary>The direction it asks most of, on the side where control is lowest; for a basic rung what it is.</summary>
    private Message PurposeWords(Candidate candidate)
    {
        if (candidate.Basic)
        {
            return candidate.Rung.Features.Contains(Rung.ActivationFeature)
                ? Message.Of("purpose.activation")
                : Message.Of("purpose.neutral");
        }
        var main = library
            .DemandsOf(candidate.Rung)
            .OrderByDescending(demand => demand.Direction == candidate.Ladder.Direction)
            .ThenByDescending(demand => demand.Weight)
            .FirstOrDefault();
        var direction = main?.Direction ?? candidate.Ladder.Direction;
        var on = main?.On ?? candidate.Ladder.On;
        var sectors = new[] { Sectors.Of(direction, on, Side.Left), Sectors.Of(direction, on, Side.Right) };
        var lowest = input
            .Findings.Control.Where(control => sectors.Contains(control.Sector))
            .OrderBy(control => control.Percent ?? 101)
            .ThenBy(control => control.Sector)
            .Select(control => (Sector?)control.Sector)
            .FirstOrDefault();
        return Message.Of("purpose.holds", ("sector", lowest ?? Sector.Front));
    }
}
