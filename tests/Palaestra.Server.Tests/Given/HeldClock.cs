namespace Palaestra.Server.Tests.Given;

/// <summary>A clock that stands until it is moved. What waits for a span of time waits by the machine's.</summary>
public sealed class HeldClock : TimeProvider
{
    // Ticks of UTC: read by the server's threads while a test moves them.
    private long ticks = DateTimeOffset.UtcNow.UtcTicks;

    public override DateTimeOffset GetUtcNow() => new(Interlocked.Read(ref ticks), TimeSpan.Zero);

    public void Go(TimeSpan on) => Interlocked.Add(ref ticks, on.Ticks);
}
