using MathNet.Numerics.Random;

namespace Palaestra.Core.Practice;

/// <summary>One item of a team session: a clip, and whether it is seen in a mirror.</summary>
/// <param name="Of">Place of the clip it shows again, from 0; none: it is new.</param>
public sealed record TeamItem(int Seed, bool Mirrored, int? Of);

/// <summary>The clips of a team session: the same for all who take it, some a second time, some in a mirror.</summary>
public static class TeamSession
{
    /// <summary>Different clips there may be.</summary>
    public const int ClipsLeast = 12;

    /// <summary>More tire.</summary>
    public const int ClipsMost = 40;

    /// <summary>A sixth of the clips come a second time, and a sixth in a mirror. Our own: enough to see a habit, few enough for time.</summary>
    internal const int Again = 6;

    /// <summary>New clips in the first two thirds; what comes again is mixed into what follows, at least this many clips later.</summary>
    private const int Apart = 5;

    /// <param name="clips">Different ones, 12 to 40.</param>
    /// <returns>Items in the order they are shown.</returns>
    public static IReadOnlyList<TeamItem> Items(int clips, int seed)
    {
        var random = new Xoshiro256StarStar(seed);
        var items = Enumerable.Range(0, clips).Select(_ => new TeamItem(random.Next(), false, null)).ToList();
        var some = Enumerable
            .Range(0, clips)
            .OrderBy(_ => random.NextDouble())
            .Take(2 * (clips / Again))
            .ToList();
        for (var i = 0; i < some.Count; i++)
        {
            var seedAgain = items.Where(item => item.Of is null).ElementAt(some[i]).Seed;
            var first = items.FindIndex(item => item.Of is null && item.Seed == seedAgain);
            var place = Math.Min(
                items.Count,
                first + Apart + random.Next(Math.Max(1, items.Count - first - Apart + 1))
            );
            // Places told so far move behind what is put in.
            for (var j = 0; j < items.Count; j++)
            {
                if (items[j].Of >= place)
                {
                    items[j] = items[j] with { Of = items[j].Of + 1 };
                }
            }
            items.Insert(place, new(seedAgain, i % 2 == 1, first));
        }
        return items;
    }
}
