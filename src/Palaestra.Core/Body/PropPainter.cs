using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Draws the mat, what bears beside the floor, and the small things of a pose.</summary>
public sealed class PropPainter(Skeleton body, Pose pose, Camera camera)
{
    private const float MatThickness = 0.012f;

    /// <summary>Sizes in metres where the pose gives none. Common practice (a small ball is about 30 cm).</summary>
    private static readonly Dictionary<string, double> Sizes = new()
    {
        ["ball"] = 0.24,
        ["band"] = 0.05,
        ["dowel"] = 1.0,
        ["block"] = 0.10,
        ["weight"] = 0.12,
        ["slider"] = 0.22,
        ["cushion"] = 0.12,
    };

    private const float CushionHeight = 0.04f;

    /// <summary>The mat under the body, always painted first.</summary>
    public FigureShape Mat(IReadOnlyCollection<Vector3> around)
    {
        const float air = 0.12f;
        var low = new Vector3(around.Min(p => p.X) - air, -MatThickness, around.Min(p => p.Z) - air);
        var high = new Vector3(around.Max(p => p.X) + air, 0, around.Max(p => p.Z) + air);
        var width = Math.Max(0, 0.6f - (high.Z - low.Z)) / 2;
        low.Z -= width;
        high.Z += width;
        return Shape(ShapeRole.Floor, "floor", Outlines.Box(camera, low, high));
    }

    /// <summary>Shapes of surfaces, props and elastics, in the order they are painted.</summary>
    public IEnumerable<Layer> Layers() => Bearing().Concat(Small()).Concat(Tugged());

    private IEnumerable<Layer> Bearing()
    {
        foreach (var group in pose.Bearing.Where(c => !c.OnFloor && !c.OnLeg).GroupBy(c => c.Surface))
        {
            var points = group.Select(contact => ContactPoint.Of(body, contact)).ToList();
            var top = (float)pose.HeightOf(group.Key);
            foreach (var layer in Under(group.Key, points, top))
            {
                yield return layer;
            }
        }
    }

    private IEnumerable<Layer> Under(string surface, List<ContactPoint> points, float top)
    {
        var (minX, maxX) = (points.Min(p => p.Centre.X), points.Max(p => p.Centre.X));
        var (minZ, maxZ) = (points.Min(p => p.Centre.Z), points.Max(p => p.Centre.Z));
        switch (surface)
        {
            case Contact.Wall:
                var face = points.Max(p => p.Centre.X + (float)p.Radius);
                yield return Box("wall", new(face, 0, minZ - 0.25f), new(face + 0.05f, 2.0f, maxZ + 0.25f));
                break;
            case Pose.Counter:
                // From just behind the hands to well past them, on a panel at its far end.
                yield return Box(
                    "counter",
                    new(minX - 0.10f, top - 0.04f, minZ - 0.25f),
                    new(maxX + 0.35f, top, maxZ + 0.25f)
                );
                yield return Box(
                    "counterPanel",
                    new(maxX + 0.22f, 0, minZ - 0.22f),
                    new(maxX + 0.30f, top - 0.04f, maxZ + 0.22f)
                );
                break;
            case "ball":
                foreach (var point in points)
                {
                    var centre = new Vector3(point.Centre.X, top / 2, point.Centre.Z);
                    yield return new(
                        Shape(ShapeRole.Prop, "ball", Outlines.Circle(camera.Flat(centre), top / 2)),
                        camera.Depth(centre) - 0.2f
                    );
                    // Two feet, or a pelvis, on one ball.
                    if (maxZ - minZ < 0.25f)
                    {
                        break;
                    }
                }
                break;
            default:
                var air = surface == "slider" ? 0.04f : 0.12f;
                yield return Box(
                    surface,
                    new(minX - air, 0, minZ - air),
                    new(maxX + air, Math.Max(top, 0.012f), maxZ + air)
                );
                break;
        }
    }

    /// <summary>Metres of a band that are drawn from the hand.</summary>
    private const float TugLength = 0.8f;

    /// <summary>Bands that pull, from the hand toward what they hang on.</summary>
    private IEnumerable<Layer> Tugged() =>
        TugForce
            .Of(body, pose)
            .Select(tug =>
            {
                var end = tug.At + Vector3.Normalize(tug.Newtons) * TugLength;
                return new Layer(
                    Shape(
                        ShapeRole.Prop,
                        "tug",
                        Outlines.Capsule(camera.Flat(tug.At), 0.012, camera.Flat(end), 0.008)
                    ),
                    camera.Depth((tug.At + end) / 2)
                );
            });

    private IEnumerable<Layer> Small()
    {
        foreach (var prop in pose.Props ?? [])
        {
            var points = prop.At.SelectMany(Contact.Named).Select(c => ContactPoint.Of(body, c)).ToList();
            if (points.Count == 0)
            {
                continue;
            }
            var size = (float)(prop.Size ?? Sizes.GetValueOrDefault(prop.Kind, 0.2));
            var middle = points.Aggregate(Vector3.Zero, (sum, p) => sum + p.Centre) / points.Count;
            yield return Small(prop.Kind, size, middle, points);
        }
    }

    private Layer Small(string kind, float size, Vector3 middle, List<ContactPoint> points)
    {
        var (a, b) = (camera.Flat(points[0].Centre), camera.Flat(points[^1].Centre));
        var depth = camera.Depth(middle);
        switch (kind)
        {
            case "ball":
                return new(
                    Shape(ShapeRole.Prop, kind, Outlines.Circle(camera.Flat(middle), size / 2)),
                    depth
                );
            case "band":
                var wide = (float)points.Max(p => p.Radius) + 0.012f;
                return new(Shape(ShapeRole.Prop, kind, Outlines.Capsule(a, wide, b, wide)), depth);
            case "dowel":
                var along = points[^1].Centre - points[0].Centre;
                var half =
                    (along.LengthSquared() < 1e-6f ? Vector3.UnitZ : Vector3.Normalize(along)) * (size / 2);
                return new(
                    Shape(
                        ShapeRole.Prop,
                        kind,
                        Outlines.Capsule(camera.Flat(middle - half), 0.014, camera.Flat(middle + half), 0.014)
                    ),
                    // In front of the body wherever it lies: it is what one looks at.
                    depth + 1
                );
            case "weight":
                return new(
                    Shape(ShapeRole.Prop, kind, Outlines.Circle(camera.Flat(middle), size / 2)),
                    depth + 0.1f
                );
            default:
                var reach = new Vector3(size / 2, 0, size / 2);
                var (low, high) = (middle - reach, middle + reach);
                var isFlat = kind == "cushion";
                // A cushion lies under the point, on the floor or on a seat.
                var under = Math.Max(0, points.Min(p => (float)p.Low) - CushionHeight);
                low.Y = isFlat ? under : middle.Y - size / 2;
                high.Y = isFlat ? under + CushionHeight : middle.Y + size / 2;
                return new(Shape(ShapeRole.Prop, kind, Outlines.Box(camera, low, high)), depth);
        }
    }

    private Layer Box(string part, Vector3 low, Vector3 high) =>
        new(
            Shape(ShapeRole.Prop, part, Outlines.Box(camera, low, high)),
            camera.Depth((low + high) / 2) - 0.3f
        );

    private static FigureShape Shape(ShapeRole role, string part, List<Vector2> outline) =>
        FigureShape.Of(role, part, outline);
}
