using System.Numerics;
using Palaestra.Core.Body;

namespace Palaestra.Core.Charts;

/// <summary>A zone as it is seen from one side.</summary>
/// <param name="Outline">A closed run of x, y, x, y in millimetres.</param>
public sealed record ChartPart(ChartZone Zone, Side Side, IReadOnlyList<int> Outline);

/// <summary>The standing body of a chart from one side.</summary>
/// <param name="Shapes">Its outlines, in painting order.</param>
/// <param name="Parts">Its zones; of those that lie over each other the nearer one first.</param>
/// <param name="Left">Bounds with a little air, millimetres.</param>
public sealed record ChartFigure(
    ChartView View,
    IReadOnlyList<FigureShape> Shapes,
    IReadOnlyList<ChartPart> Parts,
    int Left,
    int Top,
    int Width,
    int Height
)
{
    /// <summary>Front, back, left and right, each drawn once.</summary>
    public static IReadOnlyList<ChartFigure> All { get; } =
    [.. Enum.GetValues<ChartView>().Select(view => new ChartDrawing(view).Figure())];

    /// <summary>As seen from there.</summary>
    public static ChartFigure Of(ChartView view) => All[(int)view];

    /// <summary>The zone at a place; none beside the body.</summary>
    public ZoneSide? At(double x, double y)
    {
        foreach (var part in Parts)
        {
            if (Polygon.Holds(part.Outline, x, y))
            {
                return new(part.Zone, part.Side);
            }
        }
        return null;
    }
}

/// <summary>Draws the body of a chart: our own, a typical one, standing with the arms off the trunk.</summary>
internal sealed class ChartDrawing
{
    private const int Air = 30;

    /// <summary>Half the breadth and height of the saddle area, as shares of stature. Set by eye.</summary>
    private const double SaddleWide = 0.024;
    private const double SaddleHigh = 0.028;

    private readonly ChartView view;
    private readonly Camera camera;
    private readonly Skeleton body;

    public ChartDrawing(ChartView view)
    {
        this.view = view;
        var faces = view is ChartView.Front or ChartView.Back;
        camera = view switch
        {
            ChartView.Front => new(-Vector3.UnitZ, Vector3.UnitY),
            ChartView.Back => new(Vector3.UnitZ, Vector3.UnitY),
            ChartView.Left => new(-Vector3.UnitX, Vector3.UnitY),
            _ => new(Vector3.UnitX, Vector3.UnitY),
        };
        var joints = new Dictionary<string, JointAngles>
        {
            // Arms and legs apart, seen from the side the arms forward: every place can be drawn on.
            ["shoulder"] = faces ? new(Abduction: 18) : new(Flexion: 34),
            ["elbow"] = new(Flexion: faces ? 4 : 20),
            ["hip"] = new(Abduction: faces ? 5 : 0),
        };
        var posture = Posture.Of(new RootPlacement(), joints);
        body = new Skeleton(posture, BodySize.Typical, Vector3.Zero);
        var floor =
            Skeleton.OneSide.Min(side => body.ToeCentre(side).Y) - Proportions.ToeRadius * body.Height;
        body = body.Moved(new Vector3(0, (float)-floor, 0));
    }

    public ChartFigure Figure()
    {
        var shapes = new BodyPainter(body, camera, view == ChartView.Left ? Side.Left : Side.Right).Parts();
        var points = shapes.SelectMany(shape => shape.Points()).ToList();
        var (left, right) = (points.Min(p => p.X) - Air, points.Max(p => p.X) + Air);
        var (top, bottom) = (points.Min(p => p.Y) - Air, points.Max(p => p.Y) + Air);
        return new(view, shapes, [.. Parts(shapes)], left, top, right - left, bottom - top);
    }

    private IEnumerable<ChartPart> Parts(IReadOnlyList<FigureShape> shapes)
    {
        var byName = shapes.ToDictionary(shape => shape.Part);
        return view switch
        {
            ChartView.Front or ChartView.Back =>
            [
                Saddle(),
                .. Skeleton.OneSide.SelectMany(side => Arm(byName, side)),
                .. Trunk(byName),
                .. Skeleton.OneSide.SelectMany(side => Leg(byName, side)),
            ],
            ChartView.Left => [.. Arm(byName, Side.Left), .. Trunk(byName), .. Leg(byName, Side.Left)],
            _ => [.. Arm(byName, Side.Right), .. Trunk(byName), .. Leg(byName, Side.Right)],
        };
    }

    private ChartPart Saddle()
    {
        var (h, at) = (body.Height, camera.Flat(Crotch));
        var outline = Outlines
            .Circle(Vector2.Zero, 1)
            .ConvertAll(p => at + new Vector2((float)(p.X * SaddleWide * h), (float)(p.Y * SaddleHigh * h)));
        return Part(ChartZone.Saddle, Side.Both, [Flat(outline)]).Single();
    }

    /// <summary>The lowest section of the trunk.</summary>
    private Vector3 Crotch => TrunkShape.Sections(body, 1)[0].Middle;

