using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>One exercise in two plans, side by side.</summary>
/// <param name="Before">None where it came in. <paramref name="After"/>: none where it went.</param>
/// <param name="Changes">In words; empty where it stayed as it was.</param>
public sealed record ItemComparison(PlanItem? Before, PlanItem? After, IReadOnlyList<Message> Changes);

/// <summary>Two plans side by side. Exercises keep their id from one revision to the next.</summary>
/// <param name="Changes">Of the plan as a whole.</param>
public sealed record PlanComparison(IReadOnlyList<ItemComparison> Items, IReadOnlyList<Message> Changes)
{
    /// <summary>What came, went and changed from one plan to another, exercise by exercise.</summary>
    public static PlanComparison Of(Plan before, Plan after, PracticeLibrary library) =>
        Of(before, after, library, item => item.Id);

    /// <summary>The same for two plans that do not follow each other: an exercise is known by its rung.</summary>
    public static PlanComparison ByRung(Plan before, Plan after, PracticeLibrary library) =>
        Of(before, after, library, item => item.RungId);

    /// <summary>Everything that differs, a line each; empty for the same plan.</summary>
    public IEnumerable<Message> Words() =>
        Items
            .SelectMany(pair =>
                pair.Changes.Select(change =>
                    Message.Of(
                        "compare.of",
                        ("rung", (pair.After ?? pair.Before)!.RungId),
                        ("change", change)
                    )
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
                    .Select(item => new ItemComparison(item, null, [Message.Of("compare.out")])),
            ],
            [.. Whole(before, after, library, key)]
        );
    }

    private static ItemComparison Pair(PlanItem? before, PlanItem after, PracticeLibrary library) =>
        before is null
            ? new(null, after, [Message.Of("compare.new")])
            : new(before, after, [.. ItemWords(before, after, library)]);

    private static IEnumerable<Message> ItemWords(PlanItem before, PlanItem after, PracticeLibrary library)
    {
        if (before.RungId != after.RungId)
        {
            var ladder = library.LadderOf(after.RungId);
            var from = ladder.IndexOf(before.RungId);
            var way =
                from < 0 ? "swapped"
                : from < ladder.IndexOf(after.RungId) ? "up"
                : "down";
            yield return Message.Of(
                "compare.rung",
                ("way", way),
                ("before", before.RungId),
                ("after", after.RungId)
            );
        }
        foreach (var side in after.Doses)
        {
            var was =
                before.Doses.FirstOrDefault(dose => dose.Side == side.Side)
                ?? before.Doses.FirstOrDefault(dose => dose.Side == Side.Both);
            if (was is null)
            {
                yield return Message.Of("compare.dose-new", ("side", side.Side), ("dose", side.Dose.Said()));
            }
            else if (was.Dose != side.Dose)
            {
                yield return Message.Of(
                    "compare.dose",
                    ("side", side.Side),
                    ("before", was.Dose.Said()),
                    ("after", side.Dose.Said())
                );
            }
            if (was is not null && Math.Abs(was.Range - side.Range) > 0.005)
            {
                yield return Message.Of(
                    "compare.range",
                    ("side", side.Side),
                    ("before", was.Range),
                    ("after", side.Range)
                );
            }
        }
        foreach (var side in before.Doses.Where(dose => after.Doses.All(other => other.Side != dose.Side)))
        {
            if (side.Side != Side.Both && after.Doses.All(dose => dose.Side != Side.Both))
            {
                yield return Message.Of("compare.dose-gone", ("side", side.Side));
            }
        }
        if (before.BarOverride != after.BarOverride)
        {
            yield return Message.Of("compare.override", ("reason", after.BarOverride));
        }
    }

    private static IEnumerable<Message> Whole<T>(
        Plan before,
        Plan after,
        PracticeLibrary library,
        Func<PlanItem, T> key
    )
    {
        if (Math.Abs(before.TotalMinutes - after.TotalMinutes) >= 0.05)
        {
            yield return Message.Of(
                "compare.minutes",
                ("before", before.TotalMinutes),
                ("after", after.TotalMinutes)
            );
        }
        if (before.Strategy != after.Strategy)
        {
            yield return Message.Of("compare.strategy");
        }
        if (before.Activation != after.Activation)
        {
            yield return Message.Of("compare.activation");
        }
        if ((before.PolicyId, before.PolicyVersion) != (after.PolicyId, after.PolicyVersion))
        {
            yield return Message.Of(
                "compare.policy",
                ("policy", after.PolicyId),
                ("version", after.PolicyVersion)
            );
        }
        var kept = before.Items.Select(key).Intersect(after.Items.Select(key)).ToList();
        if (!kept.SequenceEqual(after.Items.Select(key).Where(kept.Contains)))
        {
            yield return Message.Of("compare.order");
        }
    }
}
