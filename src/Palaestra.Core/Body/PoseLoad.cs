namespace Palaestra.Core.Body;

/// <summary>What one part of the body bears.</summary>
/// <param name="Part">In words: "left hand", "pelvis".</param>
/// <param name="Percent">Of body weight and what is held, 0 to 100.</param>
public sealed record SupportShare(Message Part, double Percent);

/// <summary>Moments on the trunk at the lumbosacral joint in the pelvis's own axes, N·m; the direction it pulls away to.</summary>
/// <remarks>Of each pair at most one is above 0.</remarks>
public sealed record TrunkMoments(
    double Arching,
    double Rounding,
    double BendingLeft,
    double BendingRight,
    double TurningLeft,
    double TurningRight
);

/// <summary>
/// Where the floor carries the trunk: what hangs from it, N·m. Legs pull the pelvis toward arching about the hips, arms
/// pull the ribs up about the shoulders, a lifted head and chest pull back to the floor.
/// </summary>
public sealed record TiltPull(double Legs, double Arms, double HeadAndChest);

/// <summary>Moments at the hip of a leg that bears, N·m.</summary>
/// <param name="Sinking">Lets the other side of the pelvis sink; negative when it lifts it.</param>
/// <param name="Flexing">Folds the hip; negative when it opens it.</param>
public sealed record HipMoment(Side Side, double Sinking, double Flexing);

/// <summary>How much of each direction of control a pose or a rung asks for, N·m, 0 or more.</summary>
/// <param name="Front">Against arching, lifted ribs and the weight of head and chest.</param>
/// <param name="Back">Against rounding.</param>
/// <param name="SideLeft">By the left side of the trunk, against bending to the right.</param>
/// <param name="Twist">Against turning, either way.</param>
/// <param name="PelvisLeft">Keeping the pelvis level on the left leg.</param>
public sealed record Demands(
    double Front,
    double Back,
    double SideLeft,
    double SideRight,
    double Twist,
    double PelvisLeft,
    double PelvisRight
)
{
    /// <summary>Nothing to hold.</summary>
    public static readonly Demands None = new(0, 0, 0, 0, 0, 0, 0);

    /// <summary>The same with the other side as the side of the task.</summary>
    public Demands Mirrored() =>
        this with
        {
            SideLeft = SideRight,
            SideRight = SideLeft,
            PelvisLeft = PelvisRight,
            PelvisRight = PelvisLeft,
        };

    /// <summary>The larger of both, direction by direction.</summary>
    public Demands Max(Demands other) =>
        new(
            Math.Max(Front, other.Front),
            Math.Max(Back, other.Back),
            Math.Max(SideLeft, other.SideLeft),
            Math.Max(SideRight, other.SideRight),
            Math.Max(Twist, other.Twist),
            Math.Max(PelvisLeft, other.PelvisLeft),
            Math.Max(PelvisRight, other.PelvisRight)
        );

    /// <summary>The demand in one direction, on the side of a task or the other; both sides: the greater of the two.</summary>
    public double In(Direction direction, OnSide on, Side taskSide)
    {
        var side = on == OnSide.Task ? taskSide : taskSide.Other();
        return direction switch
        {
            Direction.Front => Front,
            Direction.Back => Back,
            Direction.Twist => on == OnSide.Task ? Twist : 0,
            Direction.Side => Of(side, SideLeft, SideRight),
            Direction.Pelvis => Of(side, PelvisLeft, PelvisRight),
            _ => 0,
        };
    }

    private static double Of(Side side, double left, double right) =>
        side switch
        {
            Side.Left => left,
            Side.Right => right,
            _ => Math.Max(left, right),
        };
}

/// <summary>Everything the model says of one pose of one body. Static and by gravity alone: speed and stiffening add to it.</summary>
/// <param name="Carried">True where the floor carries the trunk; then the pulls of the limbs count, not a cut.</param>
/// <param name="ShiftedCm">How far the weight has to be shifted for the pose to stand; 0 when it stands as drawn.</param>
public sealed record PoseLoad(
    IReadOnlyList<SupportShare> Support,
    bool Carried,
    TrunkMoments Trunk,
    TiltPull Pull,
    IReadOnlyList<HipMoment> Hips,
    Demands Demands,
    double ShiftedCm
);

/// <summary>A pose that does not stand.</summary>
/// <param name="Toward">The way it goes over, by the body's own axes: head, feet, left, right, front, back; or the floor.</param>
/// <param name="Centimetres">How far the centre of mass is outside what bears it; none where a wall is in play.</param>
public sealed record Fall(string Toward, double? Centimetres)
{
    /// <summary>Nothing bears.</summary>
    public static readonly Fall InTheAir = new("floor", null);

    /// <summary>Where and by how much the centre of mass lies outside the support.</summary>
    public Message Words =>
        this == InTheAir ? Message.Of("fall.air")
        : Centimetres is { } cm ? Message.Of("fall.toward", ("way", Toward), ("centimetres", cm))
        : Message.Of("fall.slip");
}
