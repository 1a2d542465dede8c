using System.Net;
using System.Text.Json;
using Palaestra.Core.Capture;
using Palaestra.Core.Charts;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;
using Palaestra.Data.Amendments;
using Palaestra.Data.Staff;
using Palaestra.Server.Amendments;
using Palaestra.Server.Charts;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;
using Palaestra.Server.Progression;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

/// <summary>Nothing of a record is written over: what stood there, who changed it, when and why stay beside it.</summary>
public sealed class AmendmentTests : IAsyncLifetime
{
    private readonly HeldClock clock = new();
    private readonly RunningServer server;
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public AmendmentTests() => server = new RunningServer(clock: clock);

    public async ValueTask InitializeAsync()
    {
        browser = await server.SignedIn();
        clinic = new Clinic(browser);
    }

    public async ValueTask DisposeAsync() => await server.DisposeAsync();

    private Task<IReadOnlyList<RecordChange>> Changes(Guid episode) =>
        browser.Get<IReadOnlyList<RecordChange>>($"/api/episodes/{episode}/amendments");

    private static string? Text(JsonElement? value) => value?.ToString();

    private async Task<(Opened Opened, VisitView Visit)> Decided()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 2, 2);
        await clinic.AcceptProposal(opened);
        var visit = await clinic.CheckIn(await clinic.Book(opened.EpisodeId)).Ok<VisitView>();
        await browser.Post($"/api/visits/{visit.Id}/decisions", new DecideForm([], 1)).Ok<DecideView>();
        var stored = (await clinic.Episode(opened.EpisodeId)).Visits[^1];
        return (opened, stored);
    }

    [Fact]
    public async Task A_check_in_that_was_decided_on_is_amended_with_a_reason_and_keeps_what_stood_there()
    {
        var (opened, visit) = await Decided();
        var worse = visit.CheckIn! with { PainNow = 7, NextDayPain = 8 };
        Task<HttpResponseMessage> Amend(string? reason) =>
            browser.Put($"/api/visits/{visit.Id}/check-in", new CheckInForm(worse, visit.Version, reason));
        foreach (var none in new[] { null, "", "   ", new string('x', 501) })
        {
            Assert.Equal(["reason"], await Amend(none).RefusedFields(HttpStatusCode.UnprocessableEntity));
        }
        Assert.Empty(await Changes(opened.EpisodeId));
        await Amend(" The client had misheard. ").Ok<VisitView>();
        var change = Assert.Single(await Changes(opened.EpisodeId));
        Assert.Equal(
            (AmendedPart.CheckIn, (Guid?)visit.Id, (int?)2, "The client had misheard.", "Edda Marl"),
            (change.Entry, change.VisitId, change.VisitNumber, change.Reason, change.By)
        );
        Assert.Equal(
            [("nextDayPain", "2", "8"), ("painNow", "2", "7")],
            change.Fields.Select(f => (f.Name, Text(f.Before), Text(f.After))).Order()
        );
        // What was decided from it says that it would now be another.
        var decided = await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions");
        Assert.NotEmpty(decided.Changed);
    }

    /// <summary>A bar that was there all along, and a screen that was read wrongly: what was decided without them says so.</summary>
    [Fact]
    public async Task Decisions_say_what_they_would_be_with_an_amended_contraindication_and_not_with_a_later_one()
    {
        var (opened, visit) = await Decided();
        async Task<int> Changed() =>
            (await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions")).Changed.Count;
        Assert.Equal(0, await Changed());
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var all = library.Precautions.Select(p => new ClientPrecaution(p.Id)).ToList();
        // Told at a later visit: the decision of then rests on what was known then.
        var later = await clinic.CheckIn(await clinic.Book(opened.EpisodeId, 14)).Ok<VisitView>();
        var form = (await clinic.Episode(opened.EpisodeId)).Intake with { Precautions = all };
        var path = $"/api/episodes/{opened.EpisodeId}/intake";
        await browser.Put(path, form with { VisitId = later.Id }).Ok<EpisodeView>();
        Assert.Equal(0, await Changed());
        // It was so from the first day.
        var now = await clinic.Episode(opened.EpisodeId);
        await browser
            .Put(path, now.Intake with { VisitId = opened.VisitId, Reason = "The referral says so." })
            .Ok<EpisodeView>();
        Assert.NotEqual(0, await Changed());
    }

    /// <summary>Pain down a leg was forgotten at the visit and drawn afterwards: what was decided without it says so.</summary>
    [Fact]
    public async Task Decisions_say_what_they_would_be_with_a_leg_that_was_drawn_afterwards()
    {
        var (_, visit) = await Decided();
        var path = $"/api/visits/{visit.Id}/body-chart";
        var shin = ChartFigure
            .Of(Core.Charts.ChartView.Back)
            .Parts.First(p => (p.Zone, p.Side) == (ChartZone.LowerLeg, Side.Left));
        var below = new BodyChart([new(Core.Charts.ChartView.Back, PainKind.Sharp, 4, shin.Outline)]);
        Assert.Empty((await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions")).Changed);
        var drawn = await browser.Put(path, new ChartForm(below, 0)).Ok<VisitChartView>();
        Assert.Equal(ChartQuestion.BelowKnee, Assert.Single(drawn.Questions).Id);
        Assert.NotEmpty((await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions")).Changed);
    }

    [Fact]
    public async Task What_is_put_right_before_anything_rests_on_it_needs_no_reason_and_is_kept_too()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 2, 2);
        await clinic.AcceptProposal(opened);
        var visit = await clinic.CheckIn(await clinic.Book(opened.EpisodeId)).Ok<VisitView>();
        var path = $"/api/visits/{visit.Id}/check-in";
        var next = visit.CheckIn! with { PainNow = 4 };
        var stored = await browser.Put(path, new CheckInForm(next, visit.Version)).Ok<VisitView>();
        // The same again is no amendment.
        await browser.Put(path, new CheckInForm(next, stored.Version)).Ok<VisitView>();
        var change = Assert.Single(await Changes(opened.EpisodeId));
        Assert.Null(change.Reason);
        Assert.Equal(
            ("painNow", "2", "4"),
            change.Fields.Select(f => (f.Name, Text(f.Before), Text(f.After))).Single()
        );
    }

    [Fact]
    public async Task Answers_of_an_earlier_visit_leave_those_since_alone_but_a_contraindication_found_there_holds_now()
    {
        var (opened, visit) = await Decided();
        var path = $"/api/episodes/{opened.EpisodeId}/intake";
        var first = (await clinic.Episode(opened.EpisodeId)).Intake;
        await browser
            .Put(
                path,
                first with
                {
                    VisitId = visit.Id,
                    MinutesPerDay = 35,
                    Pain = new(5, 6, 4),
                    Reason = "Asked anew.",
                }
            )
            .Ok<EpisodeView>();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var found = new ClientPrecaution(library.Precautions[0].Id);
        var now = await clinic.Episode(opened.EpisodeId);
        var amended = now.Visits[0].Intake!;
        var form = now.Intake with
        {
            VisitId = opened.VisitId,
            Pain = new(3, 4, 3),
            MinutesPerDay = amended.MinutesPerDay,
            Precautions = [found],
        };
        Assert.Equal(
            ["reason"],
            await browser.Put(path, form).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        // Days away are of the weeks to come, and of no visit.
        var away = new Core.Planning.DaysAway(new(2027, 3, 1), new(2027, 3, 7));
        var view = await browser
            .Put(path, form with { Reason = "The old letter came.", Away = [away] })
            .Ok<EpisodeView>();
        Assert.Equal([away], view.Intake.Away!);
        Assert.Equal(new Pain(3, 4, 3), view.Visits[0].Intake!.Pain);
        Assert.Equal(20, view.Visits[0].Intake!.MinutesPerDay);
        Assert.Equal(new Pain(5, 6, 4), view.Visits[1].Intake!.Pain);
        Assert.Equal((new Pain(5, 6, 4), 35), (view.Intake.Pain, view.Intake.MinutesPerDay));
        Assert.Equal([found.Id], view.Visits[1].Intake!.Precautions.Select(p => p.Id));
        Assert.Equal([found.Id], view.Tags.Select(t => t.Id));
        Assert.Equal(
            [2, 1],
            (await Changes(opened.EpisodeId))
                .Where(c => c.Reason == "The old letter came." && c.Entry == AmendedPart.Intake)
                .Select(c => c.VisitNumber!.Value)
                .OrderDescending()
        );
    }

    [Fact]
    public async Task A_day_at_home_that_was_written_earlier_needs_a_reason()
    {
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 2, 2);
        await clinic.AcceptProposal(opened);
        var path = $"/api/episodes/{opened.EpisodeId}/home-log";
        var today = DateOnly.FromDateTime(clock.GetUtcNow().UtcDateTime);
        var day = new HomeDay(today, [], 2, null, null);
        await browser.Put(path, new HomeDayForm(day, 0)).Ok<HomeDayStored>();
        await browser.Put(path, new HomeDayForm(day with { Pain = 3 }, 1)).Ok<HomeDayStored>();
        clock.Go(TimeSpan.FromDays(1));
        await browser.SignsIn("edda@clinic.example");
        var late = day with { Pain = 6 };
        Assert.Equal(
            ["reason"],
            await browser
                .Put(path, new HomeDayForm(late, 2))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await browser.Put(path, new HomeDayForm(late, 2, "Read wrongly.")).Ok<HomeDayStored>();
        Assert.Equal(
            [("Read wrongly.", today), (null, today)],
            (await Changes(opened.EpisodeId)).Select(c => (c.Reason, c.Day!.Value))
        );
    }

    /// <summary>Whatever order the taps of a set, its amendment and an undo of it arrive in, the record tells the same.</summary>
    [Fact]
    public async Task An_amended_trial_tells_before_and_after_in_any_order_of_arrival()
    {
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        var told = new HashSet<string>();
        foreach (var seed in Enumerable.Range(0, 6))
        {
            var opened = await clinic.NewClient();
            var events = clinic.Trial(rung, Side.Left, rung.Start with { Hold = 0, Reps = 4 }, 3, 1);
            var (trial, at) = (events[0].TrialId, events[^1].At.AddMinutes(5));
            var amended = new TrialAmended(Guid.CreateVersion7(), trial, at, "Looked at the film.");
            var corrected = new SideCorrected(Guid.CreateVersion7(), trial, at.AddSeconds(1), Side.Right);
            var fault = events.OfType<FaultMarked>().Single();
            var undo = new Undone(Guid.CreateVersion7(), trial, at.AddSeconds(2), fault.Id);
            // An undo comes after what it takes back, and everything after the start; all else in any order.
            var rest = events.Skip(1).Append(amended).Append(corrected).ToList();
            new Random(seed).Shuffle(System.Runtime.InteropServices.CollectionsMarshal.AsSpan(rest));
            foreach (var one in rest.Prepend(events[0]).Append(undo))
            {
                await clinic.Send(opened.VisitId, [one]).Ok<EventsTaken>();
            }
            var change = Assert.Single(await Changes(opened.EpisodeId));
            Assert.Equal((AmendedPart.Trial, rung.Id, Side.Left), (change.Entry, change.RungId, change.Side));
            Assert.Equal("Looked at the film.", change.Reason);
            told.Add(
                string.Join(
                    "; ",
                    change.Fields.Select(f => $"{f.Name} {Text(f.Before)} {Text(f.After)}").Order()
                )
            );
        }
        var only = Assert.Single(told);
        Assert.Contains("side left right", only);
        Assert.Contains("cleanReps 3 4", only);
    }

    /// <summary>A tablet that gives no reason is not refused, a late tap looks the same; but what it changed is told.</summary>
    [Fact]
    public async Task What_is_changed_in_a_trial_after_the_decision_is_told_with_a_reason_or_without()
    {
        var (opened, visit) = await Decided();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        // Two hours before the decision, and told after it: late, and no amendment.
        var events = clinic.Trial(rung, Side.Left, rung.Start, 2, 1);
        await clinic.Send(visit.Id, events).Ok<EventsTaken>();
        Assert.Empty(await Changes(opened.EpisodeId));
        clock.Go(TimeSpan.FromMinutes(5));
        var now = clock.GetUtcNow();
        var other = new SideCorrected(Guid.CreateVersion7(), events[0].TrialId, now, Side.Right);
        await clinic.Send(visit.Id, [other]).Ok<EventsTaken>();
        var bare = Assert.Single(await Changes(opened.EpisodeId));
        Assert.Null(bare.Reason);
        Assert.Equal(
            ("side", "left", "right"),
            bare.Fields.Select(f => (f.Name, Text(f.Before), Text(f.After))).Single()
        );
        await clinic
            .Send(
                visit.Id,
                [
                    new TrialAmended(Guid.CreateVersion7(), other.TrialId, now.AddSeconds(9), "Not hers."),
                    new TrialDiscarded(Guid.CreateVersion7(), other.TrialId, now.AddSeconds(10)),
                ]
            )
            .Ok<EventsTaken>();
        var both = await Changes(opened.EpisodeId);
        Assert.Equal(["Not hers.", null], both.Select(c => c.Reason));
        Assert.Contains(both[0].Fields, f => (f.Name, Text(f.After)) == ("counts", "False"));
    }

    [Fact]
    public async Task A_trial_of_the_wrong_client_is_filed_anew_and_what_comes_late_follows_it()
    {
        var (wrong, right) = (await clinic.NewClient(), await clinic.NewClient());
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        var events = clinic.Trial(rung, Side.Left, rung.Start, 2, 0);
        var stays = clinic.Trial(rung, Side.Right, rung.Start, 1, 0);
        await clinic.Send(wrong.VisitId, [.. events.Take(4), .. stays]).Ok<EventsTaken>();
        var path = $"/api/visits/{wrong.VisitId}/moved-trials";
        var form = new MoveTrialsForm([events[0].TrialId], right.VisitId, "Taken under the neighbour.");
        foreach (
            var (bad, field) in new[]
            {
                (form with { Reason = " " }, "reason"),
                (form with { TrialIds = [] }, "trialIds"),
                (form with { TrialIds = [Guid.NewGuid()] }, "trialIds[0]"),
                (form with { ToVisitId = wrong.VisitId }, "toVisitId"),
                (form with { ToVisitId = Guid.NewGuid() }, "toVisitId"),
            }
        )
        {
            Assert.Equal(
                [field],
                await browser.Post(path, bad).RefusedFields(HttpStatusCode.UnprocessableEntity)
            );
        }
        var moved = await browser.Post(path, form).Ok<TrialsMoved>();
        Assert.Equal((right.EpisodeId, right.VisitId, 1), (moved.EpisodeId, moved.VisitId, moved.Trials));
        // The tablet that took it does not know, and sends the rest, with taps of what stayed, to where it was.
        var late = await clinic.Send(wrong.VisitId, [.. events.Skip(2), stays[^1]]).Ok<EventsTaken>();
        Assert.Equal((events.Count - 4, 3), (late.Stored, late.Known));
        // What cannot be is named by its place in the batch that was sent, whichever record it belongs to.
        var tooMuch = new EffortMarked(Guid.CreateVersion7(), events[0].TrialId, events[^1].At, 44);
        Assert.Equal(
            ["events[1].value"],
            await clinic
                .Send(wrong.VisitId, [stays[^1], tooMuch])
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        async Task<IReadOnlyList<Trial>> Trials(Guid visit) =>
            (await browser.Get<ScreenView>($"/api/visits/{visit}/screen")).Trials;
        Assert.Equal([stays[0].TrialId], (await Trials(wrong.VisitId)).Select(t => t.Id));
        var there = Assert.Single(await Trials(right.VisitId));
        Assert.Equal((events[0].TrialId, 2, false), (there.Id, there.Total, there.Open));
        foreach (var opened in new[] { wrong, right })
        {
            var change = Assert.Single(await Changes(opened.EpisodeId));
            Assert.Equal(
                (AmendedPart.Moved, rung.Id, (Side?)Side.Left, "Taken under the neighbour.", "Edda Marl"),
                (change.Entry, change.RungId!, change.Side, change.Reason!, change.By)
            );
            Assert.Equal(opened.VisitId, change.VisitId);
        }
        // And back again: it is nobody's fault twice.
        await browser
            .Post(
                $"/api/visits/{right.VisitId}/moved-trials",
                form with
                {
                    ToVisitId = wrong.VisitId,
                    Reason = "It was the right one.",
                }
            )
            .Ok<TrialsMoved>();
        Assert.Empty(await Trials(right.VisitId));
        var back = new EffortMarked(Guid.CreateVersion7(), events[0].TrialId, events[^1].At.AddSeconds(3), 4);
        await clinic.Send(wrong.VisitId, [back]).Ok<EventsTaken>();
        Assert.Equal([null, 4], (await Trials(wrong.VisitId)).Select(t => t.Effort).Order());
    }

    /// <summary>A visit of somebody else is not a place to put events: only what was filed there by somebody is followed.</summary>
    [Fact]
    public async Task Taps_for_a_trial_of_another_client_are_refused_as_before()
    {
        var (mine, theirs) = (await clinic.NewClient(), await clinic.NewClient());
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders[0].Rungs[0];
        var events = clinic.Trial(rung, rung.TaskSides[0], rung.Start, 1, 0);
        await clinic.Send(mine.VisitId, events).Ok<EventsTaken>();
        var again = events.Select(e => e with { Id = Guid.CreateVersion7() }).Skip(1).Take(1).ToList();
        Assert.Contains(
            "events[0].trialId",
            await clinic.Send(theirs.VisitId, again).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Theory]
    [InlineData(3)]
    [InlineData(-400)]
    public async Task Taps_of_a_wrong_clock_are_kept_and_flagged(int days)
    {
        var opened = await clinic.NewClient();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        var off = clinic
            .Trial(rung, Side.Left, rung.Start, 2, 0)
            .Select(e => e with { At = e.At.AddDays(days) })
            .ToList();
        var right = clinic.Trial(rung, Side.Right, rung.Start, 2, 0);
        // Set right in the middle of the trial: what follows is older than its start by days.
        var jumps = clinic
            .Trial(rung, Side.Left, rung.Start, 2, 0)
            .Select((e, i) => i < 3 ? e with { At = e.At.AddDays(days) } : e)
            .ToList();
        await clinic.Send(opened.VisitId, off).Ok<EventsTaken>();
        await clinic.Send(opened.VisitId, right).Ok<EventsTaken>();
        await clinic.Send(opened.VisitId, jumps).Ok<EventsTaken>();
        var screen = await browser.Get<ScreenView>($"/api/visits/{opened.VisitId}/screen");
        Assert.Equal(3, screen.Trials.Count);
        Assert.Equal(new[] { off[0].TrialId, jumps[0].TrialId }.Order(), screen.ClockOff.Order());
        Assert.All(screen.Trials, t => Assert.InRange(t.TotalSeconds, 0, TrialFold.HoldMost * t.Total));
    }

    [Fact]
    public async Task The_desk_neither_reads_nor_makes_amendments()
    {
        var opened = await clinic.NewClient();
        var (desk, _) = await server.Joins(Role.Reception);
        foreach (
            var answer in new[]
            {
                await desk.GetAsync($"/api/episodes/{opened.EpisodeId}/amendments"),
                await desk.Post(
                    $"/api/visits/{opened.VisitId}/moved-trials",
                    new MoveTrialsForm([], Guid.NewGuid(), "no")
                ),
            }
        )
        {
            Assert.Equal(HttpStatusCode.Forbidden, answer.StatusCode);
        }
    }
}
