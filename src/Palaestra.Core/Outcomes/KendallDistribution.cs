namespace Palaestra.Core.Outcomes;

/// <summary>
/// The exact chances of Kendall's S where all x differ: how often each number of inversions turns up when the y are shuffled,
/// ties among the y counted.
/// </summary>
/// <remarks>
/// Inversions of a multiset are counted by the Gaussian multinomial coefficient: Andrews, The Theory of Partitions, 1976,
/// theorem 3.6 (from memory); checked against every order of up to seven values in the tests.
/// </remarks>
internal static class KendallDistribution
{
    /// <summary>From so many points on the normal approximation serves.</summary>
    public const int ExactUpTo = 10;

    /// <summary>The chance of an S of at least so much, by S from the largest down in steps of two.</summary>
    /// <param name="ties">How many values are alike, group by group; groups of one may be left out. Sum at most <paramref name="n"/>.</param>
    public static IReadOnlyList<(int S, double Chance)> UpperTail(int n, IReadOnlyList<int> ties)
    {
        // Inversions of n different values, then divided by those within each group of ties.
        var counts = Factorial(n);
        foreach (var tie in ties)
        {
            counts = Divided(counts, Factorial(tie));
        }
        var all = counts.Sum();
        var most = counts.Length - 1;
        var tail = new List<(int, double)>();
        double sum = 0;
        for (var inversions = 0; inversions <= most; inversions++)
        {
            sum += counts[inversions];
            tail.Add((most - 2 * inversions, sum / all));
        }
        return tail;
    }

    /// <summary>Coefficients of 1 (1 + q) (1 + q + q²) … for n values.</summary>
    private static double[] Factorial(int n)
    {
        double[] product = [1];
        for (var k = 2; k <= n; k++)
        {
            var next = new double[product.Length + k - 1];
            for (var i = 0; i < product.Length; i++)
            {
                for (var j = 0; j < k; j++)
                {
                    next[i + j] += product[i];
                }
            }
            product = next;
        }
        return product;
    }

    /// <summary>The quotient of two polynomials of which the second divides the first; both begin with 1.</summary>
    private static double[] Divided(double[] whole, double[] part)
    {
        var quotient = new double[whole.Length - part.Length + 1];
        for (var i = 0; i < quotient.Length; i++)
        {
            var rest = whole[i];
            for (var j = 1; j <= i && j < part.Length; j++)
            {
                rest -= part[j] * quotient[i - j];
            }
            quotient[i] = rest;
        }
        return quotient;
    }
}
