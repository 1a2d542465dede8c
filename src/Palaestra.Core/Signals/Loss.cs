using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>The trunk left its band for long enough to count.</summary>
/// <param name="Onset">Seconds from the start of the trace at which the band was left.</param>
/// <param name="End">Seconds at which it was back; none while it lasts.</param>
/// <param name="Excursion">The farthest from neutral, signed, in the channel's unit.</param>
public sealed record Loss(SignalChannel Channel, double Onset, double? End, double Excursion)
{
    /// <summary>The fault it points to on its channel, by the edge it went over.</summary>
    public string FaultOf(ChannelSetup channel) => Excursion > 0 ? channel.Above : channel.Below;
}
