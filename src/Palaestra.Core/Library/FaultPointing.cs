namespace Palaestra.Core.Library;

/// <summary>Where a fault points in some positions: sinking hips are the front in a plank and the lower side in a side plank.</summary>
/// <param name="Ladders">Ladders it holds for, by id. <paramref name="Positions"/>: positions; at least one of both is given.</param>
public sealed record FaultPoint(
    Direction Direction,
    OnSide On = OnSide.Task,
    IReadOnlyList<string>? Ladders = null,
    IReadOnlyList<string>? Positions = null
);

/// <summary>Which way a fault points when it is seen in a rung.</summary>
public static class FaultPointing
{
    /// <summary>
    /// By the position of the rung, else as the fault usually does; <see cref="Direction.None"/> where the rung does not ask for
    /// that direction: it then speaks of all that the rung asks.
    /// </summary>
    public static (Direction Direction, OnSide On) Of(Fault fault, Rung rung, PracticeLibrary library)
    {
        var ladder = library.LadderOf(rung.Id).Id;
        var here = (fault.Points ?? []).FirstOrDefault(p =>
            p.Ladders?.Contains(ladder) == true || p.Positions?.Contains(rung.Position) == true
        );
        var (direction, on) = here is null ? (fault.Direction, fault.On) : (here.Direction, here.On);
        var asked = library.DemandsOf(rung).Where(demand => demand.Direction == direction).ToList();
        if (asked.Count == 0)
        {
            return (Direction.None, OnSide.Task);
        }
        return asked.Any(demand => demand.On == on) ? (direction, on) : (direction, asked[0].On);
    }

    /// <summary>The sectors it points at in a task on some side; in a task without sides both of a sided direction. Empty where it points nowhere.</summary>
    public static IReadOnlyList<Sector> SectorsOf(Fault fault, Rung rung, Side side, PracticeLibrary library)
    {
        var (direction, on) = Of(fault, rung, library);
        return Sectors.All(direction, on, side);
    }
}
