using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

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
            select $"{library.Rung(mine.RungId).Name} {theirs.Doses[0].Dose.Words()}"
        ).ToList();
        var parts = new[]
        {
            added.Count > 0 ? $"in: {Names(added, library)}" : null,
            dropped.Count > 0 ? $"out: {Names(dropped, library)}" : null,
            doses.Count > 0 ? $"dose: {string.Join(", ", doses)}" : null,
        }.OfType<string>();
        return new OtherPlan(
            minutes,
            Math.Round(other.Seconds / 60, 1),
            objective.Score(other.Options).Points,
            after,
            added,
            dropped,
            string.Join("; ", parts) is { Length: > 0 } words ? words : "the same plan"
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
            var name = library.Rung(best.RungId).Name;
            var positions = chosen.Append(best).Select(option => option.Position).Distinct().Count();
            var seconds =
                chosen.Append(best).Sum(option => option.Seconds)
                + (positions - 1) * policy.Seconds.PositionChange;
            var more = (objective.Total([.. chosen, best]).Total - objective.Total(chosen).Total) / 1000.0;
            yield return chosen.Count >= policy.ExercisesMax
                ? new("P-FEW", $"{name}: {policy.ExercisesMax} exercises are enough.")
            : more <= 0 ? new("P-LESS", $"{name} would add nothing that is lacking.")
            : seconds > minutes * 60 ? new("P-MINUTES", $"{name} would go over {minutes:0.#} minutes.")
            : new("P-LESS", $"{name} would take the place of something better.");
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
                    $"Nothing fits into {input.MinutesPerDay:0.#} minutes; the shortest that makes sense takes {nearest.Seconds / 60:0.0}."
                )
            );
        }
        else if (nearest.Options.Count < policy.ExercisesMin)
        {
            notes.Add(
                all.Select(option => option.Ladder).Distinct().Count() < policy.ExercisesMin
                    ? new(
                        "P-NEAREST-FEW",
                        $"Only {Exercises(nearest.Options.Count)}: precautions and what is at hand leave no more."
                    )
                    : new(
                        "P-NEAREST-FEW",
                        $"Only {Exercises(nearest.Options.Count)}: {input.MinutesPerDay:0.#} minutes hold no more; {policy.ExercisesMin} are usual."
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
                $"{locked.Count} exercises are kept; {policy.ExercisesMax} are the most. Let some go."
            );
        }
        if (locked.Count > 0 && best is null)
        {
            yield return new(
                "P-LOCK-MINUTES",
                $"The exercises that are kept take more than {input.MinutesPerDay:0.#} minutes by themselves. They are shown as they are; let one go, or lower a dose."
            );
        }
        foreach (var item in locked.Where(item => input.Left(item.RungId)))
        {
            yield return new(
                "P-LOCK-LEFT",
                $"{library.Rung(item.RungId).Name} is both kept and left out; it is kept."
            );
        }
        foreach (
            var same in locked
                .GroupBy(item => library.LadderOf(item.RungId))
                .Where(same => same.Key.Direction != Direction.None && same.Count() > 1)
        )
        {
            yield return new(
                "P-LOCK-TWICE",
                $"{same.Key.Name} is kept on {same.Count()} rungs at once; one is usual."
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
                    rung.Name,
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
                pair.Bars.Count == 0 ? pair.Name : $"{pair.Name} ({string.Join(", ", pair.Bars)})"
            );
        return new(
            "P-NEAREST-NONE",
            $"No exercise is left: precautions bar it, it is not at hand, or it was left out. The nearest: {string.Join("; ", least)}. Look at the precautions again, or give one by hand with a reason."
        );
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
            : new("P-NEAREST-MAT", $"With a {mat.Name} {more} more exercises would be open.");
    }

    private static string Exercises(int count) => count == 1 ? "one exercise" : $"{count} exercises";

    private static string Names(IEnumerable<string> rungIds, PracticeLibrary library) =>
        string.Join(", ", rungIds.Select(id => library.Rung(id).Name));
}
