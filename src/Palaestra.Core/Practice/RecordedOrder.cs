using MathNet.Numerics;
using MathNet.Numerics.Random;

namespace Palaestra.Core.Practice;

/// <summary>In which order recorded traces and photographs are shown: by lot, then some of those that came first once more.</summary>
public static class RecordedOrder
{
    /// <param name="count">How many there are, 0 or more.</param>
    /// <returns>Which of them, from 0, and the place of the one it shows again; none: it is new.</returns>
    public static IReadOnlyList<(int Which, int? Of)> Of(int count, int seed)
    {
        var order = Combinatorics.GeneratePermutation(count, new Xoshiro256StarStar(seed));
        return
        [
            .. order.Select(which => (which, (int?)null)),
            // As far apart as they can be.
            .. order.Take(count / TeamSession.Again).Select((which, place) => (which, (int?)place)),
        ];
    }
}
