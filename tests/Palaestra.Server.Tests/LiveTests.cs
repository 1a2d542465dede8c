using System.Net;
using System.Net.ServerSentEvents;
using System.Text.Json;
using Palaestra.Core.Capture;
using Palaestra.Server.Live;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Other tablets hear of what is stored, once and in order, also after a gap.</summary>
public sealed class LiveTests(OneServer one) : IClassFixture<OneServer>
{
    private static readonly TimeSpan Long = TimeSpan.FromMinutes(1);
    private static readonly TimeSpan Short = TimeSpan.FromMilliseconds(20);

    private static CancellationToken Soon => new CancellationTokenSource(TimeSpan.FromSeconds(30)).Token;

    private static Task<bool> Always() => Task.FromResult(true);

    [Fact]
    public async Task Another_tablet_hears_of_a_visit_when_events_are_stored()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var other = await one.Running.SignedIn();
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/live");
        using var answer = await other.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, Soon);
        Assert.Equal("text/event-stream", answer.Content.Headers.ContentType?.MediaType);
        var items = SseParser
            .Create(await answer.Content.ReadAsStreamAsync())
            .EnumerateAsync()
            .GetAsyncEnumerator(Soon);
        Assert.True(await items.MoveNextAsync());
        Assert.Equal("beat", items.Current.EventType);
        await clinic.Screen(opened.VisitId, 1, 0);
        Assert.True(await items.MoveNextAsync());
        Assert.Equal(
            opened.VisitId,
            JsonDocument.Parse(items.Current.Data).RootElement.GetProperty("visitId").GetGuid()
        );
        Assert.NotNull(items.Current.EventId);
    }

    [Fact]
    public async Task Nobody_hears_without_a_sign_in()
    {
        using var answer = await one.Running.Browser().GetAsync("/api/live");
        Assert.Equal(HttpStatusCode.Unauthorized, answer.StatusCode);
    }

    [Fact]
    public async Task What_is_known_already_is_no_news()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var rung = (await browser.Get<Server.Library.LibraryView>("/api/library"))
            .Ladders.First(l => l.Screened)
            .Rungs[0];
        List<CaptureEvent> trial = clinic.Trial(rung, Side.Left, rung.Start, 1, 0);
        (await clinic.Send(opened.VisitId, trial)).EnsureSuccessStatusCode();
        using var answer = await browser.GetAsync(
            "/api/live",
            HttpCompletionOption.ResponseHeadersRead,
            Soon
        );
        var items = SseParser
            .Create(await answer.Content.ReadAsStreamAsync())
            .EnumerateAsync()
            .GetAsyncEnumerator(Soon);
        Assert.True(await items.MoveNextAsync());
        (await clinic.Send(opened.VisitId, trial)).EnsureSuccessStatusCode();
        var later = await clinic.NewClient();
        await clinic.Screen(later.VisitId, 1, 0);
        Assert.True(await items.MoveNextAsync());
        Assert.Contains($"{later.VisitId}", items.Current.Data, StringComparison.Ordinal);
    }

    private static async Task<List<NewsItem>> Heard(VisitNews news, string? from, int count)
    {
        var heard = new List<NewsItem>();
        await foreach (var item in news.Listen(from, Long, Always, Soon))
        {
            if (item.News is not null)
            {
                heard.Add(item);
            }
            if (heard.Count == count)
            {
                break;
            }
        }
        return heard;
    }

    [Fact]
    public async Task A_gap_is_made_up_for_from_the_last_that_was_heard()
    {
        var news = new VisitNews();
        var visits = Enumerable.Range(0, 5).Select(_ => Guid.NewGuid()).ToList();
        var first = Heard(news, null, 2);
        news.Tell(visits[0]);
        news.Tell(visits[1]);
        var last = (await first)[^1].Id;
        foreach (var visit in visits[2..])
        {
            news.Tell(visit);
        }
        Assert.Equal(visits[2..], (await Heard(news, last, 3)).Select(item => item.News!.VisitId!.Value));
    }

    /// <summary>From another start of the server, from too long ago, or made up: then anything may be new.</summary>
    [Theory]
    [InlineData("another-3")]
    [InlineData("")]
    [InlineData("x")]
    public async Task A_browser_whose_place_is_not_known_asks_for_everything(string place)
    {
        var news = new VisitNews();
        news.Tell(Guid.NewGuid());
        Assert.Null((await Heard(news, place, 1))[0].News!.VisitId);
    }

    [Fact]
    public async Task A_browser_that_was_away_for_long_asks_for_everything()
    {
        var news = new VisitNews();
        var first = Heard(news, null, 1);
        news.Tell(Guid.NewGuid());
        var place = (await first)[0].Id;
        for (var i = 0; i < 2000; i++)
        {
            news.Tell(Guid.NewGuid());
        }
        Assert.Null((await Heard(news, place, 1))[0].News!.VisitId);
    }

    /// <summary>It waits for no browser that does not read, and keeps no more than it must.</summary>
    [Fact]
    public async Task A_browser_that_does_not_read_is_told_that_it_missed_some()
    {
        var news = new VisitNews();
        await using var items = news.Listen(null, Long, Always, Soon).GetAsyncEnumerator();
        Assert.True(await items.MoveNextAsync());
        for (var i = 0; i < 1000; i++)
        {
            news.Tell(Guid.NewGuid());
        }
        Assert.True(await items.MoveNextAsync());
        Assert.Null(items.Current.News!.VisitId);
        Assert.True(await items.MoveNextAsync());
        Assert.NotNull(items.Current.News!.VisitId);
    }

    [Fact]
    public async Task The_stream_ends_with_the_sign_in()
    {
        var news = new VisitNews();
        var beats = 0;
        await foreach (var _ in news.Listen(null, Short, () => Task.FromResult(++beats < 3), Soon)) { }
        Assert.Equal(3, beats);
    }
}
