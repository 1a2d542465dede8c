using System.Net;
using Palaestra.Core.Capture;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;
using Palaestra.Server.Intake;
using Palaestra.Server.Outcomes;
using Palaestra.Server.Planning;
using Palaestra.Server.Progression;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

/// <summary>Sessions, home log, decisions and what is looked back at, over HTTP on a real file.</summary>
public sealed class SessionTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await one.Running.SignedIn();
        clinic = new Clinic(browser);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<(Opened Opened, VisitView Visit)> Begun()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
        return (opened, await Begin(opened.EpisodeId));
    }

    private async Task<VisitView> Begin(Guid episodeId) =>
        await clinic.CheckIn(await clinic.Book(episodeId)).Ok<VisitView>();

    private Task<SessionView> Session(VisitView visit) =>
        browser.Get<SessionView>($"/api/visits/{visit.Id}/session");

    /// <summary>Every set of the session, all clean but for so many reps of the first.</summary>
    private async Task<IReadOnlyList<CaptureEvent>> Do(VisitView visit, int broken = 0, int? effort = null)
    {
        var session = await Session(visit);
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var events = new List<CaptureEvent>();
        foreach (var set in session.Sets)
        {
            var item = session.Items.First(i => i.Item.Id == set.ItemId).Item;
            var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Id == item.RungId);
            var dose = item.Doses.First(d => d.Side == set.Side).Dose;
            var bad = events.Count == 0 ? Math.Min(broken, dose.Reps) : 0;
            var taps = clinic.Trial(rung, set.Side, dose, dose.Reps - bad, bad, item.Id, set.Set);
            events.AddRange(taps);
            if (effort is { } told)
            {
                events.Add(new EffortMarked(Guid.CreateVersion7(), taps[0].TrialId, taps[^1].At, told));
            }
        }
        await clinic.Send(visit.Id, events).Ok<EventsTaken>();
        return events;
    }

    private Task<DecideView> Decisions(VisitView visit) =>
        browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions");

    private async Task<DecideView> Agree(VisitView visit, params Choice[] choices)
    {
        var view = await Decisions(visit);
        return await browser
            .Post($"/api/visits/{visit.Id}/decisions", new DecideForm(choices, view.Plan!.Revision))
            .Ok<DecideView>();
    }

    [Fact]
    public async Task What_is_skipped_and_added_is_in_the_session_and_a_barred_one_is_refused()
    {
        var (_, visit) = await Begun();
        var session = await Session(visit);
        var first = session.Items[0].Item;
        var now = DateTimeOffset.UtcNow;
        var skip = new ExerciseSkipped(Guid.CreateVersion7(), Guid.CreateVersion7(), now, first.Id);
        var add = new ExerciseAdded(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            now,
            Guid.CreateVersion7(),
            "K2",
            new Dose(1, 1, 10),
            first.Id
        );
        await clinic.Send(visit.Id, [skip, add]).Ok<EventsTaken>();
        var after = await Session(visit);
        Assert.True(after.Items[0].Skipped);
        Assert.Equal(("K2", true), (after.Items[1].Item.RungId, after.Items[1].Added));
        Assert.DoesNotContain(after.Sets, s => s.ItemId == first.Id);
        Assert.Contains(after.Sets, s => s.ItemId == add.PlanItemId);

        var sore = await clinic.NewClient(Clinic.Form() with { Precautions = [new("wrist")] });
        var barred = add with { Id = Guid.CreateVersion7(), RungId = "H6", InPlaceOf = null };
        Assert.Contains(
            "events[0].rungId",
            await clinic.Send(sore.VisitId, [barred]).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task Every_exercise_comes_with_its_tempo_and_the_ways_to_make_it_easier()
    {
        var (_, visit) = await Begun();
        var session = await Session(visit);
        Assert.All(
            session.Items.SelectMany(i => i.Sides),
            side =>
            {
                Assert.Equal(OneChange.Cue, side.Eases[0].Change);
                Assert.NotEmpty(side.Rep.Words.Text!);
            }
        );
    }

    [Fact]
    public async Task What_is_ready_is_offered_in_the_session_tried_and_granted()
    {
        var (opened, visit) = await Begun();
        var ready = new List<SessionProbe>();
        for (var n = 0; n < 5 && ready.Count == 0; n++)
        {
            await Do(visit, effort: 4);
            ready = [.. (await Session(visit)).Ready];
            if (ready.Count == 0)
            {
                await Agree(visit);
                visit = await Begin(opened.EpisodeId);
            }
        }
        var item = ready[0].PlanItemId;
        var mine = ready.Where(r => r.PlanItemId == item).ToList();
        var before = (await Decisions(visit)).Proposals.Where(d => d.PlanItemId == item).ToList();
        Assert.All(before, d => Assert.Equal(mine[0].Offer.RungId, d.Probe!.RungId));

        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Id == mine[0].Offer.RungId);
        foreach (var offer in mine)
        {
            var taps = clinic.Trial(rung, offer.Side, offer.Offer.Dose, offer.Offer.Dose.Reps, 0, item, 1);
            taps[0] = ((TrialStarted)taps[0]) with { Probe = true };
            taps.Add(new PainMarked(Guid.CreateVersion7(), taps[0].TrialId, taps[^1].At, PainPhase.After, 2));
            await clinic.Send(visit.Id, taps).Ok<EventsTaken>();
        }

        var session = await Session(visit);
        Assert.DoesNotContain(session.Ready, r => r.PlanItemId == item);
        // The day's work is what it was.
        Assert.All(
            session.Performances.Where(p => p.PlanItemId == item),
            p => Assert.Equal(p.Prescribed.Sets, p.Sets.Count)
        );
        var after = (await Decisions(visit)).Proposals.Where(d => d.PlanItemId == item).ToList();
        Assert.All(after, d => Assert.Equal(("D-PROBE", mine[0].Offer.RungId), (d.RuleId, d.RungId)));
        var taken = await Agree(visit);
        Assert.Empty((await Session(visit)).Ready);
        Assert.Contains(taken.Taken, d => d.RuleId == "D-PROBE");
    }

    [Fact]
    public async Task Decisions_recomputed_from_the_log_are_those_that_were_taken()
    {
        var (opened, visit) = await Begun();
        await Do(visit, broken: 2);
        await Agree(visit);
        Assert.Empty(
            await browser.Get<List<ChangedDecision>>($"/api/episodes/{opened.EpisodeId}/changed-decisions")
        );
        var replay = await browser.Get<ReplayView>($"/api/episodes/{opened.EpisodeId}/replay");
        var own = replay.Policies.First(p => p.InForce).Id;
        var again = replay.Visits.Single().Policies.First(p => p.PolicyId == own).Decisions;
        Assert.Equal(
            replay.Chosen.Single().Chosen.Select(d => (d.PlanItemId, d.Side, d.Outcome, d.RuleId)),
            again.Select(d => (d.PlanItemId, d.Side, d.Outcome, d.RuleId))
        );
    }

    [Fact]
    public async Task An_edit_of_a_decided_visit_is_told_and_changes_nothing_that_was_decided()
    {
        var (opened, visit) = await Begun();
        var events = await Do(visit);
        var taken = await Agree(visit);
        // The first trial turns out to be somebody else's: it is discarded afterwards.
        var trial = events[0].TrialId;
        var discard = new TrialDiscarded(Guid.CreateVersion7(), trial, events[^1].At.AddMinutes(1));
        await clinic.Send(visit.Id, [discard]).Ok<EventsTaken>();
        var changed = await browser.Get<List<ChangedDecision>>(
            $"/api/episodes/{opened.EpisodeId}/changed-decisions"
        );
        Assert.Contains(
            changed,
            c => c.Then.PlanItemId == ((TrialStarted)events[0]).PlanItemId && c.VisitId == visit.Id
        );
        var view = await Decisions(visit);
        Assert.Equal(taken.Taken.Select(d => d.Outcome), view.Taken.Select(d => d.Outcome));
        Assert.NotEmpty(view.Changed);
        // Taking the discard back brings the decisions back to what they were.
        var undo = new Undone(Guid.CreateVersion7(), trial, discard.At.AddMinutes(1), discard.Id);
        await clinic.Send(visit.Id, [undo]).Ok<EventsTaken>();
        Assert.Empty((await Decisions(visit)).Changed);
    }

    [Fact]
    public async Task A_visit_cannot_be_decided_when_a_later_one_already_made_the_plan()
    {
        var (opened, early) = await Begun();
        await Do(early);
        var late = await Begin(opened.EpisodeId);
        await Do(late);
        await Agree(late);
        var view = await Decisions(early);
        Assert.Contains("now in force", view.WhyNot?.Text, StringComparison.Ordinal);
        var refused = await browser.Post($"/api/visits/{early.Id}/decisions", new DecideForm([], 2));
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
    }

    [Fact]
    public async Task A_plan_made_during_a_session_holds_from_the_next_visit()
    {
        var (opened, visit) = await Begun();
        await Do(visit);
        var plan = await browser.Get<PlanView>($"/api/episodes/{opened.EpisodeId}/plan");
        var now = plan.Revisions[^1].Plan;
        var items = now.Items.Take(1).ToList();
        await browser
            .Post(
                $"/api/episodes/{opened.EpisodeId}/plans",
                new AcceptPlanForm(
                    new PlanForm(items, now.Strategy, now.Activation),
                    visit.Id,
                    plan.Revisions.Count
                )
            )
            .Ok<PlanRevisionView>();
        var session = await Session(visit);
        Assert.Equal((1, 2), (session.Plan!.Revision, session.NewerPlan));
        Assert.NotNull((await Decisions(visit)).WhyNot);
    }

    [Fact]
    public async Task What_if_tries_one_number_and_stores_nothing()
    {
        var (_, visit) = await Begun();
        await Do(visit);
        var before = await Decisions(visit);
        var first = before.Proposals[0];
        Task<HttpResponseMessage> Ask(NumberKind kind, int value) =>
            browser.Post(
                $"/api/visits/{visit.Id}/decisions/what-if",
                new WhatIfForm(first.PlanItemId, first.Side, kind, value)
            );
        var sore = await Ask(NumberKind.NextDayPain, 9).Ok<WhatIfAnswer>();
        Assert.Equal("D-PAIN-NEXT", sore.Decision.RuleId);
        Assert.Contains(
            "value",
            await Ask(NumberKind.Effort, 11).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            before.Proposals.Select(d => d.Outcome),
            (await Decisions(visit)).Proposals.Select(d => d.Outcome)
        );
    }

    [Fact]
    public async Task What_other_choices_come_to_is_shown_before_it_is_taken_and_is_what_then_follows()
    {
        var (_, visit) = await Begun();
        await Do(visit);
        var before = await Decisions(visit);
        var first = before.Proposals.First(d => d.Outcome != Outcome.Ease);
        var own = new Choice(first.PlanItemId, first.Side, Outcome.Ease, "Long week ahead.");
        var preview = await browser
            .Post($"/api/visits/{visit.Id}/decisions/preview", new DecideForm([own], before.Plan!.Revision))
            .Ok<TakenPreview>();
        Assert.Equal(Outcome.Ease, preview.Decisions[before.Proposals.ToList().IndexOf(first)].Outcome);
        Assert.NotEqual(before.Next!.TotalMinutes, preview.Next.TotalMinutes);
        Assert.Empty((await Decisions(visit)).Taken);
        await Agree(visit, own);
        var taken = await Decisions(visit);
        Assert.Equal(preview.Decisions.Select(d => d.Dose), taken.Taken.Select(d => d.Dose));
        Assert.Equal(preview.Next.TotalMinutes, taken.Next!.TotalMinutes, 6);
    }

    [Fact]
    public async Task Overrides_are_counted_by_rule_with_their_reason()
    {
        var (_, visit) = await Begun();
        await Do(visit);
        var proposal = (await Decisions(visit)).Proposals.First(d => d.Outcome != Outcome.Ease);
        var before = await browser.Get<OverridesView>("/api/overrides");
        await Agree(visit, new Choice(proposal.PlanItemId, proposal.Side, Outcome.Ease, "Long week ahead."));
        var after = await browser.Get<OverridesView>("/api/overrides");
        int Count(OverridesView view) =>
            view.Rules.FirstOrDefault(r => r.RuleId == proposal.RuleId)?.Overridden ?? 0;
        Assert.Equal(Count(before) + 1, Count(after));
        Assert.Equal(("Long week ahead.", Outcome.Ease), (after.Latest[0].Reason, after.Latest[0].Taken));
    }

    [Fact]
    public async Task The_home_log_is_stored_day_by_day_and_reaches_the_decisions()
    {
        var (opened, visit) = await Begun();
        var address = $"/api/episodes/{opened.EpisodeId}/home-log";
        var column = (await Session(visit)).Items[0].Item;
        var side = column.Doses[0].Side;
        var today = DateOnly.FromDateTime(DateTime.Now);
        HomeDay Day(int reps, DateOnly day) =>
            new(day, [new HomeReps(column.Id, side, reps)], 2, 3, "in the boat");
        Assert.Contains(
            "log.day",
            await browser
                .Put(address, new HomeDayForm(Day(5, today.AddDays(2)), 0))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Contains(
            "log.done[0].reps",
            await browser
                .Put(address, new HomeDayForm(Day(-5, today), 0))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await browser.Put(address, new HomeDayForm(Day(5, today), 0)).Ok<HomeDayStored>();
        var late = await browser.Put(address, new HomeDayForm(Day(9, today), 0));
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
    }

    /// <summary>
    /// Two weeks in which one exercise was done a little: the plan is to shrink to two. A visit decided before that was looked at is
    /// not said to have been edited.
    /// </summary>
    [Fact]
    public async Task A_home_log_of_two_weeks_shrinks_the_plan_and_is_no_edit_of_what_was_decided_before()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        var plan = (await clinic.AcceptProposal(opened)).Plan;
        var (second, third) = (await clinic.Book(opened.EpisodeId), await clinic.Book(opened.EpisodeId));
        await Put(
            "UPDATE Plans SET AcceptedAt = datetime(AcceptedAt, '-15 days') WHERE EpisodeId = $id",
            opened.EpisodeId
        );
        await Put(
            "UPDATE Episodes SET OpenedOn = date(OpenedOn, '-15 days') WHERE Id = $id",
            opened.EpisodeId
        );
        foreach (var (visit, ago) in new[] { (opened.VisitId, 15), (second.Id, 15), (third.Id, 7) })
        {
            await Put(
                $"UPDATE Visits SET PlannedAt = datetime(PlannedAt, '-{ago} days') WHERE Id = $id",
                visit
            );
        }
        var item = plan.Items.First(i => i.Doses.Count == 2);
        var today = DateOnly.FromDateTime(DateTime.Now);
        foreach (var ago in new[] { 12, 5 })
        {
            var log = new HomeDay(today.AddDays(-ago), [new HomeReps(item.Id, Side.Left, 2)], 1, 1, null);
            await browser
                .Put($"/api/episodes/{opened.EpisodeId}/home-log", new HomeDayForm(log, 0))
                .Ok<HomeDayStored>();
        }
        var now = await browser.Get<SessionView>($"/api/visits/{third.Id}/session");
        await clinic.CheckIn(now.Visit).Ok<VisitView>();
        await Do(now.Visit);
        var gone = (await Decisions(third))
            .Proposals.Where(d => d is { RuleId: "D-HOME", Outcome: Outcome.Stop })
            .ToList();
        Assert.Equal(plan.Items.Count - 2, gone.Select(d => d.PlanItemId).Distinct().Count());
        Assert.DoesNotContain(gone, d => d.PlanItemId == item.Id);

        await Agree(third);
        Assert.Empty((await Decisions(third)).Changed);
        await Put(
            "UPDATE DecidedVisits SET Input = json_remove(Input, '$.homeLong') WHERE VisitId = $id",
            third.Id
        );
        Assert.Empty((await Decisions(third)).Changed);
    }

    private async Task Put(string change, Guid id)
    {
        await using var db = new Microsoft.Data.Sqlite.SqliteConnection(
            Data.Store.ConnectionString(one.Running.Folder)
        );
        await db.OpenAsync();
        await using var command = db.CreateCommand();
        command.CommandText = change;
        command.Parameters.AddWithValue("$id", id.ToString().ToUpperInvariant());
        Assert.Equal(1, await command.ExecuteNonQueryAsync());
    }

    [Fact]
    public async Task A_home_log_file_is_taken_in_whole_or_not_at_all()
    {
        var (opened, visit) = await Begun();
        var address = $"/api/episodes/{opened.EpisodeId}/home-log/file";
        var item = (await Session(visit)).Items[0].Item;
        var word = item.Doses[0].Side == Side.Both ? "" : item.Doses[0].Side.Word();
        var today = DateTime.Now.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
        const string header = "day,exercise,side,reps,pain,next_morning,remark\n";
        var wrong = await browser
            .Post(
                address,
                new HomeFileForm($"{header}{today},{item.RungId},{word},5,2,2,\n{today},nothing,left,5,,,")
            )
            .RefusedFields(HttpStatusCode.UnprocessableEntity);
        Assert.Equal(["line 3, exercise"], wrong);
        var taken = await browser
            .Post(address, new HomeFileForm($"{header}{today},{item.RungId},{word},5,2,2,"))
            .Ok<HomeFileTaken>();
        Assert.Equal(1, taken.Days);
    }

    [Fact]
    public async Task Answers_and_letter_are_kept_and_a_second_hand_is_told()
    {
        var (opened, visit) = await Begun();
        var answers = $"/api/visits/{opened.VisitId}/answers";
        OutcomeAnswers Told(int value) => new([new("hauling", value)], new("disability-24", 12));
        Assert.Contains(
            "answers.activities[0].value",
            await browser
                .Put(answers, new AnswersForm(Told(11), 0))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await browser.Put(answers, new AnswersForm(Told(4), 0)).Ok<OutcomesView>();
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put(answers, new AnswersForm(Told(5), 0))).StatusCode
        );
        var view = await browser.Get<OutcomesView>($"/api/visits/{visit.Id}/outcomes");
        Assert.Equal(["hauling"], view.Named);

        var address = $"/api/visits/{visit.Id}/letter";
        var letter = await browser.Get<LetterView>(address);
        var text = string.Join(" ", letter.Letter.Parts.SelectMany(p => p.Paragraphs));
        Assert.Contains("12 of 24", text, StringComparison.Ordinal);
        Assert.Contains("Red flags not recorded", text, StringComparison.Ordinal);
        var edited = letter.Letter with { To = "The harbour surgery" };
        await browser.Put(address, new LetterForm(edited, 0)).Ok<LetterView>();
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put(address, new LetterForm(edited, 0))).StatusCode
        );
        Assert.Equal("The harbour surgery", (await browser.Get<LetterView>(address)).Letter.To);
        var pdf = await browser.GetAsync($"{address}.pdf");
        Assert.Equal("application/pdf", pdf.Content.Headers.ContentType?.MediaType);
    }

    [Fact]
    public async Task Clients_are_found_by_name_or_complaint()
    {
        var opened = await clinic.NewClient(
            Clinic.Form() with
            {
                Name = "Ysolde Crake",
                Complaint = "Stiff after caulking.",
            }
        );
        // The day looks through what changed; the finding asks what it kept.
        await browser.Get<Day.DayView>("/api/day");
        foreach (var words in new[] { "crake", "caulk" })
        {
            var found = await browser.Get<List<Clients.ClientLine>>($"/api/clients?words={words}");
            Assert.Contains(found, line => line.EpisodeId == opened.EpisodeId);
        }
        Assert.Empty(await browser.Get<List<Clients.ClientLine>>("/api/clients?words=nobody-of-that-name"));
    }
}
