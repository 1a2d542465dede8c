using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Draws a movement: one moment of it, start and end together, or a fault over the clean posture.</summary>
/// <remarks>
/// The side of the task is the near one and its limbs are the dark ones, so left and right mirror each other. The drawn
/// body is a typical one: a picture needs no client's.
/// </remarks>
public sealed class FigureDrawing
{
    private const int Air = 60;

    /// <summary>Limbs that travel less than this, metres in the picture, get no arrow.</summary>
    private const float ShortestArrow = 0.04f;
    private const int ArrowSamples = 13;

    private readonly Side side;
    private readonly View view;
    private readonly Camera camera;
    private readonly Movement movement;
    private readonly double lastSetOut;

    /// <param name="path">Poses written for the left as the side of the task.</param>
    public FigureDrawing(IReadOnlyList<Pose> path, Side side, View view)
    {
        this.side = side;
        this.view = view;
        camera = Camera.For(view, side);
        movement = new Movement(Sided(path), BodySize.Typical);
        lastSetOut = LastSetOut(path);
    }

    /// <param name="share">0 at the start, 1 at the end.</param>
    public Figure Moment(double share, string words)
    {
        var (body, pose) = movement.SettledAt(share);
        return Framed([.. Scene(body, pose)], body, pose, [], words);
    }

    /// <summary>Moments at even steps; all in the same frame and painting order, so that one flows into the next.</summary>
    /// <param name="count">At least 1; one alone is the end.</param>
    /// <param name="range">Share of the movement at which they end, above 0 to 1.</param>
    public IReadOnlyList<Figure> Frames(int count, string words, double range = 1) =>
        OneFrame(
            WithWhatLiesAbout(Moments(count, words, (movement, share) => movement.SettledAt(range * share)))
        );

    /// <summary>What one moment bears on is there in all of them: a box that one rises from does not go away.</summary>
    private static IReadOnlyList<Figure> WithWhatLiesAbout(IReadOnlyList<Figure> figures)
    {
        // Of each prop what the first moment that has it shows; one may be told in several shapes.
        var props = figures
            .SelectMany(figure =>
                figure
                    .Shapes.Select((shape, i) => (Shape: shape, At: i))
                    .Where(prop => prop.Shape.Role == ShapeRole.Prop)
                    .GroupBy(prop => prop.Shape.Part)
            )
            .DistinctBy(prop => prop.Key)
            .SelectMany(prop => prop)
            .ToList();
        return [.. figures.Select(figure => figure with { Shapes = With(figure.Shapes) })];

        IReadOnlyList<FigureShape> With(IReadOnlyList<FigureShape> shapes)
        {
            var all = shapes.ToList();
            foreach (var (shape, at) in props.Where(prop => shapes.All(s => s.Part != prop.Shape.Part)))
            {
                all.Insert(Math.Min(at, all.Count), shape);
            }
            return all;
        }
    }

    private IReadOnlyList<Figure> Moments(
        int count,
        string words,
        Func<Movement, double, (Skeleton Body, Pose Pose)> at
    )
    {
        var moments = Enumerable
            .Range(0, count)
            .Select(i => at(movement, count == 1 ? 1 : i / (double)(count - 1)))
            .ToList();
        var order = Scene(moments[^1].Body, moments[^1].Pose).Select(shape => shape.Part).ToList();
        var bodies = moments.Select(moment => moment.Body).ToList();
        return
        [
            .. moments.Select(moment =>
                Framed(
                    [.. Scene(moment.Body, moment.Pose).OrderBy(shape => order.IndexOf(shape.Part))],
                    moment.Body,
                    moment.Pose,
                    bodies,
                    words
                )
            ),
        ];
    }

    /// <summary>Farther than this, degrees about any axis, the pelvis turns over: no way that one would go.</summary>
    private const double TurnedOver = 100;

    /// <summary>From the end of one movement to the end of another, as <see cref="Frames"/>.</summary>
    /// <param name="before">Poses of the movement that is left, written for the left as the side of the task.</param>
    /// <param name="after">Poses of the movement that takes its place.</param>
    /// <param name="count">Pictures, both ends among them; at least 2.</param>
    /// <returns>Empty where the body would have to turn over on the way.</returns>
    public static IReadOnlyList<Figure> Change(
        IReadOnlyList<Pose> before,
        IReadOnlyList<Pose> after,
        Side side,
        View view,
        int count,
        string words
    )
    {
        var (from, to) = (before[^1].Root, after[^1].Root);
        double[] turns = [to.Pitch - from.Pitch, to.Turn - from.Turn, to.Lean - from.Lean];
        return turns.Any(turn => Math.Abs(turn) > TurnedOver)
            ? []
            : OneFrame(
                new FigureDrawing([before[^1], after[^1]], side, view).Moments(
                    count,
                    words,
                    // What bears is another thing at each end: the body goes straight from one to the other.
                    (movement, share) => movement.At(share)
                )
            );
    }

