using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>
/// What every rung asks of every direction, worked out by the body model for a typical body. Only shares are used, and
/// those hardly differ between people.
/// </summary>
public sealed class DemandTable
{
    /// <summary>
    /// A direction in which a rung asks less than this share of the hardest screened rung does not count as asked for.
    /// Our own.
    /// </summary>
    public const double Least = 0.10;

    /// <summary>Directions a demand is told in, and on which side of the task.</summary>
    public static readonly IReadOnlyList<(Direction Direction, OnSide On)> Asked =
    [
        (Direction.Front, OnSide.Task),
        (Direction.Back, OnSide.Task),
        (Direction.Side, OnSide.Task),
        (Direction.Side, OnSide.Other),
        (Direction.Twist, OnSide.Task),
        (Direction.Pelvis, OnSide.Task),
        (Direction.Pelvis, OnSide.Other),
    ];

    private readonly Dictionary<string, Demands> newtonMetres;
    private readonly Dictionary<string, IReadOnlyList<Demand>> shares;

    /// <summary>Works out the demands of every rung of the library for a typical body.</summary>
    public DemandTable(PracticeLibrary library)
    {
        if (library.KnownDemands is { } known)
        {
            newtonMetres = new(known);
            Falls = [];
        }
        else
        {
            (newtonMetres, Falls) = WorkedOut(library);
        }
        var screened = library.Ladders.Where(l => l.Screened).SelectMany(l => l.Rungs).ToList();
        var hardest = Enum.GetValues<Direction>().ToDictionary(d => d, d => Hardest(d, screened));
        shares = newtonMetres.ToDictionary(
            pair => pair.Key,
            pair => Shares(library.Rung(pair.Key), pair.Value, hardest)
        );
    }

    /// <summary>N·m for a typical body. The right as the side of the task is the mirror of the left.</summary>
    public Demands Of(string rungId, Side side = Side.Left) =>
        side == Side.Right ? newtonMetres[rungId].Mirrored() : newtonMetres[rungId];

    /// <summary>What a rung asks by direction, largest first. Throws for a rung the library does not have.</summary>
    public IReadOnlyList<Demand> SharesOf(string rungId) => shares[rungId];

    /// <summary>N·m by rung, to be kept for the next start.</summary>
    public IReadOnlyDictionary<string, Demands> All => newtonMetres;

    /// <summary>Rungs that do not stand.</summary>
    public IReadOnlyList<(string RungId, Fall Fall)> Falls { get; }

    private static (Dictionary<string, Demands>, IReadOnlyList<(string, Fall)>) WorkedOut(
        PracticeLibrary library
    )
    {
        var loads = library
            .Ladders.SelectMany(ladder => ladder.Rungs)
            .AsParallel()
            .Select(rung => (rung.Id, Answer: Of(library, rung)))
            .ToList();
        var falls =
            from pair in loads
            where pair.Answer.Fall is not null
            orderby pair.Id
            select (pair.Id, pair.Answer.Fall!);
        return (
            loads.ToDictionary(pair => pair.Id, pair => pair.Answer.Load?.Demands ?? Demands.None),
            [.. falls]
        );
    }

    private static (MovementLoad? Load, Fall? Fall) Of(PracticeLibrary library, Rung rung) =>
        LoadModel.Of(library.PathOf(rung), Side.Left, BodySize.Typical, LoadChanges.None);

    private double Hardest(Direction direction, IReadOnlyList<Rung> rungs) =>
        rungs
            .SelectMany(rung =>
                new[] { OnSide.Task, OnSide.Other }.Select(on =>
                    newtonMetres[rung.Id].In(direction, on, Side.Left)
                )
            )
            .DefaultIfEmpty(0)
            .Max();

    private static IReadOnlyList<Demand> Shares(
        Rung rung,
        Demands demands,
        Dictionary<Direction, double> hardest
    ) =>
        [
            .. Asked
                .Where(asked => rung.Sides == RungSides.Each || asked.On == OnSide.Task)
                .Select(asked => new Demand(
                    asked.Direction,
                    hardest[asked.Direction] < 1
                        ? 0
                        : Math.Min(
                            1,
                            demands.In(
                                asked.Direction,
                                asked.On,
                                rung.Sides == RungSides.Each ? Side.Left : Side.Both
                            ) / hardest[asked.Direction]
                        ),
                    asked.On
                ))
                .Where(demand => demand.Weight >= Least),
        ];
}
