using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>A rigid segment in the world, in metres: x forward, y up, z to the client's right when upright.</summary>
public readonly record struct Segment(Vector3 From, Vector3 To)
{
    /// <summary>Unit vector from its near end to its far one.</summary>
    public Vector3 Direction => Vector3.Normalize(To - From);

    /// <summary>A point along it, 0 at its near end and 1 at its far one, in metres.</summary>
    public Vector3 At(double along) => From + (To - From) * (float)along;
}

/// <summary>A skeleton in a posture: where every segment is.</summary>
public sealed class Skeleton
{
    private readonly Segment[] segments = new Segment[Bones.Count];
    private readonly Quaternion[] frames = new Quaternion[Bones.Count];
    private readonly SegmentTable table;

    /// <summary>The body's size.</summary>
    public BodySize Size { get; }

    /// <summary>Stature in metres.</summary>
    public double Height => Size.Metres;

    /// <summary>Its joint angles.</summary>
    public Posture Posture { get; }

    /// <summary>The middle between the hip centres.</summary>
    public Vector3 Root { get; }

    /// <summary>A body of that size in that posture, its pelvis at <paramref name="root"/> (metres).</summary>
    public Skeleton(Posture posture, BodySize size, Vector3 root)
    {
        Posture = posture;
        Root = root;
        Size = size;
        table = SegmentTable.Of(size.Sex);
        var placed = posture.Root;
        var pelvis =
            Turn(Vector3.UnitZ, placed.Pitch)
            * Turn(Vector3.UnitY, placed.Turn)
            * Turn(Vector3.UnitX, placed.Lean);
        Trunk(root, pelvis);
        foreach (var side in OneSide)
        {
            Leg(pelvis, side);
            Arm(side);
        }
    }

    /// <summary>Left and right.</summary>
    public static readonly Side[] OneSide = [Side.Left, Side.Right];

    /// <summary>Where a bone lies, in metres.</summary>
    public Segment this[Bone bone] => segments[(int)bone];

    /// <summary>How a bone is turned in the room.</summary>
    public Quaternion Frame(Bone bone) => frames[(int)bone];

    /// <summary>The lumbosacral joint, where the trunk is cut for its moments.</summary>
    public Vector3 Lumbosacral => this[Bone.Waist].From;

    /// <summary>Direction of the front of the body at a part of it.</summary>
    public Vector3 Ventral(Bone bone) => Vector3.Transform(Vector3.UnitX, Frame(bone));

    /// <summary>Direction to the client's right at a part of the body.</summary>
    public Vector3 Rightward(Bone bone) => Vector3.Transform(Vector3.UnitZ, Frame(bone));

    /// <summary>The same posture elsewhere.</summary>
    public Skeleton Moved(Vector3 by) => new(Posture, Size, Root + by);

    /// <summary>Centre of that hip, in metres.</summary>
    public Vector3 Hip(Side side) => this[Bone.ThighLeft.On(side)].From;

    /// <summary>Centres of the two round ends of the foot's sole.</summary>
    public Vector3 HeelCentre(Side side) => InFoot(side, -0.022, -0.025);

    /// <summary>Centre of the toes' roundness, in metres.</summary>
    public Vector3 ToeCentre(Side side) => InFoot(side, Table.Foot.Length - 0.047, -0.027);

    /// <summary>Lengths and masses of its segments.</summary>
    public SegmentTable Table => table;

    private Vector3 InFoot(Side side, double forward, double up)
    {
        var foot = Bone.FootLeft.On(side);
        return this[foot].From
            + Vector3.Transform(new Vector3((float)(forward * Height), (float)(up * Height), 0), Frame(foot));
    }

