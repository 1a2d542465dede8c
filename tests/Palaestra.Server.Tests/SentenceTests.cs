using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>A clinic writes sentences of letters and home programmes its own way, and sees them where a client reads them.</summary>
public sealed class SentenceTests(DemoServer demo) : IClassFixture<DemoServer>
{
    private const string Path = "/api/clinic/sentences";

    [Fact]
    public async Task All_of_letters_and_home_programmes_are_listed_with_an_example()
    {
        var list = await List(await demo.SignedIn());
        Assert.Contains(list, s => Id(s) == "letter.plan" && On(s) == "letter");
        Assert.Contains(list, s => Id(s) == "sheet.line" && On(s) == "home");
        // A refusal of the letter's form is not a sentence of the letter.
        Assert.DoesNotContain(list, s => Id(s) == "letter.heading");
        Assert.All(list, s => Assert.NotEqual("", s!["example"]!.GetValue<string>()));
    }

    [Fact]
    public async Task A_sentence_is_shown_for_a_client_kept_said_and_taken_back()
    {
        var browser = await demo.SignedIn();
        var ours = (await One(browser, "letter.plan"))["text"]!.GetValue<string>();
        const string mine = "At home, {{ minutes | num: 0 }} minutes daily: {{ exercises | join: \", \" }}.";

        var preview = await Json(
            await browser.PostAsJsonAsync($"{Path}/letter.plan/preview", new { text = mine })
        );
        Assert.NotNull(preview["client"]);
        Assert.StartsWith("At home, ", preview["lines"]![0]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Equal(ours, (await One(browser, "letter.plan"))["text"]!.GetValue<string>());

        var kept = await Json(
            await browser.PutAsJsonAsync($"{Path}/letter.plan", new { text = mine, version = 0 })
        );
        Assert.Equal(1, kept["version"]!.GetValue<int>());
        Assert.Contains("At home, ", await ALetter(browser), StringComparison.Ordinal);
        using var late = await browser.PutAsJsonAsync(
            $"{Path}/letter.plan",
            new { text = mine, version = 0 }
        );
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);

        using var gone = await browser.DeleteAsync($"{Path}/letter.plan");
        Assert.Equal(HttpStatusCode.NoContent, gone.StatusCode);
        Assert.DoesNotContain("At home, ", await ALetter(browser), StringComparison.Ordinal);
    }

    /// <summary>The home programme too, and a sentence that nobody's says at present with made-up values.</summary>
    [Fact]
    public async Task What_a_client_takes_home_is_shown_as_well()
    {
        var browser = await demo.SignedIn();
        var home = await Json(
            await browser.PostAsJsonAsync(
                $"{Path}/sheet.feel/preview",
                new { text = "Feel it here: {{ place }}" }
            )
        );
        Assert.NotNull(home["client"]);
        Assert.All(
            home["lines"]!.AsArray(),
            line => Assert.StartsWith("Feel it here: ", line!.GetValue<string>(), StringComparison.Ordinal)
        );
        var page = await Json(
            await browser.PostAsJsonAsync(
                $"{Path}/sheet.page/preview",
                new { text = "{{ owner }}, {{ page }}" }
            )
        );
        Assert.Null(page["client"]);
        Assert.Single(page["lines"]!.AsArray());
    }

    [Theory]
    [InlineData("About {{ minutes ", "1:")]
    [InlineData("{% if minutes %}daily", "")]
    [InlineData("About {{ hours }} hours", "hours")]
    [InlineData("About {{ minutes | rounded }}", "rounded")]
    [InlineData("{% for i in (1..100000000) %}x{% endfor %}{{ minutes }}", "range")]
    [InlineData("{{ minutes | date }}", "DateOnly")]
    [InlineData("  ", "sentence")]
    public async Task One_that_cannot_be_said_is_refused_with_why_and_nothing_is_lost(
        string text,
        string says
    )
    {
        var browser = await demo.SignedIn();
        foreach (
            var answer in new[]
            {
                await browser.PutAsJsonAsync($"{Path}/letter.plan", new { text, version = 0 }),
                await browser.PostAsJsonAsync($"{Path}/letter.plan/preview", new { text }),
            }
        )
        {
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            var error = (await Read(answer))["errors"]![0]!;
            Assert.Equal("text", error["field"]!.GetValue<string>());
            Assert.Contains(says, error["message"]!.GetValue<string>(), StringComparison.Ordinal);
        }
        Assert.Equal(0, (await One(browser, "letter.plan"))["version"]!.GetValue<int>());
    }

