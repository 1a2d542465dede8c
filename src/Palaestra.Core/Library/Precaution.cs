namespace Palaestra.Core.Library;

public enum PrecautionEffect
{
    /// <summary>Allowed, and wanted.</summary>
    Prefer,

    /// <summary>Allowed with a change.</summary>
    Caution,

    /// <summary>Never proposed; only with a written reason.</summary>
    Bar,
}

/// <summary>
/// One line of a precaution. It looks for a ladder, a feature of the rung, or a spinal strategy; exactly one is given.
/// </summary>
/// <param name="OnItsSide">Holds only for the side the precaution names.</param>
/// <param name="Range">For a change that shortens the movement: the share of it that is left, above 0 to 1.</param>
public sealed record PrecautionRule(
    PrecautionEffect Effect,
    string Words,
    string? Ladder = null,
    string? Feature = null,
    string? Strategy = null,
    string? Change = null,
    bool OnItsSide = false,
    double? Range = null
);

/// <summary>A condition of the client that bars, changes or favours rungs.</summary>
public sealed record Precaution(
    string Id,
    string Name,
    string Tag,
    bool Sided,
    string Explains,
    IReadOnlyList<PrecautionRule> Rules
);

/// <summary>A finding that stops the session until a practitioner has recorded what was done.</summary>
/// <param name="SameDay">Send on the same day.</param>
/// <param name="LaterVisits">Asked from the second visit on: it tells of a change.</param>
public sealed record DangerSign(string Id, string Words, bool SameDay, bool LaterVisits = false);
