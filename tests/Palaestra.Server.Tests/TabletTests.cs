using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Data.Audit;
using Palaestra.Data.Staff;
using Palaestra.Server.Audit;
using Palaestra.Server.Intake;
using Palaestra.Server.Screening;
using Palaestra.Server.Tablet;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>What a tablet takes along and brings back.</summary>
public sealed class TabletTests : IAsyncLifetime
{
    private readonly HeldClock clock = new();
    private readonly RunningServer server;
    private HttpClient browser = null!;
    private Opened opened = null!;

    public TabletTests() => server = new RunningServer(clock: clock);

    public async ValueTask InitializeAsync()
    {
        browser = await server.SignedIn();
        opened = await new Given.Clinic(browser).NewClient();
    }

    public ValueTask DisposeAsync()
    {
        server.Dispose();
        return ValueTask.CompletedTask;
    }

    private static Task<TabletKeyView> Key(HttpClient browser, string? shown = null) =>
        browser.Post("/api/account/tablet-key", new TabletKeyForm(shown)).Ok<TabletKeyView>();

    private TrialStarted Started() =>
        new(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            clock.GetUtcNow(),
            "B5",
            Side.Left,
            TrialPurpose.Screen,
            new Dose(5, 1, 0),
            TaskId: "leg-lowering",
            By: "somebody"
        );

    /// <summary>As a browser locks it up: AES-256-GCM, the tag behind the text, bound to the visit.</summary>
    private static SealedEvent LockUp(TabletKeyView key, CaptureEvent told, Guid visit) =>
        LockUp(key, JsonSerializer.SerializeToUtf8Bytes(told, CoreJson.Options), visit.ToString());

    private static SealedEvent LockUp(TabletKeyView key, byte[] text, string about)
    {
        var (nonce, data, tag) = (RandomNumberGenerator.GetBytes(12), new byte[text.Length], new byte[16]);
        using var aes = new AesGcm(Convert.FromBase64String(key.Secret), tag.Length);
        aes.Encrypt(nonce, text, data, tag, Encoding.UTF8.GetBytes(about));
        return new(Convert.ToBase64String(nonce), Convert.ToBase64String([.. data, .. tag]));
    }

    private string Address => $"/api/visits/{opened.VisitId}/sealed-events";

