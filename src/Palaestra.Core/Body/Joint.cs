namespace Palaestra.Core.Body;

/// <summary>Joints with up to three angles. A left joint is followed by its right twin.</summary>
public enum Joint
{
    /// <summary>Between pelvis and middle trunk.</summary>
    Lumbar,

    /// <summary>Between middle and upper trunk.</summary>
    Thorax,

    /// <summary>Between trunk and head.</summary>
    Neck,

    /// <summary>The left hip.</summary>
    HipLeft,

    /// <summary>The right hip.</summary>
    HipRight,

    /// <summary>The left knee.</summary>
    KneeLeft,

    /// <summary>The right knee.</summary>
    KneeRight,

    /// <summary>The left ankle.</summary>
    AnkleLeft,

    /// <summary>The right ankle.</summary>
    AnkleRight,

    /// <summary>The left shoulder.</summary>
    ShoulderLeft,

    /// <summary>The right shoulder.</summary>
    ShoulderRight,

    /// <summary>The left elbow.</summary>
    ElbowLeft,

    /// <summary>The right elbow.</summary>
    ElbowRight,

    /// <summary>The left wrist.</summary>
    WristLeft,

    /// <summary>The right wrist.</summary>
    WristRight,
}

/// <summary>Sides and number of the joints.</summary>
public static class Joints
{
    /// <summary>How many joints the body has.</summary>
    public const int Count = 15;

    /// <summary>The joint of a side, from the left one's name; the left one where the side is both.</summary>
    public static Joint On(this Joint left, Side side) => side == Side.Right ? left + 1 : left;

    /// <summary>Whether there is one on each side.</summary>
    public static bool IsSided(this Joint joint) => joint >= Joint.HipLeft;

    /// <summary>The same joint of the other side; the trunk's own for the trunk.</summary>
    public static Joint Mirror(this Joint joint) =>
        !joint.IsSided() ? joint
        : (joint - Joint.HipLeft) % 2 == 0 ? joint + 1
        : joint - 1;

    /// <summary>
    /// Joints a name in a pose means: "hipLeft" one, "hip" both, "lumbar" the one there is; none for an unknown name.
    /// </summary>
    public static IReadOnlyList<Joint> Named(string name) => ByName.GetValueOrDefault(name) ?? [];

    private static readonly Dictionary<string, IReadOnlyList<Joint>> ByName = Names();

    private static Dictionary<string, IReadOnlyList<Joint>> Names()
    {
        var names = new Dictionary<string, IReadOnlyList<Joint>>(StringComparer.Ordinal);
        foreach (var joint in Enum.GetValues<Joint>())
        {
            var word = joint.ToString();
            var name = char.ToLowerInvariant(word[0]) + word[1..];
            names[name] = [joint];
            if (name.EndsWith("Left", StringComparison.Ordinal))
            {
                names[name[..^4]] = [joint, joint + 1];
            }
        }
        return names;
    }
}
