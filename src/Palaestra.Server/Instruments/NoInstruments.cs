using Palaestra.Exchange.Instruments;

namespace Palaestra.Server.Instruments;

/// <summary>Where no address of instruments is set: nothing comes, and nothing is sent.</summary>
public sealed class NoInstruments : IInstrumentSource
{
    public IAsyncEnumerable<InstrumentLine> Lines(CancellationToken stop) =>
        AsyncEnumerable.Empty<InstrumentLine>();

    public Task Tell(InstrumentLine line, CancellationToken stop) => Task.CompletedTask;
}
