using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>A client's own neutral, one level per channel of a device, in the channels' units and order.</summary>
public sealed record Neutral(IReadOnlyList<double> Levels)
{
    /// <summary>Three quiet seconds. Common practice.</summary>
    public const double Seconds = 3;

    /// <summary>
    /// The mean of the last three seconds, refused with a reason where they are not complete, not quiet, or not where the
    /// device is to be set. Errors name the channel.
    /// </summary>
    /// <param name="samples">Newest last, one array per moment; a missing sample is not a number.</param>
    public static Checked<Neutral> From(IReadOnlyList<double[]> samples, InstrumentSetup setup)
    {
        var needed = (int)Math.Round(Seconds * setup.Rate);
        var last = samples.Skip(Math.Max(0, samples.Count - needed)).ToList();
        if (last.Count < needed || last.Any(values => values.Any(double.IsNaN)))
        {
            return Checked<Neutral>.Bad([
                new("device", Message.Of("signal.three-seconds", ("percent", Whole(last)))),
            ]);
        }
        var errors = new List<FieldError>();
        var levels = new List<double>();
        for (var i = 0; i < setup.Channels.Count; i++)
        {
            var channel = setup.Channels[i];
            var values = last.ConvertAll(sample => sample[i]);
            var mean = values.Average();
            var spread = Math.Sqrt(values.Average(value => (value - mean) * (value - mean)));
            levels.Add(mean);
            if (spread > channel.Quiet)
            {
                errors.Add(
                    new(
                        channel.Channel.ToString(),
                        Message.Of(
                            "signal.not-quiet",
                            ("channel", channel.Name),
                            ("moved", spread),
                            ("unit", channel.Unit),
                            ("most", channel.Quiet)
                        )
                    )
                );
            }
            else if (channel.Set is { } set && Math.Abs(mean - set) > channel.SetWithin)
            {
                errors.Add(
                    new(
                        channel.Channel.ToString(),
                        Message.Of(
                            "signal.not-set",
                            ("channel", channel.Name),
                            ("at", mean),
                            ("unit", channel.Unit),
                            ("set", set)
                        )
                    )
                );
            }
        }
        return errors.Count > 0 ? Checked<Neutral>.Bad(errors) : Checked<Neutral>.Good(new Neutral(levels));

        int Whole(List<double[]> have) => 100 * have.Count(values => !values.Any(double.IsNaN)) / needed;
    }

    /// <summary>Of the first three seconds that would be taken; none where there are none. For traces without a calibration.</summary>
    public static Neutral? FirstIn(IReadOnlyList<double[]> samples, InstrumentSetup setup)
    {
        var needed = (int)Math.Round(Seconds * setup.Rate);
        var step = Math.Max(1, needed / 12);
        for (var from = 0; from + needed <= samples.Count; from += step)
        {
            var window = new double[needed][];
            for (var i = 0; i < needed; i++)
            {
                window[i] = samples[from + i];
            }
            if (From(window, setup) is { IsValid: true, Value: { } neutral })
            {
                return neutral;
            }
        }
        return null;
    }
}
