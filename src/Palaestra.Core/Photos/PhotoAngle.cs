using System.Numerics;

namespace Palaestra.Core.Photos;

public enum PhotoAngleKind
{
    /// <summary>Back to front hip bone against the level. Positive: the front is lower.</summary>
    PelvicTilt,

    /// <summary>The same line against the trunk (side of the hip to shoulder): holds in every posture. Positive: the front is lower.</summary>
    PelvisToTrunk,

    /// <summary>Hip bone to hip bone against the level. Positive: the right is lower.</summary>
    SideDrop,

    /// <summary>Hips to shoulder against the upright. Positive: forward, or to the client's right.</summary>
    TrunkLean,

    /// <summary>Between trunk and thigh; 180 is straight.</summary>
    Hip,

    /// <summary>Between thigh and shank; 180 is straight.</summary>
    Knee,

    /// <summary>Shoulder to ear against the upright. Positive: forward.</summary>
    HeadLean,
}

/// <summary>An angle read from points.</summary>
/// <param name="Degrees">By the kind's sign; hip and knee 0 to 180, others −180 to 180.</param>
/// <param name="Words">What the sign means here.</param>
/// <param name="PlusMinus">What five millimetres at each end of its lines may make of it, degrees; none without a known length.</param>
/// <param name="Centimetres">How much lower, or further ahead, without sign; none without a known length, and for angles of joints.</param>
public sealed record PhotoAngle(
    PhotoAngleKind Kind,
    double Degrees,
    string Words,
    double? PlusMinus = null,
    double? Centimetres = null
);

/// <summary>Reads every angle whose points are there. Plain trigonometry in the plane of the picture.</summary>
public static class PhotoAngles
{
    /// <summary>Feeling for bones under the skin, and pointing at them, misses by about as much. Common practice.</summary>
    private const double MissCentimetres = 0.5;

    /// <summary>Degrees: smaller ones are called level or upright. Our own choice.</summary>
    private const double Level = 0.5;

    public static IReadOnlyList<PhotoAngle> Of(PhotoReading photo)
    {
        var lines = new PhotoLines(photo);
        return photo.View.IsAside() ? [.. Aside(lines)] : [.. Facing(photo, lines)];
    }

    private static IEnumerable<PhotoAngle> Aside(PhotoLines lines)
    {
        var pelvis = lines.Between(PhotoPoint.HipBoneBack, PhotoPoint.HipBoneFront);
        var trunk = lines.Between(PhotoPoint.HipSide, PhotoPoint.Shoulder);
        var thigh = lines.Between(PhotoPoint.HipSide, PhotoPoint.Knee);
        var shank = lines.Between(PhotoPoint.Knee, PhotoPoint.Ankle);
        if (pelvis is { } p)
        {
            var tilt = -Degrees(p);
            yield return new(
                PhotoAngleKind.PelvicTilt,
                tilt,
                Said(tilt, "the front lower", "the front higher", "level"),
                Miss(lines, p),
                Centimetres(lines, p.Imaginary)
            );
        }
        if (pelvis is { } own && trunk is { } upward)
        {
            // Against a line square to the trunk.
            var tilt = -Degrees(own / (upward / Complex.ImaginaryOne));
            yield return new(
                PhotoAngleKind.PelvisToTrunk,
                tilt,
                Said(tilt, "toward an arch", "toward rounding", "square to the trunk"),
                Miss(lines, own, upward)
            );
        }
        if (trunk is { } t)
        {
            var lean = Degrees(Complex.ImaginaryOne / t);
            yield return new(
                PhotoAngleKind.TrunkLean,
                lean,
                Said(lean, "forward", "backward", "upright"),
                Miss(lines, t),
                Centimetres(lines, t.Real)
            );
        }
        if (trunk is { } above && thigh is { } below)
        {
            yield return Joint(PhotoAngleKind.Hip, lines, above, below);
        }
        if (thigh is { } upper && shank is { } lower)
        {
            yield return Joint(PhotoAngleKind.Knee, lines, -upper, lower);
        }
        if (lines.Between(PhotoPoint.Shoulder, PhotoPoint.Ear) is { } head)
        {
            var lean = Degrees(Complex.ImaginaryOne / head);
            yield return new(
                PhotoAngleKind.HeadLean,
                lean,
                Said(lean, "ahead of the shoulder", "behind the shoulder", "above the shoulder"),
                Miss(lines, head),
                Centimetres(lines, head.Real)
            );
        }
    }

    private static IEnumerable<PhotoAngle> Facing(PhotoReading photo, PhotoLines lines)
    {
        if (lines.Between(PhotoPoint.HipBoneLeft, PhotoPoint.HipBoneRight) is not { } hips)
        {
            yield break;
        }
        var drop = -Degrees(hips);
        yield return new(
            PhotoAngleKind.SideDrop,
            drop,
            Said(drop, "the right side lower", "the left side lower", "level"),
            Miss(lines, hips),
            Centimetres(lines, hips.Imaginary)
        );
        if (
            Middle(photo, PhotoPoint.HipBoneLeft, PhotoPoint.HipBoneRight) is { } below
            && Middle(photo, PhotoPoint.ShoulderLeft, PhotoPoint.ShoulderRight) is { } above
            && lines.Between(below, above) is { } trunk
        )
        {
            var lean = Degrees(Complex.ImaginaryOne / trunk);
            yield return new(
                PhotoAngleKind.TrunkLean,
                lean,
                Said(lean, "to the right", "to the left", "upright"),
                Miss(lines, trunk),
                Centimetres(lines, trunk.Real)
            );
        }
    }

    private static PhotoAngle Joint(PhotoAngleKind kind, PhotoLines lines, Complex one, Complex other)
    {
        var degrees = Math.Abs(Degrees(one / other));
        return new(
            kind,
            degrees,
            Math.Abs(180 - degrees) < Level ? "straight" : $"{180 - degrees:0}° from straight",
            Miss(lines, one, other)
        );
    }

    private static PhotoSpot? Middle(PhotoReading photo, PhotoPoint a, PhotoPoint b) =>
        photo.Of(a) is { } one && photo.Of(b) is { } other
            ? new((one.X + other.X) / 2, (one.Y + other.Y) / 2)
            : null;

    private static double Degrees(Complex line) => line.Phase * 180 / Math.PI;

    private static string Said(double degrees, string plus, string minus, string none) =>
        Math.Abs(degrees) < Level ? none
        : degrees > 0 ? plus
        : minus;

    private static double? Centimetres(PhotoLines lines, double pixels) => Math.Abs(pixels) * lines.Scale;

    /// <summary>Both ends of each line missed by as much, across it, independently.</summary>
    private static double? Miss(PhotoLines lines, params Complex[] of) =>
        lines.Scale is { } scale
            ? Math.Sqrt(of.Sum(line => 2 * Math.Pow(MissCentimetres / (line.Magnitude * scale), 2)))
                * 180
                / Math.PI
            : null;
}

/// <summary>A photograph measured in a trial: its points and what they come to.</summary>
public sealed record MeasuredPhoto(Guid EventId, PhotoReading Reading, IReadOnlyList<PhotoAngle> Angles);
