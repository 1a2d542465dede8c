namespace Palaestra.Core.Terms;

/// <summary>The one thing that is changed within a visit when control goes, in the order it is tried.</summary>
public enum OneChange
{
    Cue,
    ShorterRange,
    FewerSeconds,
    ShorterLever,
    MoreSupport,
    LowerRung,
}
