using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>The trunk as one closed outline through pelvis, waist, rib cage and neck, in profile.</summary>
public static class TrunkOutline
{
    /// <summary>
    /// Stations along the spine: segment, share along it, and front and back half widths as fractions of stature.
    /// Our own, set by eye.
    /// </summary>
    private static readonly (
        string Segment,
        double Along,
        double Front,
        double Back,
        string? Contact
    )[] Stations =
    [
        ("pelvis", -0.42, 0.036, 0.050, null),
        ("pelvis", 0.02, 0.053, 0.072, "buttock"),
        ("pelvis", 0.75, 0.058, 0.060, null),
        ("waist", 0.45, 0.057, 0.049, null),
        ("chest", 0.05, 0.063, 0.058, null),
        ("chest", 0.50, 0.066, 0.068, "upperBack"),
        ("chest", 0.86, 0.047, 0.056, "shoulderBack"),
        ("neck", 0.10, 0.025, 0.034, null),
        ("neck", 1.05, 0.024, 0.028, null),
    ];

    /// <summary>Where the surface of the back is at a contact.</summary>
    public static Vector3 BackPoint(Skeleton body, string contact)
    {
        var station = Stations.First(s => s.Contact == contact);
        return Edge(body, station.Segment, station.Along, -station.Back);
    }

    /// <summary>Closed smooth outline, counted from the buttock along the back to the neck and down the front.</summary>
    public static IReadOnlyList<Vector3> Points(Skeleton body)
    {
        var back = Stations.Select(s => Edge(body, s.Segment, s.Along, -s.Back));
        var front = Stations.Reverse().Select(s => Edge(body, s.Segment, s.Along, s.Front));
        return Smooth([.. back, .. front]);
    }

    private static Vector3 Edge(Skeleton body, string segment, double along, double width)
    {
        var line = body[segment];
        return line.From
            + (line.To - line.From) * (float)along
            + body.Ventral(segment) * (float)(width * body.Height);
    }

    /// <summary>Closed Catmull–Rom curve through the points, eight steps a span.</summary>
    private static List<Vector3> Smooth(List<Vector3> points)
    {
        const int steps = 8;
        var n = points.Count;
        var result = new List<Vector3>(n * steps);
        for (var i = 0; i < n; i++)
        {
            var (a, b, c, d) = (points[(i + n - 1) % n], points[i], points[(i + 1) % n], points[(i + 2) % n]);
            for (var s = 0; s < steps; s++)
            {
                var t = s / (float)steps;
                var (t2, t3) = (t * t, t * t * t);
                result.Add(
                    0.5f
                        * (
                            2 * b
                            + (c - a) * t
                            + (2 * a - 5 * b + 4 * c - d) * t2
                            + (3 * b - a - 3 * c + d) * t3
                        )
                );
            }
        }
        return result;
    }
}
