namespace Palaestra.Server.Tests.Given;

/// <summary>One server for all tests of a class that do not mind each other's clients.</summary>
public sealed class OneServer : IDisposable
{
    public RunningServer Running { get; } = new();

    public void Dispose() => Running.Dispose();
}
