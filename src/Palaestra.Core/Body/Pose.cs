namespace Palaestra.Core.Body;

/// <summary>Angles of one joint in degrees, by clinical convention: flexion, abduction, external rotation positive.</summary>
public sealed record JointAngles(double Flexion = 0, double Abduction = 0, double Rotation = 0);

/// <summary>Placement of the pelvis.</summary>
/// <param name="Pitch">Degrees about the axis to the right: 0 upright, 90 on the back with the head behind, −90 prone.</param>
public sealed record RootPlacement(double Pitch);

/// <summary>A posture: the pelvis, the joints that are not at rest, and what touches the floor.</summary>
/// <param name="Contacts">Points that bear on the floor.</param>
/// <param name="Solve">What may move a little (<c>root.pitch</c> or a joint's flexion) so that the contacts meet the floor.</param>
public sealed record Pose(
    RootPlacement Root,
    IReadOnlyDictionary<string, JointAngles> Joints,
    IReadOnlyList<string> Contacts,
    IReadOnlyList<string> Solve
)
{
    public const string RootPitch = "root.pitch";

    public JointAngles Angles(string joint) => Joints.GetValueOrDefault(joint) ?? Rest;

    private static readonly JointAngles Rest = new();

    /// <summary>Left and right swapped, exactly.</summary>
    public Pose Mirrored() =>
        new(
            Root,
            Joints.ToDictionary(pair => Swap(pair.Key), pair => pair.Value),
            [.. Contacts.Select(Swap)],
            [.. Solve.Select(Swap)]
        );

    private static string Swap(string name) =>
        name.EndsWith("Left", StringComparison.Ordinal) ? name[..^4] + "Right"
        : name.EndsWith("Right", StringComparison.Ordinal) ? name[..^5] + "Left"
        : name;
}
