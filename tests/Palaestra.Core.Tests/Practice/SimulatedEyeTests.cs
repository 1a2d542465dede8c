using System.Numerics;
using Palaestra.Core.Body;
using Palaestra.Core.Practice;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Practice;

/// <summary>
/// An eye that knows what the fault looks like, and lays each picture from its moment on over the most alike of those before. It
/// tells how much of the fault it sees; in the same clips without the fault it sees what sway, breath and gestures make up.
/// </summary>
public class SimulatedEyeTests
{
    private const int PerDegree = 20;

    private static readonly ClipRoom Room = ClipRoom.Of(Content.Library);

    /// <summary>With 40 of each degree, on this library: 0.90 just noticeable, 0.95 subtle, 0.98 moderate, 1.00 plain, 1.00 gross.</summary>
    [Fact]
    public void What_is_plain_is_told_nearly_always_and_what_is_subtle_not_by_chance()
    {
        Assert.InRange(Told(Degree.Subtle), 0.7, 1);
        Assert.InRange(Told(Degree.Plain), 0.95, 1);
    }

    /// <summary>Chance that in a faulty clip more of the fault is seen than in another one without it; 0.5 is none.</summary>
    private static double Told(Degree degree)
    {
        var seen = Enumerable
            .Range(0, 20000)
            .Select(Room.Spec)
            .Where(spec => spec.Truth is { } truth && truth.Degree == degree && truth.Second > 2.5)
            .Take(PerDegree)
            .AsParallel()
            .AsOrdered()
            .Select(Seen)
            .ToList();
        return (
            from faulty in Enumerable.Range(0, seen.Count)
            from clean in Enumerable.Range(0, seen.Count)
            where faulty != clean
            select seen[faulty].Faulty > seen[clean].Clean ? 1.0 : 0
        ).Average();
    }

    private static (double Faulty, double Clean) Seen(ClipSpec spec)
    {
        var (faulty, clean) = (Room.Pictures(spec, ""), Room.Pictures(spec, "", clean: true));
        var parts = Parts(faulty, clean);
        var (with, without) = (Bodies(faulty, parts), Bodies(clean, parts));
        // A second before its half-way moment nothing of it is there yet, or next to nothing.
        var onset = (int)((spec.Truth!.Second - 1) * faulty.PerSecond);
        var fault = Enumerable
            .Range(onset, with.Count - onset)
            .Select(i => Less(with[i], without[i]))
            .MaxBy(off => Product(off, off))!;
        return (Amount(with, onset, fault), Amount(without, onset, fault));
    }

    /// <summary>How much of the fault the clip seems to show, 1 for as much as it does at most.</summary>
    private static double Amount(List<Vector2[]> clip, int onset, Vector2[] fault)
    {
        var size = Product(fault, fault);
        var before = clip.Take(onset).ToList();
        var after = clip.Skip(onset)
            .Select(now =>
                before
                    .Select(then =>
                    {
                        var off = Less(now, then);
                        var along = Product(off, fault) / size;
                        return (Beside: Product(off, off) - along * along * size, Along: along);
                    })
                    .MinBy(pair => pair.Beside)
                    .Along
            )
            .Order()
            .ToList();
        return after[(int)(0.9 * (after.Count - 1))];
    }

    /// <summary>Of the body, those outlined by as many points in every picture.</summary>
    private static List<int> Parts(ClipPictures faulty, ClipPictures clean) =>
        [
            .. Enumerable
                .Range(0, faulty.Figure.Shapes.Count)
                .Where(i =>
                    faulty.Figure.Shapes[i].Role is ShapeRole.Trunk or ShapeRole.NearLimb or ShapeRole.FarLimb
                )
                .Where(i =>
                    faulty
                        .Frames.Concat(clean.Frames)
                        .Select(frame => frame.Shapes[i].Sum(outline => outline.Count))
                        .Distinct()
                        .Count() == 1
                ),
        ];

    private static List<Vector2[]> Bodies(ClipPictures clip, List<int> parts) =>
        [.. clip.Frames.Select(frame => parts.SelectMany(i => frame.Shapes[i].SelectMany(Points)).ToArray())];

    private static IEnumerable<Vector2> Points(IReadOnlyList<int> flat) =>
        flat.Chunk(2).Select(p => new Vector2(p[0], p[1]));

    private static Vector2[] Less(Vector2[] a, Vector2[] b) => [.. a.Zip(b, (x, y) => x - y)];

    private static double Product(Vector2[] a, Vector2[] b)
    {
        var sum = 0.0;
        for (var i = 0; i < a.Length; i++)
        {
            sum += Vector2.Dot(a[i], b[i]);
        }
        return sum;
    }
}
