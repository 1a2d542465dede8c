namespace Palaestra.Core.Outcomes;

/// <summary>A robust line through points: half of all slopes between two points are above it, half below.</summary>
/// <param name="Slope">Change of y for one unit of x. <paramref name="Intercept"/>: y at x = 0.</param>
/// <param name="Low">Lower end of the interval of the slope. <paramref name="High"/>: its upper end; both infinite where there are too few points.</param>
public sealed record RobustLine(double Slope, double Intercept, double Low, double High)
{
    /// <summary>The interval leaves zero out.</summary>
    public bool Clear => Low > 0 || High < 0;

    /// <summary>The line's value there.</summary>
    public double At(double x) => Intercept + Slope * x;
}

/// <remarks>
/// Theil 1950; Sen 1968, J Am Stat Assoc 63:1379–1389. Limits: up to ten points with different x the ordered slopes at the ranks
/// of Kendall's exact distribution (Hollander and Wolfe, Nonparametric Statistical Methods, section 9.3), else by interpolation
/// between ordered slopes and the variance for ties in both x and y as in Gilbert 1987, Statistical Methods for Environmental
/// Pollution Monitoring, chapters 16 and 17 (all from memory).
/// </remarks>
public static class TheilSen
{
    /// <summary>Two-sided 95 % of the normal distribution.</summary>
    public const double Z95 = 1.959964;

    /// <summary>None with fewer than two different x. Points need no order.</summary>
    public static RobustLine? Fit(IReadOnlyList<(double X, double Y)> points, double z = Z95)
    {
        var slopes = Slopes(points);
        if (slopes.Count == 0)
        {
            return null;
        }
        var slope = Median(slopes);
        var reach = ExactReach(points) ?? z * Math.Sqrt(Variance(points));
        var intercept = Median([.. points.Select(p => p.Y - slope * p.X).Order()]);
        // Ranks from 1; outside the slopes there is no limit.
        return new(
            slope,
            intercept,
            AtRank(slopes, (slopes.Count - reach) / 2),
            AtRank(slopes, (slopes.Count + reach) / 2 + 1)
        );
    }

    /// <summary>The line of a given slope with half of the points above it.</summary>
    public static RobustLine Through(IReadOnlyList<(double X, double Y)> points, double slope) =>
        new(slope, Median([.. points.Select(p => p.Y - slope * p.X).Order()]), slope, slope);

    /// <summary>
    /// The least C of which an S above it turns up by chance with at most 2.5 %; none with more points or two on one x. With so
    /// few points that even the largest S is more likely, it is over every slope: there are no limits.
    /// </summary>
    private static double? ExactReach(IReadOnlyList<(double X, double Y)> points)
    {
        if (
            points.Count > KendallDistribution.ExactUpTo
            || points.Select(p => p.X).Distinct().Count() < points.Count
        )
        {
            return null;
        }
        var ties = points.GroupBy(p => p.Y).Select(group => group.Count()).ToList();
        var rare = KendallDistribution
            .UpperTail(points.Count, ties)
            .TakeWhile(tail => tail.Chance <= OneSide)
            .ToList();
        var pairs = points.Count * (points.Count - 1) / 2;
        return rare.Count == 0 ? pairs : rare[^1].S - 2;
    }

    private const double OneSide = 0.025;

    private static List<double> Slopes(IReadOnlyList<(double X, double Y)> points)
    {
        var slopes = new List<double>();
        for (var i = 0; i < points.Count; i++)
        {
            for (var j = i + 1; j < points.Count; j++)
            {
                var run = points[j].X - points[i].X;
                if (run != 0)
                {
                    slopes.Add((points[j].Y - points[i].Y) / run);
                }
            }
        }
        slopes.Sort();
        return slopes;
    }

    private static double AtRank(List<double> slopes, double rank)
    {
        if (rank < 1)
        {
            return double.NegativeInfinity;
        }
        if (rank > slopes.Count)
        {
            return double.PositiveInfinity;
        }
        var below = (int)Math.Floor(rank);
        var low = slopes[below - 1];
        return below == slopes.Count ? low : low + (rank - below) * (slopes[below] - low);
    }

    private static double Median(List<double> sorted)
    {
        var middle = sorted.Count / 2;
        return sorted.Count % 2 == 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
    }

    /// <summary>Variance of Kendall's S with ties.</summary>
    private static double Variance(IReadOnlyList<(double X, double Y)> points)
    {
        double n = points.Count;
        var t = points.GroupBy(p => p.X).Select(g => (double)g.Count()).Where(c => c > 1).ToList();
        var u = points.GroupBy(p => p.Y).Select(g => (double)g.Count()).Where(c => c > 1).ToList();
        static double Five(double c) => c * (c - 1) * (2 * c + 5);
        static double Three(double c) => c * (c - 1) * (c - 2);
        static double Two(double c) => c * (c - 1);
        var main = (Five(n) - t.Sum(Five) - u.Sum(Five)) / 18;
        var triples = n > 2 ? t.Sum(Three) * u.Sum(Three) / (9 * Three(n)) : 0;
        return main + triples + t.Sum(Two) * u.Sum(Two) / (2 * Two(n));
    }
}
