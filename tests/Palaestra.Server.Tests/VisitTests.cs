using System.Net;
using Microsoft.Data.Sqlite;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;
using Palaestra.Data.Day;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;
using Palaestra.Server.Progression;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

public sealed class VisitTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private RunningServer Server => one.Running;
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await Server.SignedIn();
        clinic = new Clinic(browser);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<(Opened Opened, PlanRevisionView Plan, VisitView Visit)> WithPlan()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 2, 2);
        return (opened, await clinic.AcceptProposal(opened), await clinic.Book(opened.EpisodeId));
    }

    [Fact]
    public async Task A_visit_is_booked_from_today_to_a_year_ahead_and_not_twice_at_once()
    {
        var opened = await clinic.NewClient();
        var address = $"/api/episodes/{opened.EpisodeId}/visits";
        Task<HttpResponseMessage> Book(DateTime at) => browser.Post(address, new BookVisitForm(at));
        var soon = DateTime.UtcNow.Date.AddDays(3).AddHours(10);
        await Book(soon).Ok<VisitView>();
        foreach (var wrong in new[] { soon, soon.AddDays(-5), soon.AddYears(2) })
        {
            Assert.Contains("plannedAt", await Book(wrong).RefusedFields(HttpStatusCode.UnprocessableEntity));
        }
        Assert.Equal(2, (await clinic.Episode(opened.EpisodeId)).Visits.Count);
    }

    /// <summary>Another program holds the database, as a full disk would: a write is refused with words, the day is still told.</summary>
    [Fact]
    public async Task Where_nothing_can_be_written_reading_goes_on()
    {
        var opened = await clinic.NewClient();
        await browser.Get<Day.DayView>("/api/day");
        var changed = await clinic.NewClient();
        await using (
            var other = new SqliteConnection(
                Data.Store.ConnectionString(one.Running.Folder) + ";Pooling=False"
            )
        )
        {
            await other.OpenAsync();
            await using var hold = other.CreateCommand();
            hold.CommandText = "BEGIN IMMEDIATE";
            await hold.ExecuteNonQueryAsync();
            var refused = browser.Post("/api/clients", Clinic.Form());
            var told = browser.GetAsync("/api/day");
            Assert.Empty(await refused.RefusedFields(HttpStatusCode.ServiceUnavailable));
            Assert.Equal(HttpStatusCode.OK, (await told).StatusCode);
            Assert.Equal(opened.EpisodeId, (await clinic.Episode(opened.EpisodeId)).Id);
        }
        var day = await browser.Get<Day.DayView>("/api/day");
        Assert.Contains(day.Visits, v => v.EpisodeId == changed.EpisodeId);
    }

    [Theory]
    [InlineData(11, 2, 2.0, "checkIn.painNow")]
    [InlineData(2, -1, 2.0, "checkIn.usualPain")]
    [InlineData(2, 2, -3.0, "checkIn.settledHours")]
    public async Task Answers_that_cannot_be_are_refused_and_nothing_is_kept(
        int now,
        int usual,
        double settled,
        string field
    )
    {
        var (opened, _, visit) = await WithPlan();
        var form = new CheckInForm(new CheckIn(now, usual, null, settled, []), visit.Version);
        Assert.Contains(
            field,
            await browser
                .Put($"/api/visits/{visit.Id}/check-in", form)
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Null((await clinic.Episode(opened.EpisodeId)).Visits[1].CheckIn);
    }

    [Fact]
    public async Task Two_tablets_answering_the_same_questions_do_not_overwrite_each_other()
    {
        var (opened, _, visit) = await WithPlan();
        await clinic.CheckIn(visit).Ok<VisitView>();
        var second = await browser.Put(
            $"/api/visits/{visit.Id}/check-in",
            new CheckInForm(new CheckIn(9, 9, 9, 48, []), visit.Version)
        );
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        Assert.Equal(2, (await clinic.Episode(opened.EpisodeId)).Visits[1].Pain);
    }

    [Fact]
    public async Task A_session_runs_the_plan_that_was_in_force_when_the_visit_began()
    {
        var (opened, first, visit) = await WithPlan();
        var changed = new AcceptPlanForm(
            new PlanForm([first.Plan.Items[0]], first.Plan.Strategy, first.Plan.Activation),
            visit.Id,
            first.Revision
        );
        await browser.Post($"/api/episodes/{opened.EpisodeId}/plans", changed).Ok<PlanRevisionView>();
        var session = await browser.Get<SessionView>($"/api/visits/{visit.Id}/session");
        Assert.Equal(1, session.Plan!.Revision);
        Assert.Equal(first.Plan.Items.Count, session.Plan.Plan.Items.Count);
        Assert.Equal(2, session.LastPain);
    }

    [Fact]
    public async Task What_was_done_is_counted_against_what_was_asked()
    {
        var (_, plan, visit) = await WithPlan();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var item = plan.Plan.Items.First(i => i.Doses.Count == 2);
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Id == item.RungId);
        var dose = item.Doses[0];
        var events = clinic.Trial(rung, dose.Side, dose.Dose, dose.Dose.Reps - 2, 2, item.Id);
        await clinic.Send(visit.Id, events).Ok<EventsTaken>();
        var session = await browser.Get<SessionView>($"/api/visits/{visit.Id}/session");
        var performance = Assert.Single(session.Performances);
        Assert.Equal(dose.Side, performance.Side);
        Assert.Equal(dose.Dose.Reps - 2, performance.CleanReps);
        Assert.Equal(dose.Dose, performance.Prescribed);
    }

    [Fact]
    public async Task An_exercise_of_another_clients_plan_is_refused()
    {
        var (_, plan, _) = await WithPlan();
        var (_, _, visit) = await WithPlan();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var item = plan.Plan.Items[0];
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Id == item.RungId);
        var events = clinic.Trial(rung, item.Doses[0].Side, item.Doses[0].Dose, 2, 0, item.Id);
        Assert.Contains(
            "events[0].planItemId",
            await clinic.Send(visit.Id, events).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task Nothing_can_be_decided_before_there_is_a_plan_and_the_questions_are_answered()
    {
        var opened = await clinic.NewClient();
        var before = await browser.Get<DecideView>($"/api/visits/{opened.VisitId}/decisions");
        Assert.Contains("no plan", before.WhyNot?.Text, StringComparison.Ordinal);
        var (_, _, visit) = await WithPlan();
        var unasked = await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions");
        Assert.Contains("questions", unasked.WhyNot?.Text, StringComparison.Ordinal);
        var taken = await browser.Post($"/api/visits/{visit.Id}/decisions", new DecideForm([], 1));
        Assert.Equal(HttpStatusCode.Conflict, taken.StatusCode);
    }

    [Fact]
    public async Task A_session_without_decisions_waits_on_the_pile()
    {
        var (opened, plan, visit) = await WithPlan();
        await clinic.CheckIn(visit).Ok<VisitView>();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var item = plan.Plan.Items[0];
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Id == item.RungId);
        await clinic
            .Send(visit.Id, clinic.Trial(rung, item.Doses[0].Side, item.Doses[0].Dose, 5, 0, item.Id))
            .Ok<EventsTaken>();
        async Task<IEnumerable<WorklistEntry>> Pile() =>
            (await browser.Get<DayView>("/api/day")).Pile.Where(e => e.EpisodeId == opened.EpisodeId);
        var entry = Assert.Single(await Pile());
        Assert.Equal(
            (WorklistKind.NotDecided, opened.EpisodeId, "decide"),
            (entry.Kind, entry.EpisodeId, entry.Station)
        );
        await browser.Post($"/api/visits/{visit.Id}/decisions", new DecideForm([], 1)).Ok<DecideView>();
        Assert.Empty(await Pile());
    }

    [Fact]
    public async Task The_strategy_follows_the_shape_is_kept_and_can_be_changed()
    {
        var opened = await clinic.NewClient(Clinic.Form() with { Precautions = [new("flexion")] });
        var address = $"/api/episodes/{opened.EpisodeId}/neutral";
        var asked = await browser.Get<NeutralAsk>($"{address}?shape=large-arch&strategy=gently-flat");
        Assert.Equal((SpinalStrategy.Neutral, "N-FLEXION"), (asked.Proposal.Strategy, asked.Proposal.RuleId));
        Assert.NotEmpty(asked.Cautions);
        var form = new NeutralForm(RestingShape.LargeArch, SpinalStrategy.GentlyFlat, Activation.DrawIn, 1);
        var kept = await browser.Put(address, form).Ok<EpisodeView>();
        Assert.Equal(
            (SpinalStrategy.GentlyFlat, Activation.DrawIn),
            (kept.Neutral.Strategy, kept.Neutral.Activation)
        );
        Assert.Equal(HttpStatusCode.Conflict, (await browser.Put(address, form)).StatusCode);
    }

    [Fact]
    public async Task An_edited_plan_is_weighed_without_being_stored()
    {
        var (opened, plan, _) = await WithPlan();
        var item = plan.Plan.Items[^1];
        var more = item with
        {
            Doses = [.. item.Doses.Select(d => d with { Dose = d.Dose with { Reps = 40 } })],
        };
        var form = new PlanForm([more], plan.Plan.Strategy, plan.Plan.Activation);
        var weighed = await browser
            .Post($"/api/episodes/{opened.EpisodeId}/plan/weigh", form)
            .Ok<WeighedPlan>();
        Assert.True(weighed.Work.Seconds > 0);
        Assert.Contains(weighed.Plan.Warnings, w => w.RuleId == "P-CAP");
        Assert.Single((await browser.Get<PlanView>($"/api/episodes/{opened.EpisodeId}/plan")).Revisions);
        var none = form with { Items = [] };
        Assert.Contains(
            "items",
            await browser
                .Post($"/api/episodes/{opened.EpisodeId}/plan/weigh", none)
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }
}
