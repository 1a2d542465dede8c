using MathNet.Numerics.Distributions;

namespace Palaestra.Core.Practice;

/// <summary>
/// What is known of how well a rater sees: from which degree on (the threshold), and how often even the plainest goes by (the
/// lapse). Bayes on a grid, every answer to a clip in which something gave way.
/// </summary>
/// <remarks>
/// A psychometric function with lapses (Wichmann and Hill 2001, Percept Psychophys 63:1293–1313, from memory). Its slope is kept
/// at 0.8 degrees, our own. Worked by simulated raters in <c>RaterBeliefTests</c>.
/// </remarks>
public sealed class RaterBelief
{
    private const double Slope = 0.8;

    /// <summary>Where thresholds lie before anything is known, and how widely, degrees. Our own.</summary>
    private const double UsualThreshold = 0.5;
    private const double ThresholdSpread = 2;

    private static readonly double[] Lapses = [0.005, 0.03, 0.08, 0.15, 0.25, 0.4, 0.6, 0.8];

    /// <summary>From below the least degree to above the most.</summary>
    private static readonly double[] Thresholds = [.. Enumerable.Range(0, 15).Select(i => -2 + 0.5 * i)];

    private static readonly int Cells = Lapses.Length * Thresholds.Length;

    /// <summary>Chance of a mark by degree and cell.</summary>
    private static readonly double[][] Chances = [.. Degrees.All.Select(degree => ChancesOf((int)degree))];

    private readonly double[] shares;

    private RaterBelief(double[] shares, int seen) => (this.shares, Seen) = (shares, seen);

    /// <summary>Answers it rests on.</summary>
    public int Seen { get; }

    /// <summary>
    /// Before anything was seen. Thresholds lie about those who see a subtle fault more often than not, widely; a lapse is one in five
    /// at first, and rather less than more (beta of 1/2 and 2, our own).
    /// </summary>
    public static RaterBelief Nothing { get; } = new(Prior(), 0);

    /// <summary>After one answer more.</summary>
    public RaterBelief After(Degree degree, bool marked)
    {
        var now = new double[Cells];
        var sum = 0.0;
        for (var i = 0; i < Cells; i++)
        {
            var chance = Chances[(int)degree][i];
            now[i] = shares[i] * (marked ? chance : 1 - chance);
            sum += now[i];
        }
        for (var i = 0; i < Cells; i++)
        {
            now[i] /= sum;
        }
        return new(now, Seen + 1);
    }

    /// <summary>After all answers to clips in which something gave way; the others tell nothing of this.</summary>
    public static RaterBelief Of(IEnumerable<ClipResult> results) =>
        results
            .Where(r => r.Faulty)
            .Aggregate(Nothing, (belief, r) => belief.After(r.Spec.Truth!.Degree, r.Marked));

    /// <summary>What is known of all faults counts this much for one by itself. Our own.</summary>
    private const double Trust = 0.4;

    /// <summary>What is known of one fault: as of all, less surely, and what was answered to it.</summary>
    public RaterBelief OfFault(IEnumerable<ClipResult> shown)
    {
        var faded = shares
            .Zip(Nothing.shares, (now, prior) => Math.Pow(now, Trust) * Math.Pow(prior, 1 - Trust))
            .ToArray();
        var sum = faded.Sum();
        return shown.Aggregate(
            new RaterBelief([.. faded.Select(share => share / sum)], 0),
            (belief, r) => belief.After(r.Spec.Truth!.Degree, r.Marked)
        );
    }

    /// <summary>Chance that a fault of this degree is marked, 0 to 1.</summary>
    public double ChanceOf(Degree degree) => Mean(Chances[(int)degree]);

    /// <summary>Share of faults that go by, all degrees alike, 0 to 1.</summary>
    public double Missed => 1 - Mean(AllDegrees);

    /// <summary>The middle 95 % of what <see cref="Missed"/> may be.</summary>
    public (double Low, double High) MissedWithin
    {
        get
        {
            var order = Enumerable.Range(0, Cells).OrderBy(i => 1 - AllDegrees[i]).ToList();
            return (At(0.025), At(0.975));

            double At(double share)
            {
                var sum = 0.0;
                foreach (var i in order)
                {
                    sum += shares[i];
                    if (sum >= share)
                    {
                        return 1 - AllDegrees[i];
                    }
                }
                return 1 - AllDegrees[order[^1]];
            }
        }
    }

    /// <summary>What an answer at this degree would tell, bits: most where it is quite open, and open because of what is not known.</summary>
    /// <remarks>Mutual information of the answer and the rater (Cover and Thomas, Elements of Information Theory, chapter 2, from memory).</remarks>
    public double Tells(Degree degree)
    {
        var chances = Chances[(int)degree];
        var sure = 0.0;
        for (var i = 0; i < Cells; i++)
        {
            sure += shares[i] * Entropy(chances[i]);
        }
        return Math.Max(0, Entropy(Mean(chances)) - sure);
    }

    private static double Entropy(double p) =>
        p is <= 0 or >= 1 ? 0 : -p * Math.Log2(p) - (1 - p) * Math.Log2(1 - p);

    private double Mean(double[] of)
    {
        var sum = 0.0;
        for (var i = 0; i < Cells; i++)
        {
            sum += shares[i] * of[i];
        }
        return sum;
    }

    private static double[] ChancesOf(int degree) =>
        [
            .. from lapse in Lapses
            from threshold in Thresholds
            select (1 - lapse) * Normal.CDF(threshold, Slope, degree),
        ];

    private static readonly double[] AllDegrees =
    [
        .. Enumerable.Range(0, Cells).Select(i => Chances.Average(of => of[i])),
    ];

    private static double[] Prior()
    {
        var shares = (
            from lapse in Lapses
            from threshold in Thresholds
            select Beta.PDF(0.5, 2, lapse)
                * Width(lapse)
                * Normal.PDF(UsualThreshold, ThresholdSpread, threshold)
        ).ToArray();
        var sum = shares.Sum();
        return [.. shares.Select(share => share / sum)];
    }

    /// <summary>How much of the line a place stands for: half way to its neighbours.</summary>
    private static double Width(double lapse)
    {
        var at = Array.IndexOf(Lapses, lapse);
        var low = at == 0 ? 0 : (Lapses[at - 1] + lapse) / 2;
        var high = at == Lapses.Length - 1 ? 1 : (Lapses[at + 1] + lapse) / 2;
        return high - low;
    }
}
