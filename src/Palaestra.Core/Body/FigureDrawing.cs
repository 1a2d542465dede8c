using System.Numerics;
using Palaestra.Core.Library;

namespace Palaestra.Core.Body;

/// <summary>Draws a pose in profile. The side of the task is always the near one, so left and right mirror each other.</summary>
public static class FigureDrawing
{
    /// <summary>Stature of the drawn figure, metres: a typical body, as no client's is needed for a picture.</summary>
    public const double DrawnHeight = 1.70;

    private const double AirMillimetres = 70;

    /// <param name="pose">Written for the left side as the side of the task.</param>
    /// <param name="words">What the picture shows, for those who do not see it.</param>
    public static Figure Of(Pose pose, Side side, string words)
    {
        var sided = side == Side.Right ? pose.Mirrored() : pose;
        var near = side == Side.Right ? "Right" : "Left";
        var far = side == Side.Right ? "Left" : "Right";
        var body = ContactSolver.Solve(sided, DrawnHeight);
        // Seen from the client's right, x runs to the right; from the left the picture mirrors.
        var flip = side == Side.Right ? 1 : -1;
        var paint = new Painter(body, flip);
        var shapes = new List<FigureShape>
        {
            paint.Leg(far, ShapeRole.FarLimb, 0),
            paint.Leg(far, ShapeRole.FarLimb, 1),
            paint.Leg(far, ShapeRole.FarLimb, 2),
        };
        shapes.AddRange(paint.Arm(far, ShapeRole.FarLimb));
        shapes.Add(paint.Head());
        shapes.Add(paint.Trunk());
        shapes.AddRange([
            paint.Leg(near, ShapeRole.NearLimb, 2),
            paint.Leg(near, ShapeRole.NearLimb, 1),
            paint.Leg(near, ShapeRole.NearLimb, 0),
        ]);
        shapes.AddRange(paint.Arm(near, ShapeRole.NearLimb));
        return Framed(shapes, paint.Anchors(near), words);
    }

    private static Figure Framed(List<FigureShape> shapes, IReadOnlyList<FigureAnchor> anchors, string words)
    {
        var points = shapes.SelectMany(shape => shape.Outline).ToList();
        var left = points.Min(p => p.X) - (int)AirMillimetres;
        var right = points.Max(p => p.X) + (int)AirMillimetres;
        var top = points.Min(p => p.Y) - (int)AirMillimetres;
        const int bottom = 40;
        var floor = new FigureShape(
            ShapeRole.Floor,
            "floor",
            [new(left, 0), new(right, 0), new(right, 10), new(left, 10)]
        );
        return new Figure([floor, .. shapes], anchors, left, top, right - left, bottom - top, words);
    }

    private sealed class Painter(Skeleton body, int flip)
    {
        public FigureShape Trunk() =>
            new(ShapeRole.Trunk, "trunk", [.. TrunkOutline.Points(body).Select(Flat)]);

        public FigureShape Head()
        {
            var head = body["head"];
            var centre = (head.From + head.To) / 2;
            var along = head.Direction;
            var across = body.Ventral("head");
            var points = Enumerable
                .Range(0, 36)
                .Select(i => i * Math.PI / 18)
                .Select(a =>
                    centre
                    + along * (float)(Math.Cos(a) * Proportions.HeadLong * body.Height)
                    + across * (float)(Math.Sin(a) * Proportions.HeadShort * body.Height)
                );
            return new(ShapeRole.Head, "head", [.. points.Select(Flat)]);
        }

        public FigureShape Leg(string side, ShapeRole role, int part) =>
            part switch
            {
                0 => Limb("thigh" + side, role, Proportions.ThighWidth),
                1 => Limb("shank" + side, role, Proportions.ShankWidth),
                _ => Limb("foot" + side, role, Proportions.FootWidth),
            };

        public IEnumerable<FigureShape> Arm(string side, ShapeRole role) =>
            [
                Limb("hand" + side, role, Proportions.HandWidth),
                Limb("forearm" + side, role, Proportions.ForearmWidth),
                Limb("upperArm" + side, role, Proportions.UpperArmWidth),
            ];

        public IReadOnlyList<FigureAnchor> Anchors(string near) =>
            [
                new("low-back", Flat(TrunkPoint("waist", 0.3, -0.055))),
                new("abdomen", Flat(TrunkPoint("waist", 0.4, 0.06))),
                new("pelvis", Flat(TrunkPoint("pelvis", 0.3, 0.02))),
                new("hips", Flat(body["pelvis"].From)),
                new("ribs", Flat(TrunkPoint("chest", 0.2, 0.06))),
                new("shoulder", Flat(body["upperArm" + near].From)),
                new("breath", Flat((body["head"].From + body["head"].To) / 2)),
                new("knee", Flat(body["shank" + near].From)),
                new("foot", Flat(body["foot" + near].To)),
                new("effort", Flat(TrunkPoint("chest", 0.6, 0))),
                new("tempo", Flat(body["shank" + near].To)),
            ];

        private Vector3 TrunkPoint(string segment, double along, double front)
        {
            var line = body[segment];
            return line.From
                + (line.To - line.From) * (float)along
                + body.Ventral(segment) * (float)(front * body.Height);
        }

        /// <summary>A tapered capsule: round ends, straight flanks.</summary>
        private FigureShape Limb(string segment, ShapeRole role, (double Near, double Far) width)
        {
            const int arc = 8;
            var (from, to) = (Plane(body[segment].From), Plane(body[segment].To));
            var angle = Math.Atan2(to.Y - from.Y, to.X - from.X);
            var outline = Arc(from, width.Near * body.Height, angle + Math.PI / 2, arc)
                .Concat(Arc(to, width.Far * body.Height, angle - Math.PI / 2, arc));
            return new(role, segment, [.. outline.Select(Millimetres)]);
        }

        private static IEnumerable<Vector2> Arc(Vector2 centre, double radius, double start, int steps) =>
            Enumerable
                .Range(0, steps + 1)
                .Select(i => start + Math.PI * i / steps)
                .Select(a =>
                    centre + new Vector2((float)(Math.Cos(a) * radius), (float)(Math.Sin(a) * radius))
                );

        private FigurePoint Flat(Vector3 point) => Millimetres(Plane(point));

        private Vector2 Plane(Vector3 point) => new(point.X * flip, point.Y);

        private static FigurePoint Millimetres(Vector2 point) =>
            new((int)Math.Round(point.X * 1000), (int)Math.Round(-point.Y * 1000));
    }
}
