using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Planning;

/// <summary>A rung that could stand in for another: it asks for the same direction, about as much.</summary>
/// <param name="NewtonMetres">In that direction, for a typical body. <paramref name="PercentMore"/>: than the one it stands in for, below 0 for less.</param>
/// <param name="Difference">What else is different, in words.</param>
/// <param name="Screened">Whether its ladder was climbed; where not, the first set wants watching.</param>
public sealed record Swap(
    string RungId,
    string Name,
    string LadderName,
    double NewtonMetres,
    double PercentMore,
    IReadOnlyList<Message> Difference,
    bool Screened
);

/// <param name="Direction">The direction they share. <paramref name="NewtonMetres"/>: what the rung itself asks.</param>
/// <param name="Near">False when nothing asks for about as much, and these are the nearest.</param>
public sealed record SwapList(Direction Direction, double NewtonMetres, bool Near, IReadOnlyList<Swap> Swaps);

/// <summary>Which rungs could stand in for another.</summary>
public static class Swaps
{
    /// <summary>Within this share of the demand two rungs count as equals. Our own.</summary>
    public const double Similar = 0.25;

    /// <summary>So many are offered at most.</summary>
    public const int Most = 6;
    private const int NearestMost = 3;

    /// <summary>
    /// Rungs of other ladders, and of its own below it, that ask for the direction of its ladder, or where it does not ask for that the one it asks most of; nothing barred,
    /// nothing that is not at hand, nothing above what was seen clean. Nearest demand first. Empty for a rung that asks for
    /// no direction.
    /// </summary>
    public static SwapList For(
        Rung rung,
        ClientProfile profile,
        IReadOnlyList<RungSearch> entries,
        IReadOnlyList<string>? equipment,
        PracticeLibrary library
    )
    {
        var main = library
            .DemandsOf(rung)
            .OrderByDescending(demand => demand.Direction == library.LadderOf(rung.Id).Direction)
            .ThenByDescending(demand => demand.Weight)
            .ThenBy(demand => demand.Direction)
            .FirstOrDefault();
        if (main is null)
        {
            return new(Direction.None, 0, false, []);
        }
        var asked = NewtonMetres(rung, main.Direction, library);
        var all = library
            .TrainedLadders.Where(ladder => ladder.Direction != Direction.None)
            .SelectMany(ladder =>
                ladder
                    .Rungs.Where(other =>
                        other.Id != rung.Id && Open(other, ladder, rung, profile, entries, equipment, library)
                    )
                    .Select(other => Of(other, ladder, rung, main.Direction, asked, entries, library))
            )
            .Where(swap => swap.NewtonMetres >= 1)
            .OrderBy(swap => Math.Abs(swap.PercentMore))
            .ThenBy(swap => swap.RungId, StringComparer.Ordinal)
            .ToList();
        var near = all.Where(swap => Math.Abs(swap.PercentMore) <= 100 * Similar).Take(Most).ToList();
        return near.Count > 0
            ? new(main.Direction, Math.Round(asked, 1), true, near)
            : new(main.Direction, Math.Round(asked, 1), false, [.. all.Take(NearestMost)]);
    }

    private static bool Open(
        Rung other,
        Ladder ladder,
        Rung rung,
        ClientProfile profile,
        IReadOnlyList<RungSearch> entries,
        IReadOnlyList<string>? equipment,
        PracticeLibrary library
    )
    {
        if (Allowance.Of(library, profile.Precautions, other, Side.Both).Barred)
        {
            return false;
        }
        if (equipment is not null && !other.Equipment.All(equipment.Contains))
        {
            return false;
        }
        if (ladder.IndexOf(rung.Id) >= 0 && ladder.IndexOf(other.Id) > ladder.IndexOf(rung.Id))
        {
            return false;
        }
        return entries
            .Where(entry => entry.LadderId == ladder.Id && entry.TrialIds.Count > 0)
            .All(entry => entry.EntryRungId is { } id && ladder.IndexOf(other.Id) <= ladder.IndexOf(id));
    }

    private static Swap Of(
        Rung other,
        Ladder ladder,
        Rung rung,
        Direction direction,
        double asked,
        IReadOnlyList<RungSearch> entries,
        PracticeLibrary library
    )
    {
        var newtonMetres = NewtonMetres(other, direction, library);
        return new Swap(
            other.Id,
            other.Name,
            ladder.Name,
            Math.Round(newtonMetres, 1),
            asked < 1 ? 0 : Math.Round(100 * (newtonMetres / asked - 1)),
            [.. Differences(rung, other)],
            entries.Any(entry => entry.LadderId == ladder.Id && entry.TrialIds.Count > 0)
        );
    }

    private static IEnumerable<Message> Differences(Rung rung, Rung other)
    {
        if (other.Position != rung.Position)
        {
            yield return Message.Of("swap.position", ("position", other.Position));
        }
        if (other.Equipment.Except(rung.Equipment).ToList() is { Count: > 0 } more)
        {
            yield return Message.Of("swap.needs", ("pieces", more));
        }
        if (other.Sides != rung.Sides)
        {
            yield return other.Sides == RungSides.Each
                ? Message.Of("swap.each-side")
                : Message.Of("swap.both-sides");
        }
        if (other.Start.Hold > 0 != rung.Start.Hold > 0)
        {
            yield return Message.Of("swap.held", ("held", other.Start.Hold > 0));
        }
    }

    /// <summary>The most it asks in a direction, on either side; typical body.</summary>
    private static double NewtonMetres(Rung rung, Direction direction, PracticeLibrary library)
    {
        var side = rung.Sides == RungSides.Each ? Side.Left : Side.Both;
        var demands = library.Demands.Of(rung.Id);
        return Math.Max(demands.In(direction, OnSide.Task, side), demands.In(direction, OnSide.Other, side));
    }
}
