using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>The trunk as rounded sections through crotch, pelvis, waist, rib cage and neck.</summary>
public static class TrunkShape
{
    /// <summary>
    /// Stations along the spine: part, share along it, and half widths to the front, the back and each side as fractions of
    /// stature; and how much of what the belly comes out shows there. Our own, set by eye.
    /// </summary>
    private readonly record struct Station(
        Bone Bone,
        double Along,
        double Front,
        double Back,
        double Side,
        Spot? Spot = null,
        double Belly = 0
    );

    private static readonly Station[] Stations =
    [
        new(Bone.Pelvis, -0.75, 0.034, 0.046, 0.052),
        new(Bone.Pelvis, 0.04, 0.052, 0.070, 0.093, Spot.Buttock),
        new(Bone.Waist, 0.07, 0.056, 0.058, 0.088, Belly: 0.7),
        new(Bone.Waist, 0.46, 0.055, 0.047, 0.073, Belly: 1),
        new(Bone.Waist, 0.84, 0.061, 0.055, 0.080, Spot.MidBack, 0.5),
        new(Bone.Chest, 0.33, 0.064, 0.066, 0.092, Spot.UpperBack),
        new(Bone.Chest, 0.80, 0.046, 0.056, 0.084, Spot.ShoulderBack),
        new(Bone.Neck, 0.08, 0.026, 0.036, 0.036),
        new(Bone.Neck, 1.05, 0.024, 0.028, 0.026),
    ];

    /// <summary>Where the trunk is lowest at a contact: the middle of the back when lying flat, the flank when turned.</summary>
    public static Vector3 LowestPoint(Skeleton body, Spot spot)
    {
        foreach (var station in Stations)
        {
            if (station.Spot == spot)
            {
                return SectionOf(body, station).Farthest(-Vector3.UnitY);
            }
        }
        throw new ArgumentOutOfRangeException(nameof(spot), spot, "Not a point of the back.");
    }

    /// <summary>A section: its middle, and the three half widths as vectors.</summary>
    public readonly record struct Section(Vector3 Middle, Vector3 Front, Vector3 Back, Vector3 Side)
    {
        /// <summary>A point of the rim; 0 is the front, a quarter turn the client's right.</summary>
        public Vector3 Rim(double angle)
        {
            var (sin, cos) = Math.SinCos(angle);
            return Middle + (cos >= 0 ? Front * (float)cos : Back * (float)-cos) + Side * (float)sin;
        }

        /// <summary>The point of the rim farthest in a direction; the middle where the section is seen from along it.</summary>
        public Vector3 Farthest(Vector3 way)
        {
            var deep = Vector3.Dot(Front, way) >= 0 ? Front : Back;
            var (d, s) = (Vector3.Dot(deep, way), Vector3.Dot(Side, way));
            var norm = MathF.Sqrt(d * d + s * s);
            return norm < 1e-9f ? Middle : Middle + (deep * d + Side * s) / norm;
        }
    }

    /// <summary>Smooth sections from crotch to jaw, <paramref name="between"/> for each span.</summary>
    public static IReadOnlyList<Section> Sections(Skeleton body, int between)
    {
        var given = Stations.Select(s => SectionOf(body, s)).ToArray();
        var result = new List<Section>(given.Length * between);
        for (var i = 0; i + 1 < given.Length; i++)
        {
            var (a, b, c, d) = (
                given[Math.Max(0, i - 1)],
                given[i],
                given[i + 1],
                given[Math.Min(given.Length - 1, i + 2)]
            );
            for (var s = 0; s < between; s++)
            {
                var t = s / (float)between;
                result.Add(
                    new(
                        Spline(a.Middle, b.Middle, c.Middle, d.Middle, t),
                        Spline(a.Front, b.Front, c.Front, d.Front, t),
                        Spline(a.Back, b.Back, c.Back, d.Back, t),
                        Spline(a.Side, b.Side, c.Side, d.Side, t)
                    )
                );
            }
        }
        result.Add(given[^1]);
        return result;
    }

    private static Vector3 Centre(Skeleton body, Station station) => body[station.Bone].At(station.Along);

    private static Section SectionOf(Skeleton body, Station station)
    {
        var (front, right) = (body.Ventral(station.Bone), body.Rightward(station.Bone));
        var h = body.Height;
        return new(
            Centre(body, station),
            front * (float)((station.Front + station.Belly * body.Posture.Belly) * h),
            -front * (float)(station.Back * h),
            right * (float)(station.Side * h)
        );
    }

    /// <summary>Catmull–Rom.</summary>
    private static Vector3 Spline(Vector3 a, Vector3 b, Vector3 c, Vector3 d, float t)
    {
        var (t2, t3) = (t * t, t * t * t);
        return 0.5f * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t2 + (3 * b - a - 3 * c + d) * t3);
    }
}
