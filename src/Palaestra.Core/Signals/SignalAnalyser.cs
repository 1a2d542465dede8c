using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>
/// What a device's samples show, as they come in or all at once: the same code and the same result. A device that gives
/// no sample is held at its last for <see cref="HeldSeconds"/>; after that nothing is known until the next one.
/// </summary>
public sealed class SignalAnalyser
{
    /// <summary>Hz. Trembling near the limit lies about 6 to 12 Hz. Common practice.</summary>
    public const double TremorFrom = 6;

    /// <inheritdoc cref="TremorFrom"/>
    public const double TremorTo = 12;

    /// <summary>Our own choice: shorter than any loss that counts.</summary>
    public const double HeldSeconds = 0.2;

    private readonly InstrumentSetup setup;
    private readonly ChannelAnalyser[] channels;
    private readonly List<int> unseen = [];
    private double[]? last;
    private int count;
    private int missing;

    /// <summary>For one instrument, its zero taken before.</summary>
    public SignalAnalyser(InstrumentSetup setup, Neutral neutral)
    {
        this.setup = setup;
        channels =
        [
            .. setup.Channels.Select((c, i) => new ChannelAnalyser(c, neutral.Levels[i], setup.Rate)),
        ];
    }

    /// <summary>Of all channels as far as they are known; the last of each may still last.</summary>
    public IEnumerable<Loss> Losses => channels.SelectMany(c => c.Losses);

    /// <summary>The reps of the channel that shows most of them, as far as they are known.</summary>
    public IReadOnlyList<SeenRep> Reps => channels.MaxBy(c => c.Reps.Count)?.Reps ?? [];

    /// <summary>Some channel is beyond its band now and has been for long enough.</summary>
    public bool Lost => channels.Any(c => c.Losses is [.., { End: null }]);

    /// <param name="values">One per channel; not a number where the sample is missing.</param>
    public void Push(ReadOnlySpan<double> values)
    {
        var index = count++;
        if (Missing(values))
        {
            missing++;
            if (last is null || missing > HeldSeconds * setup.Rate)
            {
                unseen.Add(index);
                Lose(index);
                return;
            }
            values = last;
        }
        else
        {
            if (missing > 0 && last is null)
            {
                Resume(index);
            }
            missing = 0;
            last = values.ToArray();
        }
        for (var i = 0; i < channels.Length; i++)
        {
            channels[i].Push(values[i]);
        }
    }

    private void Lose(int index)
    {
        if (last is null)
        {
            return;
        }
        last = null;
        Resume(index);
    }

    private void Resume(int index)
    {
        foreach (var channel in channels)
        {
            channel.Gap(index);
        }
    }

    /// <summary>The whole, once no more samples come.</summary>
    public SignalAnalysis Finish()
    {
        var done = channels.Select(c => c.Finish()).ToList();
        var seen = (count - unseen.Count) / setup.Rate;
        var losses = done.SelectMany(c => c.Losses).OrderBy(l => l.Onset).ToList();
        return new(
            count / setup.Rate,
            seen,
            losses.Count == 0
                ? seen
                : losses[0].Onset - unseen.Count(i => i / setup.Rate < losses[0].Onset) / setup.Rate,
            Math.Max(0, seen - LostSeconds(losses)),
            done
        );
    }

    /// <summary>Two channels lost at the same time are lost once.</summary>
    private double LostSeconds(List<Loss> inOrder)
    {
        var lost = 0.0;
        var until = 0.0;
        foreach (var loss in inOrder)
        {
            var end = loss.End ?? count / setup.Rate;
            lost += Math.Max(0, end - Math.Max(until, loss.Onset));
            until = Math.Max(until, end);
        }
        return lost;
    }

    /// <summary>The whole of a trace at once.</summary>
    public static SignalAnalysis Of(IEnumerable<double[]> samples, InstrumentSetup setup, Neutral neutral)
    {
        var analyser = new SignalAnalyser(setup, neutral);
        foreach (var sample in samples)
        {
            analyser.Push(sample);
        }
        return analyser.Finish();
    }

    /// <summary>Where a neutral has drifted to over a stretch of samples, as far as the channels may drift.</summary>
    public static Neutral Followed(IEnumerable<double[]> samples, InstrumentSetup setup, Neutral neutral)
    {
        var analyser = new SignalAnalyser(setup, neutral);
        foreach (var sample in samples)
        {
            analyser.Push(sample);
        }
        analyser.Finish();
        return new([.. analyser.channels.Select(c => c.Level)]);
    }

    private static bool Missing(ReadOnlySpan<double> values)
    {
        foreach (var value in values)
        {
            if (!double.IsFinite(value))
            {
                return true;
            }
        }
        return false;
    }
}
