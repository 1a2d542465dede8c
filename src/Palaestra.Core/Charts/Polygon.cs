namespace Palaestra.Core.Charts;

/// <summary>Closed runs of x, y, x, y.</summary>
internal static class Polygon
{
    /// <summary>Whether a place lies inside, by the even-odd rule.</summary>
    public static bool Holds(IReadOnlyList<int> outline, double x, double y)
    {
        var inside = false;
        var (px, py) = (outline[^2], outline[^1]);
        for (var i = 0; i + 1 < outline.Count; i += 2)
        {
            var (cx, cy) = (outline[i], outline[i + 1]);
            if ((cy > y) != (py > y) && x < (px - cx) * (y - cy) / (double)(py - cy) + cx)
            {
                inside = !inside;
            }
            (px, py) = (cx, cy);
        }
        return inside;
    }

    /// <summary>What of it lies where a measure that is linear in x and y is not below zero (Sutherland and Hodgman).</summary>
    public static IReadOnlyList<int> Cut(IReadOnlyList<int> outline, Func<double, double, double> measure)
    {
        var kept = new List<int>();
        for (var i = 0; i + 1 < outline.Count; i += 2)
        {
            var (ax, ay) = (outline[i], outline[i + 1]);
            var (bx, by) = (outline[(i + 2) % outline.Count], outline[(i + 3) % outline.Count]);
            var (a, b) = (measure(ax, ay), measure(bx, by));
            if (a >= 0)
            {
                kept.AddRange([ax, ay]);
            }
            if (a >= 0 != b >= 0)
            {
                var share = a / (a - b);
                kept.AddRange([
                    (int)Math.Round(ax + (bx - ax) * share),
                    (int)Math.Round(ay + (by - ay) * share),
                ]);
            }
        }
        return kept;
    }
}
