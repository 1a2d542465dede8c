namespace Palaestra.Server.Tests.Given;

/// <summary>One server with a bridge to instruments for all tests of a class; they take turns.</summary>
public sealed class WatchingServer : IDisposable
{
    private readonly Bridge bridge = new();
    private Wire? wire;

    public WatchingServer()
    {
        Running = new RunningServer(instruments: bridge.Address, clock: Clock);
    }

    public HeldClock Clock { get; } = new();

    public RunningServer Running { get; }

    /// <summary>The one connection.</summary>
    public async Task<Wire> Wire() => wire ??= await bridge.Connected();

    public void Dispose()
    {
        wire?.Dispose();
        bridge.Dispose();
        Running.Dispose();
    }
}
