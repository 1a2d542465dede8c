using System.Net;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data.Day;
using Palaestra.Server.Clinics;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;
using Palaestra.Server.Policies;
using Palaestra.Server.Screening;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

public sealed class PrescriptionTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await one.Running.SignedIn();
        clinic = new Clinic(browser);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<Opened> Screened(IntakeForm? form = null)
    {
        var opened = await clinic.NewClient(form);
        await clinic.Screen(opened.VisitId, 3, 2);
        return opened;
    }

    private static string At(Opened opened, string path) => $"/api/episodes/{opened.EpisodeId}/{path}";

    [Fact]
    public async Task A_proposal_for_other_minutes_keeps_what_is_kept_and_stores_nothing()
    {
        var opened = await Screened();
        var first = (await browser.Get<PlanView>(At(opened, "plan"))).Proposal!;
        var kept = first.Plan.Items[^1] with { For = Message.Plain("kept by the practitioner") };
        var shorter = await browser
            .Post(At(opened, "plan/propose"), new PlanAsk(6, [kept], [first.Plan.Items[0].RungId]))
            .Ok<PlanProposal>();
        Assert.InRange(shorter.Plan.TotalMinutes, 0.1, 6.01);
        Assert.Equal(
            "kept by the practitioner",
            shorter.Plan.Items.Single(item => item.Id == kept.Id).For.Text
        );
        Assert.DoesNotContain(shorter.Plan.Items, item => item.RungId == first.Plan.Items[0].RungId);
        Assert.Empty((await browser.Get<PlanView>(At(opened, "plan"))).Revisions);
    }

    [Fact]
    public async Task What_cannot_be_asked_is_named()
    {
        var opened = await Screened();
        var wrong = new PlanItem(
            Guid.NewGuid(),
            "B5",
            Message.Plain(""),
            [new(Side.Left, new Dose(0, 1, 0))],
            [],
            [],
            ""
        );
        Assert.Equal(
            ["locked[0].doses[0].dose.reps", "minutesPerDay", "leftOut[0]"],
            await browser
                .Post(At(opened, "plan/propose"), new PlanAsk(0, [wrong], ["Q9"]))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var unseen = await clinic.NewClient();
        await browser
            .Post(At(unseen, "plan/propose"), new PlanAsk(10, [], []))
            .RefusedFields(HttpStatusCode.UnprocessableEntity);
    }

    [Fact]
    public async Task Goals_days_equipment_and_days_away_are_asked_and_kept()
    {
        var today = DateOnly.FromDateTime(DateTime.Now);
        var form = Clinic.Form() with
        {
            Goals = ["lift"],
            Equipment = ["mat"],
            DaysPerWeek = 3,
            Away = [new DaysAway(today.AddDays(3), today.AddDays(5))],
        };
        var opened = await Screened(form);
        var kept = (await clinic.Episode(opened.EpisodeId)).Intake;
        Assert.Equal(["lift"], kept.Goals!);
        Assert.Equal(["mat"], kept.Equipment!);
        Assert.Equal(3, kept.DaysPerWeek);
        var plan = await clinic.AcceptProposal(opened);
        var library = await browser.Get<Library.LibraryView>("/api/library");
        Assert.All(
            plan.Plan.Items,
            item =>
                Assert.DoesNotContain(
                    library.Ladders.SelectMany(l => l.Rungs).Single(r => r.Id == item.RungId).Equipment,
                    piece => piece != "mat"
                )
        );
        var calendar = await browser.Get<CalendarView>(At(opened, "calendar"));
        Assert.DoesNotContain(
            calendar.Days,
            day => day.Day >= today.AddDays(3) && day.Day <= today.AddDays(5)
        );
        Assert.InRange(calendar.Days.Count(day => day.Day <= today.AddDays(7)), 1, 3);

        var wrong = form with
        {
            Goals = ["fly"],
            DaysPerWeek = 8,
            Away = [new DaysAway(today, today.AddDays(-1))],
        };
        var fields = await browser
            .Post("/api/clients", wrong)
            .RefusedFields(HttpStatusCode.UnprocessableEntity);
        Assert.Equal(["away[0]", "daysPerWeek", "goals[0]"], fields.Order());
    }

    [Fact]
    public async Task What_a_surgeon_wrote_goes_on_barring_after_its_date_and_asks_for_a_look()
    {
        var yesterday = DateOnly.FromDateTime(DateTime.Now).AddDays(-1);
        ClientPrecaution Surgery(DateOnly until) => new("surgery", Options: ["kneeling"], Until: until);
        var holds = await clinic.NewClient(
            Clinic.Form() with
            {
                Precautions = [Surgery(yesterday.AddDays(1))],
            }
        );
        var lapsed = await clinic.NewClient(Clinic.Form() with { Precautions = [Surgery(yesterday)] });
        foreach (var opened in new[] { holds, lapsed })
        {
            var plan = await browser.Get<PlanView>(At(opened, "plan"));
            Assert.Contains(plan.Forbidden, f => f.RungId == "D1");
        }
        Assert.True((await clinic.Episode(lapsed.EpisodeId)).Tags.Single().Lapsed);
        var pile = (await browser.Get<DayView>("/api/day")).Pile;
        Assert.Contains(
            pile,
            e => e.EpisodeId == lapsed.EpisodeId && e.Kind == WorklistKind.PrecautionLapsed
        );
        Assert.DoesNotContain(pile, e => e.EpisodeId == holds.EpisodeId);
    }

    [Fact]
    public async Task Swaps_and_comparisons_are_told_and_unknown_ones_refused()
    {
        var opened = await Screened();
        var swaps = await browser.Get<SwapList>(At(opened, "plan/swaps/B5"));
        Assert.Equal(Direction.Front, swaps.Direction);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await browser.GetAsync(At(opened, "plan/swaps/Y1"))).StatusCode
        );
        var first = await clinic.AcceptProposal(opened);
        var items = first.Plan.Items.ToList();
        items[^1] = items[^1] with
        {
            Doses =
            [
                .. items[^1].Doses.Select(d => d with { Dose = d.Dose with { Reps = d.Dose.Reps + 1 } }),
            ],
        };
        await browser
            .Post(
                At(opened, "plans"),
                new AcceptPlanForm(
                    new PlanForm(items, first.Plan.Strategy, first.Plan.Activation),
                    opened.VisitId,
                    1
                )
            )
            .Ok<PlanRevisionView>();
        var compared = await browser.Get<ComparedPlans>(At(opened, "plan/compare?before=1&after=2"));
        Assert.NotEmpty(compared.Comparison.Items.Single(pair => pair.After!.Id == items[^1].Id).Changes);
        Assert.All(compared.Comparison.Items.SkipLast(1), pair => Assert.Empty(pair.Changes));
        Assert.True(compared.Work.Growth > 0);
        Assert.Equal(
            ["after"],
            await browser
                .GetAsync(At(opened, "plan/compare?before=1&after=9"))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    /// <summary>The feed read back with the library: the same ids from revision to revision, and sequences that only grow.</summary>
    [Fact]
    public async Task A_newer_plan_takes_the_place_of_the_older_days_in_the_feed()
    {
        var opened = await Screened();
        var first = await clinic.AcceptProposal(opened);
        var path = (await browser.Post(At(opened, "feed"), new { }).Ok<FeedView>()).Path;
        var outside = one.Running.Browser();
        var before = Ical
            .Net.Calendar.Load(await outside.GetStringAsync(path))!
            .Events.ToDictionary(e => e.Uid!);
        var fewer = first.Plan.Items.Take(first.Plan.Items.Count - 1).ToList();
        await browser
            .Post(
                At(opened, "plans"),
                new AcceptPlanForm(
                    new PlanForm(fewer, first.Plan.Strategy, first.Plan.Activation),
                    opened.VisitId,
                    1
                )
            )
            .Ok<PlanRevisionView>();
        var after = Ical
            .Net.Calendar.Load(await outside.GetStringAsync(path))!
            .Events.ToDictionary(e => e.Uid!);
        Assert.Equal(before.Keys.Order(), after.Keys.Order());
        var days = after
            .Values.Where(e => e.Summary!.StartsWith("Exercises", StringComparison.Ordinal))
            .ToList();
        Assert.NotEmpty(days);
        Assert.All(days, e => Assert.True(e.Sequence > before[e.Uid!].Sequence));
        Assert.Equal(after.Count, after.Values.Select(e => e.Uid).Distinct().Count());

        Assert.Equal(HttpStatusCode.NoContent, (await browser.DeleteAsync(At(opened, "feed"))).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await outside.GetAsync(path)).StatusCode);
    }

    /// <summary>A calendar that has it already is told so, and one that only looks gets no more than that.</summary>
    [Fact]
    public async Task A_feed_that_has_not_changed_is_not_sent_again()
    {
        var opened = await Screened();
        await clinic.AcceptProposal(opened);
        var path = (await browser.Post(At(opened, "feed"), new { }).Ok<FeedView>()).Path;
        var first = await browser.GetAsync(path);
        var tag = first.Headers.ETag!;
        using var look = new HttpRequestMessage(HttpMethod.Head, path);
        var looked = await browser.SendAsync(look);
        Assert.Equal((HttpStatusCode.OK, tag), (looked.StatusCode, looked.Headers.ETag!));
        Assert.Empty(await looked.Content.ReadAsByteArrayAsync());
        using var again = new HttpRequestMessage(HttpMethod.Get, path);
        again.Headers.IfNoneMatch.Add(tag);
        Assert.Equal(HttpStatusCode.NotModified, (await browser.SendAsync(again)).StatusCode);
        await clinic.Book(opened.EpisodeId);
        using var later = new HttpRequestMessage(HttpMethod.Get, path);
        later.Headers.IfNoneMatch.Add(tag);
        Assert.Equal(HttpStatusCode.OK, (await browser.SendAsync(later)).StatusCode);
    }

    /// <summary>A calendar asks a few times a day; whoever asks on and on, or tries addresses, is held off, and nobody else is.</summary>
    [Fact]
    public async Task A_feed_that_is_asked_for_on_and_on_is_held_off_and_a_colleagues_is_not()
    {
        // Its own server: who was held off is held off for a while.
        using var own = new RunningServer();
        var signedIn = await own.SignedIn();
        var here = new Clinic(signedIn);
        var paths = new List<string>();
        foreach (var _ in Enumerable.Range(0, 2))
        {
            var opened = await here.NewClient();
            await here.Screen(opened.VisitId, 1, 1);
            await here.AcceptProposal(opened);
            paths.Add((await signedIn.Post(At(opened, "feed"), new { }).Ok<FeedView>()).Path);
        }
        var somebody = own.Browser();
        var answers = new List<HttpStatusCode>();
        foreach (var _ in Enumerable.Range(0, 40))
        {
            answers.Add((await somebody.GetAsync(paths[0])).StatusCode);
        }
        Assert.Equal(HttpStatusCode.OK, answers[0]);
        Assert.Equal(HttpStatusCode.TooManyRequests, answers[^1]);
        Assert.Equal(HttpStatusCode.OK, (await somebody.GetAsync(paths[1])).StatusCode);
        var tried = new List<HttpStatusCode>();
        foreach (var _ in Enumerable.Range(0, 7))
        {
            tried.Add((await somebody.GetAsync($"/feeds/{Guid.NewGuid():N}.ics")).StatusCode);
        }
        Assert.Equal((HttpStatusCode.NotFound, HttpStatusCode.TooManyRequests), (tried[0], tried[^1]));
        Assert.Equal(HttpStatusCode.OK, (await somebody.GetAsync(paths[1])).StatusCode);
    }

    [Fact]
    public async Task A_day_away_that_was_in_the_feed_is_cancelled()
    {
        var opened = await Screened();
        await clinic.AcceptProposal(opened);
        var episode = await clinic.Episode(opened.EpisodeId);
        var today = DateOnly.FromDateTime(DateTime.Now);
        await browser
            .Put(
                At(opened, "intake"),
                episode.Intake with
                {
                    Away = [new DaysAway(today.AddDays(1), today.AddDays(1))],
                    Version = episode.Version,
                }
            )
            .Ok<EpisodeView>();
        var events = Ical.Net.Calendar.Load(await browser.GetStringAsync(At(opened, "calendar.ics")))!.Events;
        var away = events.Single(e =>
            e.Uid!.Contains($"-{today.AddDays(1):yyyyMMdd}@", StringComparison.Ordinal)
        );
        Assert.Equal(Ical.Net.EventStatus.Cancelled, away.Status);
        Assert.True(away.Sequence > 0);
    }

    [Fact]
    public async Task While_a_danger_sign_is_open_no_day_of_the_feed_holds()
    {
        var opened = await Screened();
        await clinic.AcceptProposal(opened);
        async Task<List<Ical.Net.CalendarComponents.CalendarEvent>> Days() =>
            [
                .. Ical
                    .Net.Calendar.Load(await browser.GetStringAsync(At(opened, "calendar.ics")))!
                    .Events.Where(e => e.Summary!.StartsWith("Exercises", StringComparison.Ordinal)),
            ];
        var before = await Days();
        Assert.Contains(before, e => e.Status == Ical.Net.EventStatus.Confirmed);
        var sign = (await browser.Get<Library.LibraryView>("/api/library")).DangerSigns[0].Id;
        await browser.Post(At(opened, "danger-reports"), new DangerSignsForm([sign])).Ok<EpisodeView>();
        var closed = await Days();
        Assert.All(closed, e => Assert.Equal(Ical.Net.EventStatus.Cancelled, e.Status));
        Assert.All(closed, e => Assert.True(e.Sequence > before.Single(b => b.Uid == e.Uid).Sequence));
    }

    [Fact]
    public async Task The_sheet_is_a_pdf_of_the_plan_in_force_and_there_is_none_without()
    {
        var opened = await Screened();
        Assert.Equal(HttpStatusCode.NotFound, (await browser.GetAsync(At(opened, "sheet.pdf"))).StatusCode);
        await clinic.AcceptProposal(opened);
        foreach (var query in new[] { "", "?paper=letter", "?large=true", "?record=true" })
        {
            var answer = await browser.GetAsync(At(opened, $"sheet.pdf{query}"));
            Assert.Equal("application/pdf", answer.Content.Headers.ContentType!.MediaType);
            Assert.Equal("%PDF"u8.ToArray(), (await answer.Content.ReadAsByteArrayAsync())[..4]);
        }
        await browser
            .GetAsync(At(opened, "sheet.pdf?paper=papyrus"))
            .RefusedFields(HttpStatusCode.BadRequest);
    }

    /// <summary>A plan of an earlier version names a rung that has moved: it is read, run and decided as what it is today.</summary>
    [Fact]
    public async Task A_stored_plan_with_a_rung_that_moved_goes_on()
    {
        var opened = await Screened();
        var plan = await clinic.AcceptProposal(opened);
        var item = plan.Plan.Items.First(i => i.Doses is [{ Side: Side.Both }]);
        await using (
            var db = new Microsoft.Data.Sqlite.SqliteConnection(
                Data.Store.ConnectionString(one.Running.Folder)
            )
        )
        {
            await db.OpenAsync();
            await using var old = db.CreateCommand();
            old.CommandText = """
                UPDATE Plans SET Plan = replace(Plan, '"rungId":"' || $now || '"', '"rungId":"N1"') WHERE EpisodeId = $episode
                """;
            old.Parameters.AddWithValue("$now", item.RungId);
            old.Parameters.AddWithValue("$episode", opened.EpisodeId.ToString().ToUpperInvariant());
            Assert.Equal(1, await old.ExecuteNonQueryAsync());
        }
        var read = (await browser.Get<PlanView>(At(opened, "plan"))).Revisions[0].Plan;
        Assert.Equal("S1", read.Items.Single(i => i.Id == item.Id).RungId);

        var visit = await clinic.Book(opened.EpisodeId);
        await clinic.CheckIn(visit).Ok<VisitView>();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var hinge = library.Ladders.SelectMany(ladder => ladder.Rungs).First(rung => rung.Id == "N1");
        // A tablet that still had the old plan sends the old name.
        var events = clinic.Trial(hinge, Side.Both, hinge.Start, 5, 0, item.Id);
        await clinic.Send(visit.Id, events).Ok<EventsTaken>();
        var seen = await browser.Get<SessionView>($"/api/visits/{visit.Id}/session");
        Assert.Equal("S1", Assert.Single(seen.Performances).RungId);
    }

    [Fact]
    public async Task A_copied_policy_is_changed_version_by_version_and_plans_keep_theirs()
    {
        var copy = await browser
            .Post("/api/policies", new CopyPolicyForm("mastery-no-rise", "Quay way", "Shorter rests."))
            .Ok<Policy>();
        var opened = await Screened(Clinic.Form() with { PolicyId = copy.Id });
        var plan = await clinic.AcceptProposal(opened);
        Assert.Equal((copy.Id, 1), (plan.Plan.PolicyId, plan.Plan.PolicyVersion));

        var slow = copy with { Seconds = copy.Seconds with { SetUp = 60 } };
        var effects = await browser
            .Post($"/api/policies/{copy.Id}/effects", new PolicyDraft(slow))
            .Ok<List<PolicyEffect>>();
        Assert.Contains("minutes a day", Assert.Single(effects).Present[0].Text, StringComparison.Ordinal);
        var second = await browser
            .Put($"/api/policies/{copy.Id}", new ChangePolicyForm(slow, 1))
            .Ok<Policy>();
        Assert.Equal(2, second.Version);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put($"/api/policies/{copy.Id}", new ChangePolicyForm(copy, 1))).StatusCode
        );
        Assert.Equal(1, (await browser.Get<PlanView>(At(opened, "plan"))).Revisions[0].Plan.PolicyVersion);
        Assert.Equal(2, (await browser.Get<PlanView>(At(opened, "plan"))).Proposal!.Plan.PolicyVersion);
        var view = (await browser.Get<PoliciesView>("/api/policies")).Policies.Single(p =>
            p.Policy.Id == copy.Id
        );
        Assert.Equal((2, 1, "mastery-no-rise"), (view.Versions.Count, view.Clients, view.BasedOn));
    }

    [Fact]
    public async Task A_policy_out_of_bounds_or_built_in_is_refused_with_its_field()
    {
        var builtIn = (await browser.Get<PoliciesView>("/api/policies")).Policies[0].Policy;
        Assert.Equal(
            ["policy.id"],
            await browser
                .Put($"/api/policies/{builtIn.Id}", new ChangePolicyForm(builtIn, 1))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            ["name"],
            await browser
                .Post("/api/policies", new CopyPolicyForm(builtIn.Id, " ", "for a test"))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var copy = await browser
            .Post("/api/policies", new CopyPolicyForm(builtIn.Id, "Bounds", "for a test"))
            .Ok<Policy>();
        Assert.Equal(
            ["policy.evenPercent"],
            await browser
                .Put($"/api/policies/{copy.Id}", new ChangePolicyForm(copy with { EvenPercent = 90 }, 1))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task The_clinics_line_is_kept_and_an_older_edit_is_a_conflict()
    {
        var now = await browser.Get<ClinicForm>("/api/clinic");
        var kept = await browser
            .Put("/api/clinic", now with { Name = "Quay", Contact = "Call 0100" })
            .Ok<ClinicForm>();
        Assert.Equal("Call 0100", (await browser.Get<ClinicForm>("/api/clinic")).Contact);
        Assert.Equal(HttpStatusCode.Conflict, (await browser.Put("/api/clinic", now)).StatusCode);
        Assert.Equal(
            ["contact"],
            await browser
                .Put("/api/clinic", kept with { Contact = new string('x', 161) })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }
}
