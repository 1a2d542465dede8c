using System.Text.Json;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Core.Tests.Given;

/// <summary>A list of events with what it folds to: the shape in which tapes are kept and exchanged (docs/capture.md).</summary>
/// <param name="PainNow">Pain when the visit began; none if not known.</param>
public sealed record GoldenTape(
    string Name,
    string PolicyId,
    IReadOnlyList<CaptureEvent> Events,
    GoldenExpect Expect,
    int? PainNow = null
);

/// <param name="Trials">As folded. <paramref name="Stop"/>: the advice for each, in the same order.</param>
/// <param name="Session">What was done of the session.</param>
public sealed record GoldenExpect(
    IReadOnlyList<Trial> Trials,
    IReadOnlyList<StopAdvice> Stop,
    SessionFold? Session = null
);

/// <summary>Writes tapes of random rooms from a seed: every kind of event, in the orders that have gone wrong before.</summary>
public sealed class TapeWriter(int seed)
{
    public const int Files = 8;
    public const int PerFile = 80;

    private static readonly string[] Rungs =
    [
        "B5",
        "B6",
        "D3",
        "D4",
        "E1",
        "E5",
        "G2",
        "G4",
        "H3",
        "J2",
        "K2",
    ];
    private static readonly string[] Tasks =
    [
        "stance",
        "let-go",
        "roll-range",
        "reaches",
        "kick-back",
        "fists",
    ];
    private readonly Random random = new(seed);
    private readonly List<CaptureEvent> events = [];
    private DateTimeOffset now = new(2026, 5, 4, 9, 0, 0, TimeSpan.Zero);
    private int ids;

    public static IEnumerable<GoldenTape> Of(int file) =>
        Enumerable.Range(0, PerFile).Select(i => new TapeWriter(file * 1000 + i).Write($"{file}-{i:00}"));

    public static string FileOf(int file) => Path.Combine(Folder, $"tapes-{file}.json");

    public static string Folder => Path.Combine(Content.Root, "tests", "tapes");

