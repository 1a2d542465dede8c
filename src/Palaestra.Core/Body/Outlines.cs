using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Closed outlines in the plane of a picture, metres.</summary>
public static class Outlines
{
    private const int ArcSteps = 8;

    /// <summary>A tapered capsule: round ends, straight flanks.</summary>
    public static List<Vector2> Capsule(Vector2 from, double fromRadius, Vector2 to, double toRadius)
    {
        var angle = Math.Atan2(to.Y - from.Y, to.X - from.X);
        return [.. Arc(from, fromRadius, angle + Math.PI / 2), .. Arc(to, toRadius, angle - Math.PI / 2)];
    }

    /// <summary>The same outline, run counter-clockwise.</summary>
    public static List<Vector2> Wound(List<Vector2> outline)
    {
        var area = 0f;
        for (var i = 0; i < outline.Count; i++)
        {
            var (a, b) = (outline[i], outline[(i + 1) % outline.Count]);
            area += a.X * b.Y - a.Y * b.X;
        }
        return area >= 0 ? outline : [.. Enumerable.Reverse(outline)];
    }

    /// <summary>A closed outline told by so many points, evenly along it from its first.</summary>
    /// <param name="flat">x, y, x, y; at least one point.</param>
    /// <param name="count">Points, at least 1.</param>
    public static IReadOnlyList<int> Evenly(IReadOnlyList<int> flat, int count)
    {
        var points = flat.Chunk(2).Select(p => new Vector2(p[0], p[1])).ToList();
        points.Add(points[0]);
        var along = new float[points.Count];
        for (var i = 1; i < points.Count; i++)
        {
            along[i] = along[i - 1] + Vector2.Distance(points[i - 1], points[i]);
        }
        var (even, part) = (new List<int>(count * 2), 0);
        for (var i = 0; i < count; i++)
        {
            var at = along[^1] * i / count;
            while (part + 2 < along.Length && along[part + 1] < at)
            {
                part++;
            }
            var length = along[part + 1] - along[part];
            var point = Vector2.Lerp(
                points[part],
                points[part + 1],
                length > 0 ? (at - along[part]) / length : 0
            );
            even.AddRange([(int)Math.Round(point.X), (int)Math.Round(point.Y)]);
        }
        return even;
    }

    private static IEnumerable<Vector2> Arc(Vector2 centre, double radius, double start)
    {
        for (var i = 0; i <= ArcSteps; i++)
        {
            var (sin, cos) = Math.SinCos(start + Math.PI * i / ArcSteps);
            yield return centre + new Vector2((float)(cos * radius), (float)(sin * radius));
        }
    }

    /// <summary>A circle as a closed polygon of so many corners.</summary>
    public static List<Vector2> Circle(Vector2 centre, double radius, int steps = 28)
    {
        var points = new List<Vector2>(steps);
        for (var i = 0; i < steps; i++)
        {
            var (sin, cos) = Math.SinCos(2 * Math.PI * i / steps);
            points.Add(centre + new Vector2((float)(cos * radius), (float)(sin * radius)));
        }
        return points;
    }

    /// <summary>An upright box by two opposite corners, as it looks.</summary>
    public static List<Vector2> Box(Camera camera, Vector3 low, Vector3 high)
    {
        var corners =
            from x in new[] { low.X, high.X }
            from y in new[] { low.Y, high.Y }
            from z in new[] { low.Z, high.Z }
            select camera.Flat(new Vector3(x, y, z));
        return SupportArea.Hull(corners);
    }

    /// <summary>A line with a head, as one outline.</summary>
    /// <param name="line">At least two points.</param>
    public static List<Vector2> Arrow(IReadOnlyList<Vector2> line, double width, double head)
    {
        var tip = line[^1];
        var path = Shortened(line, head * 0.8);
        var (left, right) = (new List<Vector2>(), new List<Vector2>());
        for (var i = 0; i < path.Count; i++)
        {
            var along = path[Math.Min(i + 1, path.Count - 1)] - path[Math.Max(i - 1, 0)];
            var across = Across(along) * (float)(width / 2);
            left.Add(path[i] + across);
            right.Add(path[i] - across);
        }
        var wing = Across(tip - path[^1]) * (float)(head / 2);
        right.Reverse();
        return [.. left, path[^1] + wing, tip, path[^1] - wing, .. right];
    }

    private static Vector2 Across(Vector2 along) =>
        along.LengthSquared() < 1e-12f ? Vector2.UnitY : Vector2.Normalize(new Vector2(-along.Y, along.X));

    private static List<Vector2> Shortened(IReadOnlyList<Vector2> line, double by)
    {
        var path = line.ToList();
        while (path.Count > 2 && Vector2.Distance(path[^2], line[^1]) < by)
        {
            path.RemoveAt(path.Count - 2);
        }
        var last = path[^1] - path[^2];
        var length = last.Length();
        path[^1] = path[^2] + last * (float)Math.Max(0.05, 1 - by / Math.Max(length, 1e-6));
        return path;
    }
}
