using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>One measure of the two sides of a task.</summary>
/// <param name="Less">The side that was held less well; none where they differ by no more than <see cref="SidesSeen.Even"/> of the larger.</param>
public sealed record SideMeasure(Message Name, string Unit, double Left, double Right, Side? Less);

/// <summary>The traces of both sides of the same task beside each other.</summary>
public static class SidesSeen
{
    /// <summary>Of the larger: two traces of one person differ by as much from one minute to the next. Common practice.</summary>
    public const double Even = 0.15;

    /// <summary>Clean seconds and time in the band, then of each channel sway, path and trembling.</summary>
    public static IReadOnlyList<SideMeasure> Of(
        SignalAnalysis left,
        SignalAnalysis right,
        InstrumentSetup setup
    )
    {
        var rows = new List<SideMeasure>
        {
            Measure(
                Message.Of("sides.before"),
                "s",
                left.CleanSeconds,
                right.CleanSeconds,
                moreIsBetter: true
            ),
            Measure(Message.Of("sides.inside"), "%", Share(left), Share(right), moreIsBetter: true),
        };
        foreach (var (channel, l, r) in setup.Channels.Zip(left.Channels, right.Channels))
        {
            rows.Add(
                Measure(
                    Message.Of("sides.farthest", ("channel", channel.Name)),
                    channel.Unit,
                    Math.Abs(l.Farthest),
                    Math.Abs(r.Farthest)
                )
            );
            rows.Add(
                Measure(
                    Message.Of("sides.sway", ("channel", channel.Name)),
                    channel.Unit,
                    l.SwayRms,
                    r.SwayRms
                )
            );
            rows.Add(
                Measure(
                    Message.Of("sides.path", ("channel", channel.Name)),
                    channel.Unit,
                    l.PathPerSecond,
                    r.PathPerSecond
                )
            );
            if (l.TremorRms is { } mine && r.TremorRms is { } other)
            {
                rows.Add(
                    Measure(Message.Of("sides.tremor", ("channel", channel.Name)), channel.Unit, mine, other)
                );
            }
        }
        return rows;
    }

    private static double Share(SignalAnalysis seen) =>
        seen.SeenSeconds > 0 ? 100 * seen.InBandSeconds / seen.SeenSeconds : 0;

    private static SideMeasure Measure(
        Message name,
        string unit,
        double left,
        double right,
        bool moreIsBetter = false
    )
    {
        var even = Math.Abs(left - right) <= Even * Math.Max(left, right);
        var leftIsLess = moreIsBetter ? left < right : left > right;
        return new(
            name,
            unit,
            left,
            right,
            even ? null
                : leftIsLess ? Side.Left
                : Side.Right
        );
    }
}
