using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>The area the bearing points enclose, seen from above: a convex polygon of (x, z) in metres.</summary>
public sealed class SupportArea
{
    private readonly List<Vector2> corners;

    /// <summary>The hull, seen from above, of where the body rests; one point or a line is an area too.</summary>
    public SupportArea(IEnumerable<Vector3> points) =>
        corners = Hull(points.Select(p => new Vector2(p.X, p.Z)));

    /// <summary>From the nearest point of the area to a point above it; zero inside.</summary>
    public Vector2 Outside(Vector3 point)
    {
        var p = new Vector2(point.X, point.Z);
        if (corners.Count >= 3 && Inside(p))
        {
            return Vector2.Zero;
        }
        var best = p - corners[0];
        for (var i = 0; i < corners.Count; i++)
        {
            var (a, b) = (corners[i], corners[(i + 1) % corners.Count]);
            var along = b - a;
            var length = along.LengthSquared();
            var share = length > 0 ? Math.Clamp(Vector2.Dot(p - a, along) / length, 0, 1) : 0;
            var off = p - (a + along * share);
            best = off.LengthSquared() < best.LengthSquared() ? off : best;
        }
        return best;
    }

    private bool Inside(Vector2 p)
    {
        for (var i = 0; i < corners.Count; i++)
        {
            if (Cross(corners[(i + 1) % corners.Count] - corners[i], p - corners[i]) < 0)
            {
                return false;
            }
        }
        return true;
    }

    /// <summary>Andrew's monotone chain, counter-clockwise.</summary>
    public static List<Vector2> Hull(IEnumerable<Vector2> points)
    {
        var sorted = points.Distinct().OrderBy(p => p.X).ThenBy(p => p.Y).ToList();
        if (sorted.Count < 3)
        {
            return sorted;
        }
        var hull = new List<Vector2>(sorted.Count * 2);
        foreach (var p in sorted)
        {
            Push(hull, p, 2);
        }
        var lower = hull.Count + 1;
        for (var i = sorted.Count - 2; i >= 0; i--)
        {
            Push(hull, sorted[i], lower);
        }
        hull.RemoveAt(hull.Count - 1);
        return hull;
    }

    private static void Push(List<Vector2> hull, Vector2 p, int keep)
    {
        while (hull.Count >= keep && Cross(hull[^1] - hull[^2], p - hull[^2]) <= 0)
        {
            hull.RemoveAt(hull.Count - 1);
        }
        hull.Add(p);
    }

    private static float Cross(Vector2 a, Vector2 b) => a.X * b.Y - a.Y * b.X;
}
