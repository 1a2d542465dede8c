using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Planning;

/// <summary>
/// Which rungs may go into a plan at all. On a ladder that was climbed: the entry rung, the lower of the two sides, or the
/// highest below it that may be given; and those below that need less to fetch. On one that was not climbed: as far as other
/// tasks have shown the same demands held, within the lower third; else its first rung. Never a barred one, one that needs what is not at hand, one of another school, or one that waits
/// until the back is calm.
/// </summary>
internal sealed class Candidates(PlanInput input, Irritability level, Policy policy, PracticeLibrary library)
{
    private readonly List<Reason> left = [];

    /// <summary>Ladders that give no rung, and why.</summary>
    public IReadOnlyList<Reason> Left => left;

    public List<Candidate> All() =>
        [.. library.TrainedLadders.OrderBy(l => l.Id, StringComparer.Ordinal).SelectMany(Of)];

    private IEnumerable<Candidate> Of(Ladder ladder)
    {
        var basics = ladder
            .Rungs.Where(rung => IsBasic(rung) && WhyNot(rung) is null && !input.Left(rung.Id))
            .ToList();
        foreach (var rung in basics)
        {
            yield return Basic(ladder, rung);
        }
        if (ladder.Direction == Direction.None)
        {
            if (Tolerance(ladder) is { } walk)
            {
                yield return walk;
            }
            yield break;
        }
        var searches = input
            .Findings.Entries.Where(entry => entry.LadderId == ladder.Id && entry.TrialIds.Count > 0)
            .OrderBy(entry => entry.Side)
            .ToList();
        // Left before anything was clean, and before it was bracketed: as good as not climbed.
        var tried = searches.Count > 0 && !searches.All(s => s is { Finished: false, EntryRungId: null });
        var (top, why) = tried ? Entry(ladder, searches) : Untried(ladder);
        var open = ladder
            .Rungs.Take(top + 1)
            .Where(rung => WhyNot(rung) is null && !input.Left(rung.Id))
            .Where(rung => tried || !Cautioned(rung))
            .ToList();
        if (open.Count == 0)
        {
            if (top < 0 && Fallback(ladder) is { } fallback)
            {
                yield return fallback;
            }
            left.Add(LeftOut(ladder, top, tried));
            yield break;
        }
        var weaker = Candidate.WeakerOf(ladder, searches, input.Findings, policy, library);
        for (var i = open.Count - 1; i >= 0; i--)
        {
            var highest = i == open.Count - 1;
            if (!highest && !Lighter(open[i], open[^1]))
            {
                continue;
            }
            yield return new Candidate(
                ladder,
                open[i],
                highest && ladder.IndexOf(open[i].Id) == top ? why : [.. why, Below(ladder, open[i], top)],
                highest,
                weaker,
                false,
                AllowanceOf(open[i]),
                highest && ladder.IndexOf(open[i].Id) == top ? RangesOf(searches, open[i]) : null
            );
        }
    }

    /// <summary>The range seen clean on each side, where that rung is the side's own entry; the whole elsewhere.</summary>
    private static Dictionary<Side, double>? RangesOf(List<RungSearch> searches, Rung rung)
    {
        var shorter = searches.Where(s => s.EntryRungId == rung.Id && s.Range < 1).ToList();
        return shorter.Count == 0
            ? null
            : rung.TaskSides.ToDictionary(
                side => side,
                side =>
                    shorter
                        .Where(s => side == Side.Both || s.Side == side || s.Side == Side.Both)
                        .Select(s => s.Range)
                        .DefaultIfEmpty(1)
                        .Min()
            );
    }

    /// <summary>
    /// What was not screened carries no feature that a precaution cautions, nor one that waits while the back is sore; the
    /// first rungs that a precaution prefers stay, with their change.
    /// </summary>
    private bool Cautioned(Rung rung)
    {
        var allowance = AllowanceOf(rung);
        return rung.Features.Any(policy.Sore.Avoids.Contains)
            || (allowance.Cautions.Any(note => note.OfFeature) && !allowance.Preferred);
    }

    /// <summary>In the same position with less to fetch.</summary>
    private static bool Lighter(Rung rung, Rung highest) =>
        rung.Position == highest.Position
        && rung.Equipment.Count < highest.Equipment.Count
        && rung.Equipment.All(highest.Equipment.Contains);

    /// <summary>
    /// A two-sided ladder moves with its weaker side: the lower entry of the two (P-ENTRY). When easily irritated,
    /// not above the lower third (P-SORE-LOW). −1 where a side was clean nowhere.
    /// </summary>
    private (int Top, List<Reason> Why) Entry(Ladder ladder, List<RungSearch> searches)
    {
        if (searches.Any(search => search.EntryRungId is null))
        {
            return (-1, []);
        }
        var lowest = searches
            .OrderBy(search => ladder.IndexOf(search.EntryRungId!))
            .ThenBy(search => search.Range)
            .First();
        var top = ladder.IndexOf(lowest.EntryRungId!);
        var why = new List<Reason>
        {
            new(
                "P-ENTRY",
                Message.Of(
                    "plan.entry",
                    ("rung", ladder.Rungs[top].Id),
                    ("why", lowest.Why),
                    ("unfinished", !lowest.Finished)
                )
            ),
        };
        if (level == Irritability.High && top > LowerThird(ladder))
        {
            top = LowerThird(ladder);
            why.Add(new("P-SORE-LOW", Message.Of("plan.sore-low")));
        }
        return (top, why);
    }

