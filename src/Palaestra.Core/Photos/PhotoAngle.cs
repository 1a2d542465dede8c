namespace Palaestra.Core.Photos;

/// <summary>Which angle is measured in a picture.</summary>
public enum PhotoAngleKind
{
    /// <summary>Back to front hip bone against the level. Positive: the front is lower.</summary>
    PelvicTilt,

    /// <summary>The same line against the trunk (side of the hip to shoulder): holds in every posture. Positive: the front is lower.</summary>
    PelvisToTrunk,

    /// <summary>Hip bone to hip bone against the level. Positive: the right is lower.</summary>
    SideDrop,

    /// <summary>Hips to shoulder against the upright. Positive: forward, or to the client's right.</summary>
    TrunkLean,

    /// <summary>Between trunk and thigh; 180 is straight.</summary>
    Hip,

    /// <summary>Between thigh and shank; 180 is straight.</summary>
    Knee,

    /// <summary>Shoulder to ear against the upright. Positive: forward.</summary>
    HeadLean,
}

/// <summary>An angle read from points.</summary>
/// <param name="Degrees">By the kind's sign; hip and knee 0 to 180, others −180 to 180.</param>
/// <param name="Words">What the sign means here.</param>
/// <param name="PlusMinus">What five millimetres at each end of its lines may make of it, degrees; none without a known length.</param>
/// <param name="Centimetres">How much lower, or further ahead, without sign; none without a known length, and for angles of joints.</param>
public sealed record PhotoAngle(
    PhotoAngleKind Kind,
    double Degrees,
    Message Words,
    double? PlusMinus = null,
    double? Centimetres = null
);
