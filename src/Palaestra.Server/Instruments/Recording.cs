using Palaestra.Core.Library;
using Palaestra.Core.Signals;

namespace Palaestra.Server.Instruments;

/// <summary>A neutral and when it was taken.</summary>
internal sealed record Calibration(DateTimeOffset At, Neutral Level);

/// <summary>
/// What a device sent in the last minutes, and where its neutral was, by the server's clock: enough to keep the trace of a trial
/// after it ended. A device that starts anew begins a new stretch.
/// </summary>
internal sealed class Recording(InstrumentSetup setup)
{
    /// <summary>Longer than any trial.</summary>
    public const double KeptSeconds = 1200;

    /// <summary>Of a device that keeps starting anew.</summary>
    private const int StretchesMost = 50;

    private readonly int channels = setup.Channels.Count;
    private readonly List<Stretch> stretches = [];
    private readonly List<Calibration> calibrations = [];

    /// <param name="First">Ordinal of the first value that is still there.</param>
    private sealed class Stretch(long first)
    {
        public long First { get; set; } = first;

        /// <summary>Moment of ordinal 0, as well as it is known by now.</summary>
        public DateTimeOffset Began { get; set; }

        // Single precision: far finer than a trace's resolution, to which it is rounded again.
        public List<float> Values { get; } = [];
    }

    public void Begin(long first)
    {
        stretches.Add(new Stretch(first));
        if (stretches.Count > StretchesMost)
        {
            stretches.RemoveAt(0);
        }
    }

    public void Date(DateTimeOffset began) => stretches[^1].Began = began;

    public void Calibrated(DateTimeOffset at, Neutral level)
    {
        calibrations.RemoveAll(c => c.At < at.AddSeconds(-2 * KeptSeconds));
        calibrations.Add(new(at, level));
    }

    public void Push(double[] sample)
    {
        var values = stretches[^1].Values;
        foreach (var value in sample)
        {
            values.Add((float)value);
        }
        if (values.Count > 1.25 * Most)
        {
            var gone = values.Count - Most;
            values.RemoveRange(0, gone);
            stretches[^1].First += gone / channels;
            stretches.RemoveRange(0, stretches.Count - 1);
        }
    }

    private int Most => channels * (int)(KeptSeconds * setup.Rate);

    /// <summary>On an even grid from one moment to the other; what is not known is missing.</summary>
    public IReadOnlyList<double[]> Between(DateTimeOffset from, DateTimeOffset to)
    {
        var count = Math.Max(0, (int)Math.Round((to - from).TotalSeconds * setup.Rate));
        var missing = new double[channels];
        Array.Fill(missing, double.NaN);
        var samples = Enumerable.Repeat(missing, count).ToList();
        foreach (var stretch in stretches)
        {
            var offset = (long)Math.Round((stretch.Began - from).TotalSeconds * setup.Rate) + stretch.First;
            var have = stretch.Values.Count / channels;
            for (var i = Math.Max(0, -offset); i < have && offset + i < count; i++)
            {
                samples[(int)(offset + i)] = Sample(stretch, (int)i);
            }
        }
        return samples;
    }

    private double[] Sample(Stretch stretch, int index)
    {
        var sample = new double[channels];
        for (var channel = 0; channel < channels; channel++)
        {
            sample[channel] = Trace.Rounded(stretch.Values[index * channels + channel]);
        }
        return sample;
    }

    /// <summary>The last calibration up to a moment; none where it is too long ago to be followed.</summary>
    public Calibration? LastBefore(DateTimeOffset moment) =>
        calibrations.LastOrDefault(c => c.At <= moment && c.At >= moment.AddSeconds(-KeptSeconds));
}
