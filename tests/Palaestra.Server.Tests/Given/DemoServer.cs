using System.Net.Http.Json;
using Palaestra.Server.SignIn;

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

    /// <summary>As the first of its accounts.</summary>
    public async Task<HttpClient> SignedIn()
    {
        var browser = Running.Browser();
        var account = (await browser.Get<StartView>("/api/start")).Accounts[0];
        (
            await browser.PostAsJsonAsync("/api/sign-in", new { account.Email, account.Password })
        ).EnsureSuccessStatusCode();
        return browser;
    }
}
