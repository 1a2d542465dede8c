using MathNet.Numerics.Distributions;
using MathNet.Numerics.Statistics;

namespace Palaestra.Core.Agreement;

/// <summary>Between which differences two ways of measuring lie 19 times in 20.</summary>
/// <param name="Count">Pairs, at least 3.</param>
/// <param name="Bias">Mean of first less second, in their unit. <paramref name="Sd"/>: its standard deviation.</param>
/// <param name="Low">Lower limit. <paramref name="High"/>: upper limit.</param>
/// <param name="Margin">By how much either limit may be off, 95 %.</param>
/// <remarks>Bland and Altman 1986, Lancet 1:307–310 (from memory), its worked example in the tests.</remarks>
public sealed record LimitsOfAgreement(
    int Count,
    double Bias,
    double Sd,
    double Low,
    double High,
    double Margin
)
{
    /// <exception cref="ArgumentException">Fewer than three pairs.</exception>
    public static LimitsOfAgreement Of(IReadOnlyList<(double First, double Second)> pairs)
    {
        if (pairs.Count < 3)
        {
            throw new ArgumentException("At least three pairs.", nameof(pairs));
        }
        var n = pairs.Count;
        var (bias, sd) = pairs.Select(pair => pair.First - pair.Second).MeanStandardDeviation();
        var margin = StudentT.InvCDF(0, 1, n - 1, 0.975) * Math.Sqrt(3.0 / n) * sd;
        return new(n, bias, sd, bias - 1.96 * sd, bias + 1.96 * sd, margin);
    }
}