    private void Trunk(Vector3 root, Quaternion pelvis)
    {
        var below = Proportions.LumbosacralAt * table.LowerTrunk.Length;
        var at = Add(Bone.Pelvis, root, Vector3.UnitY, below, pelvis);
        var lumbar = BendTrunk(pelvis, Joint.Lumbar);
        at = Add(
            Bone.Waist,
            at,
            Vector3.UnitY,
            table.LowerTrunk.Length - below + table.MiddleTrunk.Length,
            lumbar
        );
        var thorax = BendTrunk(lumbar, Joint.Thorax);
        at = Add(Bone.Chest, at, Vector3.UnitY, table.UpperTrunk.Length, thorax);
        var neck = BendTrunk(thorax, Joint.Neck);
        at = Add(Bone.Neck, at, Vector3.UnitY, table.Neck, neck);
        Add(Bone.Head, at, Vector3.UnitY, table.Head.Length, neck);
    }

    private void Leg(Quaternion pelvis, Side side)
    {
        var sign = side == Side.Left ? -1 : 1;
        var hip =
            Root + Vector3.Transform(Vector3.UnitZ, pelvis) * (float)(sign * Proportions.HipHalf * Height);
        var thigh = Bend(pelvis, Joint.HipLeft.On(side), +1, sign);
        var knee = Add(Bone.ThighLeft.On(side), hip, -Vector3.UnitY, table.Thigh.Length, thigh);
        var shank = Bend(thigh, Joint.KneeLeft.On(side), -1, sign);
        var ankle = Add(Bone.ShankLeft.On(side), knee, -Vector3.UnitY, table.Shank.Length, shank);
        var foot = Bend(shank, Joint.AnkleLeft.On(side), +1, sign);
        Add(Bone.FootLeft.On(side), ankle, Vector3.UnitX, table.Foot.Length - 0.036, foot);
    }

    private void Arm(Side side)
    {
        var sign = side == Side.Left ? -1 : 1;
        var chest = Frame(Bone.Chest);
        var shoulder =
            this[Bone.Chest].At(Proportions.ShoulderAt)
            + Vector3.Transform(Vector3.UnitZ, chest) * (float)(sign * Proportions.ShoulderHalf * Height);
        var upper = Bend(chest, Joint.ShoulderLeft.On(side), +1, sign);
        var elbow = Add(Bone.UpperArmLeft.On(side), shoulder, -Vector3.UnitY, table.UpperArm.Length, upper);
        var fore = Bend(upper, Joint.ElbowLeft.On(side), +1, sign);
        var wrist = Add(Bone.ForearmLeft.On(side), elbow, -Vector3.UnitY, table.Forearm.Length, fore);
        var hand = Bend(fore, Joint.WristLeft.On(side), +1, sign);
        Add(
            Bone.HandLeft.On(side),
            wrist,
            -Vector3.UnitY,
            table.Hand.Length * Proportions.FingertipsAt,
            hand
        );
    }

    private Vector3 Add(Bone bone, Vector3 from, Vector3 axis, double length, Quaternion frame)
    {
        var to = from + Vector3.Transform(axis, frame) * (float)(length * Height);
        segments[(int)bone] = new Segment(from, to);
        frames[(int)bone] = frame;
        return to;
    }

    private Quaternion BendTrunk(Quaternion parent, Joint joint)
    {
        var slot = Posture.Slot(joint);
        return parent
            * Turn(Vector3.UnitZ, -Posture[slot])
            * Turn(Vector3.UnitX, Posture[slot + 1])
            * Turn(Vector3.UnitY, Posture[slot + 2]);
    }

    /// <param name="flexes">+1 where flexion turns the far part forward (hip, shoulder), −1 where backward (knee).</param>
    /// <param name="side">−1 left, +1 right: abduction and rotation mirror.</param>
    private Quaternion Bend(Quaternion parent, Joint joint, int flexes, int side)
    {
        var slot = Posture.Slot(joint);
        return parent
            * Turn(Vector3.UnitZ, flexes * Posture[slot])
            * Turn(Vector3.UnitX, -side * Posture[slot + 1])
            * Turn(Vector3.UnitY, -side * Posture[slot + 2]);
    }

    private static Quaternion Turn(Vector3 axis, double degrees) =>
        degrees == 0
            ? Quaternion.Identity
            : Quaternion.CreateFromAxisAngle(axis, (float)(degrees * Math.PI / 180));
}
