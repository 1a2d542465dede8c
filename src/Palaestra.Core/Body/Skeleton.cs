using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>A rigid segment in the world, in metres: x forward, y up, z to the client's right when upright.</summary>
public readonly record struct Segment(Vector3 From, Vector3 To)
{
    public Vector3 Direction => Vector3.Normalize(To - From);
}

/// <summary>A skeleton in a pose: where every segment is.</summary>
public sealed class Skeleton
{
    public static IReadOnlySet<string> JointNames { get; } =
        new HashSet<string>(
            new[] { "lumbar", "thorax", "neck" }.Concat(
                new[] { "hip", "knee", "ankle", "shoulder", "elbow", "wrist" }.SelectMany(j =>
                    new[] { j + "Left", j + "Right" }
                )
            )
        );

    public static IReadOnlySet<string> ContactNames { get; } =
        new HashSet<string>(
            new[] { "buttock", "upperBack", "shoulderBack", "headBack" }.Concat(
                new[] { "knee", "ankle", "heel", "toe", "elbow", "wrist", "fingertips" }.SelectMany(p =>
                    new[] { p + "Left", p + "Right" }
                )
            )
        );

    private readonly Dictionary<string, Segment> segments = [];
    private readonly Dictionary<string, Quaternion> frames = [];

    /// <summary>Stature in metres.</summary>
    public double Height { get; }

    /// <param name="rootHeight">Height of the hip centre above the floor, metres.</param>
    public Skeleton(Pose pose, double height, double rootHeight)
    {
        Height = height;
        var root = new Vector3(0, (float)rootHeight, 0);
        var pelvis = Turn(Vector3.UnitZ, pose.Root.Pitch);
        Trunk(pose, root, pelvis);
        foreach (var side in new[] { "Left", "Right" })
        {
            Leg(pose, root, pelvis, side);
            Arm(pose, side);
        }
    }

    public Segment this[string segment] => segments[segment];

    public IEnumerable<string> SegmentNames => segments.Keys;

    /// <summary>The lowest point of the body at a contact, metres above the floor.</summary>
    public double ContactHeight(string contact)
    {
        var side = contact.EndsWith("Left", StringComparison.Ordinal) ? "Left" : "Right";
        var name = contact.Replace(side, "", StringComparison.Ordinal);
        var (point, radius) = name switch
        {
            "knee" => (segments["shank" + side].From, Proportions.ShankWidth.Near),
            "ankle" => (segments["foot" + side].From, Proportions.FootWidth.Near),
            "heel" => (Heel(side), Proportions.FootWidth.Near * 0.6),
            "toe" => (segments["foot" + side].To, Proportions.FootWidth.Far),
            "elbow" => (segments["forearm" + side].From, Proportions.ForearmWidth.Near),
            "wrist" => (segments["hand" + side].From, Proportions.HandWidth.Near),
            "fingertips" => (segments["hand" + side].To, Proportions.HandWidth.Far),
            "headBack" => (
                segments["head"].From + (segments["head"].To - segments["head"].From) / 2,
                Proportions.HeadShort
            ),
            _ => (TrunkOutline.BackPoint(this, contact), 0.0),
        };
        return point.Y - radius * Height;
    }

    /// <summary>Direction of the front of the body at a trunk segment.</summary>
    public Vector3 Ventral(string segment) => Vector3.Transform(Vector3.UnitX, frames[segment]);

    private Vector3 Heel(string side)
    {
        var foot = segments["foot" + side];
        return foot.From - foot.Direction * (float)(0.02 * Height);
    }

    private void Trunk(Pose pose, Vector3 root, Quaternion pelvis)
    {
        var at = Add("pelvis", root, Vector3.UnitY, Proportions.Pelvis, pelvis);
        var lumbar = Bend(pelvis, pose.Angles("lumbar"), -1);
        at = Add("waist", at, Vector3.UnitY, Proportions.Waist, lumbar);
        var thorax = Bend(lumbar, pose.Angles("thorax"), -1);
        at = Add("chest", at, Vector3.UnitY, Proportions.Chest, thorax);
        var neck = Bend(thorax, pose.Angles("neck"), -1);
        at = Add("neck", at, Vector3.UnitY, Proportions.Neck, neck);
        Add("head", at, Vector3.UnitY, Proportions.Head, neck);
    }

    private void Leg(Pose pose, Vector3 root, Quaternion pelvis, string side)
    {
        var sign = side == "Left" ? -1 : 1;
        var hip =
            root + Vector3.Transform(Vector3.UnitZ, pelvis) * (float)(sign * Proportions.HipHalf * Height);
        var thigh = Bend(pelvis, pose.Angles("hip" + side), +1, sign);
        var knee = Add("thigh" + side, hip, -Vector3.UnitY, Proportions.Thigh, thigh);
        var shank = Bend(thigh, pose.Angles("knee" + side), -1, sign);
        var ankle = Add("shank" + side, knee, -Vector3.UnitY, Proportions.Shank, shank);
        var foot = Bend(shank, pose.Angles("ankle" + side), +1, sign);
        Add("foot" + side, ankle, Vector3.UnitX, Proportions.Foot, foot);
    }

    private void Arm(Pose pose, string side)
    {
        var sign = side == "Left" ? -1 : 1;
        var chest = frames["chest"];
        var line = segments["chest"];
        var shoulder =
            line.From
            + (line.To - line.From) * (float)Proportions.ShoulderAt
            + Vector3.Transform(Vector3.UnitZ, chest) * (float)(sign * Proportions.ShoulderHalf * Height);
        var upper = Bend(chest, pose.Angles("shoulder" + side), +1, sign);
        var elbow = Add("upperArm" + side, shoulder, -Vector3.UnitY, Proportions.UpperArm, upper);
        var fore = Bend(upper, pose.Angles("elbow" + side), +1, sign);
        var wrist = Add("forearm" + side, elbow, -Vector3.UnitY, Proportions.Forearm, fore);
        var hand = Bend(fore, pose.Angles("wrist" + side), +1, sign);
        Add("hand" + side, wrist, -Vector3.UnitY, Proportions.Hand, hand);
    }

    private Vector3 Add(string name, Vector3 from, Vector3 axis, double length, Quaternion frame)
    {
        var to = from + Vector3.Transform(axis, frame) * (float)(length * Height);
        segments[name] = new Segment(from, to);
        frames[name] = frame;
        return to;
    }

    /// <param name="flexes">+1 where flexion turns the far part forward (hip, shoulder), −1 where backward or down.</param>
    /// <param name="side">−1 left, +1 right: abduction and rotation mirror.</param>
    private static Quaternion Bend(Quaternion parent, JointAngles angles, int flexes, int side = 1) =>
        parent
        * Turn(Vector3.UnitZ, flexes * angles.Flexion)
        * Turn(Vector3.UnitX, -side * angles.Abduction)
        * Turn(Vector3.UnitY, -side * angles.Rotation);

    private static Quaternion Turn(Vector3 axis, double degrees) =>
        Quaternion.CreateFromAxisAngle(axis, (float)(degrees * Math.PI / 180));
}
