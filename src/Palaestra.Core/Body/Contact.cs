using System.Diagnostics.CodeAnalysis;

namespace Palaestra.Core.Body;

/// <summary>Points of the body that can bear.</summary>
public enum Spot
{
    /// <summary>The buttock.</summary>
    Buttock,

    /// <summary>Between the shoulder blades.</summary>
    UpperBack,

    /// <summary>The shoulder blade.</summary>
    ShoulderBack,

    /// <summary>The middle of the back.</summary>
    MidBack,

    /// <summary>The back of the head.</summary>
    HeadBack,

    /// <summary>Where one sits.</summary>
    Seat,

    /// <summary>The side of the hip.</summary>
    HipSide,

    /// <summary>The side of the shoulder.</summary>
    ShoulderSide,

    /// <summary>The side of the head.</summary>
    HeadSide,

    /// <summary>The front of the knee.</summary>
    Knee,

    /// <summary>The outer ankle.</summary>
    Ankle,

    /// <summary>The heel.</summary>
    Heel,

    /// <summary>The toes.</summary>
    Toe,

    /// <summary>The tip of the elbow.</summary>
    Elbow,

    /// <summary>The wrist.</summary>
    Wrist,

    /// <summary>The fingertips.</summary>
    Fingertips,
}

/// <summary>A point of the body that bears on a surface.</summary>
/// <param name="Side">Both: a point of the trunk in the middle.</param>
/// <param name="Surface">"floor", "touch", "wall", "leg", or a prop that bears by its height: "counter", "box", "ball", "block", "slider".</param>
public readonly record struct Contact(Spot Spot, Side Side, string Surface)
{
    /// <summary>The surface that always is.</summary>
    public const string Floor = "floor";

    /// <summary>An upright surface.</summary>
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

    /// <summary>Trunk, pelvis or head rests there, not a limb.</summary>
    public bool OnTrunk => ContactPoint.BoneOf(this) <= Bone.Head;

    /// <summary>It rests against the wall.</summary>
    public bool OnWall => Surface == Wall;

    /// <summary>It rests on the floor, or only touches it.</summary>
    public bool OnFloor => Surface is Floor or Touch;

    /// <summary>It rests on the other leg.</summary>
    public bool OnLeg => Surface == Leg;

    /// <summary>The same on the other side.</summary>
    public Contact Mirrored() => this with { Side = Side.Other() };

    /// <summary>As content files write it: the place, its side where it has one, and the surface.</summary>
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
