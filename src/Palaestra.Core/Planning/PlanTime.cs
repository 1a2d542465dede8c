using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Minutes of an exercise and of a plan.</summary>
/// <remarks>
/// Σ over sides of reps of all sets × (hold + move), plus a change of side, plus rests between sets, plus set-up, plus a
/// change of position where the one before was in another. Rests are longer between sets of holds. Common practice.
/// </remarks>
public static class PlanTime
{
    /// <summary>The same plan with the minutes each exercise and the whole takes.</summary>
    public static Plan WithMinutes(Plan plan, PracticeLibrary library, Policy policy)
    {
        string? position = null;
        var items = new List<PlanItem>();
        var total = 0.0;
        foreach (var item in plan.Items)
        {
            if (item.Resting)
            {
                items.Add(item with { Minutes = 0 });
                continue;
            }
            var rung = library.Rung(item.RungId);
            var seconds = Seconds(item.Doses, rung, policy);
            if (position is not null && position != rung.Position)
            {
                seconds += policy.Seconds.PositionChange;
            }
            position = rung.Position;
            total += seconds;
            items.Add(item with { Minutes = Math.Round(seconds / 60, 2) });
        }
        return plan with { Items = items, TotalMinutes = Math.Round(total / 60, 2) };
    }

    /// <summary>Seconds of one exercise with its set-up, without a change of position.</summary>
    public static double Seconds(IReadOnlyList<SideDose> doses, Rung rung, Policy policy)
    {
        var rests = doses.Sum(side =>
            (side.Dose.Sets - 1) * (side.Dose.Hold > 0 ? policy.Seconds.RestHolds : policy.Seconds.RestOther)
        );
        var changes = Math.Max(0, doses.Count - 1) * policy.Seconds.SideChange;
        return policy.Seconds.SetUp + UnderControl(doses, rung, policy) + rests + changes;
    }

    /// <summary>Seconds of work alone, all sides and sets.</summary>
    public static double UnderControl(IReadOnlyList<SideDose> doses, Rung rung, Policy policy) =>
        doses.Sum(side => side.Dose.Seconds(policy.Tempo.Seconds(rung.MoveSeconds)));
}