    /// <summary>What lies about is another thing at each end too: the frame holds all of it.</summary>
    private static IReadOnlyList<Figure> OneFrame(IReadOnlyList<Figure> figures)
    {
        var (left, top) = (figures.Min(f => f.Left), figures.Min(f => f.Top));
        var (right, bottom) = (figures.Max(f => f.Left + f.Width), figures.Max(f => f.Top + f.Height));
        return
        [
            .. figures.Select(f =>
                f with
                {
                    Left = left,
                    Top = top,
                    Width = right - left,
                    Height = bottom - top,
                }
            ),
        ];
    }

    /// <summary>The end, with the start behind it and arrows for what moves most.</summary>
    public Figure Together(string words)
    {
        var (start, end) = (movement.Start, movement.End);
        var scene = Scene(end, movement.EndPose).ToList();
        // What only the start bears on, such as the box one rises from.
        var left = new PropPainter(start, movement.StartPose, camera)
            .Layers()
            .Select(layer => layer.Shape)
            .Where(prop => scene.All(shape => shape.Part != prop.Part));
        var shapes = new List<FigureShape>(left);
        shapes.AddRange(new BodyPainter(start, camera, side).Parts(ShapeRole.Ghost));
        shapes.AddRange(scene);
        shapes.AddRange(Arrows());
        return Framed(shapes, end, movement.EndPose, [start], words);
    }

    /// <summary>The fault over the clean end, with an arrow at the region.</summary>
    /// <param name="faulty">Written for the left as the side of the task.</param>
    /// <param name="region">One of the anchors of the figure.</param>
    public Figure Faulty(Pose faulty, string region, string words)
    {
        var pose = side == Side.Right ? faulty.Mirrored() : faulty;
        var clean = movement.End;
        // The hips stay where they were as far as what bears allows, so that the two can be compared.
        var body = new Movement([movement.EndPose, pose], BodySize.Typical).End;
        var shapes = new List<FigureShape>(new BodyPainter(clean, camera, side).Parts(ShapeRole.Ghost));
        var painter = new BodyPainter(body, camera, side);
        shapes.AddRange(Scene(body, pose));
        var anchor = painter.Anchors().FirstOrDefault(a => a.Region == region);
        if (anchor is not null)
        {
            shapes.Add(MarkAt(anchor.At, shapes));
        }
        return Framed(shapes, body, pose, [clean], words);
    }

    /// <summary>Where a movement that comes back to its start on the way sets out for the last time: only that shows in arrows.</summary>
    private static double LastSetOut(IReadOnlyList<Pose> path)
    {
        for (var i = path.Count - 2; i > 0; i--)
        {
            if (ReferenceEquals(path[i], path[0]))
            {
                return i / (double)(path.Count - 1);
            }
        }
        return 0;
    }

    private IReadOnlyList<Pose> Sided(IReadOnlyList<Pose> path) =>
        side == Side.Right ? [.. path.Select(pose => pose.Mirrored())] : path;

    private IEnumerable<FigureShape> Scene(Skeleton body, Pose pose) =>
        new BodyPainter(body, camera, side)
            .Layers()
            .Concat(new PropPainter(body, pose, camera).Layers())
            .OrderBy(layer => layer.Depth)
            .Select(layer => layer.Shape);

    /// <summary>Paths of the points that go farthest, and of others that go nearly as far.</summary>
    private IEnumerable<FigureShape> Arrows()
    {
        var bodies = Enumerable
            .Range(0, ArrowSamples)
            .Select(i => movement.At(lastSetOut + (1 - lastSetOut) * i / (ArrowSamples - 1)).Body)
            .ToList();
        var paths = Travellers
            .Select(point => bodies.Select(body => camera.Flat(point.Of(body))).ToList())
            .Select((path, i) => (Travellers[i].Name, Path: path, Length: Length(path)))
            .Where(path => path.Length >= ShortestArrow)
            .OrderByDescending(path => path.Length)
            .ToList();
        if (paths.Count == 0)
        {
            yield break;
        }
        var limbs = new HashSet<string>();
        foreach (var (name, path, length) in paths.Where(path => path.Length >= 0.55f * paths[0].Length))
        {
            // One arrow a limb: its far end, or its middle when that goes farther.
            if (limbs.Count < 3 && limbs.Add(name.Split('-')[0]))
            {
                var arrow = Outlines.Arrow(path, 0.016, Math.Min(0.07, length * 0.6));
                yield return FigureShape.Of(ShapeRole.Arrow, $"arrow-{name}", arrow);
            }
        }
    }

