using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Planning;

/// <summary>One exercise in two plans, side by side.</summary>
/// <param name="Before">None where it came in. <paramref name="After"/>: none where it went.</param>
/// <param name="Changes">In words; empty where it stayed as it was.</param>
public sealed record ItemComparison(PlanItem? Before, PlanItem? After, IReadOnlyList<string> Changes);

/// <summary>Two plans side by side. Exercises keep their id from one revision to the next.</summary>
/// <param name="Changes">Of the plan as a whole.</param>
public sealed record PlanComparison(IReadOnlyList<ItemComparison> Items, IReadOnlyList<string> Changes)
{
    public static PlanComparison Of(Plan before, Plan after, PracticeLibrary library) =>
        Of(before, after, library, item => item.Id);

    /// <summary>The same for two plans that do not follow each other: an exercise is known by its rung.</summary>
    public static PlanComparison ByRung(Plan before, Plan after, PracticeLibrary library) =>
        Of(before, after, library, item => item.RungId);

    /// <summary>Everything that differs, a line each; empty for the same plan.</summary>
    public IEnumerable<string> Words(PracticeLibrary library) =>
        Items
            .SelectMany(pair =>
                pair.Changes.Select(change =>
                    $"{library.Rung((pair.After ?? pair.Before)!.RungId).Name}: {change}"
                )
            )
            .Concat(Changes);

    private static PlanComparison Of<T>(
        Plan before,
        Plan after,
        PracticeLibrary library,
        Func<PlanItem, T> key
    )
        where T : IEquatable<T>
    {
        PlanItem? Same(PlanItem item, Plan plan) => plan.Items.FirstOrDefault(o => key(o).Equals(key(item)));

        return new(
            [
                .. after.Items.Select(item => Pair(Same(item, before), item, library)),
                .. before
                    .Items.Where(item => Same(item, after) is null)
                    .Select(item => new ItemComparison(item, null, ["taken out"])),
            ],
            [.. Whole(before, after, library, key)]
        );
    }

    private static ItemComparison Pair(PlanItem? before, PlanItem after, PracticeLibrary library) =>
        before is null
            ? new(null, after, ["new"])
            : new(before, after, [.. ItemWords(before, after, library)]);

    private static IEnumerable<string> ItemWords(PlanItem before, PlanItem after, PracticeLibrary library)
    {
        if (before.RungId != after.RungId)
        {
            var ladder = library.LadderOf(after.RungId);
            var from = ladder.IndexOf(before.RungId);
            var way =
                from < 0 ? "swapped"
                : from < ladder.IndexOf(after.RungId) ? "up"
                : "down";
            yield return $"{way}: {library.Rung(before.RungId).Name} → {library.Rung(after.RungId).Name}";
        }
        foreach (var side in after.Doses)
        {
            var on = side.Side == Side.Both ? "" : $"{side.Side.Word()}: ";
            var was =
                before.Doses.FirstOrDefault(dose => dose.Side == side.Side)
                ?? before.Doses.FirstOrDefault(dose => dose.Side == Side.Both);
            if (was is null)
            {
                yield return $"{on}{side.Dose.Words()}, had none";
            }
            else if (was.Dose != side.Dose)
            {
                yield return $"{on}{was.Dose.Words()} → {side.Dose.Words()}";
            }
            if (was is not null && Math.Abs(was.Range - side.Range) > 0.005)
            {
                yield return $"{on}range {was.Range * 100:0} % → {side.Range * 100:0} %";
            }
        }
        foreach (var side in before.Doses.Where(dose => after.Doses.All(other => other.Side != dose.Side)))
        {
            if (side.Side != Side.Both && after.Doses.All(dose => dose.Side != Side.Both))
            {
                yield return $"{side.Side.Word()}: no dose any more";
            }
        }
        if (before.BarOverride != after.BarOverride)
        {
            yield return after.BarOverride is null
                ? "no longer in spite of a bar"
                : $"in spite of a bar: {after.BarOverride}";
        }
    }

    private static IEnumerable<string> Whole<T>(
        Plan before,
        Plan after,
        PracticeLibrary library,
        Func<PlanItem, T> key
    )
    {
        if (Math.Abs(before.TotalMinutes - after.TotalMinutes) >= 0.05)
        {
            yield return $"{before.TotalMinutes:0.0} → {after.TotalMinutes:0.0} minutes a day";
        }
        if (before.Strategy != after.Strategy)
        {
            yield return "another way to hold the back";
        }
        if (before.SwitchOn != after.SwitchOn)
        {
            yield return "another switch-on";
        }
        if ((before.PolicyId, before.PolicyVersion) != (after.PolicyId, after.PolicyVersion))
        {
            var name = library.FindPolicy(after.PolicyId)?.Name ?? after.PolicyId;
            yield return $"by {name}, version {after.PolicyVersion}";
        }
        var kept = before.Items.Select(key).Intersect(after.Items.Select(key)).ToList();
        if (!kept.SequenceEqual(after.Items.Select(key).Where(kept.Contains)))
        {
            yield return "another order";
        }
    }
}
