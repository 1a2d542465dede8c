using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Palaestra.Data;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The API says everything in words, as it did before, and tells beside them what it is; what comes back is stored without words.</summary>
public sealed class SaidTests(OneServer one) : IClassFixture<OneServer>
{
    [Fact]
    public async Task Reasons_have_id_and_values_beside_their_words()
    {
        var (_, plan) = await Proposed(await one.Running.SignedIn());
        var reason = plan["items"]!.AsArray().SelectMany(item => item!["reasons"]!.AsArray()).First()!;
        Assert.Equal(JsonValueKind.String, reason["words"]!.GetValueKind());
        Assert.Contains('.', reason["id"]!.GetValue<string>());
        Assert.Equal(JsonValueKind.Object, reason["values"]!.GetValueKind());
    }

    [Fact]
    public async Task A_plan_that_is_sent_back_is_stored_without_words_and_told_the_same()
    {
        var browser = await one.Running.SignedIn();
        var (at, plan) = await Proposed(browser);
        var visit = at.Visit;
        var accepted = await Json(
            await browser.PostAsync(
                $"{at.Path}/plans",
                Body(
                    new JsonObject
                    {
                        ["plan"] = Form(plan),
                        ["visitId"] = visit,
                        ["basedOn"] = 0,
                    }
                )
            )
        );
        var told = accepted["plan"]!["items"]![0]!;
        Assert.Equal(plan["items"]![0]!["reasons"]!.ToJsonString(), told["reasons"]!.ToJsonString());
        Assert.Equal(plan["items"]![0]!["for"]!.ToJsonString(), told["for"]!.ToJsonString());
        var stored = JsonNode.Parse(Stored())!["items"]![0]!;
        Assert.Equal(JsonValueKind.Object, stored["for"]!.GetValueKind());
        Assert.All(
            stored["reasons"]!.AsArray(),
            reason => Assert.Equal(JsonValueKind.Object, reason!["words"]!.GetValueKind())
        );
    }

    [Fact]
    public async Task Id_and_values_are_read_in_any_order_and_nonsense_beside_the_words_loses_nothing()
    {
        var browser = await one.Running.SignedIn();
        var (at, plan) = await Proposed(browser);
        var reason = plan["items"]![0]!["reasons"]![0]!.AsObject();
        var (id, values) = (reason["id"]!.DeepClone(), reason["values"]!.DeepClone());
        reason.Remove("id");
        reason.Remove("values");
        reason.Insert(0, "values", values);
        reason.Insert(0, "id", id);
        plan["items"]![0]!["forSaid"] = null;
        await Json(
            await browser.PostAsync(
                $"{at.Path}/plans",
                Body(
                    new JsonObject
                    {
                        ["plan"] = Form(plan),
                        ["visitId"] = at.Visit,
                        ["basedOn"] = 0,
                    }
                )
            )
        );
        var stored = JsonNode.Parse(Stored())!["items"]![0]!;
        Assert.Equal(id.GetValue<string>(), stored["reasons"]![0]!["words"]!["id"]!.GetValue<string>());
        // Without an id the words themselves are kept.
        Assert.Equal(plan["items"]![0]!["for"]!.GetValue<string>(), stored["for"]!.GetValue<string>());
    }

    /// <summary>Words that somebody changed stand; what is sent beside them says otherwise.</summary>
    [Fact]
    public async Task Changed_words_stand_and_what_is_beside_them_is_no_more()
    {
        var browser = await one.Running.SignedIn();
        var (at, plan) = await Proposed(browser);
        var item = plan["items"]![0]!;
        item["for"] = "what the client asked for";
        item["notes"] = new JsonArray("My own note.", "Less: 5 reps.");
        item["notesSaid"] = new JsonArray(
            null,
            JsonNode.Parse("""{"id":"ease.less","values":{"dose":"5 reps"}}""")
        );
        await Accept(browser, at, plan);
        var stored = JsonNode.Parse(Stored())!["items"]![0]!;
        Assert.Equal("what the client asked for", stored["for"]!.GetValue<string>());
        Assert.Equal("My own note.", stored["notes"]![0]!.GetValue<string>());
        Assert.Equal("ease.less", stored["notes"]![1]!["id"]!.GetValue<string>());
    }

