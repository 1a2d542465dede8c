namespace Palaestra.Server.Tests.Given;

/// <summary>The demo's clinic, filled once for the tests of a class.</summary>
public sealed class DemoServer : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-demo-").FullName;

    public DemoServer() => Running = new("demo", folder);

    public RunningServer Running { get; }

    public void Dispose()
    {
        Running.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    /// <inheritdoc cref="RunningServer.InDemo"/>
    public Task<HttpClient> SignedIn() => Running.InDemo();
}
