using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>One channel while its samples come in.</summary>
internal sealed class ChannelAnalyser
{
    private readonly Smoother smoother;
    private readonly Baseline baseline;
    private readonly BandWatch watch;
    private readonly RepWatch reps;
    private readonly ChannelSetup setup;
    private readonly double rate;
    private readonly List<List<double>> stretches =
    [
        [],
    ];
    private int next;
    private double? before;
    private double path;
    private double sum;
    private double squares;
    private int inside;
    private double farthest;

    public ChannelAnalyser(ChannelSetup setup, double level, double rate)
    {
        this.setup = setup;
        this.rate = rate;
        smoother = new(rate);
        baseline = new(level, setup, rate);
        watch = new(setup, rate);
        reps = new(setup, rate);
    }

    public IReadOnlyList<Loss> Losses => watch.Losses;

    public IReadOnlyList<SeenRep> Reps => reps.Reps;

    /// <summary>Where neutral was followed to.</summary>
    public double Level => baseline.Level;

    /// <summary>How far the newest smoothed value is from neutral; none before the first.</summary>
    public double? Away { get; private set; }

    public void Push(double value)
    {
        stretches[^1].Add(value);
        smoother.Push(value, Take);
    }

    /// <summary>The signal is gone until a later sample.</summary>
    public void Gap(int resumes)
    {
        smoother.Finish(Take);
        watch.Gap(next);
        reps.Gap();
        before = null;
        Away = null;
        next = resumes;
        if (stretches[^1].Count > 0)
        {
            stretches.Add([]);
        }
    }

    public ChannelAnalysis Finish()
    {
        smoother.Finish(Take);
        reps.Gap();
        var mean = inside == 0 ? 0 : sum / inside;
        var seconds = inside / rate;
        return new(
            setup.Channel,
            watch.InBand / rate,
            inside == 0 ? 0 : Math.Sqrt(Math.Max(0, squares / inside - mean * mean)),
            seconds == 0 ? 0 : path / seconds,
            Spectrum
                .Welch(stretches, rate)
                ?.Rms(SignalAnalyser.TremorFrom, Math.Min(SignalAnalyser.TremorTo, rate / 2)),
            farthest,
            [.. watch.Losses],
            [.. reps.Reps]
        );
    }

    private void Take(double value)
    {
        var away = baseline.Away(value);
        watch.Push(next, away);
        reps.Push(next, away);
        if (!watch.Out)
        {
            inside++;
            sum += away;
            squares += away * away;
            path += Math.Abs(away - (before ?? away));
        }
        before = away;
        farthest = Math.Abs(away) > Math.Abs(farthest) ? away : farthest;
        Away = away;
        next++;
    }
}
