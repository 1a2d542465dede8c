namespace Palaestra.Core.Library;

/// <summary>What is taken to be so of people, days and eyes when an ability is worked out. Data: <c>content/ability.json</c>.</summary>
/// <param name="Missed">Chance that a rep in which the trunk gave way is not marked, 0 to below 0.5.</param>
/// <param name="Imagined">Chance that a clean rep is marked, 0 to below 0.5.</param>
/// <param name="Day">Standard deviation from day to day, rungs, 0 or more.</param>
/// <param name="DriftPerWeek">Standard deviation of what a week changes, rungs, 0 or more; it grows with the root of time.</param>
/// <param name="Spreads">Standard deviations from rep to rep that are weighed against each other, rungs, above 0, the lowest first.</param>
/// <param name="LeastStep">What a rung is above the one below it at least, rungs, above 0.</param>
/// <param name="LeastUnit">One rung is at least this, as the logarithm of a ratio of loads, above 0: less cannot be told.</param>
/// <param name="Beyond">How far beyond the lowest and the highest rung somebody may stand, rungs, above 0; also where the ring begins and ends.</param>
/// <param name="LeastNewtonMetres">Demands under this count as this much, N·m, above 0.</param>
/// <param name="Grid">Step of the grid, rungs, above 0.</param>
/// <param name="Sure">Share of belief inside the interval, above 0.5 and below 1.</param>
public sealed record AbilityModel(
    double Missed,
    double Imagined,
    double Day,
    double DriftPerWeek,
    IReadOnlyList<double> Spreads,
    double LeastStep,
    double LeastUnit,
    double Beyond,
    double LeastNewtonMetres,
    double Grid,
    double Sure
)
{
    /// <summary>What is wrong with it, with file and field.</summary>
    public IEnumerable<FieldError> Errors()
    {
        FieldError At(string field, Message why) => new($"ability.json ability.{field}", why);
        if (Missed is not (>= 0 and < 0.5))
        {
            yield return At("missed", Message.Of("content.chance"));
        }
        if (Imagined is not (>= 0 and < 0.5))
        {
            yield return At("imagined", Message.Of("content.chance"));
        }
        if (Day is not (>= 0 and <= 5))
        {
            yield return At("day", Message.Of("content.rungs-0-5"));
        }
        if (DriftPerWeek is not (>= 0 and <= 5))
        {
            yield return At("driftPerWeek", Message.Of("content.rungs-0-5"));
        }
        if (Spreads is not { Count: > 0 } || Spreads.Any(s => s is not (> 0 and <= 5)))
        {
            yield return At("spreads", Message.Of("content.spreads"));
        }
        if (LeastStep is not (> 0 and <= 1))
        {
            yield return At("leastStep", Message.Of("content.step"));
        }
        if (LeastUnit is not (> 0 and <= 1))
        {
            yield return At("leastUnit", Message.Of("content.unit"));
        }
        if (Beyond is not (> 0 and <= 5))
        {
            yield return At("beyond", Message.Of("content.beyond"));
        }
        if (LeastNewtonMetres is not (> 0 and <= 100))
        {
            yield return At("leastNewtonMetres", Message.Of("content.least-moment"));
        }
        if (Grid is not (>= 0.02 and <= 0.5))
        {
            yield return At("grid", Message.Of("content.grid"));
        }
        if (Sure is not (> 0.5 and < 1))
        {
            yield return At("sure", Message.Of("content.sure"));
        }
    }
}
