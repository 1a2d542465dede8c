using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;
using Palaestra.Core.Capture;
using Palaestra.Server.Day;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

public sealed class BadInputTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private RunningServer Server => one.Running;
    private HttpClient browser = null!;

    public async ValueTask InitializeAsync() => browser = await Server.SignedIn();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static StringContent Json(string text) => new(text, Encoding.UTF8, "application/json");

    private static JsonObject Form() =>
        System.Text.Json.JsonSerializer.SerializeToNode(Clinic.Form(), CoreJson.Options)!.AsObject();

    public static TheoryData<string, string, HttpStatusCode, string> Wrongs =>
        new()
        {
            { "pain.now", "11", HttpStatusCode.UnprocessableEntity, "pain.now" },
            { "pain.worst", "-1", HttpStatusCode.UnprocessableEntity, "pain.worst" },
            { "pain.now", "\"much\"", HttpStatusCode.BadRequest, "pain.now" },
            { "pain.now", "3.5", HttpStatusCode.BadRequest, "pain.now" },
            { "heightCm", "1700", HttpStatusCode.UnprocessableEntity, "heightCm" },
            { "heightCm", "\"tall\"", HttpStatusCode.BadRequest, "heightCm" },
            { "massKg", "0", HttpStatusCode.UnprocessableEntity, "massKg" },
            { "settleHours", "-2", HttpStatusCode.UnprocessableEntity, "settleHours" },
            { "birthDate", "\"2199-01-01\"", HttpStatusCode.UnprocessableEntity, "birthDate" },
            { "birthDate", "\"yesterday\"", HttpStatusCode.BadRequest, "birthDate" },
            { "name", "\"\"", HttpStatusCode.UnprocessableEntity, "name" },
            { "sex", "\"robot\"", HttpStatusCode.BadRequest, "sex" },
            { "sex", "1", HttpStatusCode.BadRequest, "sex" },
            { "policyId", "\"none\"", HttpStatusCode.UnprocessableEntity, "policyId" },
            {
                "precautions",
                "[{\"id\":\"hiccups\"}]",
                HttpStatusCode.UnprocessableEntity,
                "precautions[0].id"
            },
            { "dangerSigns", "[\"grumpy\"]", HttpStatusCode.UnprocessableEntity, "dangerSigns[0]" },
            { "shoeSize", "44", HttpStatusCode.BadRequest, "shoeSize" },
        };

    [Theory]
    [MemberData(nameof(Wrongs))]
    public async Task A_wrong_field_is_named_and_nothing_is_stored(
        string field,
        string value,
        HttpStatusCode status,
        string named
    )
    {
        var before = (await browser.Get<DayView>("/api/day")).Visits.Count;
        var form = Form();
        var parts = field.Split('.');
        var owner = parts.Length == 1 ? form : form[parts[0]]!.AsObject();
        owner[parts[^1]] = JsonNode.Parse(value);
        var fields = await browser.PostAsync("/api/clients", Json(form.ToJsonString())).RefusedFields(status);
        Assert.Contains(named, fields);
        Assert.Equal(before, (await browser.Get<DayView>("/api/day")).Visits.Count);
    }

    /// <summary>A path into the input of docs/examples/decide.json, what is put there, and the field that is named.</summary>
    public static TheoryData<string, string, string> WrongDecisions =>
        new()
        {
            { "visits[0].sets[0].cleanReps", "99", "cleanReps" },
            { "visits[0].sets[0].painPeak", "11", "painPeak" },
            { "visits[0].sets[0].tremor", "1.2", "tremor" },
            { "visits[0].sets[0].felt", "\"left ear\"", "felt" },
            { "visits[0].date", "\"2026-04-30\"", "date" },
            { "visits[0].side", "\"right\"", "side" },
            { "items[0].doses[0].dose.range", "1.4", "range" },
            { "items[0].doses[0].dose.load", "-2", "load" },
            { "checkIn.painNow", "12", "painNow" },
            { "checkIn.lastTrained", "\"2026-04-30\"", "lastTrained" },
            { "visits[0].sets[0]", "null", "sets[0]" },
            { "items[0].doses[1]", "null", "doses[1]" },
            { "profile.precautions[0]", "null", "precautions[0]" },
            { "checkIn.dangerSigns", "[null]", "dangerSigns[0]" },
            { "profile.pain.worst", "1", "worst" },
        };

    [Theory]
    [MemberData(nameof(WrongDecisions))]
    public async Task What_cannot_be_true_of_work_is_refused_with_its_field(
        string path,
        string value,
        string named
    )
    {
        var asked = JsonNode.Parse(
            await File.ReadAllTextAsync(Path.Combine(AppContext.BaseDirectory, "examples", "decide.json"))
        )!;
        JsonNode at = asked["input"]!;
        var steps = path.Replace("[", ".", StringComparison.Ordinal)
            .Replace("]", "", StringComparison.Ordinal)
            .Split('.');
        JsonNode Step(JsonNode node, string step) => int.TryParse(step, out var i) ? node[i]! : node[step]!;
        foreach (var step in steps.SkipLast(1))
        {
            at = Step(at, step);
        }
        if (int.TryParse(steps[^1], out var index))
        {
            at[index] = JsonNode.Parse(value);
        }
        else
        {
            at[steps[^1]] = JsonNode.Parse(value);
        }
        var answer = await browser.PostAsync("/api/compute/decide", Json(asked.ToJsonString()));
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True((int)answer.StatusCode is 400 or 422, $"{answer.StatusCode}: {text}");
        var fields = await Task.FromResult(answer).RefusedFields(answer.StatusCode);
        Assert.Contains(fields, field => field.Contains(named, StringComparison.Ordinal));
    }

    [Fact]
    public async Task Two_answers_to_how_it_settled_that_contradict_each_other_are_refused()
    {
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var fields = await browser
            .PutAsync(
                $"/api/visits/{opened.VisitId}/check-in",
                Json(
                    """{"version":0,"checkIn":{"painNow":2,"usualPain":2,"nextDayPain":null,"settledHours":30,"settled":"within-an-hour","dangerSigns":[]}}"""
                )
            )
            .RefusedFields(HttpStatusCode.UnprocessableEntity);
        Assert.Contains("checkIn.settledHours", fields);
    }

    [Fact]
    public async Task An_over_long_name_is_refused()
    {
        var form = Clinic.Form() with { Name = new string('n', 5000) };
        Assert.Contains(
            "name",
            await browser.Post("/api/clients", form).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task A_missing_field_is_named()
    {
        var form = Form();
        form.Remove("complaint");
        var answer = await browser.PostAsync("/api/clients", Json(form.ToJsonString()));
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("complaint", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("{")]
    [InlineData("[]")]
    [InlineData("")]
    [InlineData("null")]
    public async Task Broken_json_is_a_client_error(string text)
    {
        var answer = await browser.PostAsync("/api/clients", Json(text));
        Assert.InRange((int)answer.StatusCode, 400, 499);
    }

    [Fact]
    public async Task Ten_megabytes_are_refused_with_a_sentence()
    {
        var big = new ByteArrayContent(new byte[10_000_000]);
        big.Headers.ContentType = new MediaTypeHeaderValue("application/json");
        try
        {
            var answer = await browser.PostAsync($"/api/visits/{Guid.NewGuid()}/events", big);
            Assert.Equal(HttpStatusCode.RequestEntityTooLarge, answer.StatusCode);
        }
        catch (HttpRequestException)
        {
            // The server may close the connection while the rest is still being sent: refused all the same.
        }
        Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync("/health")).StatusCode);
    }

    [Fact]
    public async Task An_event_of_another_clients_visit_is_refused_and_nothing_of_its_batch_stored()
    {
        var clinic = new Clinic(browser);
        var one = await clinic.NewClient();
        var other = await clinic.NewClient();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders.First(l => l.Screened).Rungs[0];
        var events = clinic.Trial(rung, Side.Left, rung.Start, 3, 0);
        await clinic.Send(one.VisitId, events).Ok<EventsTaken>();
        var foreign = events[^1] with { Id = Guid.CreateVersion7() };
        List<CaptureEvent> batch = [.. clinic.Trial(rung, Side.Right, rung.Start, 3, 0), foreign];
        var fields = await clinic
            .Send(other.VisitId, batch)
            .RefusedFields(HttpStatusCode.UnprocessableEntity);
        Assert.Contains($"events[{batch.Count - 1}].trialId", fields);
        Assert.Empty((await browser.Get<VisitEvents>($"/api/visits/{other.VisitId}/events")).Events);
    }

    [Fact]
    public async Task An_unknown_address_is_a_problem_document_too() =>
        Assert.Empty(await browser.GetAsync("/api/nowhere").RefusedFields(HttpStatusCode.NotFound));
}
