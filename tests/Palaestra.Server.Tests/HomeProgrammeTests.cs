using System.Globalization;
using System.Net;
using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.Extensions.DependencyInjection;
using Palaestra.Core.Visits;
using Palaestra.Exchange.HomeCodes;
using Palaestra.Server.Intake;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

/// <summary>The home programme as a file for the phone, and its log back, over HTTP on a real file.</summary>
public sealed partial class HomeProgrammeTests : IAsyncLifetime
{
    private readonly BuiltClient client = new();
    private readonly HeldClock clock = new();
    private RunningServer running = null!;
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        running = new RunningServer(client: client.FullName, clock: clock);
        browser = await running.SignedIn();
        clinic = new Clinic(browser);
    }

    public ValueTask DisposeAsync()
    {
        running.Dispose();
        client.Dispose();
        return ValueTask.CompletedTask;
    }

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters =
        {
            new System.Text.Json.Serialization.JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower),
        },
    };

    [GeneratedRegex(
        """<script type="application/json" id="programme">(.*?)</script>""",
        RegexOptions.Singleline
    )]
    private static partial Regex Programme();

    private async Task<(Opened Opened, HomePage Page, string Html)> TakenHome()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
        var answer = await browser.GetAsync($"/api/episodes/{opened.EpisodeId}/home.html?lang=en");
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var html = await answer.Content.ReadAsStringAsync();
        return (
            opened,
            JsonSerializer.Deserialize<HomePage>(Programme().Match(html).Groups[1].Value, Json)!,
            html
        );
    }

    /// <summary>A log as the page packs it.</summary>
    private static string[] Codes(HomePage page, params PackedDay[] days)
    {
        var token = Convert.FromBase64String(page.Token);
        var log = new List<byte>([1, .. token, (byte)days.Length]);
        foreach (var day in days)
        {
            var number = day.Day.DayNumber - HomeSeal.FirstDay.DayNumber;
            log.AddRange([
                (byte)(number >> 8),
                (byte)number,
                Two(day.Pain, day.Morning),
                (byte)(day.Stopped ? 1 : 0),
                (byte)day.Sets.Count,
            ]);
            log.AddRange(
                day.Sets.SelectMany(s => new[] { (byte)s.Column, (byte)s.Reps, Two(s.Effort, s.Pain) })
            );
        }
        byte[] all = [.. log, .. HomeSeal.Of(Convert.FromBase64String(page.Key), log.ToArray())];
        return [$"PH111{all[^2]:X2}{all[^1]:X2}{Base45.Write(all)}"];
    }

    private static byte Two(int? a, int? b) => (byte)(((a ?? 15) << 4) | (b ?? 15));

    private Task<HttpResponseMessage> Give(Guid visit, params string[] codes) =>
        browser.Post($"/api/visits/{visit}/home-log/code", new HomeCodeForm(codes));

    private async Task<string> Refused(Guid visit, params string[] codes)
    {
        var answer = await Give(visit, codes);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.StatusCode == HttpStatusCode.UnprocessableEntity, $"{answer.StatusCode}: {text}");
        using var problem = JsonDocument.Parse(text);
        var error = problem.RootElement.GetProperty("errors")[0];
        Assert.Equal("codes", error.GetProperty("field").GetString());
        return error.GetProperty("message").GetString()!;
    }

    private async Task<IReadOnlyList<HomeRow>> Rows(Guid visit) =>
        (await browser.Get<HomeLogView>($"/api/visits/{visit}/home-log")).Rows;

    /// <summary>A later day, and the visit on it.</summary>
    private async Task<Guid> VisitAfter(Opened opened, int days)
    {
        clock.Go(TimeSpan.FromDays(days));
        browser = await running.SignedIn();
        clinic = new Clinic(browser);
        return (await clinic.CheckIn(await clinic.Book(opened.EpisodeId)).Ok<VisitView>()).Id;
    }

    private static PackedDay Day(DateOnly day, params PackedSet[] sets) => new(day, null, null, false, sets);

    [Fact]
    public async Task The_file_carries_its_programme_and_no_name_and_lets_nothing_in_or_out()
    {
        var (_, page, html) = await TakenHome();
        Assert.NotEmpty(page.Exercises);
        Assert.All(page.Exercises.SelectMany(e => e.Sides), side => Assert.NotEmpty(side.Drawing.Shapes));
        Assert.Equal(
            Enumerable.Range(0, page.Exercises.Sum(e => e.Sides.Count)),
            page.Exercises.SelectMany(e => e.Sides).Select(side => side.Column)
        );
        Assert.Contains("default-src 'none'", html, StringComparison.Ordinal);
        Assert.DoesNotContain("Wenna", html, StringComparison.Ordinal);
        Assert.DoesNotMatch("https?://(?!www.w3.org)", Programme().Replace(html, ""));
        // All of it is there to read where no script runs.
        var written = html[..html.IndexOf("<script", StringComparison.Ordinal)];
        Assert.All(
            page.Exercises,
            e => Assert.Contains(WebUtility.HtmlEncode(e.Name), written, StringComparison.Ordinal)
        );
        Assert.Contains(WebUtility.HtmlEncode(page.Stop), written, StringComparison.Ordinal);
    }

    [Fact]
    public async Task It_says_what_the_sheet_says_and_is_the_same_page_each_time()
    {
        var (opened, page, _) = await TakenHome();
        var sheet = await browser.Get<JsonElement>($"/api/episodes/{opened.EpisodeId}/sheet");
        string Says(string name) => sheet.GetProperty(name).GetString()!;
        Assert.Equal(
            (Says("stop"), Says("contact"), Says("line"), Says("made")),
            (page.Stop, page.Contact, page.Line, page.Made)
        );
        Assert.Equal(
            sheet
                .GetProperty("exercises")
                .EnumerateArray()
                .SelectMany(e => e.GetProperty("doses").EnumerateArray())
                .Select(d => (d.GetProperty("figures").GetString(), d.GetProperty("written").GetString()))
                .Order(),
            page.Exercises.SelectMany(e => e.Sides)
                .Select(s => ((string?)s.Figures, (string?)s.Written))
                .Order()
        );
        var again = await browser.GetStringAsync($"/api/episodes/{opened.EpisodeId}/home.html");
        var second = JsonSerializer.Deserialize<HomePage>(Programme().Match(again).Groups[1].Value, Json)!;
        Assert.Equal((page.Page, page.Token, page.Key), (second.Page, second.Token, second.Key));
    }

    [Fact]
    public async Task What_was_done_at_home_becomes_the_home_log_each_day_once()
    {
        var (opened, page, _) = await TakenHome();
        var first = DateOnly.FromDateTime(clock.GetUtcNow().DateTime).AddDays(1);
        var visit = await VisitAfter(opened, 5);
        var side = page.Exercises[0].Sides[0];
        PackedDay[] days =
        [
            new(first, 2, 1, false, [new(side.Column, 5, 5, null), new(side.Column, 4, 8, 3)]),
            new(first.AddDays(1), null, null, true, [new(side.Column, 2, null, 6)]),
        ];
        var taken = await Give(visit, Codes(page, days)).Ok<HomeCodeTaken>();
        Assert.Equal([first, first.AddDays(1)], taken.Taken);
        var rows = await Rows(visit);
        var log = rows.Single(r => r.Day == first);
        Assert.True(log.Reported);
        Assert.Equal((9, 3, 1), (log.Log!.Done.Single().Reps, log.Log.Pain, log.Log.NextMorning));
        Assert.Equal(
            (6, "Stopped because it hurt."),
            (
                rows.Single(r => r.Day == first.AddDays(1)).Log!.Pain,
                rows.Single(r => r.Day == first.AddDays(1)).Log!.Remark
            )
        );

        // The same code again, and an older one: refused, and nothing changes.
        await Replayed(visit, Codes(page, days));
        await Replayed(visit, Codes(page, Day(first, new PackedSet(side.Column, 1, null, null))));
        Assert.Equal(9, (await Rows(visit)).Single(r => r.Day == first).Log!.Done.Single().Reps);

        // A later one has a set more of a day, and a day more.
        PackedDay[] later =
        [
            days[0] with
            {
                Sets = [.. days[0].Sets, new(side.Column, 3, 5, 0)],
            },
            days[1],
            Day(first.AddDays(3), new PackedSet(side.Column, 5, 5, 0)),
        ];
        taken = await Give(visit, Codes(page, later)).Ok<HomeCodeTaken>();
        Assert.Equal([first, first.AddDays(3)], taken.Taken);
        Assert.Equal([first.AddDays(1)], taken.There);
        Assert.Equal(12, (await Rows(visit)).Single(r => r.Day == first).Log!.Done.Single().Reps);

        // A second phone knows less of the day, but that it hurt.
        taken = await Give(visit, Codes(page, Day(first, new PackedSet(side.Column, 1, 5, 8))))
            .Ok<HomeCodeTaken>();
        Assert.Equal([first], taken.Taken);
        var joined = (await Rows(visit)).Single(r => r.Day == first).Log!;
        Assert.Equal((12, 8), (joined.Done.Single().Reps, joined.Pain));
        // What the phone told is decided by.
        var decided = await browser.GetStringAsync($"/api/visits/{visit}/decisions");
        Assert.Contains("day.home-", decided, StringComparison.Ordinal);
    }

    private async Task Replayed(Guid visit, string[] codes)
    {
        var answer = await Give(visit, codes);
        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Contains("already", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_day_that_was_written_at_the_clinic_stands()
    {
        var (opened, page, _) = await TakenHome();
        var first = DateOnly.FromDateTime(clock.GetUtcNow().DateTime).AddDays(1);
        var visit = await VisitAfter(opened, 3);
        HomeDay typed = new(first, [], 4, null, "by telephone");
        await browser
            .Put($"/api/episodes/{opened.EpisodeId}/home-log", new HomeDayForm(typed, 0))
            .Ok<HomeDayStored>();
        var taken = await Give(visit, Codes(page, Day(first, new PackedSet(0, 5, 5, 9)))).Ok<HomeCodeTaken>();
        Assert.Equal([new KeptDay(first, 9, null)], taken.Kept);
        var row = (await Rows(visit)).Single(r => r.Day == first);
        Assert.False(row.Reported);
        Assert.Equal(("by telephone", 4), (row.Log!.Remark, row.Log.Pain));
        // A day put right at the clinic is the clinic's from then on.
        var reported = first.AddDays(1);
        await Give(visit, Codes(page, Day(reported, new PackedSet(0, 5, 5, 1)))).Ok<HomeCodeTaken>();
        var now = (await Rows(visit)).Single(r => r.Day == reported);
        await browser
            .Put(
                $"/api/episodes/{opened.EpisodeId}/home-log",
                new HomeDayForm(now.Log! with { Pain = 2 }, now.Version)
            )
            .Ok<HomeDayStored>();
        Assert.False((await Rows(visit)).Single(r => r.Day == reported).Reported);
        Assert.Equal(
            [new KeptDay(reported, 9, null)],
            (
                await Give(visit, Codes(page, Day(reported, new PackedSet(0, 9, 5, 9)))).Ok<HomeCodeTaken>()
            ).Kept
        );
    }

    [Fact]
    public async Task What_is_not_this_client_s_or_not_of_now_is_refused_and_nothing_is_written()
    {
        var (opened, page, _) = await TakenHome();
        var (_, theirs, _) = await TakenHome();
        var day = DateOnly.FromDateTime(clock.GetUtcNow().DateTime).AddDays(1);
        var visit = await VisitAfter(opened, 2);
        var set = new PackedSet(0, 5, 5, 0);
        var good = Codes(page, Day(day, set));
        Assert.Contains(
            "another client",
            await Refused(visit, Codes(theirs, Day(day, set))),
            StringComparison.Ordinal
        );
        Assert.Contains("cut off", await Refused(visit, good[0][..40]), StringComparison.Ordinal);
        Assert.Contains("cut off", await Refused(visit, "hello"), StringComparison.Ordinal);
        Assert.Contains(
            "changed on the way",
            await Refused(visit, Codes(page with { Key = theirs.Key }, Day(day, set))),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "not made here",
            await Refused(
                visit,
                Codes(page with { Token = Convert.ToBase64String(new byte[28]) }, Day(day, set))
            ),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "cut off",
            await Refused(visit, Codes(page, Day(day, new PackedSet(200, 5, 5, 0)))),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "cut off",
            await Refused(visit, Codes(page, Day(day, set), Day(day, set))),
            StringComparison.Ordinal
        );
        // One day before the episode, one that has not been: neither is the good one beside it written.
        Assert.NotEmpty(await Refused(visit, Codes(page, Day(day, set), Day(day.AddDays(-40), set))));
        Assert.NotEmpty(await Refused(visit, Codes(page, Day(day, set), Day(day.AddDays(40), set))));
        Assert.All(await Rows(visit), row => Assert.Null(row.Log));
        Assert.NotEmpty(await Give(visit, []).RefusedFields(HttpStatusCode.UnprocessableEntity));
        clock.Go(TimeSpan.FromDays(400));
        browser = await running.SignedIn();
        Assert.Contains("could be read until", await Refused(visit, good), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Another_language_is_named_by_its_field()
    {
        var (opened, _, _) = await TakenHome();
        Assert.Contains(
            "lang",
            await browser
                .GetAsync($"/api/episodes/{opened.EpisodeId}/home.html?lang=xx")
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }
}
