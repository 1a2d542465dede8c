using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Palaestra.Core.Planning;
using Palaestra.Server.Compute;
using Palaestra.Server.Library;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>What outside checks and other systems rely on.</summary>
public sealed class ContractTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private RunningServer Server => one.Running;
    private HttpClient browser = null!;

    public async ValueTask InitializeAsync() => browser = await Server.SignedIn();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    [Fact]
    public async Task Health_answers_when_the_database_does() =>
        Assert.Equal(HttpStatusCode.OK, (await Server.Browser().GetAsync("/health")).StatusCode);

    [Fact]
    public async Task The_description_in_the_repository_is_the_one_served()
    {
        var served = JsonNode.Parse(await browser.GetStringAsync("/openapi/v1.json"))!.AsObject();
        var kept = JsonNode.Parse(File.ReadAllText(InOutput("openapi", "Palaestra.Server.json")))!.AsObject();
        // The address of the running server is the one thing that may differ.
        served.Remove("servers");
        kept.Remove("servers");
        Assert.True(JsonNode.DeepEquals(kept, served), "Run ./palaestra generate and commit.");
    }

    [Fact]
    public void Every_operation_says_what_it_does_in_a_sentence_of_its_own_and_how_it_refuses()
    {
        var paths = JsonNode.Parse(File.ReadAllText(InOutput("openapi", "Palaestra.Server.json")))!["paths"]!;
        var operations = paths
            .AsObject()
            .SelectMany(path => path.Value!.AsObject().Select(o => (path.Key, Said: o.Value!)))
            .ToList();
        Assert.All(operations, o => Assert.Matches(@"^\p{Lu}.{8,}\.$", o.Said["summary"]?.ToString()));
        Assert.Equal(
            operations.Count,
            operations.Select(o => o.Said["summary"]!.ToString()).Distinct().Count()
        );
        // What anybody may ask and takes nothing has no reason to refuse.
        var refusing = operations.Where(o => o.Key != "/api/start").ToList();
        Assert.All(refusing, o => Assert.Contains(o.Said["responses"]!.AsObject(), r => r.Key[0] == '4'));
        Assert.All(
            operations.Where(o => o.Said["requestBody"] is not null),
            o => Assert.Contains(o.Said["responses"]!.AsObject(), r => r.Key == "422")
        );
    }

    [Theory]
    [InlineData("GET", "/api/nowhere", null, 404)]
    [InlineData("GET", "/api/episodes/no-id", null, 404)]
    [InlineData("PATCH", "/api/day", null, 405)]
    [InlineData(
        "POST",
        "/api/visits/00000000-0000-0000-0000-000000000000/trials/00000000-0000-0000-0000-000000000000/photos",
        "application/json",
        415
    )]
    [InlineData("POST", "/api/compute/decide", "text/plain", 415)]
    [InlineData("GET", "/assets/gone.js", null, 404)]
    public async Task What_is_not_there_is_told_from_what_is_asked_otherwise(
        string method,
        string address,
        string? type,
        int status
    )
    {
        using var request = new HttpRequestMessage(new(method), address);
        if (type is not null)
        {
            request.Content = new StringContent("{}", System.Text.Encoding.UTF8, type);
        }
        var answer = await browser.SendAsync(request);
        Assert.Equal(status, (int)answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType?.MediaType);
    }

    [Fact]
    public async Task A_missing_file_of_the_client_is_missing_for_whoever_is_not_signed_in_too() =>
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await Server.Browser().GetAsync("/assets/gone.js")).StatusCode
        );

    [Fact]
    public async Task The_api_can_be_read_as_a_page_that_lets_no_other_script_run()
    {
        var answer = await Server.Browser().GetAsync("/docs/api/");
        var policy = string.Join(' ', answer.Headers.GetValues("Content-Security-Policy"));
        var nonce = System.Text.RegularExpressions.Regex.Match(policy, "'nonce-([^']+)'").Groups[1].Value;
        Assert.NotEmpty(nonce);
        Assert.DoesNotContain("script-src 'self' 'unsafe-inline'", policy, StringComparison.Ordinal);
        var page = WebUtility.HtmlDecode(await answer.Content.ReadAsStringAsync());
        Assert.Contains($"nonce=\"{nonce}\"", page, StringComparison.Ordinal);
        Assert.DoesNotContain("https://", page, StringComparison.Ordinal);
        var other = await Server.Browser().GetAsync("/");
        Assert.DoesNotContain(
            "nonce",
            string.Join(' ', other.Headers.GetValues("Content-Security-Policy")),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void The_content_schemas_in_the_repository_are_those_of_the_code() =>
        Assert.All(
            SchemaWriter.Schemas(),
            schema =>
                Assert.Equal(schema.Text, File.ReadAllText(InOutput("schemas", $"{schema.Name}.schema.json")))
        );

    private static string InOutput(params string[] parts) =>
        Path.Combine([AppContext.BaseDirectory, .. parts]);

    private static JsonObject Example(string name) =>
        JsonNode.Parse(File.ReadAllText(InOutput("examples", $"{name}.json")))!.AsObject();

    private Task<HttpResponseMessage> Ask(string what, JsonNode body) =>
        browser.PostAsync(
            $"/api/compute/{what}",
            new StringContent(body.ToJsonString(), System.Text.Encoding.UTF8, "application/json")
        );

    [Fact]
    public async Task The_examples_of_the_api_page_work_and_chain()
    {
        var load = await Ask("load", Example("load")).Ok<Core.Library.LoadAnswer>();
        Assert.Equal(Core.Terms.Direction.Front, load.Directions[0].Direction);

        var findings = await Ask("findings", Example("findings")).Ok<Core.Findings.ScreenFindings>();
        Assert.Equal(
            "B5",
            findings.Entries.First(e => e is { LadderId: "B", Side: Core.Terms.Side.Left }).EntryRungId
        );

        var question = Example("plan");
        question["findings"] = JsonSerializer.SerializeToNode(findings, CoreJson.Options);
        var plan = await Ask("plan", question).Ok<PlanProposal>();
        Assert.Contains(plan.Plan.Items, item => item.RungId == "B5");

        var decided = await Ask("decide", Example("decide")).Ok<DecideAnswer>();
        Assert.Equal(["D-MASTER", "D-MASTER"], decided.Decisions.Select(d => d.RuleId));
        Assert.Equal("B6", Assert.Single(decided.NextPlan.Items).RungId);

        var photo = await Ask("photo", Example("photo")).Ok<PhotoAnswer>();
        // Thirty pixels down over a hundred and fifty along: 11.3 degrees.
        Assert.Equal(Core.Photos.PhotoAngleKind.PelvicTilt, photo.Angles[0].Kind);
        Assert.Equal(11.3099, photo.Angles[0].Degrees, 4);
    }

    [Fact]
    public async Task The_same_question_gives_the_same_answer_and_stores_nothing()
    {
        var one = await (await Ask("findings", Example("findings"))).Content.ReadAsStringAsync();
        var two = await (await Ask("findings", Example("findings"))).Content.ReadAsStringAsync();
        Assert.Equal(one, two);
        Assert.Empty((await browser.Get<Day.DayView>("/api/day")).Visits);
    }

    [Theory]
    [InlineData("findings", "profile.pain.now", "99", HttpStatusCode.UnprocessableEntity, "profile.pain.now")]
    [InlineData("findings", "policyId", "\"x\"", HttpStatusCode.UnprocessableEntity, "policyId")]
    [InlineData("photo", "points[1].at.x", "1e6", HttpStatusCode.UnprocessableEntity, "points[1].at")]
    [InlineData("photo", "view", "\"above\"", HttpStatusCode.BadRequest, "view")]
    [InlineData("findings", "events", "\"x\"", HttpStatusCode.BadRequest, "events")]
    [InlineData(
        "decide",
        "input.items[0].rungId",
        "\"Q9\"",
        HttpStatusCode.UnprocessableEntity,
        "input.items[0].rungId"
    )]
    [InlineData(
        "decide",
        "input.visits[0].rungId",
        "\"Q9\"",
        HttpStatusCode.UnprocessableEntity,
        "input.visits[0].rungId"
    )]
    [InlineData(
        "decide",
        "input.checkIn.painNow",
        "-4",
        HttpStatusCode.UnprocessableEntity,
        "input.checkIn.painNow"
    )]
    [InlineData(
        "decide",
        "input.items[0].doses[0].dose.hold",
        "-1",
        HttpStatusCode.UnprocessableEntity,
        "input.items[0].doses[0].dose.hold"
    )]
    public async Task A_wrong_question_names_its_field(
        string what,
        string path,
        string value,
        HttpStatusCode status,
        string named
    )
    {
        var body = Example(what);
        JsonNode at = body;
        var parts = path.Replace("[", ".", StringComparison.Ordinal)
            .Replace("]", "", StringComparison.Ordinal)
            .Split('.');
        foreach (var part in parts[..^1])
        {
            at = int.TryParse(part, out var index) ? at[index]! : at[part]!;
        }
        at[parts[^1]] = JsonNode.Parse(value);
        Assert.Contains(named, await Ask(what, body).RefusedFields(status));
    }

    [Theory]
    [InlineData("B5", "left", HttpStatusCode.OK)]
    [InlineData("B5", "sideways", HttpStatusCode.BadRequest)]
    [InlineData("Y5", "left", HttpStatusCode.NotFound)]
    public async Task Drawings_answer_by_rung_and_side(string rung, string side, HttpStatusCode status) =>
        Assert.Equal(
            status,
            (await browser.GetAsync($"/api/figures/{rung}?side={side}&frame=end")).StatusCode
        );
}
