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
    Neck,
    Head,
    ThighLeft,
    ThighRight,
    ShankLeft,
    ShankRight,
    FootLeft,
    FootRight,
    UpperArmLeft,
    UpperArmRight,
    ForearmLeft,
    ForearmRight,
    HandLeft,
    HandRight,
}

public static class Bones
{
    public const int Count = 17;

    /// <summary>The same part on a side, from its left one.</summary>
    public static Bone On(this Bone left, Side side) => side == Side.Right ? left + 1 : left;

    public static readonly IReadOnlyList<Bone> Leg = [Bone.ThighLeft, Bone.ShankLeft, Bone.FootLeft];
    public static readonly IReadOnlyList<Bone> Arm = [Bone.UpperArmLeft, Bone.ForearmLeft, Bone.HandLeft];
}
