using System.Threading.Channels;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Exchange.Instruments;

namespace Palaestra.Server.Instruments;

/// <summary>A loss with the moments it happened, by the server's clock.</summary>
public sealed record LiveLoss(
    SignalChannel Channel,
    string Fault,
    DateTimeOffset Onset,
    DateTimeOffset? End,
    double Excursion
);

/// <summary>A rep with the moments it began, was at its farthest, left it, and was back.</summary>
public sealed record LiveRep(
    DateTimeOffset Start,
    DateTimeOffset Top,
    DateTimeOffset Leaves,
    DateTimeOffset End
);

/// <summary>What is new of a device.</summary>
/// <param name="Now">The server's clock, so that a tablet can set its own against it.</param>
/// <param name="At">Moment of the first value.</param>
/// <param name="Values">One array per sample, in the channels' order; null where it was lost.</param>
/// <param name="Losses">Since neutral was taken; only where one began, grew or ended.</param>
/// <param name="Reps">Since neutral was taken; only where one was added.</param>
public sealed record LivePart(
    DateTimeOffset Now,
    bool Connected,
    double? Battery,
    DateTimeOffset At,
    IReadOnlyList<double[]?> Values,
    IReadOnlyList<double>? Neutral,
    bool Lost,
    IReadOnlyList<LiveLoss>? Losses,
    IReadOnlyList<LiveRep>? Reps
);

/// <summary>One device: its last minutes, its neutral, and what its samples show since then.</summary>
public sealed class LiveDevice(string name, InstrumentSetup setup, IReadOnlyList<InstrumentScript> scripts)
{
    /// <summary>Samples kept for a look back.</summary>
    private const double KeptSeconds = 60;

    /// <summary>After so long nobody is still lying where neutral was taken, and what was kept since is let go.</summary>
    private const double NeutralSeconds = 3600;

    private readonly Lock one = new();
    private readonly List<Channel<LivePart>> watchers = [];
    private readonly List<double[]> kept = [];
    private readonly Recording recording = new(setup);
    private readonly double[] missing = [.. setup.Channels.Select(_ => double.NaN)];
    private long next;
    private DateTimeOffset? began;
    private Neutral? neutral;
    private SignalAnalyser? analyser;
    private long neutralAt;
    private List<Loss> told = [];
    private int toldReps;
    private double? battery;

    public string Name => name;
    public InstrumentSetup Setup => setup;
    public IReadOnlyList<InstrumentScript> Scripts => scripts;
    public bool Connected { get; private set; } = true;

    public IReadOnlyList<double>? NeutralLevels
    {
        get
        {
            lock (one)
            {
                return neutral?.Levels;
            }
        }
    }

    public double? Battery
    {
        get
        {
            lock (one)
            {
                return battery;
            }
        }
    }

