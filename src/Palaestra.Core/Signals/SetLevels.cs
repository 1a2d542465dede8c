using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>
/// How long a channel that is set to a level stayed about it (a cuff: 40 mmHg, 10 either way), told of the level itself and not
/// of the client's own neutral. Smoothed, without the gaps.
/// </summary>
/// <remarks>
/// Level and limit: Stanton, Reaburn, Humphries 2004, J Strength Cond Res 18:522-528 (from memory); in content/instruments.json.
/// </remarks>
/// <param name="Set">In the channel's unit. <paramref name="Within"/>: how far either way counts as held.</param>
/// <param name="BelowSeconds">Under set minus within. <paramref name="AboveSeconds"/>: over set plus within.</param>
/// <param name="Mean">None without samples, as <paramref name="Lowest"/> and <paramref name="Highest"/>.</param>
public sealed record SetLevels(
    SignalChannel Channel,
    double Set,
    double Within,
    double BelowSeconds,
    double HeldSeconds,
    double AboveSeconds,
    double? Mean,
    double? Lowest,
    double? Highest
)
{
    /// <returns>None for a channel that is not set to anything.</returns>
    public static SetLevels? Of(Trace trace, InstrumentSetup setup, int channel)
    {
        if (setup.Channels[channel] is not { Set: { } set } own)
        {
            return null;
        }
        var values = new List<double>();
        var smoother = new Smoother(trace.Rate);
        foreach (var sample in trace.Samples)
        {
            if (double.IsNaN(sample[channel]))
            {
                smoother.Finish(values.Add);
            }
            else
            {
                smoother.Push(sample[channel], values.Add);
            }
        }
        smoother.Finish(values.Add);
        double Seconds(Func<double, bool> counted) => values.Count(counted) / trace.Rate;
        var below = Seconds(v => v < set - own.Band);
        var above = Seconds(v => v > set + own.Band);
        return new(
            own.Channel,
            set,
            own.Band,
            below,
            values.Count / trace.Rate - below - above,
            above,
            values.Count == 0 ? null : values.Average(),
            values.Count == 0 ? null : values.Min(),
            values.Count == 0 ? null : values.Max()
        );
    }
}
