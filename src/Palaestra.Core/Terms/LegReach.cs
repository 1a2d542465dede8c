namespace Palaestra.Core.Terms;

/// <summary>How far down a leg pain runs.</summary>
public enum LegReach
{
    None,
    Buttock,
    Thigh,
    BelowKnee,
}