    [Fact]
    public async Task A_key_is_known_again_by_its_account_and_nobody_else_gets_it()
    {
        var first = await Key(browser);
        Assert.Equal(32, Convert.FromBase64String(first.Secret).Length);
        Assert.DoesNotContain(first.Secret, first.Sealed, StringComparison.Ordinal);
        Assert.Equal(first, await Key(browser, first.Sealed));
        Assert.NotEqual(first.Secret, (await Key(browser)).Secret);
        Assert.NotEqual(first.Secret, (await Key(browser, first.Sealed[..^8] + "AAAAAAA=")).Secret);
        var (other, _) = await server.Joins(Role.Trainer);
        var theirs = await Key(other, first.Sealed);
        Assert.NotEqual(first.Id, theirs.Id);
        Assert.NotEqual(first.Secret, theirs.Secret);
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (
                await server.Browser().Post("/api/account/tablet-key", new TabletKeyForm(first.Sealed))
            ).StatusCode
        );
    }

    [Fact]
    public async Task What_somebody_left_locked_up_is_stored_under_their_name_whoever_sends_it_and_once()
    {
        var key = await Key(browser);
        var started = Started();
        var batch = new SealedBatch(key.Sealed, [LockUp(key, started, opened.VisitId)]);
        var (reception, _) = await server.Joins(Role.Reception);
        Assert.Equal(new EventsTaken(1, 0), await reception.Post(Address, batch).Ok<EventsTaken>());
        Assert.Equal(new EventsTaken(0, 1), await reception.Post(Address, batch).Ok<EventsTaken>());
        var events = (await browser.Get<VisitEvents>($"/api/visits/{opened.VisitId}/events")).Events;
        Assert.Equal(started.Id, Assert.Single(events).Id);
        Assert.Equal("Edda Marl", events[0].By);
        await using var scope = server.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<PalaestraDb>();
        Assert.Equal(key.AccountId, (await db.Events.SingleAsync(e => e.Id == started.Id)).AccountId);
    }

    [Fact]
    public async Task What_was_altered_filed_elsewhere_or_locked_up_with_another_key_is_refused_and_named()
    {
        var key = await Key(browser);
        var good = LockUp(key, Started(), opened.VisitId);
        var elsewhere = LockUp(key, Started(), Guid.CreateVersion7());
        var bytes = Convert.FromBase64String(good.Data);
        bytes[3] ^= 1;
        var other = await Key(browser);
        foreach (
            var bad in new[]
            {
                elsewhere,
                good with
                {
                    Data = Convert.ToBase64String(bytes),
                },
                good with
                {
                    Data = "",
                },
                good with
                {
                    Nonce = "AAAA",
                },
                good with
                {
                    Data = "no base64",
                },
                LockUp(other, Started(), opened.VisitId),
            }
        )
        {
            var answer = await browser.Post(Address, new SealedBatch(key.Sealed, [good, bad]));
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains("events[1]", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }
        var unknown = await browser.Post(Address, new SealedBatch("AAAA", [good]));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, unknown.StatusCode);
        Assert.Contains("\"sealed\"", await unknown.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Empty((await browser.Get<VisitEvents>($"/api/visits/{opened.VisitId}/events")).Events);
    }

    /// <summary>As the tablet holds it: the answer, and why it was refused.</summary>
    private static SealedFlag Flag(TabletKeyView key, object answer, string about = "a1")
    {
        var text = JsonSerializer.SerializeToUtf8Bytes(
            new { answer, why = (string?)null },
            JsonSerializerOptions.Web
        );
        var locked = LockUp(key, text, about);
        return new(key.Sealed, about, locked.Nonce, locked.Data);
    }

    private object Signs(string kind, Guid episode, params string[] dangerSigns) =>
        new
        {
            id = "red-flags v",
            kind,
            episodeId = episode,
            visitId = opened.VisitId,
            name = "somebody",
            at = "2026-12-01T12:00:00Z",
            dangerSigns,
        };

    private const string FlagAddress = "/api/sealed-red-flags";

    private Task<EpisodeView> Episode() => browser.Get<EpisodeView>($"/api/episodes/{opened.EpisodeId}");

    [Fact]
    public async Task A_red_flag_that_somebody_left_locked_up_closes_the_episode_whoever_sends_it_and_once()
    {
        const string sign = "fever-ill";
        var flag = Flag(await Key(browser), Signs("red-flags", opened.EpisodeId, sign));
        var (reception, _) = await server.Joins(Role.Reception);
        Assert.Equal(HttpStatusCode.NoContent, (await reception.Post(FlagAddress, flag)).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await reception.Post(FlagAddress, flag)).StatusCode);
        var episode = await Episode();
        Assert.True(episode.Closed);
        Assert.Equal("Edda Marl", Assert.Single(episode.DangerReports).NotedBy);
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await server.Browser().Post(FlagAddress, flag)).StatusCode
        );
    }

    [Fact]
    public async Task A_red_flag_altered_renamed_of_no_client_or_that_is_none_is_refused_and_named()
    {
        const string sign = "fever-ill";
        var key = await Key(browser);
        var good = Flag(key, Signs("red-flags", opened.EpisodeId, sign));
        var bytes = Convert.FromBase64String(good.Data);
        bytes[3] ^= 1;
        (string Field, SealedFlag Flag)[] refused =
        [
            ("sealed", good with { Sealed = "AAAA" }),
            ("data", good with { Sealed = (await Key(browser)).Sealed }),
            ("data", good with { About = "a2" }),
            ("data", good with { Data = Convert.ToBase64String(bytes) }),
            ("data", good with { Nonce = "" }),
            ("data", Flag(key, Signs("red-flags", opened.EpisodeId))),
            ("data", Flag(key, Signs("red-flags", opened.EpisodeId, sign, "no-such-sign"))),
            ("data", Flag(key, Signs("check-in", opened.EpisodeId, sign))),
            ("data", Flag(key, Signs("red-flags", opened.EpisodeId, sign, null!))),
            ("data", Flag(key, "no answer")),
        ];
        foreach (var (field, flag) in refused)
        {
            var answer = await browser.Post(FlagAddress, flag);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
            Assert.Contains(
                $"\"{field}\"",
                await answer.Content.ReadAsStringAsync(),
                StringComparison.Ordinal
            );
        }
        var nobodys = Flag(key, Signs("red-flags", Guid.CreateVersion7(), sign));
        Assert.Equal(HttpStatusCode.NotFound, (await browser.Post(FlagAddress, nobodys)).StatusCode);
        Assert.False((await Episode()).Closed);
    }

    [Fact]
    public async Task The_day_of_a_tablet_is_what_its_views_would_ask_for()
    {
        var day = await browser.Get<TabletDay>("/api/day/tablet");
        var visit = Assert.Single(day.Visits);
        Assert.Equal(opened.VisitId, visit.VisitId);
        async Task Same(string address, JsonElement along) =>
            Assert.Equal((await browser.Get<JsonElement>(address)).GetRawText(), along.GetRawText());
        var raw = (await browser.Get<JsonElement>("/api/day/tablet")).GetProperty("visits")[0];
        await Same($"/api/episodes/{opened.EpisodeId}", raw.GetProperty("episode"));
        await Same($"/api/visits/{opened.VisitId}/screen", raw.GetProperty("screen"));
        Assert.Null(visit.Session);
    }

    [Fact]
    public async Task A_later_visit_comes_with_its_session_and_with_what_holds_before_anything_is_asked()
    {
        var clinic = new Given.Clinic(browser);
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
        var next = (await clinic.Book(opened.EpisodeId, days: 0)).Id;
        var along = (await browser.Get<TabletDay>("/api/day/tablet")).Visits.Single(v => v.VisitId == next);
        Assert.NotEmpty(along.Session!.Sets);
        Assert.NotNull(along.Unasked);
        Assert.False(along.Unasked.NoTraining);
    }

    [Fact]
    public async Task It_is_over_with_the_day_or_with_the_sign_in_and_noted_in_the_audit_once()
    {
        var until = (await browser.Get<TabletDay>("/api/day/tablet")).Until;
        Assert.True(until <= Instant.FromDateTimeOffset(clock.GetUtcNow()) + Duration.FromHours(12));
        Assert.True(until > Instant.FromDateTimeOffset(clock.GetUtcNow()));
        await browser.Get<TabletDay>("/api/day/tablet");
        var seen = (await browser.Get<AuditPage>("/api/audit")).Lines.Where(line =>
            line.What == "GetTabletDay"
        );
        var line = Assert.Single(seen);
        Assert.Equal((AuditKind.View, opened.VisitId), (line.Kind, line.Visit));
    }

    [Fact]
    public async Task Visits_with_somebody_else_do_not_come_along()
    {
        var (other, _) = await server.Joins(Role.Practitioner);
        var mine = (await browser.Get<Palaestra.Server.Day.DayView>("/api/day")).Visits.Single();
        Assert.Equal(
            mine.WithId is null ? 1 : 0,
            (await other.Get<TabletDay>("/api/day/tablet")).Visits.Count
        );
    }
}
