namespace Palaestra.Core.Library;

/// <param name="Name">Short label for a ring or a table row.</param>
/// <param name="Holds">What control in this direction means.</param>
/// <param name="Asks">What a task asks for, both sides together: "turning".</param>
/// <param name="Yields">A sentence for the weak link.</param>
public sealed record SectorText(Sector Sector, string Name, string Asks, string Holds, string Yields);
