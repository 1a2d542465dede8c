using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>One channel over a trace. Sway and trembling are told of the time it was inside its band.</summary>
/// <param name="InBandSeconds">Time inside the band.</param>
/// <param name="SwayRms">Root mean square about its mean, smoothed, in the channel's unit; 0 without samples.</param>
/// <param name="PathPerSecond">How far it wandered in a second, smoothed, in the channel's unit.</param>
/// <param name="TremorRms">Root mean square between <see cref="SignalAnalyser.TremorFrom"/> and <see cref="SignalAnalyser.TremorTo"/> Hz; none for less than 2.56 s at 100 Hz.</param>
/// <param name="Farthest">From neutral, signed.</param>
public sealed record ChannelAnalysis(
    SignalChannel Channel,
    double InBandSeconds,
    double SwayRms,
    double PathPerSecond,
    double? TremorRms,
    double Farthest,
    IReadOnlyList<Loss> Losses,
    IReadOnlyList<SeenRep> Reps
);

/// <summary>What a trace shows. Times are seconds from its start.</summary>
/// <param name="Seconds">From the first sample to the last.</param>
/// <param name="SeenSeconds">Without the gaps.</param>
/// <param name="CleanSeconds">Seen before control was first lost on any channel.</param>
/// <param name="InBandSeconds">Seen with no channel lost.</param>
public sealed record SignalAnalysis(
    double Seconds,
    double SeenSeconds,
    double CleanSeconds,
    double InBandSeconds,
    IReadOnlyList<ChannelAnalysis> Channels
)
{
    /// <summary>Of all channels, in order of onset.</summary>
    public IReadOnlyList<Loss> Losses => [.. Channels.SelectMany(c => c.Losses).OrderBy(l => l.Onset)];

    /// <summary>The reps of the channel that shows most of them.</summary>
    public IReadOnlyList<SeenRep> Reps => Channels.MaxBy(c => c.Reps.Count)?.Reps ?? [];
}
