using System.Net;
using System.Text.Json;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Server.Library;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Rungs, their pictures and their load over the wire.</summary>
public sealed class LibraryTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private RunningServer Server => one.Running;
    private HttpClient browser = null!;

    public async ValueTask InitializeAsync() => browser = await Server.SignedIn();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Load(object question) => browser.Post("/api/compute/load", question);

    [Fact]
    public async Task The_load_answers_with_units_directions_and_support()
    {
        var answer = await Load(new LoadQuestion(new(Sex.Female, 1.68, 64), "D4")).Ok<LoadAnswer>();
        Assert.Equal("N·m", answer.Units.Moments);
        Assert.Equal(Direction.Twist, answer.Directions[0].Direction);
        Assert.Equal(LoadModel.Samples, answer.Load.Along.Count);
        Assert.Equal(100, answer.Load.AtEnd.Support.Sum(part => part.Percent), 3);
        Assert.Contains("gravity alone", answer.Note.Text, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("body.mass", 0.0, 1.7, "B6")]
    [InlineData("body.height", 60.0, 0.3, "B6")]
    [InlineData("rungId", 60.0, 1.7, "Y1")]
    public async Task Absurd_loads_are_refused_by_field(
        string field,
        double mass,
        double height,
        string rung
    ) =>
        Assert.Contains(
            field,
            await Load(new LoadQuestion(new(null, height, mass), rung))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );

    [Fact]
    public async Task Every_rung_has_a_picture_a_movement_and_its_page()
    {
        var sheet = await browser.Get<List<RungFigure>>("/api/figures?side=right");
        Assert.All(sheet, one => Assert.NotEmpty(one.Figure.Shapes));
        var frames = await browser.Get<List<Figure>>("/api/figures/J4/frames?side=left");
        Assert.Equal(FigureStore.FrameCount, frames.Count);
        var change = await browser.Get<List<Figure>>("/api/figures/E8/from/E7?side=left");
        Assert.True(change.Count > 2);
        var page = await browser.Get<RungPage>("/api/rungs/E7");
        Assert.Equal(("E6", "E8", "E"), (page.EasierRungId, page.HarderRungId, page.LadderId));
        Assert.Equal(
            sheet.Count(one => System.Text.RegularExpressions.Regex.IsMatch(one.RungId, "^E[0-9]")),
            page.Slope.Count
        );
        foreach (var fault in page.DrawnFaults)
        {
            var figure = await browser.Get<Figure>($"/api/figures/E7/faults/{fault}?side=left");
            Assert.Contains(figure.Shapes, shape => shape.Role == ShapeRole.Mark);
        }
    }

    [Theory]
    [InlineData("/api/figures/B6?range=2", HttpStatusCode.UnprocessableEntity)]
    [InlineData("/api/figures/B6?view=inside", HttpStatusCode.BadRequest)]
    [InlineData("/api/figures/Y6/frames", HttpStatusCode.NotFound)]
    [InlineData("/api/figures/E7/from/Y6", HttpStatusCode.NotFound)]
    [InlineData("/api/figures/B6/faults/hiccup", HttpStatusCode.NotFound)]
    [InlineData("/api/rungs/Y6", HttpStatusCode.NotFound)]
    [InlineData("/api/rungs/B6?episode=018f0000-0000-7000-8000-000000000000", HttpStatusCode.NotFound)]
    public async Task What_is_not_there_says_so(string address, HttpStatusCode status) =>
        Assert.Equal(status, (await browser.GetAsync(address)).StatusCode);

    /// <summary>A value that may be left out and cannot be read is named, beside others that can.</summary>
    [Theory]
    [InlineData("/api/figures/B6?side=left&view=inside", "view")]
    [InlineData("/api/figures/B6?side=middle&range=0.5", "side")]
    [InlineData("/api/figures/B6?side=left&range=half", "range")]
    [InlineData("/api/day?day=2026-02-30", "day")]
    [InlineData("/api/day?with=somebody", "with")]
    public async Task What_cannot_be_read_in_an_address_is_named(string address, string field)
    {
        using var answer = await browser.GetAsync(address);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        using var problem = JsonDocument.Parse(await answer.Content.ReadAsStringAsync());
        Assert.Equal(
            field,
            Assert
                .Single(problem.RootElement.GetProperty("errors").EnumerateArray())
                .GetProperty("field")
                .GetString()
        );
    }

    [Fact]
    public async Task A_shorter_range_is_another_picture()
    {
        var full = await browser.Get<Figure>("/api/figures/B6?side=left");
        var part = await browser.Get<Figure>("/api/figures/B6?side=left&range=0.6");
        FigureShape Foot(Figure figure) => figure.Shapes.First(shape => shape.Part == "footLeft");
        Assert.True(Foot(part).Points().Max(p => p.Y) < Foot(full).Points().Max(p => p.Y) - 50);
    }

    [Fact]
    public async Task A_clients_precautions_and_body_are_on_the_rungs_page()
    {
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient(
            Clinic.Form() with
            {
                Precautions = [new ClientPrecaution("wrist"), new("leg-pain", Side.Right)],
            }
        );
        var page = await browser.Get<RungPage>($"/api/rungs/D3?episode={opened.EpisodeId}");
        Assert.True(page.Barred);
        Assert.Equal("Wenna Sorrel", page.ClientName);
        Assert.Equal(68, page.Body.Mass);
        var leg = await browser.Get<RungPage>($"/api/rungs/B6?episode={opened.EpisodeId}");
        Assert.False(leg.Barred);
        Assert.Contains(leg.Notes, note => note is { PrecautionId: "leg-pain", Change.Length: > 0 });
    }
}
