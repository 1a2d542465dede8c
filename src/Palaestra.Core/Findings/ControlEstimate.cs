using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Findings;

/// <summary>
/// Control by direction: the share of the demand in that direction, over the rungs known about, that was held.
/// </summary>
/// <remarks>
/// Each rung of a screened ladder and side counts with its demand in the direction as weight. Its value is the clean
/// fraction where it was tried and broke in this direction; 1 where it was clean, and for rungs below a clean one that asks
/// for as much in this direction; 0 for the next rung above one that broke in this direction and asks for no more. Rungs
/// farther up are not known about, and a rung that broke in another direction says nothing here. Worked by hand in docs/findings.md.
/// </remarks>
public static class ControlEstimate
{
    /// <summary>Control by sector, in the order of the ring; sectors of which nothing was seen have no share.</summary>
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
        var parts = new List<ControlPart>();
        foreach (var search in entries)
        {
            var ladder = library.Ladders.First(l => l.Id == search.LadderId);
            parts.AddRange(PartsOf(ladder, search.Side, sector, screen, library));
        }
        parts.AddRange(LookedAt(sector, screen, library));
        var weight = parts.Sum(part => part.Weight);
        var ids = parts.Select(part => part.TrialId).OfType<Guid>().Distinct().ToList();
        var name = library.Words(sector).Name;
        return ids.Count == 0
            ? new SectorControl(sector, name, null, [], TellingRung(sector, profile, library))
            : new SectorControl(
                sector,
                name,
                Math.Min(100, 100 * parts.Sum(p => p.Weight * p.Value) / weight),
                ids,
                null,
                parts
            );
    }

    /// <summary>Tasks looked at for themselves: each of their trials counts once, and nothing follows from it for other rungs.</summary>
    private static IEnumerable<ControlPart> LookedAt(
        Sector sector,
        IReadOnlyList<Trial> screen,
        PracticeLibrary library
    ) =>
        from trial in screen
        where !RungFinder.Climbs(trial, library) && library.FindTask(trial.TaskId)!.TellsControl
        let weight = library.WeightOf(library.Rung(trial.RungId), sector, trial.Side)
        where weight > 0
        let value = ValueOf(trial, sector, library)
        where value is not null
        select new ControlPart(trial.RungId, trial.Side, weight, value.Value, trial.Id);

    /// <summary>Weights within this of each other ask for the same. Our own.</summary>
    private const double Same = 0.02;

    private static IEnumerable<ControlPart> PartsOf(
        Ladder ladder,
        Side side,
        Sector sector,
        IReadOnlyList<Trial> screen,
        PracticeLibrary library
    )
    {
        var rungs = ladder
            .Rungs.Select(rung =>
                (
                    Weight: library.WeightOf(rung, sector, side),
                    Trial: screen.LastOrDefault(t =>
                        t.RungId == rung.Id
                        && (t.Side == side || t.Side == Side.Both)
                        && RungFinder.Climbs(t, library)
                    )
                )
            )
            .ToList();
        for (var i = 0; i < rungs.Count; i++)
        {
            var (weight, trial) = rungs[i];
            var id = ladder.Rungs[i].Id;
            if (weight <= 0)
            {
                continue;
            }
            if (trial is not null)
            {
                if (ValueOf(trial, sector, library) is { } value)
                {
                    yield return new(id, side, weight, value, trial.Id);
                }
            }
            else if (
                rungs.Skip(i + 1).Any(r => r.Trial is { Clean.Fraction: >= 1 } && r.Weight >= weight - Same)
            )
            {
                yield return new(id, side, weight, 1, null);
            }
            else if (
                i > 0
                && rungs[i - 1] is { Trial: { Clean.Fraction: < 1 } broken, Weight: > 0 } below
                && below.Weight <= weight + Same
                && ValueOf(broken, sector, library) is < 1
            )
            {
                yield return new(id, side, weight, 0, null);
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
        // Ended by pain with no fault: it says nothing of control.
        var pointed = trial.Marks.Where(m => m.Breaks).Select(m => trial.PointsAt(m, library)).ToList();
        if (pointed.Count == 0 && trial.Hurt)
        {
            return null;
        }
        return pointed.Count == 0 || pointed.Any(p => p.Count == 0 || p.Contains(sector))
            ? trial.Clean.Fraction
            : null;
    }

    /// <summary>
    /// The task that would tell: of those no precaution bars, the easiest of those that ask nearly most in this direction,
    /// on a ladder made for it where there is one; none when every such task is barred.
    /// </summary>
    private static string? TellingRung(Sector sector, ClientProfile profile, PracticeLibrary library)
    {
        var tasks = library
            .Ladders.Where(ladder => ladder.Screened)
            .SelectMany(ladder =>
                ladder.Rungs.Select(rung =>
                    (
                        rung,
                        Made: Sectors.Of(ladder.Direction, OnSide.Task, Side.Left) is { } made
                            && (made == sector || made == sector.Mirror()),
                        Weight: Math.Max(
                            library.WeightOf(rung, sector, Side.Left),
                            library.WeightOf(rung, sector, Side.Right)
                        )
                    )
                )
            )
            .Where(task => task.Weight > 0)
            .Where(task => !Allowance.Of(library, profile.Precautions, task.rung, Side.Both).Barred)
            .ToList();
        var made = tasks.Any(task => task.Made) ? tasks.Where(task => task.Made).ToList() : tasks;
        var most = made.Select(task => task.Weight).DefaultIfEmpty(0).Max();
        return made.Where(task => task.Weight >= most - 2 * Same)
            .Select(task => task.rung.Name)
            .FirstOrDefault();
    }
}
