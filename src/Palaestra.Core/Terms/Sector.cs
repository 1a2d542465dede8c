namespace Palaestra.Core.Terms;

/// <summary>A direction in which the trunk can give way, before it is known on which side.</summary>
public enum Direction
{
    /// <summary>None: mobility and learning.</summary>
    None,

    /// <summary>Against arching: the front of the trunk holds.</summary>
    Front,

    /// <summary>Against rounding: the back of the trunk holds.</summary>
    Back,

    /// <summary>Against bending sideways.</summary>
    Side,

    /// <summary>Against turning.</summary>
    Twist,

    /// <summary>The pelvis stays level.</summary>
    Pelvis,
}

/// <summary>Whether a direction belongs to the side of the task or to the other one.</summary>
public enum OnSide
{
    /// <summary>The side the task is done on.</summary>
    Task,

    /// <summary>The other side than the task's.</summary>
    Other,
}

/// <summary>One of the eight directions of control shown on the trunk ring.</summary>
public enum Sector
{
    /// <summary>Against arching.</summary>
    Front,

    /// <summary>Against rounding.</summary>
    Back,

    /// <summary>Against bending, the left side holds.</summary>
    SideLeft,

    /// <summary>Against bending, the right side holds.</summary>
    SideRight,

    /// <summary>Against turning to the left.</summary>
    TwistLeft,

    /// <summary>Against turning to the right.</summary>
    TwistRight,

    /// <summary>The pelvis level on the left leg.</summary>
    PelvisLeft,

    /// <summary>The pelvis level on the right leg.</summary>
    PelvisRight,
}

/// <summary>Sectors of the ring and what they ask for.</summary>
public static class Sectors
{
    /// <summary>
    /// The sector a direction means in a task done on <paramref name="taskSide"/>; none for
    /// <see cref="Direction.None"/>, and none for a sided direction in a task without a side.
    /// </summary>
    public static Sector? Of(Direction direction, OnSide on, Side taskSide)
    {
        var side = on == OnSide.Task ? taskSide : taskSide.Other();
        return (direction, side) switch
        {
            (Direction.Front, _) => Sector.Front,
            (Direction.Back, _) => Sector.Back,
            (Direction.Side, Side.Left) => Sector.SideLeft,
            (Direction.Side, Side.Right) => Sector.SideRight,
            (Direction.Twist, Side.Left) => Sector.TwistLeft,
            (Direction.Twist, Side.Right) => Sector.TwistRight,
            (Direction.Pelvis, Side.Left) => Sector.PelvisLeft,
            (Direction.Pelvis, Side.Right) => Sector.PelvisRight,
            _ => null,
        };
    }

    /// <summary>
    /// The sectors a direction means in a task; a sided direction in a task without sides means both of its sectors: both
    /// sides work together. Empty for <see cref="Direction.None"/>.
    /// </summary>
    public static IReadOnlyList<Sector> All(Direction direction, OnSide on, Side taskSide) =>
        taskSide != Side.Both || direction is Direction.Front or Direction.Back
            ? Of(direction, on, taskSide) is { } one
                ? [one]
                : []
            : [.. new[] { Of(direction, on, Side.Left), Of(direction, on, Side.Right) }.OfType<Sector>()];

    /// <summary>The same direction on the other side; front and back have none and answer themselves.</summary>
    public static Sector Mirror(this Sector sector) =>
        sector switch
        {
            Sector.SideLeft => Sector.SideRight,
            Sector.SideRight => Sector.SideLeft,
            Sector.TwistLeft => Sector.TwistRight,
            Sector.TwistRight => Sector.TwistLeft,
            Sector.PelvisLeft => Sector.PelvisRight,
            Sector.PelvisRight => Sector.PelvisLeft,
            _ => sector,
        };
}
