using System.Text.Json;
using Palaestra.Core.Tests.Given;
using Palaestra.Simulation.Courses;

namespace Palaestra.Simulation.Tests;

/// <summary>The simulated courses: their natures are data, and every row meets the same chances.</summary>
public class CourseTests
{
    private static readonly CourseNature Typical = new(Weeks: 3);

    [Fact]
    public void Every_nature_of_the_project_can_be_read()
    {
        var files = Directory.GetFiles(Path.Combine(Content.Root, "bench", "natures"), "*.json");
        Assert.All(files, file => Assert.Equal(12, CourseNature.Read(File.ReadAllText(file)).Weeks));
        Assert.Contains(
            files,
            file => CourseNature.Read(File.ReadAllText(file)) == new CourseNature(About: Read(file))
        );
        static string? Read(string file) => CourseNature.Read(File.ReadAllText(file)).About;
    }

    [Fact]
    public void What_a_nature_leaves_out_is_as_in_the_typical_one() =>
        Assert.Equal(
            new CourseNature("quick", Learning: new LearningNature(Gain: 0.7)),
            CourseNature.Read("""{"name": "quick", "learning": {"gain": 0.7}}""")
        );

    [Theory]
    [InlineData("""{"learning": {"gian": 0.7}}""", "gian")]
    [InlineData("""{"learning": {"gain": "much"}}""", "learning.gain")]
    [InlineData("""{"learning": {"gain": -1}}""", "learning.gain")]
    [InlineData("""{"person": {"usualFrom": 5, "usualTo": 3}}""", "person.usualTo")]
    [InlineData("""{"weeks": 0}""", "weeks")]
    [InlineData("null", "nature")]
    public void What_cannot_be_right_is_refused_with_its_field(string json, string field) =>
        Assert.Contains(field, Assert.Throws<InvalidDataException>(() => CourseNature.Read(json)).Message);

    [Fact]
    public void A_draw_depends_on_its_purpose_and_place_and_on_nothing_drawn_before()
    {
        var one = new Chance(7);
        var again = new Chance(7);
        _ = again.Even(Purpose.Rep, 1, 2, 3);
        Assert.Equal(one.Even(Purpose.Flare, 4), again.Even(Purpose.Flare, 4));
        Assert.NotEqual(one.Even(Purpose.Flare, 4), one.Even(Purpose.Flare, 5));
        Assert.NotEqual(one.Even(Purpose.Flare, 4), one.Even(Purpose.Day, 4));
        Assert.NotEqual(one.Even(Purpose.Flare, 4), new Chance(8).Even(Purpose.Flare, 4));
    }

    // 10,000 even draws: mean 0.5 within five standard errors (0.289 / 100), no decile off by more than five of its own (30).
    [Fact]
    public void Draws_are_even()
    {
        var draws = Enumerable.Range(0, 10_000).Select(i => new Chance(3).Even(Purpose.Rep, i)).ToList();
        Assert.InRange(draws.Average(), 0.5 - 0.0145, 0.5 + 0.0145);
        Assert.All(draws.CountBy(d => (int)(d * 10)), decile => Assert.InRange(decile.Value, 850, 1150));
    }

    [Fact]
    public void The_same_seed_gives_the_same_table_and_another_seed_another()
    {
        string Table(int seed) => CourseTable.Of(Content.Library, Typical, 3, seed).Json();
        var first = Table(1);
        Assert.Equal(first, Table(1));
        Assert.NotEqual(first, Table(2));

        var table = JsonDocument.Parse(first).RootElement;
        Assert.Equal(
            [.. Content.Library.Policies.Select(p => p.Id), "oracle", "frozen plan", "plain calendar"],
            table.GetProperty("rows").EnumerateArray().Select(row => row.GetProperty("policy").GetString()!)
        );
        var row = table.GetProperty("rows")[0];
        foreach (
            var name in new[]
            {
                "up12",
                "weeksToHalf",
                "flared",
                "flaresPerCourse",
                "tooEarly",
                "overturned",
                "gain",
                "minutesPerWeek",
            }
        )
        {
            Assert.True(row.TryGetProperty(name, out _), name);
        }
        Assert.Equal(JsonValueKind.Object, row.GetProperty("se").ValueKind);
    }

    [Fact]
    public void A_frozen_plan_moves_nothing_up_and_the_oracle_is_never_too_early()
    {
        var table = CourseTable.Of(Content.Library, Typical, 6, 1);
        CourseRow Row(string name) => table.Rows.Single(row => row.Policy == name);
        Assert.Equal((0, 0), (Row("frozen plan").Figures.Up12, Row("frozen plan").StepsUp));
        Assert.True(Row("oracle").StepsUp > 0);
        Assert.Equal(0, Row("oracle").Figures.TooEarly);
        Assert.True(Row("plain calendar").StepsUp > 0);
    }

    // No rep-to-rep or day-to-day luck, a rater who sees everything, nothing that flares: what is clean is what is held.
    [Fact]
    public void Without_luck_a_shorter_way_and_a_lighter_setting_are_easier()
    {
        var client = new CourseClient(Content.Library, new CourseNature(), 5);
        var rung = Content.Library.Rung("B5");
        var whole = client.Margin(rung, Side.Left, rung.Start);
        Assert.Equal(client.Margin(rung, Side.Left), whole);
        Assert.True(client.Margin(rung, Side.Left, rung.Start with { Range = 0.5 }) > whole);
    }
}
