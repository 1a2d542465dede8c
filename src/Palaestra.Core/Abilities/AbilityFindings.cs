using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Abilities;

/// <summary>Abilities from all that was seen of a client up to a day.</summary>
/// <param name="All">Directions and sides with evidence; empty where there is none.</param>
/// <param name="Next">For the ladders climbed, the rung above the entry.</param>
public sealed record AbilityFindings(IReadOnlyList<Ability> All, IReadOnlyList<NextRung> Next)
{
    /// <param name="trials">Of screens and sessions, in any order.</param>
    /// <param name="entries">Where the client stands on the ladders; the rung above is asked for.</param>
    public static AbilityFindings Of(
        IEnumerable<Trial> trials,
        IReadOnlyList<RungSearch> entries,
        PracticeLibrary library
    )
    {
        var beliefs = AbilityEvidence
            .Of(trials, library)
            .GroupBy(seen => (seen.Direction, seen.Side))
            .OrderBy(same => same.Key)
            .ToDictionary(same => same.Key, same => (Belief: BeliefOf(same, library), Seen: same.ToList()));
        var all = beliefs
            .Select(pair =>
                Told(pair.Key.Direction, pair.Key.Side, pair.Value.Belief, pair.Value.Seen, library)
            )
            .ToList();
        var next =
            from entry in entries
            let ladder = library.Ladders.First(l => l.Id == entry.LadderId)
            let at = entry.EntryRungId is { } id ? ladder.IndexOf(id) : -1
            where entry.TrialIds.Count > 0 && at + 1 < ladder.Rungs.Count
            let rung = ladder.Rungs[at + 1]
            let side = ladder.On == OnSide.Other ? entry.Side.Other() : entry.Side
            let height = library.Heights.Of(rung.Id)
            let found = beliefs.FirstOrDefault(b =>
                b.Key.Direction == ladder.Direction && (b.Key.Side == side || b.Key.Side == Side.Both)
            )
            where found.Value.Belief is not null && height is not null
            select new NextRung(
                ladder.Id,
                entry.Side,
                rung.Id,
                Math.Round(found.Value.Belief.ChanceClean(height.Value), 3)
            );
        return new(Marked(all), [.. next]);
    }

    /// <summary>From nothing, day by day. The same evidence gives the same belief, whatever order it comes in.</summary>
    public static AbilityBelief BeliefOf(IEnumerable<AbilityEvidence> seen, PracticeLibrary library)
    {
        var days = seen.GroupBy(s => s.On).OrderBy(day => day.Key).ToList();
        var belief = AbilityBelief.Nothing(AbilityTables.Of(library).Of(days[0].First().Direction));
        return days.Aggregate(belief, (before, day) => before.After(day.Key, day));
    }

    private static Ability Told(
        Direction direction,
        Side side,
        AbilityBelief belief,
        List<AbilityEvidence> seen,
        PracticeLibrary library
    )
    {
        var beyond = library.Ability.Beyond;
        var (lowest, highest) = library.Heights.Ends(direction);
        double OnRing(double theta) =>
            Math.Round(100 * (theta - lowest + beyond) / (highest - lowest + 2 * beyond), 1);
        var tail = (1 - library.Ability.Sure) / 2;
        var (low, high) = (belief.Quantile(tail), belief.Quantile(1 - tail));
        var sector = Sectors.Of(direction, OnSide.Task, side == Side.Both ? Side.Left : side)!.Value;
        return new(
            direction,
            side,
            sector,
            NameOf(sector, side),
            Math.Round(belief.Mean, 2),
            Math.Round(low, 2),
            Math.Round(high, 2),
            Math.Round(belief.Sd, 3),
            OnRing(belief.Mean),
            OnRing(low),
            OnRing(high),
            Math.Round(belief.Spread, 2),
            seen.Sum(s => s.Clean + s.Broken),
            [.. seen.OrderBy(s => s.On).Select(s => s.TrialId).Distinct()]
        );
    }

    private static Message NameOf(Sector sector, Side side) =>
        Message.Of("ability.name", ("sector", sector), ("limb", sector == Sector.Front ? side : Side.Both));

    /// <summary>The lowest on the ring, and those it cannot be told from.</summary>
    private static IReadOnlyList<Ability> Marked(List<Ability> all)
    {
        if (all.Count < 2)
        {
            return all;
        }
        var lowest = all.MinBy(a => a.Percent)!;
        return
        [
            .. all.Select(a =>
                a == lowest ? a with { Lowest = true }
                : a.PercentLow <= lowest.PercentHigh ? a with { Unclear = true }
                : a
            ),
        ];
    }
}
