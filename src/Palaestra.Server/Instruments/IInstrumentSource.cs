using Palaestra.Exchange.Instruments;

namespace Palaestra.Server.Instruments;

/// <summary>
/// Where the lines of instruments come from: the simulated ones, or a bridge to real ones that speaks the same lines
/// (docs/instruments.md).
/// </summary>
public interface IInstrumentSource
{
    /// <summary>The lines of one connection, until it is lost; asking again connects again.</summary>
    IAsyncEnumerable<InstrumentLine> Lines(CancellationToken stop);

    /// <summary>Sends a line to the devices; nothing happens while there is no connection.</summary>
    Task Tell(InstrumentLine line, CancellationToken stop);
}
