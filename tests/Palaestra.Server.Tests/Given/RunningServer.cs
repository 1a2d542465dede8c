using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using Palaestra.Data.Clinics;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Tests.Given;

/// <summary>The whole server on a real port with a real database file in a folder of its own.</summary>
public sealed class RunningServer : WebApplicationFactory<Settings>
{
    private readonly string mode;
    private readonly bool ownsFolder;
    private readonly string? instruments;

    private readonly string? zone;
    private readonly string? collector;
    private readonly TimeProvider? clock;
    private readonly string? client;

    public RunningServer(
        string mode = "serve",
        string? folder = null,
        string? instruments = null,
        string? zone = null,
        string? collector = null,
        TimeProvider? clock = null,
        string? client = null
    )
    {
        this.client = client;
        this.clock = clock;
        this.collector = collector;
        this.zone = zone;
        this.instruments = instruments;
        this.mode = mode;
        ownsFolder = folder is null;
        Folder = folder ?? Directory.CreateTempSubdirectory("palaestra-test-").FullName;
        UseKestrel(0);
        StartServer();
    }

    public string Folder { get; }

    /// <summary>Talks over HTTP and keeps cookies, as a browser does.</summary>
    public HttpClient Browser() => new(new AsDescribed()) { BaseAddress = ClientOptions.BaseAddress };

    protected override IHost CreateHost(IHostBuilder builder)
    {
        builder.ConfigureHostConfiguration(config =>
            config.AddInMemoryCollection(
                new Dictionary<string, string?>
                {
                    ["PALAESTRA_DATA"] = Folder,
                    ["PALAESTRA_MODE"] = mode,
                    ["PALAESTRA_CLIENT"] = client,
                    // Hundreds of servers in one process: nobody waits for the first answer of each.
                    ["PALAESTRA_WARM_UP"] = "no",
                    ["PALAESTRA_INSTRUMENTS"] = instruments,
                    ["PALAESTRA_TIME_ZONE"] = zone,
                    ["OTEL_EXPORTER_OTLP_ENDPOINT"] = collector,
                }
            )
        );
        if (clock is not null)
        {
            builder.ConfigureServices(services => services.AddSingleton(clock));
        }
        return base.CreateHost(builder);
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        if (disposing)
        {
            WaitUntilClosed();
            // One process stands in for many here: no server takes over a connection of the one before, whose files may
            // have been restored over since.
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        }
        if (disposing && ownsFolder && Directory.Exists(Folder))
        {
            Directory.Delete(Folder, recursive: true);
        }
    }

    /// <summary>The host closes its database on a thread of its own.</summary>
    private void WaitUntilClosed()
    {
        var path = Path.Combine(Folder, Data.Keeping.FolderLock.FileName);
        for (var i = 0; i < 200 && File.Exists(path); i++)
        {
            try
            {
                new FileStream(path, FileMode.Open, FileAccess.ReadWrite, FileShare.None).Dispose();
                return;
            }
            catch (IOException)
            {
                Thread.Sleep(50);
            }
        }
    }

    /// <summary>As somebody at the machine reads it; nothing where the clinic has its administrator.</summary>
    public string FirstCode
    {
        get
        {
            var path = Path.Combine(Folder, People.FirstAdministrator.FileName);
            return File.Exists(path) ? File.ReadAllText(path).Trim() : "";
        }
    }

    /// <summary>A browser signed in as the first account of the demo.</summary>
    public async Task<HttpClient> InDemo()
    {
        var browser = Browser();
        var account = (await browser.Get<People.StartView>("/api/start")).Accounts[0];
        (
            await browser.PostAsJsonAsync("/api/sign-in", new { account.Email, account.Password })
        ).EnsureSuccessStatusCode();
        return browser;
    }

    /// <summary>A browser signed in as the clinic's first administrator.</summary>
    public async Task<HttpClient> SignedIn()
    {
        var browser = Browser();
        var first = new
        {
            code = FirstCode,
            name = "Edda Marl",
            email = "edda@clinic.example",
            password = "three quiet words",
        };
        var made = await browser.PostAsJsonAsync("/api/first-administrator", first);
        if (made.StatusCode == HttpStatusCode.Conflict)
        {
            var again = await browser.PostAsJsonAsync("/api/sign-in", new { first.email, first.password });
            again.EnsureSuccessStatusCode();
        }
        return browser;
    }
}

public static class Answers
{
    /// <summary>As the server writes and reads it.</summary>
    private static JsonSerializerOptions Json { get; } =
        new(CoreJson.Options)
        {
            // What is said beside words is looked at by its own tests.
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Skip,
            Converters = { new InstantJson(new ClinicClock(TimeProvider.System, ClinicZone.Utc)) },
        };

    public static async Task<T> Get<T>(this HttpClient browser, string path) =>
        (await browser.GetFromJsonAsync<T>(path, Json))!;

    public static async Task<T> Ok<T>(this Task<HttpResponseMessage> asking)
    {
        var answer = await asking;
        Assert.True(
            answer.IsSuccessStatusCode,
            $"{answer.StatusCode}: {await answer.Content.ReadAsStringAsync()}"
        );
        return (await answer.Content.ReadFromJsonAsync<T>(Json))!;
    }

    public static Task<HttpResponseMessage> Post(this HttpClient browser, string path, object body) =>
        browser.PostAsync(path, JsonContent.Create(body, body.GetType(), options: Json));

    public static Task<HttpResponseMessage> Put(this HttpClient browser, string path, object body) =>
        browser.PutAsync(path, JsonContent.Create(body, body.GetType(), options: Json));

    /// <summary>The fields a refusal names, checking that it is a proper problem document.</summary>
    public static async Task<IReadOnlyList<string>> RefusedFields(
        this Task<HttpResponseMessage> asking,
        HttpStatusCode status
    )
    {
        var answer = await asking;
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.StatusCode == status, $"{answer.StatusCode}: {text}");
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
        using var problem = System.Text.Json.JsonDocument.Parse(text);
        Assert.False(string.IsNullOrWhiteSpace(problem.RootElement.GetProperty("title").GetString()));
        return problem.RootElement.TryGetProperty("errors", out var errors)
            ? [.. errors.EnumerateArray().Select(e => e.GetProperty("field").GetString()!)]
            : [];
    }
}
