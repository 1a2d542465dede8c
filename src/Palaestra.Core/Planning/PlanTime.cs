using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Minutes of an exercise and of a plan.</summary>
/// <remarks>
/// Σ over sides of sets × reps × (hold + move), plus a change of side, plus rests between sets, plus set-up, plus a
/// change of position where the one before was in another. Rests are longer between sets of holds. Common practice.
/// </remarks>
public static class PlanTime
{
    public static Plan WithMinutes(Plan plan, PracticeLibrary library, Policy policy)
    {
        string? position = null;
        var items = new List<PlanItem>();
        foreach (var item in plan.Items)
        {
            var rung = library.Rung(item.RungId);
            var seconds = Seconds(item, rung, policy);
            if (position is not null && position != rung.Position)
            {
                seconds += policy.Seconds.PositionChange;
            }
            position = rung.Position;
            items.Add(item with { Minutes = Math.Round(seconds / 60, 2) });
        }
        return plan with { Items = items, TotalMinutes = Math.Round(items.Sum(item => item.Minutes), 2) };
    }

    public static double Seconds(PlanItem item, Rung rung, Policy policy)
    {
        var work = item.Doses.Sum(side => side.Dose.Seconds(rung.MoveSeconds));
        var rests = item.Doses.Sum(side =>
            (side.Dose.Sets - 1) * (side.Dose.Hold > 0 ? policy.Seconds.RestHolds : policy.Seconds.RestOther)
        );
        var changes = Math.Max(0, item.Doses.Count - 1) * policy.Seconds.SideChange;
        return policy.Seconds.SetUp + work + rests + changes;
    }
}
