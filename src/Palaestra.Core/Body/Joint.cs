namespace Palaestra.Core.Body;

/// <summary>Joints with up to three angles. A left joint is followed by its right twin.</summary>
public enum Joint
{
    Lumbar,
    Thorax,
    Neck,
    HipLeft,
    HipRight,
    KneeLeft,
    KneeRight,
    AnkleLeft,
    AnkleRight,
    ShoulderLeft,
    ShoulderRight,
    ElbowLeft,
    ElbowRight,
    WristLeft,
    WristRight,
}

public static class Joints
{
    public const int Count = 15;

    public static Joint On(this Joint left, Side side) => side == Side.Right ? left + 1 : left;

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
