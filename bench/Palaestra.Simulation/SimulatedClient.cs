using MathNet.Numerics.Distributions;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

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
        var trial = Guid.CreateVersion7();
        var from = Events.Count;
        Tap(
            trial,
            CaptureKind.TrialStarted,
            20,
            e =>
                e with
                {
                    RungId = rung.Id,
                    Side = taskSide,
                    Purpose = TrialPurpose.Screen,
                    Target = rung.Start with { Sets = 1 },
                }
        );
        var broken = 0;
        for (var rep = 0; rep < rung.Start.Reps && broken < 2; rep++)
        {
            if (rung.Start.Hold > 0)
            {
                Tap(trial, CaptureKind.HoldStarted, 2);
            }
            var gaveWay = tired + (nature.Noise > 0 ? Normal.Sample(random, 0, nature.Noise) : 0) < 0;
            var marked = gaveWay
                ? random.NextDouble() >= nature.Missed
                : random.NextDouble() < nature.Imagined;
            if (marked)
            {
                broken++;
                Tap(
                    trial,
                    CaptureKind.FaultMarked,
                    Math.Max(0.5, rung.Start.Hold / 2),
                    e => e with { Fault = FaultFor(rung, ladder.Direction, ladder.On) }
                );
            }
            Tap(trial, CaptureKind.RepDone, Math.Max(1, marked ? rung.Start.Hold / 2 : rung.Start.Hold));
        }
        Tap(
            trial,
            CaptureKind.TrialEnded,
            2,
            e => e with { Reason = broken > 1 ? EndReason.BreakingFault : EndReason.TargetMet }
        );
        TrialsDone++;
        return TrialFold.Trials(Events[from..], library, policy.Pain)[0];
    }

    /// <summary>A breaking fault of the rung that points where it gave way; any breaking one where none does.</summary>
    private string FaultFor(Rung rung, Direction direction, OnSide on)
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

    private void Tap(
        Guid trial,
        CaptureKind kind,
        double after,
        Func<CaptureEvent, CaptureEvent>? with = null
    )
    {
        now = now.AddSeconds(after);
        var e = new CaptureEvent(Guid.CreateVersion7(), trial, kind, now);
        Events.Add(with is null ? e : with(e));
    }
}
