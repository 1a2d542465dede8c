namespace Palaestra.Core.Library;

/// <summary>
/// How high every trained rung stands in each direction it asks for, in rungs of the load scale: one unit is the mean step
/// of all trained ladders in the logarithm of what they ask. In the direction of its ladder a rung stands where its load
/// puts it, and at least a set step above the one below, because ladders are ordered for teaching and some steps ask for
/// no more load; in any other direction where its load puts it.
/// </summary>
public sealed class RungHeights
{
    private readonly Dictionary<(string RungId, Direction Direction, OnSide On), double> heights = [];
    private readonly Dictionary<string, double> below = [];
    private readonly Dictionary<Direction, (double Lowest, double Highest)> ends = [];
    private readonly PracticeLibrary library;

    /// <summary>Works out how high every rung lies within its direction.</summary>
    public RungHeights(PracticeLibrary library)
    {
        this.library = library;
        var ladders = library.MeasuredLadders.Where(l => l.Direction != Direction.None).ToList();
        Unit = UnitOf(ladders);
        foreach (var rung in library.MeasuredLadders.SelectMany(l => l.Rungs))
        {
            foreach (var asked in library.DemandsOf(rung))
            {
                heights[(rung.Id, asked.Direction, asked.On)] = HeightOf(rung, asked.Direction, asked.On);
            }
        }
        foreach (var ladder in ladders)
        {
            InOrder(ladder);
        }
        foreach (var same in heights.GroupBy(pair => pair.Key.Direction))
        {
            ends[same.Key] = (same.Min(pair => pair.Value), same.Max(pair => pair.Value));
        }
    }

    /// <summary>One rung, as the logarithm of a ratio of loads.</summary>
    public double Unit { get; }

    /// <summary>Directions that any rung asks for.</summary>
    public IReadOnlyCollection<Direction> Directions => ends.Keys;

    /// <summary>The lowest and the highest of all rungs that ask for a direction.</summary>
    /// <exception cref="KeyNotFoundException">No trained rung asks for it.</exception>
    public (double Lowest, double Highest) Ends(Direction direction) => ends[direction];

    /// <summary>In the direction of its ladder; none for a rung of a ladder that has none, or is not trained.</summary>
    public double? Of(string rungId) =>
        library.FindRung(rungId) is not null
        && library.LadderOf(rungId) is var ladder
        && heights.TryGetValue((rungId, ladder.Direction, ladder.On), out var height)
            ? height
            : null;

    /// <summary>
    /// As it was done: over a shorter way it stands between the rung below (for the lowest: one unit lower) and its own, in
    /// proportion; at another height or under another load higher or lower by what that asks. None where it does not ask
    /// for the direction.
    /// </summary>
    public double? Of(Rung rung, Dose done, Direction direction, OnSide on)
    {
        if (!heights.TryGetValue((rung.Id, direction, on), out var full))
        {
            return null;
        }
        if (done.Height is not null || done.Load is not null)
        {
            var setting = new Dose(1, 1, 0) { Height = done.Height, Load = done.Load };
            var asked = library.Settings.Of(rung, Side.Left, setting).In(direction, on, SideOf(rung));
            full += Log(asked) / Unit - HeightOf(rung, direction, on);
        }
        return full - (1 - Math.Clamp(done.Range, 0, 1)) * below[rung.Id];
    }

    private void InOrder(Ladder ladder)
    {
        var last = double.NegativeInfinity;
        foreach (var rung in ladder.Rungs)
        {
            var byLoad = HeightOf(rung, ladder.Direction, ladder.On);
            var height = Math.Max(byLoad, last + library.Ability.LeastStep);
            heights[(rung.Id, ladder.Direction, ladder.On)] = height;
            below[rung.Id] = double.IsNegativeInfinity(last) ? 1 : height - last;
            last = height;
        }
    }

    private double UnitOf(IReadOnlyList<Ladder> ladders)
    {
        var spans = ladders
            .Select(l => l.Rungs.Select(r => Log(AskedOf(r, l.Direction, l.On))).ToList())
            .ToList();
        var steps = spans.Sum(logs => logs.Count - 1);
        var span = spans.Sum(logs => logs.Max() - logs.Min());
        return steps == 0 ? library.Ability.LeastUnit : Math.Max(library.Ability.LeastUnit, span / steps);
    }

    private double HeightOf(Rung rung, Direction direction, OnSide on) =>
        Log(AskedOf(rung, direction, on)) / Unit;

    private double AskedOf(Rung rung, Direction direction, OnSide on) =>
        library.Demands.Of(rung.Id).In(direction, on, SideOf(rung));

    private double Log(double newtonMetres) =>
        Math.Log(
            Math.Max(library.Ability.LeastNewtonMetres, newtonMetres) / library.Ability.LeastNewtonMetres
        );

    private static Side SideOf(Rung rung) => rung.Sides == RungSides.Each ? Side.Left : Side.Both;
}
