namespace Palaestra.Core.Charts;

/// <summary>A named part of the body on a chart.</summary>
public enum ChartZone
{
    /// <summary>Head and face.</summary>
    Head,

    /// <summary>The neck.</summary>
    Neck,

    /// <summary>The front of the rib cage.</summary>
    Chest,

    /// <summary>The back of the rib cage.</summary>
    UpperBack,

    /// <summary>The belly.</summary>
    Abdomen,

    /// <summary>Between the lowest ribs and the pelvis, behind.</summary>
    LowBack,

    /// <summary>The front of the pelvis.</summary>
    Groin,

    /// <summary>The back of the pelvis.</summary>
    Buttock,

    /// <summary>Between the legs, where a saddle would touch.</summary>
    Saddle,

    /// <summary>Shoulder to elbow.</summary>
    UpperArm,

    /// <summary>Elbow to wrist.</summary>
    Forearm,

    /// <summary>The hand.</summary>
    Hand,

    /// <summary>Hip to knee.</summary>
    Thigh,

    /// <summary>Knee to ankle.</summary>
    LowerLeg,

    /// <summary>The foot.</summary>
    Foot,
}

/// <summary>A zone of a side; both where it is in the middle.</summary>
public readonly record struct ZoneSide(ChartZone Zone, Side Side)
{
    /// <summary>Part of a leg.</summary>
    public bool IsLeg => Zone is ChartZone.Thigh or ChartZone.LowerLeg or ChartZone.Foot;

    /// <summary>Part of a leg from the knee down.</summary>
    public bool IsBelowKnee => Zone is ChartZone.LowerLeg or ChartZone.Foot;
}
