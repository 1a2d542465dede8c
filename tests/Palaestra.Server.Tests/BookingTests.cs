using System.Net;
using Palaestra.Data.Staff;
using Palaestra.Data.Visits;
using Palaestra.Server.Clients;
using Palaestra.Server.Clinics;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.Outcomes;
using Palaestra.Server.Progression;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

/// <summary>Visits booked, moved, called off, walked in, typed in from paper, in a series, over the change of clocks.</summary>
public sealed class BookingTests(OneServer one) : IClassFixture<OneServer>
{
    private static int days = 20;

    /// <summary>A morning that no other test books, nor the days after it.</summary>
    private static DateTime Morning() =>
        DateTime.UtcNow.Date.AddDays(Interlocked.Add(ref days, 3)).AddHours(9);

    private async Task<(HttpClient Browser, Given.Clinic Clinic, Opened Opened)> Opened()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Given.Clinic(browser);
        return (browser, clinic, await clinic.NewClient());
    }

    private static Task<HttpResponseMessage> Book(HttpClient browser, Guid episode, BookVisitForm form) =>
        browser.Post($"/api/episodes/{episode}/visits", form);

    private static async Task<Booking> Booking(HttpClient browser, Guid episode, Guid visit)
    {
        var view = await new Given.Clinic(browser).Episode(episode);
        return (await browser.Get<ClientCard>($"/api/clients/{view.ClientId}")).Bookings.Single(b =>
            b.VisitId == visit
        );
    }

    private async Task<Guid> Somebody() =>
        (await (await one.Running.SignedIn()).Get<IReadOnlyList<BookedWith>>("/api/practitioners"))[0].Id;

    [Fact]
    public async Task A_time_that_is_taken_is_refused_with_what_stands_there_and_booked_all_the_same_when_asked()
    {
        var (browser, clinic, first) = await Opened();
        var second = await clinic.NewClient(Given.Clinic.Form() with { Name = "Other Client" });
        var (with, at) = (await Somebody(), Morning());
        await Book(browser, first.EpisodeId, new(at, WithId: with, Minutes: 45)).Ok<VisitView>();
        var form = new BookVisitForm(at.AddMinutes(30), WithId: with);
        var refused = await Book(browser, second.EpisodeId, form);
        var text = await refused.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Contains("\"taken\"", text, StringComparison.Ordinal);
        Assert.Contains("Wenna Sorrel", text, StringComparison.Ordinal);
        // As the other ends, this one begins.
        await Book(browser, second.EpisodeId, form with { PlannedAt = at.AddMinutes(45) }).Ok<VisitView>();
        await Book(browser, second.EpisodeId, form with { PlannedAt = at.AddMinutes(30), Anyway = true })
            .Ok<VisitView>();
        // Somebody who cannot sign in is nobody to be booked with.
        Assert.Equal(
            ["withId"],
            await Book(browser, second.EpisodeId, form with { WithId = Guid.NewGuid() })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            ["minutes"],
            await Book(browser, second.EpisodeId, form with { Minutes = 3 })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task A_visit_is_moved_by_whoever_read_it_last_and_not_once_it_has_begun()
    {
        var (browser, clinic, opened) = await Opened();
        var at = Morning();
        var visit = await Book(browser, opened.EpisodeId, new(at)).Ok<VisitView>();
        var moved = await browser
            .Put(
                $"/api/visits/{visit.Id}/booking",
                new MoveVisitForm(at.AddHours(2), visit.Version, await Somebody(), 60)
            )
            .Ok<Booking>();
        Assert.Equal((60, visit.Version + 1), (moved.Minutes, moved.Version));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await browser.Put($"/api/visits/{visit.Id}/booking", new MoveVisitForm(at, visit.Version))
            ).StatusCode
        );
        Assert.Equal(
            ["plannedAt"],
            await browser
                .Put($"/api/visits/{visit.Id}/booking", new MoveVisitForm(at.AddYears(-1), moved.Version))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );

        // It begins while somebody at the desk has it open.
        await clinic.CheckIn((await clinic.Episode(opened.EpisodeId)).Visits.Single(v => v.Id == visit.Id));
        var begun = await Booking(browser, opened.EpisodeId, visit.Id);
        Assert.True(begun.Begun);
        foreach (
            var asked in new[]
            {
                browser.Put($"/api/visits/{visit.Id}/booking", new MoveVisitForm(at, begun.Version)),
                browser.Post(
                    $"/api/visits/{visit.Id}/called-off",
                    new CallOffForm(CalledOff.Cancelled, begun.Version)
                ),
            }
        )
        {
            Assert.Equal(HttpStatusCode.Conflict, (await asked).StatusCode);
        }
        Assert.Equal(moved.PlannedAt, (await Booking(browser, opened.EpisodeId, visit.Id)).PlannedAt);
    }

    [Fact]
    public async Task What_was_cancelled_counts_as_no_visit_and_can_be_put_back()
    {
        var (browser, clinic, opened) = await Opened();
        var at = Morning();
        var second = await Book(browser, opened.EpisodeId, new(at)).Ok<VisitView>();
        var third = await Book(browser, opened.EpisodeId, new(at.AddDays(1))).Ok<VisitView>();
        Assert.Equal(3, third.Number);
        var off = await browser
            .Post(
                $"/api/visits/{second.Id}/called-off",
                new CallOffForm(CalledOff.Cancelled, second.Version, "Fever")
            )
            .Ok<Booking>();
        Assert.Equal((CalledOff.Cancelled, "Fever"), (off.CalledOff, off.CalledOffReason));
        var visits = (await clinic.Episode(opened.EpisodeId)).Visits;
        Assert.Equal([(opened.VisitId, 1), (third.Id, 2)], visits.Select(v => (v.Id, v.Number)));
        // Its pages say so, and nothing is asked there.
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.GetAsync($"/api/visits/{second.Id}/session")).StatusCode
        );
        // It is not yet missed, and calling it off twice is once.
        Assert.Equal(
            ["what"],
            await browser
                .Post($"/api/visits/{third.Id}/called-off", new CallOffForm(CalledOff.Missed, third.Version))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await browser
            .Post($"/api/visits/{second.Id}/called-off", new CallOffForm(CalledOff.Cancelled, second.Version))
            .Ok<Booking>();
        var back = await browser
            .Post($"/api/visits/{second.Id}/put-back", new PutBackForm(off.Version))
            .Ok<Booking>();
        Assert.Null(back.CalledOff);
        Assert.Equal(3, (await clinic.Episode(opened.EpisodeId)).Visits.Count);
    }

    [Fact]
    public async Task Taps_that_come_late_for_a_visit_that_was_called_off_are_kept_and_show_that_it_took_place()
    {
        var (browser, clinic, opened) = await Opened();
        var visit = await Book(browser, opened.EpisodeId, new(Morning())).Ok<VisitView>();
        await browser
            .Post($"/api/visits/{visit.Id}/called-off", new CallOffForm(CalledOff.Cancelled, visit.Version))
            .Ok<Booking>();
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders[0].Rungs[0];
        var side = rung.Sides == Core.Library.RungSides.Each ? Side.Left : Side.Both;
        await clinic.Send(visit.Id, clinic.Trial(rung, side, rung.Start, 2, 0)).Ok<Screening.EventsTaken>();
        var booking = await Booking(browser, opened.EpisodeId, visit.Id);
        Assert.Null(booking.CalledOff);
        Assert.True(booking.Begun);
    }

    /// <summary>Answers meant for a visit that was called off meanwhile are no other visit's; trials filed there show that it took place.</summary>
    [Fact]
    public async Task What_is_sent_for_a_visit_that_was_called_off_goes_nowhere_else()
    {
        var (browser, clinic, opened) = await Opened();
        var off = await Book(browser, opened.EpisodeId, new(Morning())).Ok<VisitView>();
        await browser
            .Post($"/api/visits/{off.Id}/called-off", new CallOffForm(CalledOff.Cancelled, off.Version))
            .Ok<Booking>();
        var form = (await clinic.Episode(opened.EpisodeId)).Intake with
        {
            Complaint = "Another day",
            VisitId = off.Id,
        };
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put($"/api/episodes/{opened.EpisodeId}/intake", form)).StatusCode
        );
        Assert.NotEqual("Another day", (await clinic.Episode(opened.EpisodeId)).Visits[0].Intake!.Complaint);

        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders[0].Rungs[0];
        var trial = clinic.Trial(
            rung,
            rung.Sides == Core.Library.RungSides.Each ? Side.Left : Side.Both,
            rung.Start,
            2,
            0
        );
        await clinic.Send(opened.VisitId, trial).Ok<Screening.EventsTaken>();
        await browser
            .Post(
                $"/api/visits/{opened.VisitId}/moved-trials",
                new Amendments.MoveTrialsForm([trial[0].TrialId], off.Id, "It was then")
            )
            .Ok<Amendments.TrialsMoved>();
        Assert.Null((await Booking(browser, opened.EpisodeId, off.Id)).CalledOff);
        Assert.True((await clinic.Episode(opened.EpisodeId)).Visits.Single(v => v.Id == off.Id).HasScreen);
    }

    [Fact]
    public async Task A_walk_in_is_now_and_a_visit_from_paper_has_been_and_is_counted_where_it_was()
    {
        var (browser, clinic, opened) = await Opened();
        var now = await Book(browser, opened.EpisodeId, new()).Ok<VisitView>();
        Assert.True(
            (now.PlannedAt.ToDateTimeOffset() - DateTimeOffset.UtcNow).Duration() < TimeSpan.FromMinutes(1)
        );

        var last = DateTime.UtcNow.Date.AddDays(-30).AddHours(10);
        Assert.Equal(
            ["plannedAt"],
            await Book(browser, opened.EpisodeId, new(last)).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            ["plannedAt"],
            await Book(browser, opened.EpisodeId, new(DateTime.UtcNow.AddDays(1), FromPaper: true))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(
            ["plannedAt"],
            await Book(browser, opened.EpisodeId, new(new DateTime(1980, 1, 1), FromPaper: true))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var paper = await Book(browser, opened.EpisodeId, new(last, FromPaper: true)).Ok<VisitView>();
        Assert.True(paper.FromPaper);
        var episode = await clinic.Episode(opened.EpisodeId);
        Assert.Equal([paper.Id, opened.VisitId, now.Id], episode.Visits.Select(v => v.Id));
        Assert.Equal(DateOnly.FromDateTime(last), episode.OpenedOn);
        // What was asked when the client first came here is not what was asked then.
        Assert.Equal(2, episode.Visits[1].Pain);
        Assert.Null(episode.Visits[0].Pain);

        // Put at its right date, with a reason that stands in the record.
        var form = new MoveVisitForm(last.AddDays(2), paper.Version);
        Assert.Equal(
            ["reason"],
            await browser
                .Put($"/api/visits/{paper.Id}/booking", form)
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await browser
            .Put($"/api/visits/{paper.Id}/booking", form with { Reason = "Misread the card" })
            .Ok<Booking>();
        var told = await browser.Get<IReadOnlyList<Amendments.RecordChange>>(
            $"/api/episodes/{opened.EpisodeId}/amendments"
        );
        Assert.Single(
            told,
            c => c is { Entry: Data.Amendments.AmendedPart.Dated, Reason: "Misread the card" }
        );
    }

    /// <summary>A paper record between two visits: what was decided since would now differ, and says so.</summary>
    [Fact]
    public async Task Decisions_know_what_is_typed_in_from_paper_later()
    {
        var clock = new HeldClock();
        using var server = new RunningServer(clock: clock);
        var browser = await server.SignedIn();
        var clinic = new Given.Clinic(browser);
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        var plan = await clinic.AcceptProposal(opened);
        clock.Go(TimeSpan.FromDays(14));
        browser = await server.SignedIn();
        clinic = new Given.Clinic(browser);
        async Task Session(Guid visitId, int clean, int broken)
        {
            var library = await browser.Get<Server.Library.LibraryView>("/api/library");
            foreach (var item in plan.Plan.Items)
            {
                var rung = library.Ladders.SelectMany(l => l.Rungs).Single(r => r.Id == item.RungId);
                foreach (var dose in item.Doses)
                {
                    await clinic
                        .Send(visitId, clinic.Trial(rung, dose.Side, dose.Dose, clean, broken, item.Id))
                        .Ok<Screening.EventsTaken>();
                }
            }
        }
        var visit = await Book(browser, opened.EpisodeId, new()).Ok<VisitView>();
        visit = await clinic.CheckIn(visit).Ok<VisitView>();
        await Session(visit.Id, 8, 0);
        var decided = await browser
            .Post($"/api/visits/{visit.Id}/decisions", new DecideForm([], 1))
            .Ok<DecideView>();
        Assert.DoesNotContain(decided.Taken, d => d.Outcome == Core.Progression.Outcome.StepDown);
        Assert.Empty((await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions")).Changed);

        // A week ago, on paper: everything gave way and it hurt.
        var at = clock.GetUtcNow().UtcDateTime.AddDays(-7);
        var paper = await Book(browser, opened.EpisodeId, new(at, FromPaper: true)).Ok<VisitView>();
        Assert.Equal(2, paper.Number);
        paper = await browser
            .Put(
                $"/api/visits/{paper.Id}/check-in",
                new CheckInForm(
                    new Core.Visits.CheckIn(8, 8, 8, 40, [], DateOnly.FromDateTime(at)),
                    paper.Version
                )
            )
            .Ok<VisitView>();
        await Session(paper.Id, 0, 2);
        var now = await browser.Get<DecideView>($"/api/visits/{visit.Id}/decisions");
        Assert.NotEmpty(now.Changed);
        Assert.Equal(decided.Taken.Count, now.Taken.Count);
        // Decisions are taken at the visit of today, not at one of last week.
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"/api/visits/{paper.Id}/decisions", new DecideForm([], 2))).StatusCode
        );
        await browser.Get<ReplayView>($"/api/episodes/{opened.EpisodeId}/replay");
    }

    [Fact]
    public async Task A_series_keeps_its_time_on_the_wall_and_says_which_days_it_left_out()
    {
        var (browser, clinic, opened) = await Opened();
        var (with, first) = (await Somebody(), Morning().AddDays(90));
        var other = await clinic.NewClient(Given.Clinic.Form() with { Name = "Holds The Slot" });
        await Book(browser, other.EpisodeId, new(first.AddDays(7), WithId: with)).Ok<VisitView>();
        var id = Guid.CreateVersion7();
        var form = new SeriesForm(DateTime.SpecifyKind(first, DateTimeKind.Unspecified), 7, 4, id, with);
        var series = await browser
            .Post($"/api/episodes/{opened.EpisodeId}/visits/series", form)
            .Ok<SeriesBooked>();
        Assert.Equal(3, series.Booked.Count);
        Assert.Equal(first.AddDays(7), Assert.Single(series.LeftOut).At);
        // The same tap once more.
        await browser.Post($"/api/episodes/{opened.EpisodeId}/visits/series", form).Ok<SeriesBooked>();
        Assert.Equal(4, (await clinic.Episode(opened.EpisodeId)).Visits.Count);
        // From the second on, the rest is called off together.
        var second = series.Booked[1];
        await browser
            .Post(
                $"/api/visits/{second.VisitId}/called-off",
                new CallOffForm(CalledOff.Cancelled, second.Version, Rest: true)
            )
            .Ok<Booking>();
        Assert.Equal(
            [opened.VisitId, series.Booked[0].VisitId],
            (await clinic.Episode(opened.EpisodeId)).Visits.Select(v => v.Id)
        );
        foreach (
            var (wrong, field) in new[]
            {
                (form with { EveryDays = 0 }, "everyDays"),
                (form with { Count = 1 }, "count"),
            }
        )
        {
            Assert.Equal(
                [field],
                await browser
                    .Post($"/api/episodes/{opened.EpisodeId}/visits/series", wrong)
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            );
        }
    }

    /// <summary>Over the nights in which the clocks change (the IANA database: Berlin goes forward on the last Sunday of March, at two).</summary>
    [Fact]
    public async Task A_series_over_the_change_of_clocks_keeps_nine_oclock_and_leaves_out_an_hour_that_is_none()
    {
        using var server = new RunningServer(zone: "Europe/Berlin");
        var browser = await server.SignedIn();
        var opened = await new Given.Clinic(browser).NewClient();
        var change = Enumerable
            .Range(1, 360)
            .Select(n => DateTime.UtcNow.Date.AddDays(n))
            .First(d => d is { Month: 3, DayOfWeek: DayOfWeek.Sunday } && d.Day > 24);
        var path = $"/api/episodes/{opened.EpisodeId}/visits/series";
        var form = new SeriesForm(
            DateTime.SpecifyKind(change.AddDays(-1).AddHours(9), DateTimeKind.Unspecified),
            1,
            3
        );
        var series = await browser.Post(path, form).Ok<SeriesBooked>();
        Assert.Empty(series.LeftOut);
        // Nine on the wall: eight in UTC before, seven from the change on.
        Assert.Equal([8, 7, 7], series.Booked.Select(b => b.PlannedAt.ToDateTimeUtc().Hour));
        var night = await browser
            .Post(path, form with { First = form.First.AddHours(-6.5) })
            .Ok<SeriesBooked>();
        Assert.Equal(change.AddHours(2.5), Assert.Single(night.LeftOut).At);
        Assert.Equal(2, night.Booked.Count);
    }

    [Fact]
    public async Task A_calendar_hears_of_a_visit_that_was_moved_or_called_off()
    {
        var (browser, _, opened) = await Opened();
        var visit = await Book(browser, opened.EpisodeId, new(Morning(), Minutes: 45)).Ok<VisitView>();
        async Task<string> Entry()
        {
            var feed = await browser.GetStringAsync($"/api/episodes/{opened.EpisodeId}/calendar.ics");
            return feed.Split("BEGIN:VEVENT")
                .Single(e => e.Contains($"{visit.Id:N}", StringComparison.Ordinal));
        }
        Assert.Contains("STATUS:CONFIRMED", await Entry(), StringComparison.Ordinal);
        Assert.Contains("SEQUENCE:0", await Entry(), StringComparison.Ordinal);
        await browser
            .Post($"/api/visits/{visit.Id}/called-off", new CallOffForm(CalledOff.Cancelled, visit.Version))
            .Ok<Booking>();
        Assert.Contains("STATUS:CANCELLED", await Entry(), StringComparison.Ordinal);
        Assert.Contains("SEQUENCE:1", await Entry(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_visit_can_be_sent_as_an_invitation_with_a_reminder()
    {
        var (browser, _, opened) = await Opened();
        var visit = await Book(browser, opened.EpisodeId, new(Morning(), Minutes: 45)).Ok<VisitView>();
        var path = $"/api/visits/{visit.Id}/invitation.ics";
        var text = await browser.GetStringAsync($"{path}?alarm=90");
        var read = Assert.Single(Ical.Net.Calendar.Load(text)!.Events);
        Assert.Equal(visit.PlannedAt.ToDateTimeUtc(), read.DtStart!.AsUtc);
        Assert.Single(read.Alarms);
        Assert.Empty(Ical.Net.Calendar.Load(await browser.GetStringAsync(path))!.Events.Single().Alarms);
        foreach (var wrong in new[] { 0, -5, 10_081 })
        {
            Assert.Equal(
                ["alarm"],
                await browser
                    .GetAsync($"{path}?alarm={wrong}")
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            );
        }
    }

    [Fact]
    public async Task Another_day_and_one_practitioner_are_shown_alone_with_what_was_called_off()
    {
        var (browser, clinic, opened) = await Opened();
        var (with, at) = (await Somebody(), Morning());
        var mine = await Book(browser, opened.EpisodeId, new(at, WithId: with)).Ok<VisitView>();
        var anybody = await clinic.NewClient(Given.Clinic.Form() with { Name = "With Anybody" });
        var theirs = await Book(browser, anybody.EpisodeId, new(at.AddHours(1))).Ok<VisitView>();
        await browser
            .Post($"/api/visits/{theirs.Id}/called-off", new CallOffForm(CalledOff.Cancelled, theirs.Version))
            .Ok<Booking>();
        var day = await browser.Get<DayView>($"/api/day?day={at:yyyy-MM-dd}");
        Assert.Equal(
            [(mine.Id, null), (theirs.Id, (CalledOff?)CalledOff.Cancelled)],
            day.Visits.Select(v => (v.VisitId, v.CalledOff))
        );
        var own = await browser.Get<DayView>($"/api/day?day={at:yyyy-MM-dd}&with={with}");
        Assert.Equal([mine.Id], own.Visits.Select(v => v.VisitId));
        Assert.Empty((await browser.Get<DayView>("/api/day?day=2001-01-01")).Visits);
    }

    [Fact]
    public async Task A_trainer_and_the_desk_may_book_and_whoever_keeps_the_clinic_alone_may_not()
    {
        var (_, _, opened) = await Opened();
        foreach (
            var (role, status) in new[]
            {
                (Role.Reception, HttpStatusCode.Created),
                (Role.Administrator, HttpStatusCode.Forbidden),
            }
        )
        {
            var (browser, _) = await one.Running.Joins(role);
            Assert.Equal(status, (await Book(browser, opened.EpisodeId, new(Morning()))).StatusCode);
        }
    }
}
