using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Core.Abilities;

/// <summary>Reps of one trial that tell of an ability.</summary>
/// <param name="On">The day its events are stamped with.</param>
/// <param name="Height">Of what was done, rungs.</param>
/// <param name="Clean">Uncued reps clean, 0 or more. <paramref name="Broken"/>: reps that gave way in this direction.</param>
public sealed record AbilityEvidence(
    DateOnly On,
    Direction Direction,
    Side Side,
    double Height,
    int Clean,
    int Broken,
    Guid TrialId
)
{
    /// <summary>
    /// Evidence of screens, sessions and what was tried one up, for every direction a rung asks for. Cued reps tell of the
    /// cue; a rep that broke tells of the directions its faults point to, of all it asks for where they point nowhere; one
    /// that fell short or hurt without a fault tells nothing. A trial without sides counts for both.
    /// </summary>
    public static IEnumerable<AbilityEvidence> Of(IEnumerable<Trial> trials, PracticeLibrary library) =>
        trials.Where(t => !t.Open).SelectMany(trial => Of(trial, library));

    private static IEnumerable<AbilityEvidence> Of(Trial trial, PracticeLibrary library)
    {
        if (library.FindRung(trial.RungId) is not { } rung || !library.LadderOf(rung.Id).Measured)
        {
            yield break;
        }
        var on = DateOnly.FromDateTime(trial.StartedAt.UtcDateTime);
        var full = library.FullDegrees(rung);
        var asked = library
            .DemandsOf(rung)
            .SelectMany(demand =>
                SidesOf(demand, rung, trial).Select(side => (demand.Direction, demand.On, Side: side))
            )
            .ToList();
        var told = trial
            .Reps.Where(rep => !rep.Cued)
            .Select(rep => (Share: ShareOf(rep, trial, full), rep.Clean, At: BrokeAt(rep, trial, library)));
        foreach (var reps in told.GroupBy(rep => rep.Share))
        {
            var done = trial.Target with { Range = reps.Key, Load = trial.Load ?? trial.Target.Load };
            var clean = reps.Count(rep => rep.Clean);
            foreach (var (direction, onSide, side) in asked)
            {
                var here = Sectors.All(direction, OnSide.Task, side);
                var broken = reps.Count(rep => rep.At is { } at && (at.Count == 0 || at.Any(here.Contains)));
                if (clean + broken > 0 && library.Heights.Of(rung, done, direction, onSide) is { } height)
                {
                    yield return new(on, direction, side, height, clean, broken, trial.Id);
                }
            }
        }
    }

    /// <summary>
    /// The sides a demand is kept for: of the front the limb that moves, of the back none, of the others the side that
    /// holds; a task without sides tells of both.
    /// </summary>
    private static IReadOnlyList<Side> SidesOf(Demand demand, Rung rung, Trial trial)
    {
        var side =
            rung.Sides != RungSides.Each ? Side.Both
            : demand.On == OnSide.Other ? trial.Side.Other()
            : trial.Side;
        return demand.Direction == Direction.Back ? [Side.Both]
            : side == Side.Both ? [Side.Left, Side.Right]
            : [side];
    }

    /// <summary>How far a rep went of the whole way: as told, else as asked.</summary>
    private static double ShareOf(Rep rep, Trial trial, double? full) =>
        Math.Round(Math.Clamp(rep.Reach?.Share ?? rep.Reach?.Degrees / full ?? trial.Target.Range, 0, 1), 2);

    /// <summary>The directions in which a rep gave way, empty where that cannot be told; none where nothing broke it.</summary>
    private static IReadOnlyList<Sector>? BrokeAt(Rep rep, Trial trial, PracticeLibrary library)
    {
        var broke = rep.Clean ? [] : trial.Marks.Where(m => m.Breaks && m.ShowsIn(rep.Number)).ToList();
        if (broke.Count == 0)
        {
            return null;
        }
        var at = broke.Select(mark => trial.PointsAt(mark, library)).ToList();
        return at.Any(sectors => sectors.Count == 0) ? [] : [.. at.SelectMany(sectors => sectors).Distinct()];
    }
}
