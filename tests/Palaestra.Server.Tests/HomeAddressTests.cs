using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Charts;
using Palaestra.Data;
using Palaestra.Data.Records;
using Palaestra.Server.Charts;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The home programme at a secret address: only where the clinic allows it, only while it may be done.</summary>
public sealed class HomeAddressTests : IAsyncLifetime
{
    private readonly BuiltClient client = new();
    private readonly DirectoryInfo data = Directory.CreateTempSubdirectory("palaestra-home-");
    private RunningServer running = null!;
    private HttpClient browser = null!;
    private Opened opened = null!;

    public async ValueTask InitializeAsync()
    {
        running = new RunningServer(client: client.FullName, folder: data.FullName);
        browser = await running.SignedIn();
        var clinic = new Given.Clinic(browser);
        opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
    }

    public ValueTask DisposeAsync()
    {
        running.Dispose();
        client.Dispose();
        data.Delete(recursive: true);
        return ValueTask.CompletedTask;
    }

    private string Address => $"/api/episodes/{opened.EpisodeId}/home-address";

    private async Task Allow(bool allowed)
    {
        var form = await browser.Get<ClinicForm>("/api/clinic");
        await browser.Put("/api/clinic", form with { HomeAddresses = allowed }).Ok<ClinicForm>();
    }

    private async Task<string> OpenedAddress()
    {
        await Allow(true);
        return (await browser.Post(Address, new { }).Ok<HomeAddressView>()).Path!;
    }

    /// <summary>As a phone that nobody has signed in on.</summary>
    private async Task<(HttpStatusCode Status, string Html, HttpResponseMessage Answer)> At(string path)
    {
        var answer = await running.Browser().GetAsync(new Uri(path, UriKind.Relative));
        Assert.Equal("text/html", answer.Content.Headers.ContentType?.MediaType);
        return (answer.StatusCode, await answer.Content.ReadAsStringAsync(), answer);
    }

    [Fact]
    public async Task There_is_none_until_the_clinic_allows_it()
    {
        Assert.Equal(new HomeAddressView(false, null), await browser.Get<HomeAddressView>(Address));
        Assert.Equal(HttpStatusCode.Conflict, (await browser.Post(Address, new { })).StatusCode);
        await Allow(true);
        Assert.Equal(new HomeAddressView(true, null), await browser.Get<HomeAddressView>(Address));
    }