    private static IEnumerable<ChartPart> Arm(Dictionary<string, FigureShape> shapes, Side side) =>
        [
            .. Part(ChartZone.Hand, side, shapes[$"hand{side}"].Outlines),
            .. Part(ChartZone.Forearm, side, shapes[$"forearm{side}"].Outlines),
            .. Part(ChartZone.UpperArm, side, shapes[$"upperArm{side}"].Outlines),
        ];

    private IEnumerable<ChartPart> Leg(Dictionary<string, FigureShape> shapes, Side side)
    {
        var knee = Camera.Millimetres(camera.Flat(body[Bone.ShankLeft.On(side)].From)).Y;
        var fold = Camera.Millimetres(camera.Flat(Crotch)).Y + (int)(SaddleHigh * body.Height * 1000);
        return
        [
            .. Part(ChartZone.Foot, side, shapes[$"foot{side}"].Outlines),
            .. Part(ChartZone.LowerLeg, side, Below(shapes[$"shank{side}"].Outlines, knee)),
            .. Part(ChartZone.LowerLeg, side, Below(shapes[$"thigh{side}"].Outlines, knee)),
            // By name it begins under the fold; what of it lies beside the pelvis is the thigh's too.
            .. Part(ChartZone.Thigh, side, Below(Above(shapes[$"thigh{side}"].Outlines, knee), fold)),
            .. Part(ChartZone.Thigh, side, Above(shapes[$"thigh{side}"].Outlines, knee)),
            .. Part(ChartZone.Thigh, side, Above(shapes[$"shank{side}"].Outlines, knee)),
        ];
    }

    /// <summary>Head and neck, then the trunk cut at ribs and pelvis, and down its middle or its flank.</summary>
    private IEnumerable<ChartPart> Trunk(Dictionary<string, FigureShape> shapes)
    {
        int At(Vector3 point) => Camera.Millimetres(camera.Flat(point)).Y;
        var (neck, ribs, pelvis) = (
            At(body[Bone.Neck].From),
            At(body[Bone.Chest].From),
            At(body[Bone.Pelvis].To)
        );
        foreach (var part in Part(ChartZone.Head, Side.Both, shapes["head"].Outlines))
        {
            yield return part;
        }
        var trunk = shapes["trunk"].Outlines.Take(1).ToList();
        foreach (var part in Part(ChartZone.Neck, Side.Both, Above(trunk, neck)))
        {
            yield return part;
        }
        var saddle = At(Crotch) - (int)(SaddleHigh * body.Height * 1000);
        (ChartZone Front, ChartZone Back, int From, int To)[] bands =
        [
            (ChartZone.Chest, ChartZone.UpperBack, neck, ribs),
            (ChartZone.Abdomen, ChartZone.LowBack, ribs, pelvis),
            // By name it ends above the saddle area; what lies beside that is its own too.
            (ChartZone.Groin, ChartZone.Buttock, pelvis, saddle),
            (ChartZone.Groin, ChartZone.Buttock, pelvis, 0),
        ];
        foreach (var (front, back, from, to) in bands)
        {
            var band = Below(to == 0 ? trunk : Above(trunk, to), from);
            foreach (var (zone, side, left) in Halves(front, back))
            {
                foreach (var part in Part(zone, side, Half(band, left)))
                {
                    yield return part;
                }
            }
        }
    }

    /// <summary>What lies left and what lies right of the middle line of the picture.</summary>
    private (ChartZone Zone, Side Side, bool Left)[] Halves(ChartZone front, ChartZone back) =>
        view switch
        {
            ChartView.Front => [(front, Side.Right, true), (front, Side.Left, false)],
            ChartView.Back => [(back, Side.Left, true), (back, Side.Right, false)],
            ChartView.Left => [(front, Side.Left, true), (back, Side.Left, false)],
            _ => [(back, Side.Right, true), (front, Side.Right, false)],
        };

    private static IEnumerable<ChartPart> Part(
        ChartZone zone,
        Side side,
        IEnumerable<IReadOnlyList<int>> outlines
    ) => outlines.Where(o => o.Count >= 6).Select(o => new ChartPart(zone, side, o));

    private static IEnumerable<IReadOnlyList<int>> Above(IEnumerable<IReadOnlyList<int>> outlines, int y) =>
        outlines.Select(o => Polygon.Cut(o, (_, py) => y - py));

    private static IEnumerable<IReadOnlyList<int>> Below(IEnumerable<IReadOnlyList<int>> outlines, int y) =>
        outlines.Select(o => Polygon.Cut(o, (_, py) => py - y));

    /// <summary>Seen from the side, the middle line runs where the hips are.</summary>
    private static IEnumerable<IReadOnlyList<int>> Half(
        IEnumerable<IReadOnlyList<int>> outlines,
        bool left
    ) => outlines.Select(o => Polygon.Cut(o, (px, _) => left ? -px : px));

    private static IReadOnlyList<int> Flat(List<Vector2> outline) =>
        FigureShape.Of(ShapeRole.Trunk, "", outline).Outlines[0];
}
