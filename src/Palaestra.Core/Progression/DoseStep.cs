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
    public static Dose? Harder(Dose dose, Rung rung, double growth)
    {
        var target = rung.Target;
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
        if (dose.Sets < target.Sets)
        {
            yield return dose with
            {
                Sets = dose.Sets + 1,
            };
        }
    }

    /// <summary>One set fewer; with one set, back to the start reps; below that none: the rung itself has to give.</summary>
    public static Dose? Easier(Dose dose, Rung rung)
    {
        if (dose.Sets > 1)
        {
            return dose with { Sets = dose.Sets - 1 };
        }
        if (dose.Reps > rung.Start.Reps)
        {
            return dose with { Reps = rung.Start.Reps };
        }
        return dose.Hold > rung.Start.Hold ? dose with { Hold = rung.Start.Hold } : null;
    }
}
