using MathNet.Numerics.Distributions;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Simulation;

/// <summary>
/// Somebody with a true ability in each direction and side, who tires, wavers, and is watched by a rater who errs.
/// </summary>
/// <remarks>
/// On a ladder ability stands somewhere between below the lowest rung and above the highest, alike on all ladders of its
/// direction; people are spread evenly over that. A rep gives way when its rung is higher than what is left of the ability.
/// </remarks>
public sealed class SimulatedClient
{
    private readonly PracticeLibrary library;
    private readonly Nature nature;
    private readonly Random random;
    private readonly Dictionary<(Direction, Side), double> standing;
    private readonly Dictionary<string, double[]> heights = [];
    private DateTimeOffset now = new(2026, 3, 2, 9, 0, 0, TimeSpan.Zero);

    /// <param name="seed">The person; the same seed is the same person on the same day.</param>
    /// <param name="day">Another day, another hand: the same person with other slips.</param>
    public SimulatedClient(PracticeLibrary library, Nature nature, int seed, int day = 0)
    {
        this.library = library;
        this.nature = nature;
        var person = new Random(seed);
        var common = Normal.Sample(person, 0, 1);
        standing = Enum.GetValues<Direction>()
            .SelectMany(direction => new[] { Side.Left, Side.Right }.Select(side => (direction, side)))
            .ToDictionary(
                place => place,
                _ =>
                    Normal.CDF(
                        0,
                        1,
                        Math.Sqrt(1 - nature.Sides) * common
                            + Math.Sqrt(nature.Sides) * Normal.Sample(person, 0, 1)
                    )
            );
        foreach (var ladder in library.TrainedLadders)
        {
            heights[ladder.Id] =
            [
                .. Heights
                    .Of(ladder, library)
                    .Select(h => h + (nature.Own > 0 ? Normal.Sample(person, 0, nature.Own) : 0)),
            ];
        }
        random = new Random(seed * 1000 + day);
    }

    public int TrialsDone { get; private set; }

    public List<CaptureEvent> Events { get; } = [];

    /// <summary>How far ability is above a rung, in rungs; below 0 it gives way.</summary>
    public double Margin(Ladder ladder, int rung, Side side)
    {
        var count = ladder.Rungs.Count;
        var sides = ladder.Rungs[rung].Sides == RungSides.Each ? [side] : new[] { Side.Left, Side.Right };
        var ability = sides.Min(s => -0.75 + standing[(ladder.Direction, s)] * (count + 0.5));
        return ability - heights[ladder.Id][rung];
    }

    /// <summary>The highest rung below the first that this client cannot hold, rested and seen rightly; −1 when not even the lowest.</summary>
    public int TrueEntry(Ladder ladder, Side side)
    {
        for (var i = 0; i < ladder.Rungs.Count; i++)
        {
            if (Margin(ladder, i, side) < 0)
            {
                return i - 1;
            }
        }
        return ladder.Rungs.Count - 1;
    }

    /// <summary>One trial of a rung, told as the taps of the rater.</summary>
    public Trial Do(Rung rung, Side side, Policy policy)
    {
        var taskSide = rung.Sides == RungSides.Each ? side : Side.Both;
        var ladder = library.LadderOf(rung.Id);
        var tired = Margin(ladder, ladder.IndexOf(rung.Id), side) - nature.Fatigue * TrialsDone;
        var from = Events.Count;
        var taps = new Taps(Guid.CreateVersion7(), after => now = now.AddSeconds(after), Guid.CreateVersion7);
        var target = rung.Start with { Sets = 1 };
        Events.Add(
            taps.Start(
                20,
                new(Guid.Empty, Guid.Empty, default, rung.Id, taskSide, TrialPurpose.Screen, target)
            )
        );
        var broken = 0;
        for (var rep = 0; rep < rung.Start.Reps && broken < 2; rep++)
        {
            if (rung.Start.Hold > 0)
            {
                Events.Add(taps.Hold(2));
            }
            var gaveWay = tired + (nature.Noise > 0 ? Normal.Sample(random, 0, nature.Noise) : 0) < 0;
            var marked = gaveWay
                ? random.NextDouble() >= nature.Missed
                : random.NextDouble() < nature.Imagined;
            if (marked)
            {
                broken++;
                var fault = FaultFor(rung, ladder.Direction, ladder.On);
                Events.Add(taps.Fault(Math.Max(0.5, rung.Start.Hold / 2), fault));
            }
            Events.Add(taps.Rep(Math.Max(1, marked ? rung.Start.Hold / 2 : rung.Start.Hold)));
        }
        Events.Add(taps.End(2, broken > 1 ? EndReason.BreakingFault : EndReason.TargetMet));
        TrialsDone++;
        return TrialFold.Trials(Events[from..], library, policy.Pain)[0];
    }

    /// <summary>A breaking fault of the rung that points where it gave way; any breaking one where none does.</summary>
    internal string FaultFor(Rung rung, Direction direction, OnSide on)
    {
        var breaking = rung
            .Faults.Select(code => library.FindFault(code)!)
            .Where(fault => rung.KindOf(fault) == FaultKind.Breaking)
            .ToList();
        return (
            breaking.FirstOrDefault(f => f.Direction == direction && f.On == on)
            ?? breaking.FirstOrDefault(f => f.Direction == direction)
            ?? breaking[0]
        ).Code;
    }
}
