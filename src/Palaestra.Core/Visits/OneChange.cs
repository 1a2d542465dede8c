namespace Palaestra.Core.Visits;

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

/// <summary>Why a set was stopped.</summary>
public enum StopTrigger
{
    /// <summary>A second breaking fault in a row.</summary>
    Faults,

    /// <summary>Pain over the limit in force.</summary>
    Pain,

    /// <summary>Breath held, and a cue did not clear it.</summary>
    Breath,

    /// <summary>The practitioner wished it.</summary>
    Asked,
}
