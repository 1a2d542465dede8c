namespace Palaestra.Core.Terms;

/// <summary>The one thing that is changed within a visit when control goes, in the order it is tried.</summary>
public enum OneChange
{
    /// <summary>Other words.</summary>
    Cue,

    /// <summary>Less of the way.</summary>
    ShorterRange,

    /// <summary>A shorter hold.</summary>
    FewerSeconds,

    /// <summary>A shorter lever.</summary>
    ShorterLever,

    /// <summary>More to rest on.</summary>
    MoreSupport,

    /// <summary>The rung below.</summary>
    LowerRung,
}