    [Fact]
    public async Task It_opens_without_sign_in_and_lets_nothing_else_run_or_be_asked()
    {
        var (status, html, answer) = await At(await OpenedAddress());
        Assert.Equal(HttpStatusCode.OK, status);
        Assert.Contains("id=\"programme\"", html, StringComparison.Ordinal);
        Assert.DoesNotContain("Wenna", html, StringComparison.Ordinal);
        var policy = Assert.Single(answer.Headers.GetValues("Content-Security-Policy"));
        Assert.StartsWith("default-src 'none'; script-src 'sha256-", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("connect-src", policy, StringComparison.Ordinal);
        Assert.DoesNotContain("unsafe", policy, StringComparison.Ordinal);
        Assert.Equal("no-referrer", Assert.Single(answer.Headers.GetValues("Referrer-Policy")));
        Assert.True(answer.Headers.CacheControl!.NoStore);
    }

    [Fact]
    public async Task A_new_one_closes_the_old_one_and_a_closed_one_says_so()
    {
        var first = await OpenedAddress();
        var second = await OpenedAddress();
        Assert.NotEqual(first, second);
        Assert.Equal(HttpStatusCode.NotFound, (await At(first)).Status);
        Assert.Equal(HttpStatusCode.OK, (await At(second)).Status);
        Assert.Equal(HttpStatusCode.NoContent, (await browser.DeleteAsync(Address)).StatusCode);
        var (status, html, _) = await At(second);
        Assert.Equal(HttpStatusCode.NotFound, status);
        Assert.Contains("not open any more", html, StringComparison.Ordinal);
        Assert.DoesNotContain("id=\"programme\"", html, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Forbidden_by_the_clinic_and_allowed_again_the_old_address_stays_closed()
    {
        var path = await OpenedAddress();
        await Allow(false);
        Assert.Equal(HttpStatusCode.NotFound, (await At(path)).Status);
        await Allow(true);
        Assert.Equal(HttpStatusCode.NotFound, (await At(path)).Status);
        Assert.Null((await browser.Get<HomeAddressView>(Address)).Path);
    }

    /// <summary>Opened in the moment in which the clinic forbade it.</summary>
    [Fact]
    public async Task One_that_is_there_although_the_clinic_forbids_it_does_not_open()
    {
        await using (var db = Store.Open(running.Folder))
        {
            await db.Episodes.ExecuteUpdateAsync(set => set.SetProperty(e => e.HomeKey, "left-over"));
        }
        Assert.Equal(HttpStatusCode.NotFound, (await At("/home/left-over")).Status);
    }

    /// <summary>A page on a phone that shows exercises while a red flag is open could hurt.</summary>
    [Fact]
    public async Task While_a_red_flag_is_open_it_shows_no_exercise_and_says_to_speak_to_somebody()
    {
        var path = await OpenedAddress();
        var sign = (await browser.Get<Library.LibraryView>("/api/library")).DangerSigns[0].Id;
        await browser
            .Post($"/api/episodes/{opened.EpisodeId}/danger-reports", new DangerSignsForm([sign]))
            .Ok<EpisodeView>();
        var (status, html, _) = await At(path);
        Assert.Equal(HttpStatusCode.Conflict, status);
        Assert.Contains("do not do your exercises", html, StringComparison.Ordinal);
        Assert.DoesNotContain("id=\"programme\"", html, StringComparison.Ordinal);
    }

    /// <summary>A drawing that asks a red flag holds as an open one does, until somebody has asked; also the file, the sheet and after a discharge.</summary>
    [Fact]
    public async Task While_a_drawing_asks_a_red_flag_no_exercise_is_shown_or_handed_out()
    {
        var path = await OpenedAddress();
        var chart = $"/api/visits/{opened.VisitId}/body-chart";
        var saddle = new BodyChart([
            new PainArea(
                ChartView.Back,
                PainKind.Numb,
                4,
                ChartFigure.Of(ChartView.Back).Parts.First(part => part.Zone == ChartZone.Saddle).Outline
            ),
        ]);
        var drawn = await browser
            .Put(chart, new ChartForm(saddle, 0, "Drawn after the plan."))
            .Ok<VisitChartView>();
        Assert.Equal(HttpStatusCode.Conflict, (await At(path)).Status);
        foreach (var what in new[] { "home.html", "sheet", "sheet.pdf" })
        {
            var answer = await browser.GetAsync($"/api/episodes/{opened.EpisodeId}/{what}");
            Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        }
        var no = saddle with { Answers = [new("saddle-numbness", Side.Both, false)] };
        await browser.Put(chart, new ChartForm(no, drawn.Version, "Asked at once.")).Ok<VisitChartView>();
        Assert.Equal(HttpStatusCode.OK, (await At(path)).Status);
    }

    [Fact]
    public async Task It_does_not_travel_with_the_record_nor_stand_in_the_audit()
    {
        var key = (await OpenedAddress())["/home/".Length..];
        await using var db = Store.Open(running.Folder);
        var episode = await db.Episodes.SingleAsync();
        Assert.Equal(key, episode.HomeKey);
        Assert.DoesNotContain(key, JsonSerializer.Serialize(episode, RecordJson.Options));
        Assert.DoesNotContain(await db.AuditNotes.ToListAsync(), note => note.Payload?.Contains(key) == true);
    }

    [Fact]
    public async Task Sentences_of_the_page_that_the_clinic_wrote_are_with_it_and_only_those()
    {
        running.Dispose();
        var words = Path.Combine(data.FullName, "content", "words", "en", "screens");
        Directory.CreateDirectory(words);
        await File.WriteAllTextAsync(
            Path.Combine(words, "own.json"),
            """{"phone.it-hurts": "Ouch </script>", "day.now": "Now then"}"""
        );
        running = new RunningServer(client: client.FullName, folder: data.FullName);
        browser = await running.SignedIn();
        var html = await browser.GetStringAsync($"/api/episodes/{opened.EpisodeId}/home.html");
        Assert.Contains("globalThis.ownWords={\"phone.it-hurts\":\"Ouch ", html, StringComparison.Ordinal);
        Assert.DoesNotContain("Ouch </script>", html, StringComparison.Ordinal);
        Assert.DoesNotContain("Now then", html, StringComparison.Ordinal);
        Assert.Contains("<script type=\"module\">document.URL;</script>", html, StringComparison.Ordinal);
    }
}
