namespace Palaestra.Core.Body;

/// <summary>
/// What the segment tables do not give: breadths, and where joints sit in the trunk. Fractions of stature; our own,
/// set by eye against the figure, unless a source is named.
/// </summary>
public static class Proportions
{
    /// <summary>
    /// Share of the lower trunk's length, from the hips up, at which the lumbosacral joint lies (9 to 10 cm above the
    /// hip centres). Anatomy from memory.
    /// </summary>
    public const double LumbosacralAt = 0.60;

    /// <summary>Where along the upper trunk the shoulder joint sits.</summary>
    public const double ShoulderAt = 0.70;

    /// <summary>Half the distance between the hip centres (about 17 cm) and between the shoulder joints. Anatomy from memory.</summary>
    public const double HipHalf = 0.05;

    /// <summary>Half the distance between the shoulder joints.</summary>
    public const double ShoulderHalf = 0.105;

    /// <summary>The table's hand ends at the knuckle; fingertips lie this many hand lengths from the wrist.</summary>
    public const double FingertipsAt = 1.9;

    /// <summary>Half widths of limbs at the near and far end.</summary>
    public static readonly (double Near, double Far) ThighWidth = (0.052, 0.034);

    /// <summary>Half widths at knee and ankle.</summary>
    public static readonly (double Near, double Far) ShankWidth = (0.034, 0.020);

    /// <summary>Half widths at shoulder and elbow.</summary>
    public static readonly (double Near, double Far) UpperArmWidth = (0.030, 0.022);

    /// <summary>Half widths at elbow and wrist.</summary>
    public static readonly (double Near, double Far) ForearmWidth = (0.022, 0.015);

    /// <summary>Half widths at wrist and fingers.</summary>
    public static readonly (double Near, double Far) HandWidth = (0.015, 0.010);

    /// <summary>From the ankle's centre to its skin.</summary>
    public const double AnkleRadius = 0.020;

    /// <summary>Roundness of the heel.</summary>
    public const double HeelRadius = 0.014;

    /// <summary>Roundness of the toes.</summary>
    public const double ToeRadius = 0.012;

    /// <summary>Half the head's height.</summary>
    public const double HeadLong = 0.0665;

    /// <summary>Half the head's depth, from front to back.</summary>
    public const double HeadShort = 0.052;

    /// <summary>Half the head's breadth.</summary>
    public const double HeadSide = 0.046;
}