    /// <summary>What comes from now on; a watcher that does not keep up misses the oldest.</summary>
    public IAsyncEnumerable<LivePart> Watch(DateTimeOffset now, CancellationToken stop)
    {
        var channel = Channel.CreateBounded<LivePart>(
            new BoundedChannelOptions(100) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        lock (one)
        {
            watchers.Add(channel);
            channel.Writer.TryWrite(Part(now, [], next, LossesNow(), RepsNow()));
        }
        stop.Register(() =>
        {
            lock (one)
            {
                watchers.Remove(channel);
            }
            channel.Writer.TryComplete();
        });
        return channel.Reader.ReadAllAsync(CancellationToken.None);
    }

    public void Take(InstrumentLine line, DateTimeOffset now)
    {
        lock (one)
        {
            battery = line.Battery ?? battery;
            if (line is { Kind: "samples", First: { } first, Values: { } values })
            {
                Take(first, values, now);
            }
        }
    }

    private void Take(long first, IReadOnlyList<double[]?> values, DateTimeOffset now)
    {
        if (began is null || first < next || first - next > KeptSeconds * setup.Rate)
        {
            // The device started anew, or was away for long: its neutral is gone.
            Forget();
            next = first;
            began = null;
            recording.Begin(first);
        }
        for (; next < first; next++)
        {
            Push(missing);
        }
        foreach (var sample in values)
        {
            Push(
                sample is { } s && s.Length == missing.Length ? Array.ConvertAll(s, Trace.Rounded) : missing
            );
            next++;
        }
        // The quickest way a batch ever took tells when the device began; that it may drift apart is let in slowly.
        var could = now - TimeSpan.FromSeconds(next / setup.Rate);
        began = began is { } was && was.AddMilliseconds(0.5) < could ? was.AddMilliseconds(0.5) : could;
        recording.Date(began.Value);
        if (neutral is not null && next - neutralAt > NeutralSeconds * setup.Rate)
        {
            Forget();
        }
        var losses = LossesNow();
        var news = losses.SequenceEqual(told) ? null : losses;
        told = losses;
        Publish(Part(now, values, first, news, NewReps()));
    }

    private List<LiveRep>? NewReps()
    {
        var reps = analyser?.Reps ?? [];
        if (reps.Count == toldReps)
        {
            return null;
        }
        toldReps = reps.Count;
        return RepsNow();
    }

    private List<LiveRep> RepsNow() => [.. (analyser?.Reps ?? []).Select(LiveOf)];

    private LiveRep LiveOf(SeenRep rep)
    {
        DateTimeOffset At(double seconds) => Moment(neutralAt + seconds * setup.Rate);
        return new(At(rep.Start), At(rep.Top), At(rep.Leaves), At(rep.End));
    }

    private void Push(double[] sample)
    {
        recording.Push(sample);
        kept.Add(sample);
        if (kept.Count > 2 * KeptSeconds * setup.Rate)
        {
            kept.RemoveRange(0, kept.Count / 2);
        }
        analyser?.Push(sample);
    }

    /// <summary>Takes the last three seconds as neutral; everything that is told is told from then on.</summary>
    public Checked<Neutral> Calibrate(DateTimeOffset now)
    {
        lock (one)
        {
            var taken = Neutral.From(kept, setup);
            if (taken.Value is { } level)
            {
                neutral = level;
                analyser = new SignalAnalyser(setup, level);
                neutralAt = next;
                told = [];
                toldReps = 0;
                recording.Calibrated(Moment(next), level);
                Publish(Part(now, [], next, [], []));
            }
            return taken;
        }
    }

    /// <summary>The connection is lost, or there again.</summary>
    public void Be(bool connected, DateTimeOffset now)
    {
        lock (one)
        {
            Connected = connected;
            if (!connected)
            {
                Forget();
            }
            Publish(Part(now, [], next, LossesNow()));
        }
    }

    /// <summary>The trace between two moments of the server's clock; none where nothing was heard.</summary>
    public Trace? Cut(DateTimeOffset from, DateTimeOffset to)
    {
        IReadOnlyList<double[]> samples;
        Calibration? taken;
        IReadOnlyList<double[]> before;
        lock (one)
        {
            samples = recording.Between(from, to);
            taken = recording.LastBefore(to);
            before = taken is null ? [] : recording.Between(taken.At, from);
        }
        return samples.All(sample => sample.All(double.IsNaN))
            ? null
            : new Trace(
                setup.Id,
                setup.Rate,
                from,
                samples,
                taken is null ? null : SignalAnalyser.Followed(before, setup, taken.Level)
            );
    }

    private void Forget()
    {
        neutral = null;
        analyser = null;
        kept.Clear();
        told = [];
        toldReps = 0;
    }

    private List<Loss> LossesNow() => analyser is null ? [] : [.. analyser.Losses.OrderBy(l => l.Onset)];

    private DateTimeOffset Moment(double sample) =>
        (began ?? DateTimeOffset.UnixEpoch).AddSeconds(sample / setup.Rate);

    private LivePart Part(
        DateTimeOffset now,
        IReadOnlyList<double[]?> values,
        long first,
        IReadOnlyList<Loss>? losses,
        IReadOnlyList<LiveRep>? reps = null
    ) =>
        new(
            now,
            Connected,
            battery,
            Moment(first),
            values,
            neutral?.Levels,
            analyser?.Lost ?? false,
            losses?.Select(LiveOf).ToList(),
            reps
        );

    private LiveLoss LiveOf(Loss loss)
    {
        var channel = setup.Channels.First(c => c.Channel == loss.Channel);
        return new(
            loss.Channel,
            loss.FaultOf(channel),
            Moment(neutralAt + loss.Onset * setup.Rate),
            loss.End is { } end ? Moment(neutralAt + end * setup.Rate) : null,
            loss.Excursion
        );
    }

    private void Publish(LivePart part)
    {
        foreach (var watcher in watchers)
        {
            watcher.Writer.TryWrite(part);
        }
    }
}
