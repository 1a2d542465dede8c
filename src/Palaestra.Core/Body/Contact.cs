using System.Diagnostics.CodeAnalysis;

namespace Palaestra.Core.Body;

/// <summary>Points of the body that can bear.</summary>
public enum Spot
{
    Buttock,
    UpperBack,
    ShoulderBack,
    MidBack,
    HeadBack,
    Seat,
    HipSide,
    ShoulderSide,
    HeadSide,
    Knee,
    Ankle,
    Heel,
    Toe,
    Elbow,
    Wrist,
    Fingertips,
}

/// <summary>A point of the body that bears on a surface.</summary>
/// <param name="Side">Both: a point of the trunk in the middle.</param>
/// <param name="Surface">"floor", "touch", "wall", "leg", or a prop that bears by its height: "counter", "box", "ball", "block", "slider".</param>
public readonly record struct Contact(Spot Spot, Side Side, string Surface)
{
    public const string Floor = "floor";
    public const string Wall = "wall";

    /// <summary>The floor, touched lightly: a foot that slides or is about to lift.</summary>
    public const string Touch = "touch";

    /// <summary>The other leg, on which a leg rests when lying on the side.</summary>
    public const string Leg = "leg";

    private static readonly HashSet<Spot> Middle =
    [
        Spot.Buttock,
        Spot.UpperBack,
        Spot.ShoulderBack,
        Spot.MidBack,
        Spot.HeadBack,
        Spot.Seat,
    ];

    /// <summary>Points of the limbs that can go through a floor.</summary>
    public static readonly Spot[] LimbEnds =
    [
        Spot.Heel,
        Spot.Toe,
        Spot.Knee,
        Spot.Ankle,
        Spot.Elbow,
        Spot.Wrist,
        Spot.Fingertips,
    ];

    /// <summary>Angles of the limb that carries it, by the names of <see cref="Posture.Slots"/>; none for the trunk.</summary>
    public IEnumerable<string> LimbAngles
    {
        get
        {
            var bone = ContactPoint.BoneOf(this);
            var side = Side;
            string[] angles =
                bone is >= Bone.ThighLeft and <= Bone.FootRight ? ["hip", "hip.abduction", "knee", "ankle"]
                : bone is >= Bone.UpperArmLeft ? ["shoulder", "shoulder.abduction", "elbow", "wrist"]
                : [];
            return angles.Select(angle =>
                angle.Split('.') is [var joint, var axis] ? $"{joint}{side}.{axis}" : $"{angle}{side}"
            );
        }
    }

    public bool OnTrunk => ContactPoint.BoneOf(this) <= Bone.Head;

    public bool OnWall => Surface == Wall;

    public bool OnFloor => Surface is Floor or Touch;

    public bool OnLeg => Surface == Leg;

    public Contact Mirrored() => this with { Side = Side.Other() };

    public string Name =>
        Side switch
        {
            Side.Left => Word + "Left",
            Side.Right => Word + "Right",
            _ => Word,
        };

    private string Word => char.ToLowerInvariant(Spot.ToString()[0]) + Spot.ToString()[1..];

    /// <summary>
    /// Reads "heelLeft", "heel" (both sides), "buttock", each with "@surface" behind it unless it bears on the floor.
    /// Empty for an unknown name.
    /// </summary>
    public static IReadOnlyList<Contact> Named(string text)
    {
        var parts = text.Split('@');
        var surface = parts.Length > 1 ? parts[1] : Floor;
        var name = parts[0];
        if (Find(name, out var middle) && Middle.Contains(middle.Value))
        {
            return [new(middle.Value, Side.Both, surface)];
        }
        if (name.EndsWith("Left", StringComparison.Ordinal) && FindSided(name[..^4], out var left))
        {
            return [new(left.Value, Side.Left, surface)];
        }
        if (name.EndsWith("Right", StringComparison.Ordinal) && FindSided(name[..^5], out var right))
        {
            return [new(right.Value, Side.Right, surface)];
        }
        return FindSided(name, out var both)
            ? [new(both.Value, Side.Left, surface), new(both.Value, Side.Right, surface)]
            : [];
    }

    private static bool FindSided(string name, [NotNullWhen(true)] out Spot? spot) =>
        Find(name, out spot) && !Middle.Contains(spot.Value);

    private static bool Find(string name, [NotNullWhen(true)] out Spot? spot)
    {
        spot = null;
        if (name.Length == 0 || !char.IsAsciiLetterLower(name[0]))
        {
            return false;
        }
        if (Enum.TryParse<Spot>(char.ToUpperInvariant(name[0]) + name[1..], out var found))
        {
            spot = found;
        }
        return spot is not null;
    }
}
