namespace Palaestra.Core.Body;

/// <summary>Lengths and half widths as fractions of stature, for drawing. Our own, set by eye against the figure.</summary>
public static class Proportions
{
    public const double Pelvis = 0.095;
    public const double Waist = 0.105;
    public const double Chest = 0.135;

    /// <summary>Where along the chest the shoulder joint sits.</summary>
    public const double ShoulderAt = 0.72;
    public const double Neck = 0.045;
    public const double Head = 0.125;
    public const double UpperArm = 0.162;
    public const double Forearm = 0.150;
    public const double Hand = 0.062;
    public const double Thigh = 0.243;
    public const double Shank = 0.247;
    public const double Foot = 0.105;

    /// <summary>Half the distance between hip joints, and between shoulder joints.</summary>
    public const double HipHalf = 0.05;
    public const double ShoulderHalf = 0.11;

    /// <summary>Half widths of limbs at the near and far end.</summary>
    public static readonly (double Near, double Far) ThighWidth = (0.052, 0.034);
    public static readonly (double Near, double Far) ShankWidth = (0.034, 0.020);
    public static readonly (double Near, double Far) FootWidth = (0.020, 0.012);
    public static readonly (double Near, double Far) UpperArmWidth = (0.030, 0.022);
    public static readonly (double Near, double Far) ForearmWidth = (0.022, 0.015);
    public static readonly (double Near, double Far) HandWidth = (0.015, 0.010);

    public const double HeadLong = 0.0665;
    public const double HeadShort = 0.052;
}
