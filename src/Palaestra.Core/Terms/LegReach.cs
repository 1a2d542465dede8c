namespace Palaestra.Core.Terms;

/// <summary>How far down a leg pain runs.</summary>
public enum LegReach
{
    /// <summary>Not into the leg.</summary>
    None,

    /// <summary>The buttock.</summary>
    Buttock,

    /// <summary>The thigh.</summary>
    Thigh,

    /// <summary>Below the knee.</summary>
    BelowKnee,
}
