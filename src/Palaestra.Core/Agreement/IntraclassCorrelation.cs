using MathNet.Numerics.Distributions;

namespace Palaestra.Core.Agreement;

/// <summary>How much of what differs between numbers is of the items rated: 1, all of it; 0 and below, none.</summary>
/// <param name="Low">Lower end of the interval of 95 %. <paramref name="High"/>: its upper end.</param>
public sealed record Correlation(double Value, double Low, double High)
{
    internal static Correlation Perfect { get; } = new(1, 1, 1);
}

/// <summary>
/// The six intraclass correlations. One rater each: (1,1) each item has raters of its own, (2,1) the same raters, of many there
/// could be, (3,1) the same raters, and no others are meant. Averages of all raters likewise, (1,k) to (3,k).
/// </summary>
/// <remarks>
/// Shrout and Fleiss 1979, Psychological Bulletin 86:420–428, with intervals by F (from memory); held to its table 4 and to a
/// reference package in the tests.
/// </remarks>
public sealed record IntraclassCorrelation(
    Correlation OneWay,
    Correlation TwoWay,
    Correlation Fixed,
    Correlation OneWayAverage,
    Correlation TwoWayAverage,
    Correlation FixedAverage
)
{
    /// <remarks>Items that do not differ at all have the least value there is: −1 / (k − 1) of one rater, minus infinity of all.</remarks>
    /// <returns>None: all numbers are the same, so there is nothing to tell.</returns>
    public static IntraclassCorrelation? Of(TwoWayTable table)
    {
        var (n, k) = (table.Items, table.Raters);
        if (table.BetweenItems <= 0 && table.WithinItems <= 0)
        {
            return null;
        }
        var oneWay = Ratio(table.BetweenItems, table.WithinItems, n - 1, n * (k - 1));
        var two = Ratio(table.BetweenItems, table.Rest, n - 1, (n - 1) * (k - 1));
        var random = RandomRaters(table);
        return new(
            Single(oneWay, k),
            random,
            Single(two, k),
            Average(oneWay),
            new(Stepped(random.Value, k), Stepped(random.Low, k), Stepped(random.High, k)),
            Average(two)
        );
    }

    /// <summary>A ratio of two mean squares with the ends of its interval.</summary>
    private static Correlation Ratio(double above, double below, int degreesAbove, int degreesBelow)
    {
        // Where neither has any, there is as little of what is looked for as there can be.
        var f = above <= 0 ? 0 : above / below;
        return new(f, f / Quantile(degreesAbove, degreesBelow), f * Quantile(degreesBelow, degreesAbove));
    }

    private static Correlation Single(Correlation f, int k) =>
        double.IsInfinity(f.Value)
            ? Correlation.Perfect
            : new(OneOf(f.Value, k), OneOf(f.Low, k), OneOf(f.High, k));

    private static double OneOf(double f, int k) => (f - 1) / (f + k - 1);

    private static Correlation Average(Correlation f) => new(1 - 1 / f.Value, 1 - 1 / f.Low, 1 - 1 / f.High);

    /// <summary>Of the average of so many raters, from that of one (Spearman and Brown); minus infinity where that has no value.</summary>
    private static double Stepped(double one, int k) =>
        1 + (k - 1) * one is var share && share > 0 ? k * one / share : double.NegativeInfinity;

    private static Correlation RandomRaters(TwoWayTable table)
    {
        double n = table.Items;
        double k = table.Raters;
        var (items, raters, rest) = (table.BetweenItems, table.BetweenRaters, table.Rest);
        var value = (items - rest) / (items + (k - 1) * rest + k * (raters - rest) / n);
        if (items > 0 && rest <= 0 && raters <= 0)
        {
            return Correlation.Perfect;
        }
        // Satterthwaite's degrees of freedom of what raters and the rest do to one number.
        var ofRaters = k * value * raters;
        var ofRest = (n * (1 + (k - 1) * value) - k * value) * rest;
        var degrees =
            (k - 1) * (n - 1) * Square(ofRaters + ofRest) / ((n - 1) * Square(ofRaters) + Square(ofRest));
        // Under one there is nothing to look up: where items differ less than chance would have them.
        degrees = double.IsNaN(degrees) ? 1 : Math.Max(1, degrees);
        return new(value, At(1 / Quantile(n - 1, degrees)), At(Quantile(degrees, n - 1)));

        double At(double f) =>
            double.IsInfinity(f)
                ? 1
                : n * (f * items - rest) / (k * raters + (k * n - k - n) * rest + n * f * items);
    }

    private static double Square(double x) => x * x;

    private const double Upper = 0.975;

    /// <summary>Quantile of F, by way of the beta distribution, which also reaches what one degree of freedom asks for.</summary>
    private static double Quantile(double above, double below)
    {
        var share = Beta.InvCDF(above / 2, below / 2, Upper);
        return below * share / (above * (1 - share));
    }
}
