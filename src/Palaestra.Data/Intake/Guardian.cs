namespace Palaestra.Data.Intake;

/// <summary>Who speaks for a client.</summary>
/// <param name="Relation">Such as "mother"; none: not told.</param>
public sealed record Guardian(string Name, string? Relation = null, string? Phone = null);