    public static readonly JsonSerializerOptions Options = new(CoreJson.Options)
    {
        WriteIndented = false,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    public static string Json(int file) =>
        "[\n"
        + string.Join(",\n", Of(file).Select(tape => JsonSerializer.Serialize(tape, Options)))
        + "\n]\n";

    private GoldenTape Write(string name)
    {
        var policy = random.Next(4) == 0 ? "mastery-tolerable" : Content.Policy.Id;
        int? painNow = random.Next(3) == 0 ? null : random.Next(0, 8);
        var session = random.Next(2) == 0;
        var items = Enumerable.Range(0, 3).Select(_ => NewId()).ToList();
        foreach (var _ in Enumerable.Range(0, random.Next(1, 5)))
        {
            if (session)
            {
                SessionStep(items);
            }
            else
            {
                Trial(null, null);
            }
        }
        if (session && random.Next(2) == 0)
        {
            Add(new SessionPainAsked(NewId(), NewId(), After(600), random.Next(0, 11), random.Next(0, 20)));
        }
        Disorder();
        SetClock();
        var rule = Content.Library.FindPolicy(policy)!;
        var answer = FoldAnswer.Of(events, rule, Content.Library, painNow);
        return new(name, policy, events, new(answer.Trials, answer.Stop, answer.Session), painNow);
    }

    /// <summary>In one tape of sixteen the tablet's clock is set two days ahead in the middle of it, or back by two.</summary>
    private void SetClock()
    {
        var days = (seed % 32) switch
        {
            7 => 2,
            23 => -2,
            _ => 0,
        };
        for (var i = events.Count / 2; i < events.Count && days != 0; i++)
        {
            events[i] = events[i] with { At = events[i].At.AddDays(days) };
        }
    }

    private void SessionStep(List<Guid> items)
    {
        switch (random.Next(6))
        {
            case 0:
                Add(new ExerciseSkipped(NewId(), NewId(), After(5), items[random.Next(items.Count)]));
                break;
            case 1:
                Add(
                    new ExerciseAdded(
                        NewId(),
                        NewId(),
                        After(5),
                        NewId(),
                        Rungs[random.Next(Rungs.Length)],
                        new Dose(random.Next(1, 9), random.Next(1, 3), random.Next(0, 6)),
                        random.Next(2) == 0 ? items[0] : null
                    )
                );
                break;
            case 2:
                Add(new SetUpChanged(NewId(), NewId(), After(5), items[0], "low-back"));
                break;
            case 3:
                Add(new LegAsked(NewId(), NewId(), After(600), AnySide(), random.Next(2) == 0));
                break;
            default:
                Trial(items[random.Next(items.Count)], random.Next(1, 4));
                break;
        }
    }

    private void Trial(Guid? item, int? set)
    {
        var taps = new Taps(NewId(), After, NewId);
        var task =
            item is null && random.Next(2) == 0
                ? Content.Library.FindTask(Tasks[random.Next(Tasks.Length)])
                : null;
        var rung = Content.Library.Rung(
            task?.Surfaces?[0].Rung ?? task?.Rung ?? Rungs[random.Next(Rungs.Length)]
        );
        var side = rung.Sides == RungSides.Each ? AnySide() : Side.Both;
        var reps = random.Next(1, 7);
        var target =
            task?.Target ?? new Dose(reps, 1, random.Next(3) == 0 ? random.Next(2, 8) : rung.Start.Hold);
        Add(
            taps.Start(
                random.Next(1, 90),
                new(
                    Guid.Empty,
                    Guid.Empty,
                    default,
                    rung.Id,
                    side,
                    item is null ? TrialPurpose.Screen : TrialPurpose.Session,
                    target,
                    item,
                    set,
                    task?.Id,
                    task is null ? WayOf(rung, item) : task.Ways[random.Next(task.Ways.Count)],
                    task?.Measure == MeasureKind.Kilograms ? 5 : null,
                    task?.Measure == MeasureKind.Centimetres ? 88 : null,
                    random.Next(4) == 0 ? 0.25 * random.Next(1, 5) : null,
                    item is not null && random.Next(4) == 0 ? [OneChange.ShorterRange] : null,
                    AskedSide: item is not null && side == Side.Both && random.Next(3) == 0
                        ? AnySide()
                        : null,
                    Probe: item is not null && random.Next(6) == 0 ? true : null
                )
            )
        );
        if (random.Next(2) == 0)
        {
            Add(taps.Pain(2, PainPhase.Before, random.Next(0, 8)));
        }
        for (var i = 0; i < random.Next(1, 12); i++)
        {
            Step(taps, rung, task, target, side);
        }
        if (random.Next(5) > 0)
        {
            Add(taps.End(1, Any<EndReason>()));
            AfterEnd(taps, rung);
        }
    }

    /// <summary>In a session one way of a rung that has several; else none.</summary>
    private string? WayOf(Rung rung, Guid? item) =>
        item is null || rung.Ways is null ? null : rung.Ways[random.Next(rung.Ways.Count)].Id;

    private void Step(Taps taps, Rung rung, ScreenTask? task, Dose target, Side side)
    {
        var reading = task?.Measure is MeasureKind.Centimetres or MeasureKind.YesNo or MeasureKind.Effort;
        switch (random.Next(17))
        {
            case < 5 when reading:
                Add(
                    taps.Measure(
                        2,
                        task!.Measure == MeasureKind.YesNo
                            ? random.Next(2)
                            : random.Next(0, (int)(task.Most ?? 100))
                    )
                );
                break;
            case < 5:
                if (target.Hold > 0 && random.Next(6) > 0)
                {
                    Add(taps.Hold(1));
                    if (random.Next(3) == 0)
                    {
                        Add(taps.Fault(random.Next(1, 5) / 2.0, AnyFault(rung), random.Next(4) == 0));
                    }
                }
                Add(taps.Rep(random.Next(0, 20) / 2.0));
                break;
            case 5 or 6:
                Add(taps.Fault(random.Next(0, 3), AnyFault(rung), random.Next(4) == 0));
                break;
            case 7:
                Add(taps.Cue(1));
                break;
            case 8:
                Add(taps.CueAnswered(1, random.Next(2) == 0));
                break;
            case 9 or 10:
                Pain(taps);
                break;
            case 11:
                Add(
                    taps.Range(
                        1,
                        random.Next(2) == 0 ? 0.25 * random.Next(1, 5) : null,
                        5 * random.Next(1, 10)
                    )
                );
                break;
            case 12:
                Add(new TrialPaused(NewId(), taps.TrialId, After(1)));
                Add(new TrialResumed(NewId(), taps.TrialId, After(30)));
                break;
            case 13:
                Add(new Undone(NewId(), taps.TrialId, After(1), Own(taps)[^1].Id));
                break;
            case 14 when rung.Sides == RungSides.Each:
                Add(new SideCorrected(NewId(), taps.TrialId, After(1), side.Other()));
                break;
            case 15:
                Add(taps.Worry(1, Any<Worry>(), AnySide()));
                break;
            default:
                Add(new InstrumentUsed(NewId(), taps.TrialId, After(1), Any<Instrument>()));
                break;
        }
    }

    /// <summary>Risen, put right at once or after it was felt, with or without something logged between.</summary>
    private void Pain(Taps taps)
    {
        var value = random.Next(0, 11);
        Add(taps.Pain(1, PainPhase.Peak, value));
        if (random.Next(2) == 0)
        {
            if (random.Next(4) == 0)
            {
                Add(taps.Effort(0.5, random.Next(0, 11)));
            }
            var wait = random.Next(4) switch
            {
                0 => 2.0,
                1 => 2.001,
                2 => 0.4,
                _ => 5,
            };
            Add(taps.Pain(wait, PainPhase.Peak, Math.Max(0, value - random.Next(1, 5))));
        }
    }

    private void AfterEnd(Taps taps, Rung rung)
    {
        if (random.Next(2) == 0)
        {
            Add(taps.Pain(2, PainPhase.After, random.Next(0, 11)));
        }
        if (random.Next(3) == 0)
        {
            Add(taps.Felt(1, Content.Library.FeltPlaces[random.Next(Content.Library.FeltPlaces.Count)].Id));
        }
        if (random.Next(3) == 0)
        {
            Add(taps.Effort(1, random.Next(0, 11)));
        }
        switch (random.Next(8))
        {
            case 0:
                // The end is taken back and it goes on.
                Add(new Undone(NewId(), taps.TrialId, After(1), Own(taps).Last(e => e is TrialEnded).Id));
                Add(taps.Rep(3));
                break;
            case 1:
                Add(new TrialAmended(NewId(), taps.TrialId, After(60), "Looked at again."));
                Add(taps.Fault(1, AnyFault(rung)));
                break;
            case 2:
                Add(new TrialDiscarded(NewId(), taps.TrialId, After(1)));
                break;
            case 3:
                // An undo and its undo, across the end.
                var undo = new Undone(
                    NewId(),
                    taps.TrialId,
                    After(1),
                    Own(taps)[random.Next(1, Own(taps).Count)].Id
                );
                Add(undo);
                if (random.Next(2) == 0)
                {
                    Add(new Undone(NewId(), taps.TrialId, After(1), undo.Id));
                }
                break;
            default:
                break;
        }
    }

    /// <summary>Late, doubled, and told now of a moment before.</summary>
    private void Disorder()
    {
        if (random.Next(3) == 0)
        {
            var doubled = events[random.Next(events.Count)];
            events.Add(doubled);
        }
        if (random.Next(3) == 0 && events.OfType<RepDone>().ToList() is { Count: > 0 } reps)
        {
            var rep = reps[random.Next(reps.Count)];
            events.Add(new FaultMarked(NewId(), rep.TrialId, rep.At, "arch"));
        }
        if (random.Next(3) == 0)
        {
            var i = random.Next(events.Count);
            var late = events[i];
            events.RemoveAt(i);
            events.Add(late);
        }
    }

    private List<CaptureEvent> Own(Taps taps) => [.. events.Where(e => e.TrialId == taps.TrialId)];

    private string AnyFault(Rung rung) => rung.Faults[random.Next(rung.Faults.Count)];

    private Side AnySide() => random.Next(2) == 0 ? Side.Left : Side.Right;

    private T Any<T>()
        where T : struct, Enum => Enum.GetValues<T>()[random.Next(Enum.GetValues<T>().Length)];

    private void Add(CaptureEvent told) => events.Add(told);

    /// <summary>In whole milliseconds, as a tablet stamps them.</summary>
    private DateTimeOffset After(double seconds) =>
        now = now.AddMilliseconds((long)Math.Round(1000 * seconds));

    private Guid NewId()
    {
        ids++;
        return new Guid(seed, (short)(ids >> 8), (short)(0x7000 | (ids & 0xff)), 0x80, 0, 0, 0, 0, 0, 0, 1);
    }
}
