using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Angles of one joint in degrees, by clinical convention: flexion, abduction, external rotation positive.</summary>
/// <param name="Abduction">For the trunk: bending to the client's right.</param>
/// <param name="Rotation">For the trunk: turning to the client's left.</param>
public sealed record JointAngles(double Flexion = 0, double Abduction = 0, double Rotation = 0);

/// <summary>Placement of the pelvis in degrees.</summary>
/// <param name="Pitch">About the axis to the right: 0 upright, 90 on the back with the head behind, −90 prone.</param>
/// <param name="Turn">Then about the body's long axis: 90, after a pitch of 90, lies on the left side.</param>
/// <param name="Lean">Then about the axis to the front: positive lowers the client's right.</param>
public sealed record RootPlacement(double Pitch = 0, double Turn = 0, double Lean = 0);

/// <summary>A thing in the picture.</summary>
/// <param name="Kind">ball, band, dowel, block, weight, slider, cushion.</param>
/// <param name="At">Points of the body it lies at: one it is under or in, or two it lies between.</param>
/// <param name="Size">Diameter or length in metres; none: the kind's own.</param>
public sealed record Prop(string Kind, IReadOnlyList<string> At, double? Size = null);

/// <summary>Where a band pulls a hand, level, by the client's own sides as they stand upright.</summary>
public enum Toward
{
    /// <summary>Toward the client's front.</summary>
    Front,

    /// <summary>Toward the client's left.</summary>
    Left,

    /// <summary>Toward the client's right.</summary>
    Right,
}

/// <summary>A band that pulls at a hand.</summary>
/// <param name="Hand">"handLeft" or "handRight".</param>
/// <param name="Newtons">Above 0; of a light band, stretched to about twice its length.</param>
public sealed record Tug(string Hand, double Newtons, Toward Toward)
{
    /// <summary>Unit vector along which the elastic pulls.</summary>
    public Vector3 Direction =>
        Toward switch
        {
            Toward.Left => -Vector3.UnitZ,
            Toward.Right => Vector3.UnitZ,
            _ => Vector3.UnitX,
        };

    /// <summary>The hand it is held in.</summary>
    public Bone Bone => Hand == "handRight" ? Bone.HandRight : Bone.HandLeft;

    /// <summary>The same elastic in the other hand.</summary>
    public Tug Mirrored() =>
        new(
            Hand == "handRight" ? "handLeft" : "handRight",
            Newtons,
            Toward switch
            {
                Toward.Left => Toward.Right,
                Toward.Right => Toward.Left,
                _ => Toward,
            }
        );
}

/// <summary>A posture as written in content: the pelvis, the joints that are not at rest, and what touches what.</summary>
/// <param name="Joints">By name; "hip" means both sides, "hipLeft" one and wins over it.</param>
/// <param name="Contacts">Points that bear, such as "heel", "kneeLeft", "wrist@counter"; see <see cref="Contact.Named"/>.</param>
/// <param name="Solve">
/// What may move a little so that the contacts meet their surfaces; see <see cref="Posture.Slots"/>. With any, limbs that would
/// go through the floor come to rest on it; with none, the pose stays exactly as written but for its height.
/// </param>
/// <param name="Surfaces">Heights in metres of what bears beside the floor: counter, box, ball, block.</param>
/// <param name="Balance">"side" or "fore", or both: the solver puts the centre of mass over the middle of the support.</param>
/// <param name="Held">Kilograms in "handLeft", "handRight".</param>
/// <param name="Tugs">Bands that pull at the hands.</param>
/// <param name="Belly">How far the midline of the belly comes out, as a share of stature, 0 to 0.06.</param>
public sealed record Pose(
    RootPlacement Root,
    IReadOnlyDictionary<string, JointAngles> Joints,
    IReadOnlyList<string> Contacts,
    IReadOnlyList<string> Solve,
    IReadOnlyDictionary<string, double>? Surfaces = null,
    IReadOnlyList<string>? Balance = null,
    IReadOnlyList<Prop>? Props = null,
    IReadOnlyDictionary<string, double>? Held = null,
    IReadOnlyList<Tug>? Tugs = null,
    double Belly = 0
)
{
    /// <summary>Name of the surface before the client that a hand may rest on.</summary>
    public const string Counter = "counter";

    /// <summary>Surfaces a pose may name beside the floor.</summary>
    public static readonly IReadOnlySet<string> SurfaceNames = new HashSet<string>
    {
        Contact.Floor,
        Contact.Wall,
        Contact.Leg,
        Contact.Touch,
        Counter,
        "box",
        "ball",
        "block",
        "slider",
    };

    /// <summary>Props a pose may name.</summary>
    public static readonly IReadOnlySet<string> PropKinds = new HashSet<string>
    {
        "ball",
        "band",
        "dowel",
        "block",
        "weight",
        "slider",
        "cushion",
    };

    private (IReadOnlyList<string> Of, Contact[] Contacts)? bearing;

    /// <summary>What bears, read from <see cref="Contacts"/> once.</summary>
    public IReadOnlyList<Contact> Bearing
    {
        get
        {
            if (bearing is not { } known || !ReferenceEquals(known.Of, Contacts))
            {
                known = (Contacts, [.. Contacts.SelectMany(Contact.Named)]);
                bearing = known;
            }
            return known.Contacts;
        }
    }

    /// <summary>Its joint angles as one posture.</summary>
    public Posture Posture => Posture.Of(Root, Joints, Belly);

    /// <summary>Height in metres of the surface a contact bears on; the floor is 0.</summary>
    public double HeightOf(string surface) => Surfaces?.GetValueOrDefault(surface) ?? 0;

    /// <summary>Left and right swapped, exactly.</summary>
    public Pose Mirrored() =>
        new(
            new RootPlacement(Root.Pitch, -Root.Turn, -Root.Lean),
            Joints.ToDictionary(pair => Swap(pair.Key), pair => MirroredAngles(pair.Key, pair.Value)),
            [.. Contacts.Select(Swap)],
            [.. Solve.Select(Swap)],
            Surfaces,
            Balance,
            Props is null ? null : [.. Props.Select(p => p with { At = [.. p.At.Select(Swap)] })],
            Held?.ToDictionary(pair => Swap(pair.Key), pair => pair.Value),
            Tugs is null ? null : [.. Tugs.Select(tug => tug.Mirrored())],
            Belly
        );

    private static JointAngles MirroredAngles(string name, JointAngles angles) =>
        Body.Joints.Named(name) is [var joint] && !joint.IsSided()
            ? new(angles.Flexion, -angles.Abduction, -angles.Rotation)
            : angles;

    private static string Swap(string name) =>
        name.Contains("Left", StringComparison.Ordinal)
            ? name.Replace("Left", "Right", StringComparison.Ordinal)
            : name.Replace("Right", "Left", StringComparison.Ordinal);
}
