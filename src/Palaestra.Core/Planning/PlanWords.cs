using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Says what a plan leaves out, what another one would do, and what could not be met.</summary>
internal static class PlanWords
{
    /// <summary>A found plan beside the one proposed.</summary>
    public static OtherPlan Other(
        FoundPlan proposed,
        FoundPlan other,
        double minutes,
        PlanObjective objective,
        PracticeLibrary library
    )
    {
        var before = proposed.Options.Select(option => option.RungId).ToList();
        var after = other.Options.Select(option => option.RungId).ToList();
        var added = after.Except(before).Order(StringComparer.Ordinal).ToList();
        var dropped = before.Except(after).Order(StringComparer.Ordinal).ToList();
        var doses = (
            from mine in proposed.Options
            from theirs in other.Options
            where mine.RungId == theirs.RungId && mine.Key != theirs.Key
            select Message.Of("plan.rung-dose", ("rung", mine.RungId), ("dose", theirs.Doses[0].Dose.Said()))
        ).ToList();
        return new OtherPlan(
            minutes,
            Math.Round(other.Seconds / 60, 1),
            objective.Score(other.Options).Points,
            after,
            added,
            dropped,
            added.Count + dropped.Count + doses.Count == 0
                ? Message.Of("plan.no-difference")
                : Message.Of("plan.difference", ("added", added), ("dropped", dropped), ("doses", doses))
        );
    }

    /// <summary>For each ladder that could have come in and did not: P-MINUTES, P-FEW or P-LESS.</summary>
    public static IEnumerable<Reason> NotChosen(
        FoundPlan? plan,
        List<PlanOption> all,
        PlanObjective objective,
        double minutes,
        Policy policy,
        PracticeLibrary library
    )
    {
        var chosen = (plan?.Options ?? []).ToList();
        var taken = chosen.Select(option => library.LadderOf(option.RungId).Id).ToHashSet();
        foreach (
            var ladder in all.Where(option => option.Candidate is { Basic: false })
                .GroupBy(option => option.Ladder)
                .Where(group => !taken.Contains(group.Key))
                .OrderBy(group => group.Key, StringComparer.Ordinal)
        )
        {
            var best = ladder
                .OrderByDescending(option => objective.Total([.. chosen, option]).Total)
                .ThenBy(option => option.Key, StringComparer.Ordinal)
                .First();
            var positions = chosen.Append(best).Select(option => option.Position).Distinct().Count();
            var seconds =
                chosen.Append(best).Sum(option => option.Seconds)
                + (positions - 1) * policy.Seconds.PositionChange;
            var more = (objective.Total([.. chosen, best]).Total - objective.Total(chosen).Total) / 1000.0;
            yield return chosen.Count >= policy.ExercisesMax
                ? new("P-FEW", Message.Of("plan.few", ("rung", best.RungId), ("most", policy.ExercisesMax)))
            : more <= 0 ? new("P-LESS", Message.Of("plan.adds-nothing", ("rung", best.RungId)))
            : seconds > minutes * 60
                ? new(
                    "P-MINUTES",
                    Message.Of("plan.over-minutes", ("rung", best.RungId), ("minutes", minutes))
                )
            : new("P-LESS", Message.Of("plan.in-place", ("rung", best.RungId)));
        }
    }

    /// <summary>What could not be met, in words: never an empty page.</summary>
    public static IReadOnlyList<Reason> Notes(
        PlanInput input,
        FoundPlan? best,
        FoundPlan? nearest,
        List<PlanOption> all,
        Policy policy,
        PracticeLibrary library
    )
    {
        var notes = LockNotes(input, best, policy, library).ToList();
        if (nearest is null)
        {
            notes.Add(Nothing(input, library));
            return notes;
        }
        if (best is null && notes.Count == 0)
        {
            notes.Add(
                new(
                    "P-NEAREST-MINUTES",
                    Message.Of(
                        "nearest.minutes",
                        ("minutes", input.MinutesPerDay),
                        ("least", nearest.Seconds / 60)
                    )
                )
            );
        }
        else if (nearest.Options.Count < policy.ExercisesMin)
        {
            notes.Add(
                all.Select(option => option.Ladder).Distinct().Count() < policy.ExercisesMin
                    ? new("P-NEAREST-FEW", Message.Of("nearest.few", ("count", nearest.Options.Count)))
                    : new(
                        "P-NEAREST-FEW",
                        Message.Of(
                            "nearest.few-minutes",
                            ("count", nearest.Options.Count),
                            ("minutes", input.MinutesPerDay),
                            ("usual", policy.ExercisesMin)
                        )
                    )
            );
        }
        if (MissingMat(input, library) is { } mat)
        {
            notes.Add(mat);
        }
        return notes;
    }

    private static IEnumerable<Reason> LockNotes(
        PlanInput input,
        FoundPlan? best,
        Policy policy,
        PracticeLibrary library
    )
    {
        var locked = input.Locked ?? [];
        if (locked.Count > policy.ExercisesMax)
        {
            yield return new(
                "P-LOCK-MANY",
                Message.Of("lock.many", ("count", locked.Count), ("most", policy.ExercisesMax))
            );
        }
        if (locked.Count > 0 && best is null)
        {
            yield return new("P-LOCK-MINUTES", Message.Of("lock.minutes", ("minutes", input.MinutesPerDay)));
        }
        foreach (var item in locked.Where(item => input.Left(item.RungId)))
        {
            yield return new("P-LOCK-LEFT", Message.Of("lock.left", ("rung", item.RungId)));
        }
        foreach (
            var same in locked
                .GroupBy(item => library.LadderOf(item.RungId))
                .Where(same => same.Key.Direction != Direction.None && same.Count() > 1)
        )
        {
            yield return new(
                "P-LOCK-TWICE",
                Message.Of("lock.twice", ("ladder", same.Key.Id), ("count", same.Count()))
            );
        }
    }

    /// <summary>Everything is out: what is barred least, so that somebody can look again.</summary>
    private static Reason Nothing(PlanInput input, PracticeLibrary library)
    {
        var least = library
            .TrainedLadders.SelectMany(ladder => ladder.Rungs)
            .Select(rung =>
                (
                    rung.Id,
                    Bars: Allowance
                        .Of(library, input.Profile.Precautions, rung, Side.Both)
                        .Bars.Select(bar => bar.Tag)
                        .Distinct()
                        .ToList()
                )
            )
            .OrderBy(pair => pair.Bars.Count)
            .Take(3)
            .Select(pair =>
                Message.Of(
                    "nearest.exercise",
                    ("rung", pair.Id),
                    ("bars", pair.Bars.Count > 0 ? pair.Bars : null)
                )
            );
        return new("P-NEAREST-NONE", Message.Of("nearest.none", ("exercises", least.ToList())));
    }

    /// <summary>Without the first piece, the mat, most of the floor is out.</summary>
    private static Reason? MissingMat(PlanInput input, PracticeLibrary library)
    {
        var mat = library.Equipment[0];
        if (input.Equipment is not { } have || have.Contains(mat.Id))
        {
            return null;
        }
        var more = library
            .TrainedLadders.SelectMany(ladder => ladder.Rungs)
            .Count(rung =>
                rung.Equipment.Contains(mat.Id)
                && rung.Equipment.All(piece => piece == mat.Id || have.Contains(piece))
                && !Allowance.Of(library, input.Profile.Precautions, rung, Side.Both).Barred
            );
        return more == 0
            ? null
            : new("P-NEAREST-MAT", Message.Of("nearest.mat", ("piece", mat.Id), ("more", more)));
    }
}
