namespace Palaestra.Core.Body;

/// <summary>Rigid parts of the body. A left part is followed by its right twin.</summary>
public enum Bone
{
    /// <summary>From the middle between the hips to the lumbosacral joint.</summary>
    Pelvis,

    /// <summary>From the lumbosacral joint to the lower end of the breastbone.</summary>
    Waist,

    /// <summary>From there to the upper end of the breastbone.</summary>
    Chest,

    /// <summary>The neck.</summary>
    Neck,

    /// <summary>The head.</summary>
    Head,

    /// <summary>The left thigh.</summary>
    ThighLeft,

    /// <summary>The right thigh.</summary>
    ThighRight,

    /// <summary>The left shank.</summary>
    ShankLeft,

    /// <summary>The right shank.</summary>
    ShankRight,

    /// <summary>The left foot.</summary>
    FootLeft,

    /// <summary>The right foot.</summary>
    FootRight,

    /// <summary>The left upper arm.</summary>
    UpperArmLeft,

    /// <summary>The right upper arm.</summary>
    UpperArmRight,

    /// <summary>The left forearm.</summary>
    ForearmLeft,

    /// <summary>The right forearm.</summary>
    ForearmRight,

    /// <summary>The left hand.</summary>
    HandLeft,

    /// <summary>The right hand.</summary>
    HandRight,
}

/// <summary>Which bones belong together.</summary>
public static class Bones
{
    /// <summary>How many bones the body has.</summary>
    public const int Count = 17;

    /// <summary>The same part on a side, from its left one.</summary>
    public static Bone On(this Bone left, Side side) => side == Side.Right ? left + 1 : left;

    /// <summary>The left leg's bones, from the hip down; <see cref="On"/> makes them the right one's.</summary>
    public static readonly IReadOnlyList<Bone> Leg = [Bone.ThighLeft, Bone.ShankLeft, Bone.FootLeft];

    /// <summary>The left arm's bones, from the shoulder down.</summary>
    public static readonly IReadOnlyList<Bone> Arm = [Bone.UpperArmLeft, Bone.ForearmLeft, Bone.HandLeft];
}
