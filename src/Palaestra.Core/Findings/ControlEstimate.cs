using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Findings;

/// <summary>
/// Control by direction: the share of the demand in that direction, over the rungs known about, that was held.
/// </summary>
/// <remarks>
/// Each rung of a screened ladder and side counts with its demand in the direction as weight. Its value is the clean
/// fraction where it was tried and broke in this direction; 1 where it was clean, and for the rungs below a clean one;
/// 0 for the rungs above one that broke in this direction. A rung that broke in another direction says nothing here,
/// and neither do the rungs above it. Worked by hand in docs/findings.md.
/// </remarks>
public static class ControlEstimate
{
    public static IReadOnlyList<SectorControl> Of(
        IReadOnlyList<Trial> screen,
        IReadOnlyList<RungSearch> entries,
        ClientProfile profile,
        PracticeLibrary library
    ) => [.. Enum.GetValues<Sector>().Select(sector => OfSector(sector, screen, entries, profile, library))];

    private static SectorControl OfSector(
        Sector sector,
        IReadOnlyList<Trial> screen,
        IReadOnlyList<RungSearch> entries,
        ClientProfile profile,
        PracticeLibrary library
    )
    {
        var parts = new List<Part>();
        foreach (var search in entries)
        {
            var ladder = library.Ladders.First(l => l.Id == search.LadderId);
            parts.AddRange(PartsOf(ladder, search.Side, sector, screen, library));
        }
        var weight = parts.Sum(part => part.Weight);
        var ids = parts
            .Where(part => part.TrialId is not null)
            .Select(part => part.TrialId!.Value)
            .Distinct()
            .ToList();
        var name = library.Words(sector).Name;
        return ids.Count == 0
            ? new SectorControl(sector, name, null, [], TellingRung(sector, profile, library))
            : new SectorControl(sector, name, 100 * parts.Sum(p => p.Weight * p.Value) / weight, ids, null);
    }

    private readonly record struct Part(double Weight, double Value, Guid? TrialId);

    private static IEnumerable<Part> PartsOf(
        Ladder ladder,
        Side side,
        Sector sector,
        IReadOnlyList<Trial> screen,
        PracticeLibrary library
    )
    {
        var last = ladder
            .Rungs.Select(rung =>
                screen.LastOrDefault(t => t.RungId == rung.Id && (t.Side == side || t.Side == Side.Both))
            )
            .ToList();
        var highestClean = last.FindLastIndex(t => t is not null && t.Clean.Fraction >= 1);
        var lowestBroken = last.FindIndex(t => t is not null && t.Clean.Fraction < 1);
        for (var i = 0; i < ladder.Rungs.Count; i++)
        {
            var weight = WeightOf(ladder.Rungs[i], sector, side);
            if (weight <= 0)
            {
                continue;
            }
            if (last[i] is { } trial)
            {
                if (ValueOf(trial, sector, library) is { } value)
                {
                    yield return new(weight, value, trial.Id);
                }
            }
            else if (i < highestClean)
            {
                yield return new(weight, 1, null);
            }
            else if (
                lowestBroken >= 0
                && i > lowestBroken
                && ValueOf(last[lowestBroken]!, sector, library) is < 1
            )
            {
                yield return new(weight, 0, null);
            }
        }
    }

    /// <summary>1 when clean; the clean fraction when it broke in this direction or in none; none when in another.</summary>
    private static double? ValueOf(Trial trial, Sector sector, PracticeLibrary library)
    {
        if (trial.Clean.Fraction >= 1)
        {
            return 1;
        }
        var pointed = trial.Marks.Where(m => m.Breaks).Select(m => PointsAt(m, trial, library)).ToList();
        return pointed.Count == 0 || pointed.Any(p => p is null || p == sector) ? trial.Clean.Fraction : null;
    }

    /// <summary>The direction a mark points at, or none.</summary>
    public static Sector? PointsAt(FaultMark mark, Trial trial, PracticeLibrary library) =>
        library.FindFault(mark.Fault) is { } fault ? Sectors.Of(fault.Direction, fault.On, trial.Side) : null;

    public static double WeightOf(Rung rung, Sector sector, Side side) =>
        rung
            .Demands.Where(demand =>
                Sectors.Of(demand.Direction, demand.On, rung.Sides == RungSides.Each ? side : Side.Both)
                == sector
            )
            .Sum(demand => demand.Weight);

    /// <summary>
    /// The task that would tell: of those no precaution bars, the one with the greatest demand in this direction;
    /// none when every such task is barred.
    /// </summary>
    private static string? TellingRung(Sector sector, ClientProfile profile, PracticeLibrary library) =>
        library
            .Ladders.Where(ladder => ladder.Screened)
            .SelectMany(ladder => ladder.Rungs)
            .Where(rung => !Allowance.Of(library, profile.Precautions, rung, Side.Both).Barred)
            .Select(rung =>
                (
                    rung,
                    Weight: Math.Max(WeightOf(rung, sector, Side.Left), WeightOf(rung, sector, Side.Right))
                )
            )
            .Where(pair => pair.Weight > 0)
            .OrderByDescending(pair => pair.Weight)
            .Select(pair => pair.rung.Name)
            .FirstOrDefault();
}
