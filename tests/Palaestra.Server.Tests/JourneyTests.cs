using System.Net;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Server.Findings;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;
using Palaestra.Server.Planning;
using Palaestra.Server.Progression;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

public sealed class JourneyTests : IAsyncLifetime
{
    private readonly RunningServer server = new();
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await server.SignedIn();
        clinic = new Clinic(browser);
    }

    public ValueTask DisposeAsync()
    {
        server.Dispose();
        return ValueTask.CompletedTask;
    }

    private Task<LibraryView> Library() => browser.Get<LibraryView>("/api/library");

    private static Rung RungOf(LibraryView library, string id) =>
        library.Ladders.SelectMany(ladder => ladder.Rungs).First(rung => rung.Id == id);

    [Fact]
    public async Task From_a_new_client_to_the_second_plan_revision()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, left: 5, right: 2);

        var findings = (await browser.Get<FindingsView>($"/api/visits/{opened.VisitId}/findings")).Findings!;
        Assert.NotNull(findings.WeakLink);
        Assert.Contains(
            "B5",
            findings.Entries.Where(e => e is { LadderId: "B", Side: Side.Left }).Select(e => e.EntryRungId)
        );
        // Done with both arms together, so that the left side's clean trial of it counts for the right as well.
        Assert.Contains(
            "B4",
            findings.Entries.Where(e => e is { LadderId: "B", Side: Side.Right }).Select(e => e.EntryRungId)
        );

        var first = await clinic.AcceptProposal(opened);
        Assert.Equal(1, first.Revision);
        Assert.Equal("Edda Marl", first.AcceptedBy);

        var visit = await clinic.Book(opened.EpisodeId);
        visit = await clinic.CheckIn(visit).Ok<VisitView>();
        var library = await Library();
        foreach (var item in first.Plan.Items)
        {
            foreach (var dose in item.Doses)
            {
                for (var set = 1; set <= dose.Dose.Sets; set++)
                {
                    var events = clinic.Trial(
                        RungOf(library, item.RungId),
                        dose.Side,
                        dose.Dose,
                        dose.Dose.Reps,
                        0,
                        item.Id,
                        set
                    );
                    await clinic.Send(visit.Id, events).Ok<EventsTaken>();
                }
            }
        }
        // Where the client stands rests on the session too; what the screen found stays.
        int Reps(ScreenFindings told) => told.Abilities!.All.Sum(ability => ability.Reps);
        var since = (await browser.Get<FindingsView>($"/api/visits/{visit.Id}/findings")).Findings!;
        Assert.True(Reps(since) > Reps(findings));
        Assert.Equal(findings.Sentence, since.Sentence);
        var then = (await browser.Get<FindingsView>($"/api/visits/{opened.VisitId}/findings")).Findings!;
        Assert.Equal(Reps(findings), Reps(then));

        var decide = await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions");
        // All clean once: more of it, or where the dose was the target already, the same again.
        Assert.All(
            decide.Proposals,
            p =>
                Assert.Equal(
                    first
                        .Plan.Items.Single(item => item.Id == p.PlanItemId)
                        .Doses.Single(d => d.Side == p.Side)
                        .Dose.Covers(RungOf(library, p.RungId).Target)
                        ? (Outcome.Stay, "D-CONFIRM")
                        : (Outcome.Add, "D-BUILD"),
                    (p.Outcome, p.RuleId)
                )
        );

        var stubborn = decide.Proposals[0];
        var unexplained = new DecideForm([new Choice(stubborn.PlanItemId, stubborn.Side, Outcome.Stay)], 1);
        Assert.Contains(
            "choices[0].reason",
            await browser
                .Post($"/api/visits/{visit.Id}/decisions", unexplained)
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var choices = new DecideForm(
            [new Choice(stubborn.PlanItemId, stubborn.Side, Outcome.Stay, "slept badly")],
            1
        );
        await browser.Post($"/api/visits/{visit.Id}/decisions", choices).Ok<DecideView>();

        var plan = await browser.Get<PlanView>($"/api/episodes/{opened.EpisodeId}/plan");
        Assert.Equal([1, 2], plan.Revisions.Select(r => r.Revision));
        var kept = plan.Revisions[1].Plan.Items.First(i => i.Id == stubborn.PlanItemId);
        Assert.Contains(
            kept.Reasons,
            r => r.RuleId == "D-OVERRIDE" && r.Words.Text!.Contains("slept badly", StringComparison.Ordinal)
        );
        Assert.True(plan.Revisions[1].Plan.TotalMinutes > first.Plan.TotalMinutes);
        Assert.Equal(first.Plan.Items[0].Doses, plan.Revisions[0].Plan.Items[0].Doses);

        var again = await browser.Post($"/api/visits/{visit.Id}/decisions", choices);
        Assert.Equal(HttpStatusCode.Conflict, again.StatusCode);
    }

    [Fact]
    public async Task The_same_events_sent_many_times_at_once_are_stored_once()
    {
        var opened = await clinic.NewClient();
        var library = await Library();
        var events = clinic.Trial(RungOf(library, "B5"), Side.Left, RungOf(library, "B5").Start, 5, 0);
        var sending = Enumerable.Range(0, 6).Select(_ => clinic.Send(opened.VisitId, events)).ToArray();
        var answers = await Task.WhenAll(sending);
        Assert.All(
            answers,
            a => Assert.Contains(a.StatusCode, new[] { HttpStatusCode.OK, HttpStatusCode.Conflict })
        );
        var last = await clinic.Send(opened.VisitId, events).Ok<EventsTaken>();
        Assert.Equal(new EventsTaken(0, events.Count), last);
        var screen = await browser.Get<ScreenView>($"/api/visits/{opened.VisitId}/screen");
        Assert.Equal(5, Assert.Single(screen.Trials).Clean.Reps);
    }

    [Fact]
    public async Task A_danger_sign_closes_the_later_stations_until_it_is_recorded_what_was_done()
    {
        var opened = await clinic.NewClient(Clinic.Form("night-pain"));
        var episode = await clinic.Episode(opened.EpisodeId);
        Assert.True(episode.Closed);
        var library = await Library();
        var late = clinic
            .Trial(RungOf(library, "B5"), Side.Left, RungOf(library, "B5").Start, 5, 0)
            .Select(e => e with { At = e.At.AddHours(3) })
            .ToList();
        await clinic.Send(opened.VisitId, late).RefusedFields(HttpStatusCode.UnprocessableEntity);
        var neutral = new NeutralForm(default, default, default, episode.Version);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put($"/api/episodes/{opened.EpisodeId}/neutral", neutral)).StatusCode
        );
        var address =
            $"/api/episodes/{opened.EpisodeId}/danger-reports/{episode.DangerReports[0].Id}/cleared";
        Assert.Contains(
            "done",
            await browser
                .Post(address, new DangerClearedForm("nothing", " "))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var cleared = await browser
            .Post(address, new DangerClearedForm("Examined: eased by lying.", "Physician saw her."))
            .Ok<EpisodeView>();
        Assert.False(cleared.Closed);
        Assert.Equal("Edda Marl", cleared.DangerReports[0].ClearedBy);
        await clinic.Send(opened.VisitId, late).Ok<EventsTaken>();
    }

    [Fact]
    public async Task A_new_danger_sign_at_a_later_visit_stops_the_plan()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 2, 2);
        await clinic.AcceptProposal(opened);
        var visit = await clinic.Book(opened.EpisodeId);
        await clinic.CheckIn(visit, "leg-pain-further").Ok<VisitView>();
        Assert.True((await clinic.Episode(opened.EpisodeId)).Closed);
        var decide = await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions");
        Assert.All(decide.Proposals, p => Assert.Equal((Outcome.Stop, "D-REFER"), (p.Outcome, p.RuleId)));
        // Not even by overriding: no plan until somebody has recorded what was done.
        var stubborn = decide
            .Proposals.Select(p => new Choice(p.PlanItemId, p.Side, Outcome.Stay, "seems fine"))
            .ToList();
        var taken = await browser.Post($"/api/visits/{visit.Id}/decisions", new DecideForm(stubborn, 1));
        Assert.Equal(HttpStatusCode.Conflict, taken.StatusCode);
        Assert.Single((await browser.Get<PlanView>($"/api/episodes/{opened.EpisodeId}/plan")).Revisions);
    }

    [Fact]
    public async Task A_danger_sign_can_be_marked_at_any_moment_once_and_only_by_a_known_name()
    {
        var opened = await clinic.NewClient();
        var address = $"/api/episodes/{opened.EpisodeId}/danger-reports";
        var unknown = new DangerSignsForm(["new-weakness", "grumpy"]);
        Assert.Contains(
            "dangerSigns[1]",
            await browser.Post(address, unknown).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.False((await clinic.Episode(opened.EpisodeId)).Closed);
        var known = new DangerSignsForm(["new-weakness", "new-weakness"]);
        await browser.Post(address, known).Ok<EpisodeView>();
        var episode = await browser.Post(address, known).Ok<EpisodeView>();
        Assert.Single(episode.DangerReports);
        Assert.True(episode.Closed);
    }

    [Fact]
    public async Task Two_people_editing_the_same_client_see_both_versions()
    {
        var opened = await clinic.NewClient();
        var form = (await clinic.Episode(opened.EpisodeId)).Intake;
        var address = $"/api/episodes/{opened.EpisodeId}/intake";
        await browser.Put(address, form with { Complaint = "From the desk." }).Ok<EpisodeView>();
        var second = await browser.Put(address, form with { Complaint = "From the mat." });
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        Assert.Contains("From the desk.", await second.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal("From the desk.", (await clinic.Episode(opened.EpisodeId)).Intake.Complaint);
    }

    [Fact]
    public async Task A_plan_with_a_barred_rung_needs_a_reason_and_an_old_base_is_a_conflict()
    {
        var opened = await clinic.NewClient(Clinic.Form() with { Precautions = [new("wrist")] });
        await clinic.Screen(opened.VisitId, 2, 2);
        var plan = (await browser.Get<PlanView>($"/api/episodes/{opened.EpisodeId}/plan")).Proposal!.Plan;
        var barred = plan.Items[0] with
        {
            RungId = "D2",
            Doses = [new(Side.Left, new Dose(5, 1, 0)), new(Side.Right, new Dose(5, 1, 0))],
        };
        AcceptPlanForm Accept(Core.Planning.PlanItem item, int on, bool confirmed = false) =>
            new(
                new PlanForm([item], plan.Strategy, plan.Activation),
                opened.VisitId,
                on,
                confirmed ? [item.Id] : null
            );
        var address = $"/api/episodes/{opened.EpisodeId}/plans";
        Assert.Contains(
            "plan.items[0].rungId",
            await browser.Post(address, Accept(barred, 0)).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var reasoned = barred with { BarOverride = "on fists, tried and pain free" };
        Assert.Contains(
            "confirmed",
            await browser.Post(address, Accept(reasoned, 0)).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var kept = await browser.Post(address, Accept(reasoned, 0, confirmed: true)).Ok<PlanRevisionView>();
        Assert.Equal("on fists, tried and pain free", kept.Plan.Items.Single().BarOverride);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post(address, Accept(plan.Items[0], 0))).StatusCode
        );
        var wrong = barred with { Doses = [new(Side.Left, new Dose(0, 1, 0))] };
        Assert.Contains(
            "plan.items[0].doses[0].dose.reps",
            await browser.Post(address, Accept(wrong, 1)).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task A_visit_of_another_client_cannot_carry_a_plan()
    {
        var opened = await clinic.NewClient();
        var other = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 2, 2);
        var plan = (await browser.Get<PlanView>($"/api/episodes/{opened.EpisodeId}/plan")).Proposal!.Plan;
        var form = new AcceptPlanForm(
            new PlanForm(plan.Items, plan.Strategy, plan.Activation),
            other.VisitId,
            0
        );
        Assert.Contains(
            "visitId",
            await browser
                .Post($"/api/episodes/{opened.EpisodeId}/plans", form)
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task Everything_is_there_after_the_server_was_started_again()
    {
        var folder = Directory.CreateTempSubdirectory("palaestra-again-").FullName;
        string before;
        Opened opened;
        using (var first = new RunningServer(folder: folder))
        {
            var tablet = await first.SignedIn();
            var begun = new Clinic(tablet);
            opened = await begun.NewClient();
            await begun.Screen(opened.VisitId, 2, 1);
            before = await tablet.GetStringAsync($"/api/visits/{opened.VisitId}/findings");
        }
        using (var again = new RunningServer(folder: folder))
        {
            var second = await again.SignedIn();
            Assert.Equal(before, await second.GetStringAsync($"/api/visits/{opened.VisitId}/findings"));
        }
        Directory.Delete(folder, recursive: true);
    }
}
