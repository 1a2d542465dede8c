using NodaTime;

namespace Palaestra.Data.Clinics;

/// <summary>A sentence of letters or home programmes as the clinic writes it, in the place of ours.</summary>
public sealed class ClinicSentence
{
    /// <summary>Of the sentence it stands for.</summary>
    public required string Id { get; init; }

    /// <summary>A Liquid template; see docs/words.md.</summary>
    public required string Text { get; set; }
    public required string ChangedBy { get; set; }
    public Instant ChangedAt { get; set; }
    public int Version { get; set; } = 1;
}
