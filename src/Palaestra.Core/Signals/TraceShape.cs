using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>
/// The course of one channel in as many pieces as a picture is wide: lowest and highest of each, so that no peak is lost
/// however long the trace is. A piece without samples is not a number in both.
/// </summary>
/// <param name="Low">In the channel's unit. <paramref name="High"/>: the same.</param>
public sealed record TraceShape(
    SignalChannel Channel,
    IReadOnlyList<double?> Low,
    IReadOnlyList<double?> High
)
{
    /// <summary>Pieces that are asked for at most.</summary>
    public const int MostPieces = 2000;

    /// <param name="from">First sample. <paramref name="count"/>: how many; cut to what is there.</param>
    public static IReadOnlyList<TraceShape> Of(
        Trace trace,
        InstrumentSetup setup,
        int pieces,
        int from = 0,
        int? count = null
    )
    {
        from = Math.Clamp(from, 0, trace.Samples.Count);
        var have = Math.Min(count ?? int.MaxValue, trace.Samples.Count - from);
        pieces = Math.Clamp(pieces, 1, Math.Min(MostPieces, Math.Max(1, have)));
        return
        [
            .. setup.Channels.Select(
                (channel, i) =>
                {
                    var ends = Enumerable
                        .Range(0, pieces)
                        .Select(piece =>
                            Ends(
                                trace,
                                i,
                                from + (int)((long)piece * have / pieces),
                                from + (int)((piece + 1L) * have / pieces)
                            )
                        )
                        .ToList();
                    return new TraceShape(
                        channel.Channel,
                        [.. ends.Select(e => e.Low)],
                        [.. ends.Select(e => e.High)]
                    );
                }
            ),
        ];
    }

    private static (double? Low, double? High) Ends(Trace trace, int channel, int from, int to)
    {
        double? low = null;
        double? high = null;
        for (var i = from; i < to; i++)
        {
            var value = trace.Samples[i][channel];
            if (!double.IsNaN(value))
            {
                low = low is { } l ? Math.Min(l, value) : value;
                high = high is { } h ? Math.Max(h, value) : value;
            }
        }
        return (low, high);
    }
}