    [Theory]
    [InlineData("letter.heading")]
    [InlineData("pile.flag")]
    [InlineData("nothing")]
    public async Task Others_are_not_the_clinic_s_to_write(string id)
    {
        var browser = await demo.SignedIn();
        using var answer = await browser.PutAsJsonAsync($"{Path}/{id}", new { text = "x", version = 0 });
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
    }

    /// <summary>What the page prints is what the PDF says, a line each.</summary>
    [Fact]
    public async Task The_page_and_the_PDF_of_a_home_programme_say_the_same()
    {
        var browser = await demo.SignedIn();
        var episode = await AnEpisodeWithAPlan(browser);
        var sheet = await Json(await browser.GetAsync($"/api/episodes/{episode}/sheet"));
        var pdf = await browser.GetByteArrayAsync($"/api/episodes/{episode}/sheet.pdf");
        using var read = UglyToad.PdfPig.PdfDocument.Open(pdf);
        // In the order in which it is read to somebody: a line is never broken by what stands beside it.
        var words = Squeezed(string.Concat(read.GetPages().Select(page => page.Text)));
        var lines = sheet["exercises"]!
            .AsArray()
            .SelectMany(exercise =>
                exercise!["lines"]!
                    .AsArray()
                    .Concat(exercise["changes"]!.AsArray())
                    .Concat(exercise["doses"]!.AsArray().Select(dose => dose!["written"]))
                    .Append(exercise["feel"])
                    .Append(exercise["notFeel"])
            )
            .Append(sheet["line"])
            .Append(sheet["stop"])
            .Append(sheet["pain"]);
        Assert.All(
            lines,
            line => Assert.Contains(Squeezed(line!.GetValue<string>()), words, StringComparison.Ordinal)
        );
    }

    private static string Squeezed(string text) => string.Concat(text.Where(c => char.IsLetterOrDigit(c)));

    private static async Task<string> AnEpisodeWithAPlan(HttpClient browser)
    {
        foreach (var episode in await Episodes(browser))
        {
            using var answer = await browser.GetAsync($"/api/episodes/{episode}/sheet");
            if (answer.IsSuccessStatusCode)
            {
                return episode;
            }
        }
        throw new InvalidOperationException("The demo has no plan.");
    }

    private static async Task<IEnumerable<string>> Episodes(HttpClient browser)
    {
        var day = await Json(await browser.GetAsync("/api/day"));
        return day["visits"]!
            .AsArray()
            .Concat(day["others"]!.AsArray())
            .Select(line => line!["episodeId"]!.GetValue<string>());
    }

    /// <summary>Of the client whose letter tells of a plan.</summary>
    private static async Task<string> ALetter(HttpClient browser)
    {
        var episode = await AnEpisodeWithAPlan(browser);
        var view = await Json(await browser.GetAsync($"/api/episodes/{episode}"));
        var visit = view["visits"]!.AsArray().Last(v => v!["state"]!.GetValue<string>() == "done")![
            "id"
        ]!.GetValue<string>();
        return (await Json(await browser.GetAsync($"/api/visits/{visit}/letter")))["fresh"]!.ToJsonString();
    }

    private static string Id(JsonNode? sentence) => sentence!["id"]!.GetValue<string>();

    private static string On(JsonNode? sentence) => sentence!["on"]!.GetValue<string>();

    private static async Task<JsonArray> List(HttpClient browser) =>
        (await browser.GetFromJsonAsync<JsonArray>(Path))!;

    private static async Task<JsonNode> One(HttpClient browser, string id) =>
        (await List(browser)).Single(sentence => Id(sentence) == id)!;

    private static async Task<JsonNode> Read(HttpResponseMessage answer) =>
        JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;

    private static async Task<JsonNode> Json(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonNode.Parse(text)!;
    }
}
