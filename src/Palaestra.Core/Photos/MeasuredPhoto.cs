namespace Palaestra.Core.Photos;

/// <summary>A photograph measured in a trial: its points and what they come to.</summary>
public sealed record MeasuredPhoto(Guid EventId, PhotoReading Reading, IReadOnlyList<PhotoAngle> Angles);
