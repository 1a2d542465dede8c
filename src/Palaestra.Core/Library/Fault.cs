namespace Palaestra.Core.Library;

/// <summary>What a fault does to the rep in which it shows.</summary>
public enum FaultKind
{
    /// <summary>The trunk or pelvis lost its position, or the task ended: the rep stops counting as clean.</summary>
    Breaking,

    /// <summary>Worth coaching; counts against the rep only when it shows in most of them.</summary>
    Quality,

    /// <summary>Seen and noted, never counted against the rep.</summary>
    Information,
}

/// <summary>What the rules themselves look for, whatever the content calls it.</summary>
public enum FaultMeaning
{
    /// <summary>Shaking: near the limit, not a fault by itself.</summary>
    Tremor,

    /// <summary>A set stops when a cue does not clear it.</summary>
    BreathHold,

    /// <summary>A rep much faster than asked.</summary>
    Rush,
}

/// <summary>A compensation: something seen or felt during a task.</summary>
/// <param name="Region">Where on the figure its mark is placed.</param>
/// <param name="Direction">The direction of control it points at; none where it says nothing about one.</param>
/// <param name="On">Whether that direction lies on the side of the task or the other.</param>
/// <param name="SpoilsRep">The rep is not counted as clean although the trunk held (a rushed rep).</param>
/// <param name="Says">What it tends to mean.</param>
/// <param name="Means">What it is to the rules; none for most.</param>
/// <param name="Points">Where it points elsewhere in some positions; the first that fits holds.</param>
public sealed record Fault(
    string Code,
    string Name,
    string Seen,
    string Region,
    string Plane,
    FaultKind Kind,
    Direction Direction,
    string Key,
    IReadOnlyList<string> Mends,
    string Says,
    OnSide On = OnSide.Task,
    bool SpoilsRep = false,
    bool BreakingIfMost = false,
    IReadOnlyList<FaultPoint>? Points = null,
    FaultMeaning? Means = null
);

/// <summary>Where the client felt the work, and the set-up change it asks for when that is not the place meant.</summary>
public sealed record FeltPlace(string Id, string Words, bool AsIntended, string? Change = null);
