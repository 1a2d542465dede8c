using System.Numerics;

namespace Palaestra.Core.Photos;

/// <summary>Reads every angle whose points are there. Plain trigonometry in the plane of the picture.</summary>
public static class PhotoAngles
{
    /// <summary>Feeling for bones under the skin, and pointing at them, misses by about as much. Common practice.</summary>
    private const double MissCentimetres = 0.5;

    /// <summary>Degrees: smaller ones are called level or upright. Our own choice.</summary>
    private const double Level = 0.5;

    /// <summary>Angles of all that was marked, in degrees; those with a point missing are left out.</summary>
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
            yield return Drop(PhotoAngleKind.PelvicTilt, lines, p, "front-lower", "front-higher");
        }
        if (pelvis is { } own && trunk is { } upward)
        {
            // Against a line square to the trunk.
            var tilt = -Degrees(own / (upward / Complex.ImaginaryOne));
            yield return new(
                PhotoAngleKind.PelvisToTrunk,
                tilt,
                Said(tilt, "arch", "rounding", "square"),
                Miss(lines, own, upward)
            );
        }
        if (trunk is { } t)
        {
            yield return Lean(PhotoAngleKind.TrunkLean, lines, t, "forward", "backward", "upright");
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
            yield return Lean(PhotoAngleKind.HeadLean, lines, head, "ahead", "behind", "above");
        }
    }

    private static IEnumerable<PhotoAngle> Facing(PhotoReading photo, PhotoLines lines)
    {
        if (lines.Between(PhotoPoint.HipBoneLeft, PhotoPoint.HipBoneRight) is not { } hips)
        {
            yield break;
        }
        yield return Drop(PhotoAngleKind.SideDrop, lines, hips, "right-lower", "left-lower");
        if (
            Middle(photo, PhotoPoint.HipBoneLeft, PhotoPoint.HipBoneRight) is { } below
            && Middle(photo, PhotoPoint.ShoulderLeft, PhotoPoint.ShoulderRight) is { } above
            && lines.Between(below, above) is { } trunk
        )
        {
            yield return Lean(PhotoAngleKind.TrunkLean, lines, trunk, "right", "left", "upright");
        }
    }

    /// <summary>How far a line is from the level; positive where its end is lower than its start.</summary>
    private static PhotoAngle Drop(
        PhotoAngleKind kind,
        PhotoLines lines,
        Complex line,
        string plus,
        string minus
    )
    {
        var drop = -Degrees(line);
        return new(
            kind,
            drop,
            Said(drop, plus, minus, "level"),
            Miss(lines, line),
            Centimetres(lines, line.Imaginary)
        );
    }

    /// <summary>How far a line is from the upright; positive forward or to the client's right.</summary>
    private static PhotoAngle Lean(
        PhotoAngleKind kind,
        PhotoLines lines,
        Complex line,
        string plus,
        string minus,
        string none
    )
    {
        var lean = Degrees(Complex.ImaginaryOne / line);
        return new(
            kind,
            lean,
            Said(lean, plus, minus, none),
            Miss(lines, line),
            Centimetres(lines, line.Real)
        );
    }

    private static PhotoAngle Joint(PhotoAngleKind kind, PhotoLines lines, Complex one, Complex other)
    {
        var degrees = Math.Abs(Degrees(one / other));
        return new(
            kind,
            degrees,
            Message.Of("angle.joint", ("degrees", Math.Abs(180 - degrees) < Level ? null : 180 - degrees)),
            Miss(lines, one, other)
        );
    }

    private static PhotoSpot? Middle(PhotoReading photo, PhotoPoint a, PhotoPoint b) =>
        photo.Of(a) is { } one && photo.Of(b) is { } other
            ? new((one.X + other.X) / 2, (one.Y + other.Y) / 2)
            : null;

    private static double Degrees(Complex line) => line.Phase * 180 / Math.PI;

    private static Message Said(double degrees, string plus, string minus, string none) =>
        Message.Of(
            "angle.way",
            (
                "way",
                Math.Abs(degrees) < Level ? none
                : degrees > 0 ? plus
                : minus
            )
        );

    private static double? Centimetres(PhotoLines lines, double pixels) => Math.Abs(pixels) * lines.Scale;

    /// <summary>Both ends of each line missed by as much, across it, independently.</summary>
    private static double? Miss(PhotoLines lines, params Complex[] of) =>
        lines.Scale is { } scale
            ? Math.Sqrt(of.Sum(line => 2 * Math.Pow(MissCentimetres / (line.Magnitude * scale), 2)))
                * 180
                / Math.PI
            : null;
}
