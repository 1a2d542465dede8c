using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Palaestra.Core.Capture;
using Palaestra.Server.Planning;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>
/// Thousands of requests that nobody should send, made from the API description: none is answered by a fault of the server, and each
/// refusal says what is wrong and, where it lies in what was sent, at which field.
/// </summary>
public sealed class FuzzTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private static readonly int Requests = Environment.GetEnvironmentVariable("PALAESTRA_SOAK") is null
        ? 1500
        : 10_000;

    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await one.Running.SignedIn();
        clinic = new(browser);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<AnyRequest> Requesting(int seed)
    {
        var description = JsonNode.Parse(await browser.GetStringAsync("/openapi/v1.json"))!.AsObject();
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        var plan = (await clinic.AcceptProposal(opened)).Plan;
        var later = await clinic.Book(opened.EpisodeId);
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders.First(l => l.Screened).Rungs[0];
        var trial = clinic.Trial(rung, Side.Left, rung.Start, 3, 1);
        JsonNode Node(object value) =>
            JsonSerializer.SerializeToNode(value, value.GetType(), CoreJson.Options)!;
        JsonNode Example(string name) =>
            JsonNode.Parse(
                File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "examples", $"{name}.json"))
            )!;
        var right = new Dictionary<string, JsonNode>
        {
            ["POST /api/clients"] = Node(Clinic.Form()),
            ["PUT /api/episodes/{id}/intake"] = Node(Clinic.Form()),
            ["POST /api/visits/{visitId}/events"] = new JsonObject
            {
                ["events"] = Node(trial.Select(e => (CaptureEvent)e).ToList()),
            },
            ["POST /api/episodes/{id}/plan/weigh"] = new JsonObject { ["plan"] = Node(plan) },
        };
        foreach (var name in new[] { "fold", "load", "findings", "plan", "decide" })
        {
            if (File.Exists(Path.Combine(AppContext.BaseDirectory, "examples", $"{name}.json")))
            {
                right[$"POST /api/compute/{name}"] = Example(name);
            }
        }
        var known = new Dictionary<string, string[]>
        {
            [""] = [$"{opened.VisitId}", $"{later.Id}", $"{opened.EpisodeId}", $"{plan.Items[0].Id}"],
            ["visitId"] = [$"{opened.VisitId}", $"{later.Id}"],
            ["episodeId"] = [$"{opened.EpisodeId}"],
            ["planItemId"] = [.. plan.Items.Select(i => $"{i.Id}")],
            ["trialId"] = [$"{trial[0].TrialId}"],
            ["rungId"] = [.. library.Ladders.SelectMany(l => l.Rungs).Select(r => r.Id).Take(12), "N1"],
            ["policyId"] = [.. library.Policies.Select(p => p.Id)],
            ["fault"] = [.. library.Faults.Select(f => f.Code).Take(6)],
            ["device"] = ["tilt-1"],
        };
        return new AnyRequest(description, known, right, new Random(seed));
    }

    private async Task<string?> Wrong(Asked asked)
    {
        using var request = new HttpRequestMessage(new(asked.Method), asked.Address);
        if (asked.Body is { } body)
        {
            request.Content = new StringContent(body, Encoding.UTF8, "application/json");
        }
        // A stream does not end; its head is answer enough.
        using var answer = await browser.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        var status = (int)answer.StatusCode;
        if (status < 400)
        {
            return null;
        }
        var text = await answer.Content.ReadAsStringAsync();
        string Told(string what) => $"{status} {what}: {asked}\n{text}";
        if (status >= 500)
        {
            return Told("a fault of the server");
        }
        var media = answer.Content.Headers.ContentType?.MediaType;
        if (asked.Address.StartsWith("/home/", StringComparison.Ordinal) && media == "text/html")
        {
            // A client reads it.
            return text.Contains("<h1>", StringComparison.Ordinal) ? null : Told("a page that says nothing");
        }
        if (media != "application/problem+json")
        {
            return Told("no problem document");
        }
        var problem = JsonNode.Parse(text)!;
        if (!Sentence(problem["title"]))
        {
            return Told("no sentence");
        }
        var fields = problem["errors"]?.AsArray();
        return status is not (400 or 422) ? null
            : fields is not { Count: > 0 } ? Told("no field")
            : fields.All(f => !string.IsNullOrWhiteSpace(f!["field"]?.ToString()) && Sentence(f["message"]))
                ? null
            : Told("a field without a sentence");
    }

    /// <summary>Several words that end as sentences do.</summary>
    private static bool Sentence(JsonNode? words) =>
        words?.ToString() is { Length: > 8 } text && text.Contains(' ') && text[^1] is '.' or '?' or '!';

    [Fact]
    public async Task No_request_is_a_fault_of_the_server_and_every_refusal_says_why()
    {
        var any = await Requesting(17);
        var wrong = new List<string>();
        for (var i = 0; i < Requests; i++)
        {
            if (await Wrong(any.Next()) is { } told)
            {
                wrong.Add(told);
            }
        }
        Assert.True(wrong.Count == 0, Words(wrong));
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/health")).StatusCode);
    }

    [Fact]
    public async Task Nothing_at_any_place_of_any_body_is_a_fault_of_the_server()
    {
        var any = await Requesting(18);
        var wrong = new List<string>();
        foreach (
            var asked in any
                .Operations.Where(o => o.Operation["requestBody"] is not null)
                .SelectMany(any.NullSweep)
        )
        {
            if (await Wrong(asked) is { } told)
            {
                wrong.Add(told);
            }
        }
        Assert.True(wrong.Count == 0, Words(wrong));
    }

    private static string Words(List<string> wrong) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{wrong.Count} of them:\n{string.Join("\n\n", wrong.DistinctBy(w => w[..Math.Min(w.Length, 70)]).Take(25).Select(w => w[..Math.Min(w.Length, 700)]))}"
        );
}
