using System.Numerics;
using Palaestra.Core.Body;

namespace Palaestra.Core.Practice;

/// <summary>Takes the pictures of a clip.</summary>
internal sealed class ClipFilm(ClipScene scene, ClipTiming timing, Restlessness restless, ClipSpec spec)
{
    private readonly Camera camera = Camera.For(spec.View, spec.Drawn);

    private static readonly IReadOnlyList<IReadOnlyList<int>> Still = [];

    /// <param name="fault">None: nothing gives way.</param>
    public ClipPictures Pictures(int perSecond, string words, ClipFault? fault)
    {
        var count = (int)Math.Round(timing.Seconds * perSecond) + 1;
        var bodies = Enumerable.Range(0, count).Select(i => Sided(At(i / (double)perSecond, fault))).ToList();
        var shapes = bodies
            .AsParallel()
            .AsOrdered()
            .Select(moment => Scene(moment.Body, moment.Pose))
            .ToList();
        var order = Order(shapes);
        var floor = Floor(bodies);
        var frames = new List<ClipFrame>(count);
        var before = new Dictionary<string, FigureShape>(StringComparer.Ordinal) { [floor.Part] = floor };
        var first = new List<FigureShape> { floor };
        foreach (var part in order)
        {
            // What lies about in any picture lies about in all.
            before[part] = shapes
                .Select(all => all.GetValueOrDefault(part))
                .First(shape => shape is not null)!;
            first.Add(before[part]);
        }
        foreach (var all in shapes)
        {
            var moved = new List<IReadOnlyList<IReadOnlyList<int>>> { Still };
            foreach (var part in order)
            {
                var now = all.GetValueOrDefault(part) ?? before[part];
                moved.Add(frames.Count > 0 && Same(now, before[part]) ? Still : now.Outlines);
                before[part] = now;
            }
            frames.Add(new(moved));
        }
        return new(perSecond, Framed(first, shapes, bodies[0].Body, words), frames);
    }

    private (Skeleton Body, Pose Pose) At(double seconds, ClipFault? fault)
    {
        var there = fault is null
            ? 0
            : fault.Amount * timing.FaultAt(seconds, (fault.Rep ?? 1) - 1, fault.Second);
        return scene.At(timing.ShareAt(seconds), there, posture => restless.Over(posture, seconds));
    }

    /// <summary>What is worked out for the left, seen in a mirror where the task is the right's.</summary>
    private (Skeleton Body, Pose Pose) Sided((Skeleton Body, Pose Pose) left)
    {
        if (spec.Drawn != Side.Right)
        {
            return left;
        }
        var (body, pose) = left;
        var root = new Vector3(body.Root.X, body.Root.Y, -body.Root.Z);
        return (new Skeleton(body.Posture.Mirrored(), body.Size, root), pose.Mirrored());
    }

    private Dictionary<string, FigureShape> Scene(Skeleton body, Pose pose)
    {
        var shapes = new Dictionary<string, FigureShape>(StringComparer.Ordinal);
        foreach (
            var layer in new BodyPainter(body, camera, spec.Drawn)
                .Layers()
                .Concat(new PropPainter(body, pose, camera).Layers())
                .OrderBy(layer => layer.Depth)
        )
        {
            // Two things of a kind are one shape.
            shapes[layer.Shape.Part] = shapes.TryGetValue(layer.Shape.Part, out var other)
                ? other with
                {
                    Outlines = [.. other.Outlines, .. layer.Shape.Outlines],
                }
                : layer.Shape;
        }
        return shapes;
    }

    /// <summary>Painted as at the end of the movement, where it is looked at; what lies about only elsewhere comes first.</summary>
    private List<string> Order(List<Dictionary<string, FigureShape>> shapes)
    {
        var end = Sided(At(timing.Reps[0].Out + timing.Reps[0].Stay / 2, null));
        var known = Scene(end.Body, end.Pose).Keys.ToList();
        return [.. shapes.SelectMany(all => all.Keys).Distinct().Except(known), .. known];
    }

    private FigureShape Floor(List<(Skeleton Body, Pose Pose)> bodies)
    {
        var around = bodies
            .Where((_, i) => i % 5 == 0)
            .SelectMany(moment => Enum.GetValues<Bone>().SelectMany(bone => Ends(moment.Body[bone])))
            .ToList();
        return new PropPainter(bodies[0].Body, bodies[0].Pose, camera).Mat(around);
    }

    private static Vector3[] Ends(Segment segment) => [segment.From, segment.To];

    /// <summary>A body never lies quite still; what lies about is looked at.</summary>
    private static bool Same(FigureShape a, FigureShape b) =>
        a.Role == ShapeRole.Prop
        && a.Outlines.Count == b.Outlines.Count
        && a.Outlines.Zip(b.Outlines, (x, y) => x.SequenceEqual(y)).All(x => x);

    private const int Air = 60;

    private Figure Framed(
        List<FigureShape> first,
        List<Dictionary<string, FigureShape>> shapes,
        Skeleton body,
        string words
    )
    {
        var (left, top, right, bottom) = (int.MaxValue, int.MaxValue, int.MinValue, int.MinValue);
        foreach (
            var outline in shapes
                .SelectMany(all => all.Values)
                .Append(first[0])
                .SelectMany(shape => shape.Outlines)
        )
        {
            for (var i = 0; i + 1 < outline.Count; i += 2)
            {
                (left, right) = (Math.Min(left, outline[i]), Math.Max(right, outline[i]));
                (top, bottom) = (Math.Min(top, outline[i + 1]), Math.Max(bottom, outline[i + 1]));
            }
        }
        return new(
            spec.View,
            first,
            new BodyPainter(body, camera, spec.Drawn).Anchors(),
            left - Air,
            top - Air,
            right - left + 2 * Air,
            bottom - top + 3 * Air / 2,
            words
        );
    }
}