    /// <summary>Nothing that is sent makes a record that cannot be read again.</summary>
    [Theory]
    [InlineData("""{"id":"flare.taken-back","values":{"on":"nonsense"}}""")]
    [InlineData("""{"id":"leg.memory","values":{"sides":1,"visits":1e300}}""")]
    [InlineData("""{"id":"plain","values":{}}""")]
    [InlineData("""{"id":"no-such-sentence","values":{"a":[[[1]]]}}""")]
    public async Task Nonsense_beside_the_words_leaves_the_words(string said)
    {
        var browser = await one.Running.SignedIn();
        var (at, plan) = await Proposed(browser);
        var words = plan["items"]![0]!["for"]!.GetValue<string>();
        plan["items"]![0]!["forSaid"] = JsonNode.Parse(said);
        var accepted = await Accept(browser, at, plan);
        Assert.Equal(words, accepted["plan"]!["items"]![0]!["for"]!.GetValue<string>());
        var again = await Json(await browser.GetAsync($"{at.Path}/plan"));
        Assert.Equal(words, again["revisions"]![0]!["plan"]!["items"]![0]!["for"]!.GetValue<string>());
    }

    /// <summary>As the version before stored what wants a decision.</summary>
    [Theory]
    [InlineData("A session is done and nothing is decided.")]
    [InlineData("{weeks} weeks since the last screen.")]
    [InlineData("“Numb” he said.")]
    [InlineData("\"Numb\" he said.")]
    public async Task A_row_of_the_day_from_before_is_told_as_it_was_written(string before)
    {
        var browser = await one.Running.SignedIn();
        var opened = await new Clinic(browser).NewClient(
            Clinic.Form() with
            {
                DangerSigns = ["saddle-numbness"],
            }
        );
        await Json(await browser.GetAsync("/api/day"));
        using (var db = new SqliteConnection(Store.ConnectionString(one.Running.Folder)))
        {
            db.Open();
            using var write = db.CreateCommand();
            write.CommandText = "UPDATE Pile SET What = $what WHERE EpisodeId = $id";
            write.Parameters.AddWithValue("$what", before);
            write.Parameters.AddWithValue("$id", opened.EpisodeId.ToString().ToUpperInvariant());
            Assert.Equal(1, write.ExecuteNonQuery());
        }
        var day = await Json(await browser.GetAsync("/api/day"));
        var mine = day["pile"]!
            .AsArray()
            .Single(row => row!["episodeId"]!.GetValue<Guid>() == opened.EpisodeId)!;
        Assert.Equal(before, mine["what"]!.GetValue<string>());
    }

    private static async Task<JsonNode> Accept(
        HttpClient browser,
        (string Path, string Visit) at,
        JsonNode plan
    ) =>
        await Json(
            await browser.PostAsync(
                $"{at.Path}/plans",
                Body(
                    new JsonObject
                    {
                        ["plan"] = Form(plan),
                        ["visitId"] = at.Visit,
                        ["basedOn"] = 0,
                    }
                )
            )
        );

    private static async Task<((string Path, string Visit) At, JsonNode Plan)> Proposed(HttpClient browser)
    {
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 2);
        var path = $"/api/episodes/{opened.EpisodeId}";
        var view = await Json(await browser.GetAsync($"{path}/plan"));
        return ((path, opened.VisitId.ToString()), view["proposal"]!["plan"]!.DeepClone());
    }

    private static JsonObject Form(JsonNode plan) =>
        new()
        {
            ["items"] = plan["items"]!.DeepClone(),
            ["strategy"] = plan["strategy"]!.DeepClone(),
            ["switchOn"] = plan["switchOn"]!.DeepClone(),
        };

    private static StringContent Body(JsonNode json) =>
        new(json.ToJsonString(), Encoding.UTF8, "application/json");

    private static async Task<JsonNode> Json(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonNode.Parse(text)!;
    }

    /// <summary>The plan that was stored last, as it lies in the database.</summary>
    private string Stored()
    {
        using var db = new SqliteConnection(Store.ConnectionString(one.Running.Folder));
        db.Open();
        using var ask = db.CreateCommand();
        ask.CommandText = "SELECT Plan FROM Plans ORDER BY AcceptedAt DESC LIMIT 1";
        return (string)ask.ExecuteScalar()!;
    }
}
