using Palaestra.Core.Library;

namespace Palaestra.Core.Progression;

/// <summary>One step harder or easier in dose.</summary>
public static class DoseStep
{
    /// <summary>
    /// The first step toward the target along hold, reps, sets whose growth in clean time stays within
    /// <paramref name="growth"/>; where even the smallest step is larger, that smallest step. None at the target.
    /// </summary>
    /// <param name="growth">Share of the present clean time, for example 0.2. Common practice.</param>
    public static Dose? Harder(Dose dose, Rung rung, Dose target, double growth)
    {
        var options = Options(dose, target).ToList();
        if (options.Count == 0)
        {
            return null;
        }
        var limit = dose.Seconds(rung.MoveSeconds) * (1 + growth) + 1e-9;
        var within = options.Where(option => option.Seconds(rung.MoveSeconds) <= limit).ToList();
        return within.Count > 0 ? within.First() : options.MinBy(option => option.Seconds(rung.MoveSeconds));
    }

    private static IEnumerable<Dose> Options(Dose dose, Dose target)
    {
        for (var hold = target.Hold; hold > dose.Hold; hold--)
        {
            yield return dose with
            {
                Hold = hold,
            };
        }
        for (var reps = target.Reps; reps > dose.Reps; reps--)
        {
            yield return dose with
            {
                Reps = reps,
            };
        }
        foreach (var more in MoreSets(dose, target))
        {
            yield return more;
        }
    }

    /// <summary>
    /// One set more, or longer short ones: sets that get shorter one after the other, the most work first. So the growth a
    /// week allows holds here too: 8 reps grow by a short set of a few, not by another eight.
    /// </summary>
    private static IEnumerable<Dose> MoreSets(Dose dose, Dose target) =>
        from sets in new[] { dose.Sets, dose.Sets + 1 }
        where sets <= target.Sets && sets > 1
        from fewer in Enumerable.Range(0, Math.Max(1, dose.Reps))
        let option = dose with
        {
            Sets = sets,
            Fewer = fewer,
        }
        where option.TotalReps > dose.TotalReps
        where dose.Reps - fewer * (sets - 1) >= 1
        orderby option.TotalReps descending, sets, fewer
        select option;

    /// <summary>A hold grows by at most this share in one step of the endurance school. Our own.</summary>
    private const double LongerHold = 0.25;

    /// <summary>
    /// The endurance school's step toward one long hold: each hold up to a quarter longer, and at least a second, with as
    /// many reps as the growth in clean time leaves. None once the hold is as long as the target's.
    /// </summary>
    public static Dose? Longer(Dose dose, Rung rung, Dose target, double growth)
    {
        if (dose.Hold >= target.Hold)
        {
            return null;
        }
        var hold = Math.Min(target.Hold, Math.Max(dose.Hold + 1, Math.Floor(dose.Hold * (1 + LongerHold))));
        var limit = dose.Seconds(rung.MoveSeconds) * (1 + growth) + 1e-9;
        var options =
            from sets in Enumerable.Range(1, dose.Sets)
            from reps in Enumerable.Range(target.Reps, Math.Max(1, dose.Reps - target.Reps + 1))
            let option = dose with
            {
                Hold = hold,
                Sets = sets,
                Reps = reps,
                Fewer = sets == 1 ? 0 : dose.Fewer,
            }
            where option.Seconds(rung.MoveSeconds) <= limit && rung.Allows(option)
            orderby option.Seconds(rung.MoveSeconds) descending, option.Sets descending
            select (Dose?)option;
        return options.FirstOrDefault() ?? new Dose(target.Reps, 1, hold);
    }

    /// <summary>
    /// One set fewer; with one set, back to the start reps, then to the start hold; below that none: the rung itself has to
    /// give. A short set alone may be too little: easing takes at least what a week may add.
    /// </summary>
    /// <param name="growth">Share of clean time that a week may add, above 0.</param>
    public static Dose? Easier(Dose dose, Rung rung, double growth)
    {
        if (Less(dose, rung) is not { } less)
        {
            return null;
        }
        var little = less.Seconds(rung.MoveSeconds) * (1 + growth) > dose.Seconds(rung.MoveSeconds) + 1e-9;
        return little ? Easier(less, rung, growth) ?? less : less;
    }

    private static Dose? Less(Dose dose, Rung rung)
    {
        if (dose.Sets > 1)
        {
            return dose with { Sets = dose.Sets - 1, Fewer = dose.Sets == 2 ? 0 : dose.Fewer };
        }
        if (dose.Reps > rung.Start.Reps)
        {
            return dose with { Reps = rung.Start.Reps };
        }
        return dose.Hold > rung.Start.Hold ? dose with { Hold = rung.Start.Hold } : null;
    }
}
