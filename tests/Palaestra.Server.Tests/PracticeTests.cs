using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Palaestra.Core.Agreement;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Data.Practice;
using Palaestra.Data.Staff;
using Palaestra.Server.Practice;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The practice room: clips, drills, team sessions, and what they change.</summary>
public sealed class PracticeTests : IAsyncLifetime
{
    private readonly HeldClock clock = new();
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-test-").FullName;
    private RunningServer server;
    private HttpClient browser = null!;

    public PracticeTests() => server = new RunningServer(folder: folder, clock: clock);

    public async ValueTask InitializeAsync() => browser = await server.SignedIn();

    public ValueTask DisposeAsync()
    {
        server.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    private Task<PracticeRunView> Begin(DrillForm? form = null) =>
        browser.Post("/api/practice/drills", form ?? new DrillForm(Clips: 12)).Ok<PracticeRunView>();

    private static Task<ClipAnswered> Answer(HttpClient who, PracticeRunView run, params ClipMark[] marks) =>
        who.Post($"/api/practice/runs/{run.Id}/answers", new ClipAnswerForm(run.Answered, marks))
            .Ok<ClipAnswered>();

    /// <summary>What stands there in the store, and nobody is told.</summary>
    private async Task<ClipSpec> Shown(PracticeRunView run)
    {
        await using var scope = server.Services.CreateAsyncScope();
        var stored = await scope
            .ServiceProvider.GetRequiredService<PalaestraDb>()
            .PracticeRuns.SingleAsync(r => r.Id == run.Id);
        var spec = ClipRoom
            .Of(scope.ServiceProvider.GetRequiredService<PracticeLibrary>())
            .Spec(stored.NextSeed!.Value);
        return stored.NextMirrored ? spec.Mirrored() : spec;
    }

    /// <summary>To the end, seeing what <paramref name="sees"/> says of each.</summary>
    private async Task<PracticeRunView> Finish(HttpClient who, PracticeRunView run, Func<ClipSpec, bool> sees)
    {
        while (run.Next is not null)
        {
            var spec = await Shown(run);
            run = (
                await Answer(who, run, spec.Truth is { } t && sees(spec) ? [new(t.Fault, t.Second)] : [])
            ).Run;
        }
        return run;
    }

    [Fact]
    public async Task A_clip_is_told_by_its_seed_and_is_the_same_each_time()
    {
        var once = await browser.GetStringAsync("/api/practice/clips/29");
        Assert.Equal(once, await browser.GetStringAsync("/api/practice/clips/29"));
        using var clip = JsonDocument.Parse(once);
        var truth = clip.RootElement.GetProperty("truth");
        await using var scope = server.Services.CreateAsyncScope();
        var library = scope.ServiceProvider.GetRequiredService<PracticeLibrary>();
        var spec = ClipRoom.Of(library).Spec(29);
        Assert.Equal(spec.Truth!.Fault, truth.GetProperty("fault").GetString());
        Assert.True(clip.RootElement.GetProperty("frames").GetArrayLength() > 100);
        var mirrored = await browser.Get<JsonElement>("/api/practice/clips/29?mirrored=true&outline=true");
        Assert.NotEqual(
            truth.GetProperty("side").GetString(),
            mirrored.GetProperty("truth").GetProperty("side").GetString()
        );
        Assert.Equal(
            mirrored.GetProperty("frames").GetArrayLength(),
            mirrored.GetProperty("clean").GetArrayLength()
        );
        foreach (var bad in new[] { "-1", "x", "2147483648", "1.5" })
        {
            Assert.Equal(
                ["seed"],
                await browser
                    .GetAsync($"/api/practice/clips/{bad}")
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            );
        }
    }

    [Fact]
    public async Task A_drill_shows_clips_without_their_truth_and_tells_it_after_each()
    {
        var run = await Begin();
        var text = await browser.GetStringAsync($"/api/practice/runs/{run.Id}");
        foreach (var telling in new[] { "truth", "seed", "sought", "\"side\":" })
        {
            Assert.DoesNotContain(telling, text, StringComparison.OrdinalIgnoreCase);
        }
        var spec = await Shown(run);
        var answered = await Answer(browser, run);
        Assert.Equal(spec, answered.Feedback!.Result.Spec);
        Assert.NotNull(answered.Feedback.Why);
        Assert.Equal(spec.Truth is not null, answered.Feedback.Clean is not null);
        // The same answer again, as when the line broke: told once more, stored once.
        var again = await Answer(browser, run, new ClipMark("arch", 1));
        Assert.Equal(answered.Feedback.Result, again.Feedback!.Result);
        Assert.Equal(1, again.Run.Answered);
        var over = await Finish(browser, again.Run, _ => true);
        Assert.Equal((12, DrillEnd.AllShown), (over.Answered, over.End));
        Assert.Equal(12, over.Results.Count);
        var room = await browser.Get<PracticeView>("/api/practice");
        Assert.Equal((12, false), (room.Own.Clips, room.Own.Enough));
        Assert.False(room.Due);
        clock.Go(TimeSpan.FromDays(92));
        browser = await server.SignedIn();
        Assert.True((await browser.Get<PracticeView>("/api/practice")).Due);
    }

    [Fact]
    public async Task A_drill_ends_when_its_minutes_are_over_and_another_one_ends_the_one_before()
    {
        var run = await Begin(new DrillForm(Minutes: 2));
        clock.Go(TimeSpan.FromMinutes(2));
        Assert.Equal(DrillEnd.TimeUp, (await Answer(browser, run)).Run.End);
        var left = await Begin();
        await Begin();
        var stood = await browser.Get<PracticeRunView>($"/api/practice/runs/{left.Id}");
        Assert.Equal((DrillEnd.Stopped, 0), (stood.End, stood.Answered));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await browser.Post($"/api/practice/runs/{left.Id}/answers", new ClipAnswerForm(0, []))
            ).StatusCode
        );
    }

    [Fact]
    public async Task What_cannot_be_names_its_field_and_nothing_is_stored()
    {
        Assert.Equal(
            ["clips", "minutes", "faults[0]"],
            await browser
                .Post("/api/practice/drills", new DrillForm(["tremor"], Clips: 3, Minutes: 0))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await browser.Post("/api/practice/drills", new DrillForm(Episode: Guid.NewGuid()))).StatusCode
        );
        Assert.Equal(
            ["name", "clips"],
            await browser
                .Post("/api/practice/teams", new TeamForm(" ", 41))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var run = await Begin();
        Assert.Equal(
            ["marks[0].fault", "marks[0].second", "place"],
            await browser
                .Post($"/api/practice/runs/{run.Id}/answers", new ClipAnswerForm(-1, [new("nothing", -1)]))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(0, (await browser.Get<PracticeRunView>($"/api/practice/runs/{run.Id}")).Answered);
    }

    [Fact]
    public async Task Figures_are_whose_they_are()
    {
        var run = await Begin();
        var (other, _) = await server.Joins(Role.Practitioner);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await other.GetAsync($"/api/practice/runs/{run.Id}")).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await other.Post($"/api/practice/runs/{run.Id}/answers", new ClipAnswerForm(0, []))).StatusCode
        );
        Assert.Equal(0, (await other.Get<PracticeView>("/api/practice")).Own.Clips);
    }

    [Fact]
    public async Task A_team_sees_the_same_clips_and_its_report_has_no_names_unless_they_are_shared()
    {
        var team = (
            await browser.Post("/api/practice/teams", new TeamForm("Spring", 24)).Ok<PracticeTeamView>()
        ).Team;
        var (other, _) = await server.Joins(Role.Trainer);
        var mine = await browser.Post($"/api/practice/teams/{team.Id}/runs", new { }).Ok<PracticeRunView>();
        // Until it is over nothing of it is told, not even by the report.
        Assert.Null((await Answer(browser, mine)).Feedback);
        var theirs = await Finish(
            other,
            await other.Post($"/api/practice/teams/{team.Id}/runs", new { }).Ok<PracticeRunView>(),
            _ => true
        );
        var early = await browser.Get<PracticeTeamView>($"/api/practice/teams/{team.Id}");
        Assert.Equal((0, 1), (early.Figures.Raters, early.Team.Done));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"/api/practice/runs/{mine.Id}/end", new { })).StatusCode
        );
        // Begun again it goes on where it was.
        var going = await browser.Post($"/api/practice/teams/{team.Id}/runs", new { }).Ok<PracticeRunView>();
        Assert.Equal((mine.Id, 1), (going.Id, going.Answered));
        await Finish(browser, going, spec => spec.Truth!.Degree >= Degree.Moderate);
        var report = await browser.Get<PracticeTeamView>($"/api/practice/teams/{team.Id}");
        Assert.True(report.Figures.Enough);
        Assert.InRange(report.Figures.Kappa!.Value, 0.1, 0.999);
        Assert.Equal(1, report.Figures.Members.Count(m => m.Rater is null));
        await other.Put($"/api/practice/runs/{theirs.Id}/shared", new ShareForm(true)).Ok<PracticeRunView>();
        var named = await browser.Get<PracticeTeamView>($"/api/practice/teams/{team.Id}");
        Assert.DoesNotContain(named.Figures.Members, m => m.Rater is null);
    }

    [Fact]
    public async Task Who_has_not_taken_part_reads_no_report()
    {
        var team = (
            await browser.Post("/api/practice/teams", new TeamForm("Summer", 12)).Ok<PracticeTeamView>()
        ).Team;
        var run = await browser.Post($"/api/practice/teams/{team.Id}/runs", new { }).Ok<PracticeRunView>();
        await Finish(browser, run, _ => true);
        Assert.Equal(
            1,
            (await browser.Get<PracticeTeamView>($"/api/practice/teams/{team.Id}")).Figures.Raters
        );
        var (other, _) = await server.Joins(Role.Practitioner);
        var before = await other.Get<PracticeTeamView>($"/api/practice/teams/{team.Id}");
        Assert.Equal((0, 0), (before.Figures.Raters, before.Figures.Hardest.Count));
    }

    [Fact]
    public async Task A_team_session_of_another_library_is_closed()
    {
        var team = (
            await browser.Post("/api/practice/teams", new TeamForm("Old", 12)).Ok<PracticeTeamView>()
        ).Team;
        var begun = await browser.Post($"/api/practice/teams/{team.Id}/runs", new { }).Ok<PracticeRunView>();
        await using (var scope = server.Services.CreateAsyncScope())
        {
            await scope
                .ServiceProvider.GetRequiredService<PalaestraDb>()
                .PracticeTeams.ExecuteUpdateAsync(set => set.SetProperty(t => t.LibraryVersion, "another"));
        }
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"/api/practice/teams/{team.Id}/runs", new { })).StatusCode
        );
        // Nor does one go on that was begun: the same seeds are other clips.
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await browser.Post($"/api/practice/runs/{begun.Id}/answers", new ClipAnswerForm(0, []))
            ).StatusCode
        );
    }

    [Fact]
    public async Task The_clinic_s_own_eye_is_taken_on_only_with_enough_clips_and_stays_after_a_start()
    {
        var before = await browser.Get<OwnEyeView>("/api/practice/eye");
        Assert.False(before.Enough);
        Assert.Equal(
            ["use"],
            await browser
                .Put("/api/practice/eye", new OwnEyeForm(true, before.Version))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            ["use"],
            await browser
                .Post("/api/practice/eye/effects", new OwnEyeForm(true, 0))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await Answered(70);
        var enough = await browser.Get<OwnEyeView>("/api/practice/eye");
        Assert.True(enough.Enough);
        Assert.Null(enough.Taken);
        Assert.Equal(enough.BuiltIn, enough.InForce);
        Assert.True(enough.Offered.Missed > enough.BuiltIn.Missed);
        await browser
            .Post("/api/practice/eye/effects", new OwnEyeForm(true, 0))
            .Ok<IReadOnlyList<EyeEffect>>();
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put("/api/practice/eye", new OwnEyeForm(true, enough.Version + 7))).StatusCode
        );
        var taken = await browser
            .Put("/api/practice/eye", new OwnEyeForm(true, enough.Version))
            .Ok<OwnEyeView>();
        Assert.Equal(enough.Offered, taken.InForce);
        server.Dispose();
        server = new RunningServer(folder: folder, clock: clock);
        browser = await server.SignedIn();
        Assert.Equal(enough.Offered, (await browser.Get<OwnEyeView>("/api/practice/eye")).InForce);
        // And back again.
        var back = await browser
            .Put("/api/practice/eye", new OwnEyeForm(false, taken.Version))
            .Ok<OwnEyeView>();
        Assert.Equal((back.BuiltIn, (ClinicEye?)null), (back.InForce, back.Taken));
    }

    /// <summary>Clips of a rater who sees only plain faults, put into the store.</summary>
    private async Task Answered(int clips)
    {
        await using var scope = server.Services.CreateAsyncScope();
        var (db, library) = (
            scope.ServiceProvider.GetRequiredService<PalaestraDb>(),
            scope.ServiceProvider.GetRequiredService<PracticeLibrary>()
        );
        var run = new PracticeRun
        {
            AccountId = (await db.Users.FirstAsync()).Id,
            Aim = new([], []),
            StartedAt = NodaTime.Instant.FromDateTimeOffset(clock.GetUtcNow()),
            Place = clips,
        };
        db.PracticeRuns.Add(run);
        for (var i = 0; i < clips; i++)
        {
            ClipMark[] marks = ClipRoom.Of(library).Spec(i).Truth is { Degree: >= Degree.Plain } t
                ? [new(t.Fault, t.Second)]
                : [];
            db.PracticeAnswers.Add(
                new()
                {
                    RunId = run.Id,
                    Place = i,
                    Marks = marks,
                    Result = ClipResult.Of(new(i, false, marks), library),
                    At = run.StartedAt,
                }
            );
        }
        await db.SaveChangesAsync();
    }

    [Fact]
    public async Task How_far_raters_agree_is_answered_or_the_field_is_named()
    {
        var numbers = await browser
            .Post(
                "/api/compute/agreement",
                new { kind = "numbers", ratings = new[] { new[] { 1.0, 2 }, [2, 1] } }
            )
            .Ok<AgreementAnswer>();
        Assert.Equal(-1, numbers.Icc!["1,1"].Value);
        Assert.Null(numbers.Icc["1,2"].Value);
        var names = await browser
            .Post(
                "/api/compute/agreement",
                new { kind = "categories", ratings = new[] { new[] { "arch", "arch" }, ["none", "twist"] } }
            )
            .Ok<AgreementAnswer>();
        Assert.Equal(2, names.Items);
        Assert.Equal(
            ["ratings[1][1]"],
            await browser
                .Post(
                    "/api/compute/agreement",
                    new { kind = "numbers", ratings = new object?[][] { [1, 2], [2, "x"] } }
                )
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        // Nothing at all is no value.
        Assert.Equal(
            ["ratings[1][1]"],
            await browser
                .Post(
                    "/api/compute/agreement",
                    new { kind = "numbers", ratings = new object?[][] { [1, 2], [2, null] } }
                )
                .RefusedFields(HttpStatusCode.BadRequest)
        );
    }
}
