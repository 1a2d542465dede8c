namespace Palaestra.Core.Library;

/// <summary>How one channel is judged.</summary>
/// <param name="Unit">mmHg or degrees, for people.</param>
/// <param name="Band">Control is lost this far from neutral, either way; more than 0.</param>
/// <param name="Set">What it is set to before neutral is taken, such as 40 mmHg; none: it may stand anywhere.</param>
/// <param name="SetWithin">How near to <paramref name="Set"/> neutral has to be.</param>
/// <param name="Quiet">Neutral is taken only while the standard deviation stays at or below this.</param>
/// <param name="DriftPerMinute">How far neutral may creep by itself in a minute and is followed; 0: it does not.</param>
/// <param name="Above">Fault proposed beyond the upper edge. <paramref name="Below"/>: beyond the lower one.</param>
/// <param name="RepRise">A rep shows as a swing of at least this much inside the band.</param>
public sealed record ChannelSetup(
    SignalChannel Channel,
    string Name,
    string Unit,
    double Band,
    double? Set,
    double SetWithin,
    double Quiet,
    double DriftPerMinute,
    string Above,
    string Below,
    double RepRise
);

/// <summary>One kind of device as the content describes it.</summary>
/// <param name="Rate">Samples a second of each channel, Hz.</param>
public sealed record InstrumentSetup(
    string Id,
    string Name,
    string Where,
    double Rate,
    IReadOnlyList<ChannelSetup> Channels
);