    private static readonly (string Name, Func<Skeleton, Vector3> Of)[] Travellers =
    [
        ("armLeft-hand", body => body[Bone.HandLeft].To),
        ("armRight-hand", body => body[Bone.HandRight].To),
        ("legLeft-foot", body => body[Bone.FootLeft].From),
        ("legRight-foot", body => body[Bone.FootRight].From),
        ("legLeft-knee", body => body[Bone.ShankLeft].From),
        ("legRight-knee", body => body[Bone.ShankRight].From),
        ("trunk-hips", body => body.Root),
        ("trunk-head", body => body[Bone.Head].To),
    ];

    private static float Length(List<Vector2> path) => path.Zip(path.Skip(1), Vector2.Distance).Sum();

    /// <summary>An arrow from outside the figure to the region, coming from the way that leads out soonest.</summary>
    private static FigureShape MarkAt(FigurePoint at, List<FigureShape> shapes)
    {
        var body = shapes
            .Where(shape =>
                shape.Role is ShapeRole.Trunk or ShapeRole.NearLimb or ShapeRole.Head or ShapeRole.FarLimb
            )
            .SelectMany(shape => shape.Points())
            .Select(p => new Vector2(p.X / 1000f, -p.Y / 1000f))
            .ToList();
        var target = new Vector2(at.X / 1000f, -at.Y / 1000f);
        var ways = Enumerable
            .Range(0, 7)
            .Select(i => Math.PI * (i + 0.5) / 7.5)
            .Select(a => new Vector2((float)Math.Cos(a), (float)Math.Sin(a)));
        // Upward half only: below is the floor.
        var best = ways.MinBy(way => Reach(body, target, way));
        var out_ = Reach(body, target, best) + 0.05f;
        var arrow = Outlines.Arrow(
            [target + best * (out_ + 0.20f), target + best * Math.Min(out_ - 0.04f, 0.12f)],
            0.03,
            0.10
        );
        return FigureShape.Of(ShapeRole.Mark, "mark", arrow);
    }

    /// <summary>How far the body goes from a point along a way, in a lane of a hand's breadth.</summary>
    private static float Reach(List<Vector2> body, Vector2 from, Vector2 way)
    {
        var reach = 0f;
        foreach (var point in body)
        {
            var off = point - from;
            var along = Vector2.Dot(off, way);
            if (along > reach && (off - way * along).Length() < 0.09f)
            {
                reach = along;
            }
        }
        return reach;
    }

    /// <param name="others">Bodies that have to fit into the frame as well.</param>
    private Figure Framed(
        List<FigureShape> shapes,
        Skeleton body,
        Pose pose,
        IReadOnlyList<Skeleton> others,
        string words
    )
    {
        var around = others
            .Append(body)
            .SelectMany(b => AllBones.SelectMany(bone => new[] { b[bone].From, b[bone].To }))
            .ToList();
        shapes.Insert(0, new PropPainter(body, pose, camera).Mat(around));
        var points = shapes.SelectMany(shape => shape.Points()).Concat(others.SelectMany(Reach)).ToList();
        var (left, right) = (points.Min(p => p.X) - Air, points.Max(p => p.X) + Air);
        var (top, bottom) = (points.Min(p => p.Y) - Air, points.Max(p => p.Y) + Air / 2);
        return new Figure(
            view,
            shapes,
            new BodyPainter(body, camera, side).Anchors(),
            left,
            top,
            right - left,
            bottom - top,
            words
        );
    }

    private static readonly Bone[] AllBones = Enum.GetValues<Bone>();

    /// <summary>Corners that hold the flesh of a body: every joint with a thigh's breadth round it.</summary>
    private IEnumerable<FigurePoint> Reach(Skeleton body)
    {
        var flesh = (float)(Proportions.HeadLong * body.Height);
        foreach (var bone in AllBones)
        {
            foreach (var end in new[] { body[bone].From, body[bone].To })
            {
                var at = camera.Flat(end);
                yield return Camera.Millimetres(at - new Vector2(flesh));
                yield return Camera.Millimetres(at + new Vector2(flesh));
            }
        }
    }
}
