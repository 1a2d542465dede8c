using System.Net;
using System.Net.Http.Headers;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Data.Keeping;
using Palaestra.Data.Staff;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Instruments;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;
using Palaestra.Server.Photos;
using Palaestra.Server.Practice;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Sessions on recorded traces and photographs: of whom, of what, as long as it may be.</summary>
public sealed class RecordedSessionTests : IAsyncLifetime
{
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-test-").FullName;
    private RunningServer server;
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public RecordedSessionTests() => server = new RunningServer(folder: folder);

    public async ValueTask InitializeAsync()
    {
        browser = await server.SignedIn();
        clinic = new Clinic(browser);
    }

    public ValueTask DisposeAsync()
    {
        server.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    private static readonly PhotoReading Level = new(
        PhotoView.Front,
        800,
        600,
        [new(PhotoPoint.HipBoneLeft, new(500, 300)), new(PhotoPoint.HipBoneRight, new(300, 300))]
    );

    private static readonly byte[] Jpeg = [0xFF, 0xD8, 0xFF, 0xE0, 1, 2, 3];

    private sealed record Recorded(Opened Client, Guid Trace, Guid Photo);

    /// <summary>Ten seconds of a tilt sensor that leaves its band at the sixth.</summary>
    private static string Csv()
    {
        var text = new StringBuilder(
            "# instrument: tilt\n# rate_hz: 50\n# neutral: pitch_deg=0 roll_deg=0 yaw_deg=0\n"
        );
        text.Append("time_s,pitch_deg,roll_deg,yaw_deg\n");
        for (var i = 0; i < 500; i++)
        {
            text.Append(FormattableString.Invariant($"{i / 50.0:0.00},{(i < 300 ? 0 : 9)},0,0\n"));
        }
        return text.ToString();
    }

    /// <summary>A client with a trial, its trace, and its photograph that is kept.</summary>
    private async Task<Recorded> Client()
    {
        var opened = await clinic.NewClient();
        var library = await browser.Get<LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        var events = clinic.Trial(rung, Side.Left, rung.Start, 2, 0);
        await clinic.Send(opened.VisitId, events).Ok<EventsTaken>();
        var trial = $"/api/visits/{opened.VisitId}/trials/{events[0].TrialId}";
        var trace = await browser.Post($"{trial}/traces/file", new TraceFileForm(Csv())).Ok<TraceEntry>();
        await browser
            .Put($"/api/episodes/{opened.EpisodeId}/photo-consent", new PhotoConsentForm(true))
            .Ok<EpisodeView>();
        var picture = new ByteArrayContent(Jpeg)
        {
            Headers = { ContentType = new MediaTypeHeaderValue("image/jpeg") },
        };
        var photo = await browser.PostAsync($"{trial}/photos", picture).Ok<PhotoKept>();
        await clinic
            .Send(
                opened.VisitId,
                [
                    new PhotoMeasured(
                        Guid.CreateVersion7(),
                        events[0].TrialId,
                        events[^1].At.AddMinutes(10),
                        Level with
                        {
                            Image = photo.Id,
                        }
                    ),
                ]
            )
            .Ok<EventsTaken>();
        return new(opened, trace.Id, photo.Id);
    }

    private Task<EpisodeView> Agrees(Recorded client, bool given) =>
        browser
            .Put($"/api/episodes/{client.Client.EpisodeId}/practice-consent", new PracticeConsentForm(given))
            .Ok<EpisodeView>();

    private async Task<RecordedView> Made() =>
        await browser.Post("/api/practice/recorded", new RecordedForm("Autumn", 9, 9)).Ok<RecordedView>();

    private static Task<RecordedItemView> Next(HttpClient who, RecordedView view) =>
        who.Get<RecordedItemView>($"/api/practice/recorded/items/{view.Next}");

    /// <summary>To the end, with the same of everything.</summary>
    private static async Task<RecordedView> Rate(HttpClient who, RecordedView view, double? lost)
    {
        while (view.Next is { } next)
        {
            var item = await Next(who, view);
            view = await who.Post(
                    $"/api/practice/recorded/items/{next}/rating",
                    item.Trace is null ? new RecordedReading(Photo: Level) : new RecordedReading(lost)
                )
                .Ok<RecordedView>();
        }
        return view;
    }

    [Fact]
    public async Task Nothing_is_rated_of_who_was_not_asked_or_does_not_agree()
    {
        var client = await Client();
        Assert.Equal(new(0, 0), (await browser.Get<PracticeView>("/api/practice")).There);
        Assert.False((await Agrees(client, false)).PracticeConsent);
        Assert.Equal(new(0, 0), (await browser.Get<PracticeView>("/api/practice")).There);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post("/api/practice/recorded", new RecordedForm("Autumn", 9, 9))).StatusCode
        );
        Assert.True((await Agrees(client, true)).PracticeConsent);
        Assert.Equal(new(1, 1), (await browser.Get<PracticeView>("/api/practice")).There);
    }

    [Fact]
    public async Task A_session_is_rated_without_names_and_its_report_waits_for_ones_own_part()
    {
        await Agrees(await Client(), true);
        var view = await Made();
        Assert.Equal(2, view.Session.Items);
        for (var i = 0; i < 2; i++)
        {
            var item = await Next(browser, view);
            var told = await browser.GetStringAsync($"/api/practice/recorded/items/{view.Next}");
            // Neither whose it is, nor what the instrument found.
            Assert.DoesNotContain("visit", told, StringComparison.OrdinalIgnoreCase);
            Assert.DoesNotContain("loss", told, StringComparison.OrdinalIgnoreCase);
            Assert.DoesNotContain("name\":\"Wenna", told, StringComparison.OrdinalIgnoreCase);
            Assert.Null(view.Figures);
            if (item.Trace is { } trace)
            {
                Assert.Equal(10, trace.Seconds, 0.1);
                Assert.Equal(3, trace.Shapes.Count);
            }
            else
            {
                Assert.Equal((PhotoView.Front, 800.0), (item.Photo!.View, item.Photo.Width));
                Assert.Equal(
                    Jpeg,
                    await browser.GetByteArrayAsync($"/api/practice/recorded/items/{view.Next}/picture")
                );
            }
            view = await browser
                .Post(
                    $"/api/practice/recorded/items/{view.Next}/rating",
                    item.Trace is null ? new RecordedReading(Photo: Level) : new RecordedReading(7)
                )
                .Ok<RecordedView>();
        }
        Assert.Null(view.Next);
        Assert.Equal((1, 1), (view.Figures!.Raters, view.Figures.Traces!.Items));
        Assert.Equal(PhotoAngleKind.SideDrop, Assert.Single(view.Figures.Angles).Kind);
        var (other, _) = await server.Joins(Role.Practitioner);
        var theirs = await other.Get<RecordedView>($"/api/practice/recorded/{view.Session.Id}");
        Assert.Null(theirs.Figures);
        Assert.Equal(2, (await Rate(other, theirs, null)).Figures!.Raters);
    }

    [Fact]
    public async Task Who_no_longer_agrees_is_shown_no_more_and_counts_no_more()
    {
        var (one, two) = (await Client(), await Client());
        await Agrees(one, true);
        await Agrees(two, true);
        var view = await Made();
        Assert.Equal(4, view.Session.Items);
        var done = await Rate(browser, view, 5);
        Assert.Equal(2, done.Figures!.Traces!.Items);
        await Agrees(two, false);
        var after = await browser.Get<RecordedView>($"/api/practice/recorded/{view.Session.Id}");
        Assert.Equal((2, 1), (after.Session.Items, after.Figures!.Traces!.Items));
        await using var scope = server.Services.CreateAsyncScope();
        var gone = await scope
            .ServiceProvider.GetRequiredService<PalaestraDb>()
            .RecordedItems.FirstAsync(item => item.VisitId == two.Client.VisitId);
        foreach (var path in new[] { $"{gone.Id}", $"{gone.Id}/picture" })
        {
            Assert.Equal(
                HttpStatusCode.NotFound,
                (await browser.GetAsync($"/api/practice/recorded/items/{path}")).StatusCode
            );
        }
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await browser.Post($"/api/practice/recorded/items/{gone.Id}/rating", new RecordedReading(1))
            ).StatusCode
        );
    }

    [Fact]
    public async Task What_was_taken_away_is_passed_over()
    {
        var client = await Client();
        await Agrees(client, true);
        var view = await Made();
        (await browser.DeleteAsync($"/api/photos/{client.Photo}?reason=asked")).EnsureSuccessStatusCode();
        (await browser.DeleteAsync($"/api/traces/{client.Trace}?reason=asked")).EnsureSuccessStatusCode();
        var after = await browser.Get<RecordedView>($"/api/practice/recorded/{view.Session.Id}");
        Assert.Equal((0, null), (after.Session.Items, after.Next));
    }

    /// <summary>Its file is not what was written: the others are gone on with.</summary>
    [Fact]
    public async Task A_damaged_trace_is_passed_over()
    {
        var (one, two) = (await Client(), await Client());
        await Agrees(one, true);
        await Agrees(two, true);
        var view = await browser
            .Post("/api/practice/recorded", new RecordedForm("Traces", 5, 0))
            .Ok<RecordedView>();
        await File.WriteAllBytesAsync(Path.Combine(folder, "traces", $"{one.Trace:N}.trace"), [1, 2, 3]);
        var done = await Rate(
            browser,
            await browser.Get<RecordedView>($"/api/practice/recorded/{view.Session.Id}"),
            5
        );
        Assert.Equal((1, 1), (done.Session.Items, done.Figures!.Traces!.Items));
    }

    [Fact]
    public async Task What_is_said_twice_counts_once_and_what_cannot_be_said_is_refused_by_its_field()
    {
        await Agrees(await Client(), true);
        var view = await browser
            .Post("/api/practice/recorded", new RecordedForm("Traces", 5, 0))
            .Ok<RecordedView>();
        var path = $"/api/practice/recorded/items/{view.Next}/rating";
        Assert.Equal(
            ["lost"],
            await browser
                .Post(path, new RecordedReading(11))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await browser.Post(path, new RecordedReading(3)).Ok<RecordedView>();
        var told = await browser.Post(path, new RecordedReading(9)).Ok<RecordedView>();
        Assert.Equal((1, 1), (told.Session.Items, told.Session.Rated));
        await using var scope = server.Services.CreateAsyncScope();
        var stored = await scope
            .ServiceProvider.GetRequiredService<PalaestraDb>()
            .RecordedRatings.SingleAsync();
        Assert.Equal(3, stored.Reading.Lost);
        Assert.Equal(
            ["name", "photos"],
            (
                await browser
                    .Post("/api/practice/recorded", new RecordedForm(" ", 5, 41))
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            ).Order()
        );
    }

    [Fact]
    public async Task Who_comes_from_another_clinic_is_asked_anew()
    {
        var client = await Client();
        await Agrees(client, true);
        var id = (await browser.Get<EpisodeView>($"/api/episodes/{client.Client.EpisodeId}")).ClientId;
        var file = await browser.GetByteArrayAsync(
            new Uri($"/api/clients/{id}/record.zip", UriKind.Relative)
        );
        using var elsewhere = new RunningServer();
        var there = await elsewhere.SignedIn();
        using var content = new ByteArrayContent(file)
        {
            Headers = { ContentType = new MediaTypeHeaderValue("application/zip") },
        };
        (await there.PostAsync(new Uri("/api/records", UriKind.Relative), content)).EnsureSuccessStatusCode();
        Assert.Equal(new(0, 0), (await there.Get<PracticeView>("/api/practice")).There);
        Assert.Equal(new(1, 1), (await browser.Get<PracticeView>("/api/practice")).There);
    }

    [Fact]
    public async Task A_client_who_is_erased_takes_along_what_was_said_of_them()
    {
        var client = await Client();
        await Agrees(client, true);
        await Rate(browser, await Made(), 5);
        server.Dispose();
        Assert.NotNull(Erasure.Of(folder, Erasure.Find(folder, client.Client.EpisodeId)!.Value.Id));
        server = new RunningServer(folder: folder);
        await using var scope = server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PalaestraDb>();
        Assert.Equal(1, await db.RecordedSessions.CountAsync());
        Assert.Equal(0, await db.RecordedItems.CountAsync());
        Assert.Equal(0, await db.RecordedRatings.CountAsync());
    }
}