    private (int Top, List<Reason> Why) Untried(Ladder ladder)
    {
        // For an irritable client only first rungs of what was not screened.
        var shown =
            level == Irritability.High
                ? []
                : Enumerable
                    .Range(1, LowerThird(ladder))
                    .Where(i => Shown(ladder.Rungs[i]) && !Cautioned(ladder.Rungs[i]))
                    .ToList();
        return shown.Count > 0
            ? (shown.Max(), [new("P-SHOWN", Message.Of("plan.shown", ("ladder", ladder.Id)))])
            : (0, [new("P-FIRST", Message.Of("plan.first", ("ladder", ladder.Id)))]);
    }

    /// <summary>Every direction it asks for was held under as much, on each side it asks for it.</summary>
    private bool Shown(Rung rung) =>
        Enum.GetValues<Sector>()
            .All(sector =>
                Candidate.Asks(rung, sector, library) is var asks
                && (
                    asks <= 0
                    || input
                        .Findings.Control.Where(control => control.Sector == sector)
                        .SelectMany(control => control.Parts ?? [])
                        .Any(part => part.Value >= 1 && part.TrialId is not null && part.Weight >= asks)
                )
            );

    private static int LowerThird(Ladder ladder) => (int)Math.Ceiling(ladder.Rungs.Count / 3.0) - 1;

    private Reason Below(Ladder ladder, Rung rung, int top)
    {
        var passed = ladder
            .Rungs.Skip(ladder.IndexOf(rung.Id) + 1)
            .Take(top - ladder.IndexOf(rung.Id))
            .Select(higher => (higher.Id, Why: WhyNot(higher)?.Words))
            .LastOrDefault(pair => pair.Why is not null);
        return passed.Why is null
            ? new("P-LOWER", Message.Of("plan.lower"))
            : new("P-LOWER", Message.Of("plan.instead", ("rung", passed.Id), ("why", passed.Why)));
    }

    private static bool IsBasic(Rung rung) =>
        rung.Features.Contains(Rung.NeutralFeature) || rung.Features.Contains(Rung.ActivationFeature);

    private Candidate Basic(Ladder ladder, Rung rung) =>
        new(ladder, rung, [new("P-BASE", Message.Of("plan.base"))], true, null, true, AllowanceOf(rung));

    /// <summary>The first rung of walking and running, where that is what the client wants to do.</summary>
    private Candidate? Tolerance(Ladder ladder) =>
        ladder is { IsTolerance: true, Rungs: [var rung, ..] }
        && library.Goals.Any(goal =>
            input.Goals?.Contains(goal.Id) == true && goal.Ladders.Contains(ladder.Id)
        )
        && WhyNot(rung) is null
        && !input.Left(rung.Id)
            ? new Candidate(
                ladder,
                rung,
                [new("P-TOLERANCE", Message.Of("plan.tolerance", ("rung", rung.Id)))],
                true,
                null,
                false,
                AllowanceOf(rung)
            )
            : null;

    private Candidate? Fallback(Ladder ladder) =>
        ladder.Fallback is { } id
        && library.FindRung(id) is { } rung
        && WhyNot(rung) is null
        && !input.Left(id)
            ? new Candidate(
                library.LadderOf(id),
                rung,
                [new("P-FALLBACK", Message.Of("plan.fallback", ("ladder", ladder.Id)))],
                true,
                null,
                true,
                AllowanceOf(rung)
            )
            : null;

    private Allowance AllowanceOf(Rung rung) =>
        Allowance.Of(library, input.Profile.Precautions, rung, Side.Both);

    /// <summary>Why a rung cannot be proposed whatever was seen; none when it can.</summary>
    private Reason? WhyNot(Rung rung)
    {
        var allowance = AllowanceOf(rung);
        if (allowance.Barred)
        {
            return new("P-BARRED", Message.Of("out.barred", ("why", allowance.BarWords)));
        }
        if (policy.Closes(rung))
        {
            return new("P-SCHOOL", Message.Of("out.school", ("policy", policy.Id)));
        }
        if (level != Irritability.Low && rung.Features.Any(policy.Sore.Avoids.Contains))
        {
            return new("P-SORE", Message.Of("out.sore"));
        }
        return
            (input.Equipment ?? library.MatOnly) is var have
            && rung.Equipment.Where(e => !have.Contains(e)).ToList() is { Count: > 0 } missing
            ? new("P-EQUIPMENT", Message.Of("out.equipment", ("pieces", missing)))
            : null;
    }

    private Reason LeftOut(Ladder ladder, int top, bool tried)
    {
        if (top < 0)
        {
            return new("P-NO-ENTRY", Message.Of("out.no-entry", ("ladder", ladder.Id)));
        }
        var why = ladder.Rungs.Take(top + 1).Select(WhyNot).FirstOrDefault(reason => reason is not null);
        if (why is null)
        {
            return new("P-LEFT", Message.Of("out.left", ("ladder", ladder.Id)));
        }
        return why with
        {
            Words = Message.Of(
                "out.ladder",
                ("ladder", ladder.Id),
                ("tried", tried),
                ("needs", why.RuleId == "P-EQUIPMENT"),
                ("why", why.Words)
            ),
        };
    }
}
