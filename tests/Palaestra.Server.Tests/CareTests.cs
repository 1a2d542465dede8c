using System.Net;
using System.Xml.Linq;
using Palaestra.Core.Charts;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Visits;
using Palaestra.Data.Amendments;
using Palaestra.Data.Staff;
using Palaestra.Data.Visits;
using Palaestra.Server.Amendments;
using Palaestra.Server.Charts;
using Palaestra.Server.Clinics;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.Outcomes;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

/// <summary>Notes, body charts and the end of an episode, over HTTP.</summary>
public sealed class CareTests(OneServer one) : IClassFixture<OneServer>
{
    private async Task<(HttpClient Browser, Given.Clinic Clinic, Opened Opened)> Opened(
        string name = "Wenna Sorrel"
    )
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Given.Clinic(browser);
        return (
            browser,
            clinic,
            await clinic.NewClient(Given.Clinic.Form() with { Name = name, Goals = ["stand"] })
        );
    }

    private static async Task<IReadOnlyList<RecordChange>> Amended(
        HttpClient browser,
        Guid episode,
        AmendedPart part
    ) =>
        [
            .. (await browser.Get<IReadOnlyList<RecordChange>>($"/api/episodes/{episode}/amendments")).Where(
                c => c.Entry == part
            ),
        ];

    [Fact]
    public async Task A_note_is_a_draft_until_it_is_signed_and_then_changes_only_with_a_reason()
    {
        var (browser, _, opened) = await Opened();
        var path = $"/api/visits/{opened.VisitId}/note";
        Assert.Equal(0, (await browser.Get<NoteView>(path)).Version);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"{path}/signature", new SignatureForm(0))).StatusCode
        );
        var text = new NoteText(true, Subjective: "Stiff in the morning");
        var first = await browser.Put(path, new NoteForm(text, 0)).Ok<NoteView>();
        // Saved by itself twice with nothing new: nothing happens.
        Assert.Equal(1, (await browser.Put(path, new NoteForm(text, 1)).Ok<NoteView>()).Version);
        // A colleague wrote meanwhile: both are shown, nothing is stored.
        var second = await browser
            .Put(path, new NoteForm(text with { Plan = "More walking" }, first.Version))
            .Ok<NoteView>();
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put(path, new NoteForm(new(false, "Mine"), first.Version))).StatusCode
        );
        Assert.Empty(await Amended(browser, opened.EpisodeId, AmendedPart.Note));
        Assert.Equal(
            ["text.assessment"],
            await browser
                .Put(path, new NoteForm(text with { Assessment = new string('x', 8001) }, second.Version))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );

        var signed = await browser
            .Post($"{path}/signature", new SignatureForm(second.Version))
            .Ok<NoteView>();
        Assert.Equal("Edda Marl", signed.SignedBy);
        var other = text with { Plan = "Less walking" };
        Assert.Equal(
            ["reason"],
            await browser
                .Put(path, new NoteForm(other, signed.Version))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var again = await browser.Put(path, new NoteForm(other, signed.Version, "Misheard")).Ok<NoteView>();
        Assert.Null(again.SignedAt);
        var change = Assert.Single(await Amended(browser, opened.EpisodeId, AmendedPart.Note));
        Assert.Equal(
            ("Misheard", "Edda Marl"),
            (change.Reason, $"{change.Fields.Single(f => f.Name == "signedBy").Before}")
        );
        Assert.Equal(
            other,
            Assert
                .Single(
                    await browser.Get<IReadOnlyList<NoteOfVisit>>($"/api/episodes/{opened.EpisodeId}/notes")
                )
                .Note.Text
        );
    }

    [Fact]
    public async Task Signing_asks_for_the_password_again()
    {
        var clock = new HeldClock();
        using var server = new RunningServer(clock: clock);
        var browser = await server.SignedIn();
        var opened = await new Given.Clinic(browser).NewClient();
        var path = $"/api/visits/{opened.VisitId}/note";
        await browser.Put(path, new NoteForm(new(false, "All well"), 0)).Ok<NoteView>();
        clock.Go(TimeSpan.FromMinutes(6));
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await browser.Post($"{path}/signature", new SignatureForm(1))).StatusCode
        );
        await browser.Post("/api/reauthenticate", new { password = "three quiet words" });
        await browser.Post($"{path}/signature", new SignatureForm(1)).Ok<NoteView>();
    }

    private static PainArea Zone(
        ChartZone zone,
        Side side,
        PainKind kind = PainKind.Ache,
        Core.Charts.ChartView view = Core.Charts.ChartView.Back
    ) => new(view, kind, 4, ChartFigure.Of(view).Parts.First(p => p.Zone == zone && p.Side == side).Outline);

    [Fact]
    public async Task A_drawing_between_the_legs_asks_at_once_and_nothing_goes_on_before_the_answer()
    {
        var (browser, clinic, opened) = await Opened();
        var path = $"/api/visits/{opened.VisitId}/body-chart";
        var chart = new BodyChart([
            Zone(ChartZone.LowBack, Side.Left),
            Zone(ChartZone.Saddle, Side.Both, PainKind.Numb),
        ]);
        var drawn = await browser.Put(path, new ChartForm(chart, 0)).Ok<VisitChartView>();
        var question = Assert.Single(drawn.Questions);
        Assert.Equal(("saddle-numbness", null), (question.Flag, question.Yes));
        Assert.NotNull((await clinic.Episode(opened.EpisodeId)).Held);
        // Closed only once somebody said yes: a slip of the finger is answered with no.
        var no = await browser
            .Put(
                path,
                new ChartForm(
                    chart with
                    {
                        Answers = [new("saddle-numbness", Side.Both, false)],
                    },
                    drawn.Version
                )
            )
            .Ok<VisitChartView>();
        Assert.Null((await clinic.Episode(opened.EpisodeId)).Held);
        Assert.Empty((await clinic.Episode(opened.EpisodeId)).DangerReports);
        await browser
            .Put(
                path,
                new ChartForm(chart with { Answers = [new("saddle-numbness", Side.Both, true)] }, no.Version)
            )
            .Ok<VisitChartView>();
        var episode = await clinic.Episode(opened.EpisodeId);
        Assert.True(episode.Closed);
        Assert.Equal("saddle-numbness", Assert.Single(episode.DangerReports).SignId);
    }

    /// <summary>A newer drawing without it is no answer to what an earlier one asked; one to the same question is, and so is asking for red flags anew.</summary>
    [Theory]
    [InlineData("its own")]
    [InlineData("a later one")]
    [InlineData("red flags")]
    public async Task What_was_drawn_at_an_earlier_visit_holds_until_somebody_has_asked(string answer)
    {
        var (browser, clinic, opened) = await Opened();
        static string Path(Guid visit) => $"/api/visits/{visit}/body-chart";
        var saddle = new BodyChart([Zone(ChartZone.Saddle, Side.Both)]);
        await browser.Put(Path(opened.VisitId), new ChartForm(saddle, 0)).Ok<VisitChartView>();
        var later = await clinic.Book(opened.EpisodeId, 0);
        async Task<(bool, Guid?)> Held() =>
            await clinic.Episode(opened.EpisodeId) is var e ? (e.Held is not null, e.OpenDrawingId) : default;
        Assert.Equal((true, opened.VisitId), await Held());
        await browser
            .Put(Path(later.Id), new ChartForm(new([Zone(ChartZone.LowBack, Side.Left)]), 0))
            .Ok<VisitChartView>();
        Assert.Equal((true, opened.VisitId), await Held());
        var no = saddle with { Answers = [new("saddle-numbness", Side.Both, false)] };
        switch (answer)
        {
            case "its own":
                await browser
                    .Put(Path(opened.VisitId), new ChartForm(no, 1, "Asked by telephone."))
                    .Ok<VisitChartView>();
                break;
            case "a later one":
                await browser.Put(Path(later.Id), new ChartForm(saddle, 1)).Ok<VisitChartView>();
                Assert.Equal((true, later.Id), await Held());
                await browser.Put(Path(later.Id), new ChartForm(no, 2)).Ok<VisitChartView>();
                break;
            default:
                await browser
                    .Put(
                        $"/api/visits/{later.Id}/check-in",
                        new CheckInForm(
                            new(2, 2, 2, 1, [], DateOnly.FromDateTime(DateTime.UtcNow), FlagsAsked: true),
                            later.Version
                        )
                    )
                    .Ok<VisitView>();
                break;
        }
        Assert.Equal((false, null), await Held());
    }

    [Fact]
    public async Task What_is_drawn_below_a_knee_counts_as_leg_pain_until_it_is_asked_and_denied()
    {
        var (browser, clinic, opened) = await Opened();
        var path = $"/api/visits/{opened.VisitId}/body-chart";
        async Task<bool> HasLegTag() =>
            (await browser.Get<Planning.PlanView>($"/api/episodes/{opened.EpisodeId}/plan")).Forbidden.Count
            > before;
        before = (await browser.Get<Planning.PlanView>($"/api/episodes/{opened.EpisodeId}/plan"))
            .Forbidden
            .Count;
        var chart = new BodyChart([Zone(ChartZone.LowerLeg, Side.Left)]);
        var drawn = await browser.Put(path, new ChartForm(chart, 0)).Ok<VisitChartView>();
        Assert.Equal(
            (Side.Left, null, null),
            (drawn.Questions[0].Side, drawn.Questions[0].Flag, drawn.Questions[0].Yes)
        );
        Assert.True(await HasLegTag());
        await browser
            .Put(
                path,
                new ChartForm(chart with { Answers = [new("below-knee", Side.Left, false)] }, drawn.Version)
            )
            .Ok<VisitChartView>();
        Assert.False(await HasLegTag());
    }

    private int before;

    [Fact]
    public async Task A_chart_is_compared_with_the_one_before_told_in_the_letter_and_drawn_as_svg()
    {
        var (browser, clinic, opened) = await Opened();
        await browser
            .Put(
                $"/api/visits/{opened.VisitId}/body-chart",
                new ChartForm(
                    new([
                        Zone(ChartZone.LowBack, Side.Left),
                        Zone(ChartZone.Buttock, Side.Left, PainKind.Burning),
                    ]),
                    0
                )
            )
            .Ok<VisitChartView>();
        var visit = await clinic.Book(opened.EpisodeId, 0);
        var path = $"/api/visits/{visit.Id}/body-chart";
        var later = await browser
            .Put(path, new ChartForm(new([Zone(ChartZone.LowBack, Side.Left)]), 0))
            .Ok<VisitChartView>();
        var earlier = Assert.Single(later.Earlier);
        Assert.Equal((opened.VisitId, 2), (earlier.VisitId, earlier.Chart.Areas.Count));
        var letter = await browser.Get<LetterView>($"/api/visits/{visit.Id}/letter");
        var text = string.Join('\n', letter.Fresh.Parts.SelectMany(p => p.Paragraphs));
        Assert.Contains("ache, 4 of 10: low back left", text, StringComparison.Ordinal);
        Assert.Contains("gone buttock left", text, StringComparison.Ordinal);
        var svg = XDocument.Parse(await browser.GetStringAsync($"{path}.svg"));
        Assert.Equal("svg", svg.Root!.Name.LocalName);
        Assert.Contains("low back left", svg.ToString(), StringComparison.Ordinal);

        // What cannot be drawn is told by its field, and nothing is lost.
        foreach (
            var (wrong, field) in new[]
            {
                (
                    new PainArea(
                        Core.Charts.ChartView.Front,
                        PainKind.Ache,
                        11,
                        Zone(ChartZone.Chest, Side.Left, view: Core.Charts.ChartView.Front).Outline
                    ),
                    "chart.areas[0].strength"
                ),
                (
                    new PainArea(Core.Charts.ChartView.Front, PainKind.Ache, 4, [0, 0, 1, 1]),
                    "chart.areas[0].outline"
                ),
                (
                    new PainArea(Core.Charts.ChartView.Front, PainKind.Ache, 4, [9000, 0, 9100, 0, 9000, 90]),
                    "chart.areas[0].outline"
                ),
                (
                    new PainArea(
                        Core.Charts.ChartView.Front,
                        PainKind.Ache,
                        4,
                        [int.MinValue, 0, int.MaxValue, 1, 0, int.MinValue, 7]
                    ),
                    "chart.areas[0].outline"
                ),
            }
        )
        {
            Assert.Equal(
                [field],
                await browser
                    .Put(path, new ChartForm(new([wrong]), later.Version))
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            );
        }
        Assert.Equal(
            ["chart.answers[0].question"],
            await browser
                .Put(
                    path,
                    new ChartForm(
                        later.Chart with
                        {
                            Answers = [new("fever-ill", Side.Both, true)],
                        },
                        later.Version
                    )
                )
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Single((await browser.Get<VisitChartView>(path)).Chart.Areas);
    }

    private static DischargeForm Discharge(DischargeAsk ask, DateOnly? day = null) =>
        new(
            new(
                [
                    .. ask.Goals.Select(
                        (g, i) => new GoalOutcome(g, i > 0, i > 0 ? null : "Nights stay short")
                    ),
                ],
                "The home programme, three days a week"
            ),
            ask.Version,
            day
        );

    [Fact]
    public async Task An_episode_is_discharged_leaves_the_pile_and_is_taken_up_again()
    {
        var (browser, clinic, opened) = await Opened("Dis Charged");
        await clinic.Screen(opened.VisitId, 2, 2);
        await clinic.AcceptProposal(opened);
        var second = await clinic.Book(opened.EpisodeId, 0);
        var planned = await clinic.Book(opened.EpisodeId);
        await clinic.CheckIn(second);
        await browser
            .Put(
                $"/api/visits/{second.Id}/check-in",
                new CheckInForm(new(8, 9, 8, 30, [], null), second.Version + 1)
            )
            .Ok<VisitView>();
        Assert.Contains((await browser.Get<DayView>("/api/day")).Pile, row => row.Name == "Dis Charged");

        var path = $"/api/episodes/{opened.EpisodeId}";
        var ask = await browser.Get<DischargeAsk>($"{path}/discharge");
        Assert.Equal(["stand"], ask.Goals);
        Assert.Equal([planned.Id], ask.Booked.Select(b => b.VisitId));
        Assert.Equal(
            ["summary.goOn", "summary.goals"],
            (
                await browser
                    .Post($"{path}/discharge", new DischargeForm(new([], " "), ask.Version))
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            ).Order(StringComparer.Ordinal)
        );
        Assert.Equal(
            ["day"],
            await browser
                .Post($"{path}/discharge", Discharge(ask, DateOnly.FromDateTime(DateTime.UtcNow).AddDays(-3)))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var done = await browser.Post($"{path}/discharge", Discharge(ask)).Ok<DischargeAsk>();
        Assert.NotNull(done.DischargedOn);
        Assert.DoesNotContain(
            (await browser.Get<DayView>("/api/day")).Pile,
            row => row.Name == "Dis Charged"
        );
        // Nothing is booked, planned or decided in it any more; what was written down can still be read.
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"{path}/visits", new BookVisitForm(DateTime.UtcNow.AddDays(9)))).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"{path}/discharge", Discharge(done))).StatusCode
        );
        Assert.DoesNotContain((await clinic.Episode(opened.EpisodeId)).Visits, v => v.Id == planned.Id);
        var letter = string.Join(
            '\n',
            (await browser.Get<LetterView>($"/api/visits/{second.Id}/letter")).Fresh.Parts.SelectMany(p =>
                p.Paragraphs
            )
        );
        Assert.Contains("Not reached", letter, StringComparison.Ordinal);
        Assert.Contains("three days a week", letter, StringComparison.Ordinal);
        Assert.DoesNotContain("Continue the current plan", letter, StringComparison.Ordinal);

        Assert.Equal(
            ["reason"],
            await browser
                .Post($"{path}/reopen", new ReopenForm(done.Version, ""))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var again = await browser
            .Post($"{path}/reopen", new ReopenForm(done.Version, "It came back"))
            .Ok<DischargeAsk>();
        Assert.Null(again.DischargedOn);
        Assert.Equal("It came back", Assert.Single(again.Discharges).ReopenReason);
        await clinic.Book(opened.EpisodeId, 9);
    }

    /// <summary>The desk, the practitioner and the discharge mean the same by a visit that took place.</summary>
    [Theory]
    [InlineData("check-in")]
    [InlineData("intake")]
    [InlineData("trial")]
    [InlineData("note")]
    [InlineData("chart")]
    public async Task Whatever_was_done_at_a_visit_it_has_begun_for_everybody_and_no_discharge_calls_it_off(
        string what
    )
    {
        var (browser, clinic, opened) = await Opened($"Begun {what}");
        var visit = await clinic.Book(opened.EpisodeId, 0);
        async Task<(VisitState Told, bool Desk)> Begun()
        {
            var episode = await clinic.Episode(opened.EpisodeId);
            var card = await browser.Get<Clients.ClientCard>($"/api/clients/{episode.ClientId}");
            var today = (await browser.Get<DayView>("/api/day")).Visits.Single(v => v.VisitId == visit.Id);
            var desk = card.Bookings.Single(b => b.VisitId == visit.Id).Begun;
            var told = episode.Visits.Single(v => v.Id == visit.Id).State;
            Assert.Equal((desk, told), (today.Begun, today.State));
            return (told, desk);
        }
        Assert.Equal((VisitState.Planned, false), await Begun());
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        var rung = library.Ladders[0].Rungs[0];
        var form = (await clinic.Episode(opened.EpisodeId)).Intake with { VisitId = visit.Id };
        var done = what switch
        {
            "check-in" => await clinic.CheckIn(visit),
            "intake" => await browser.Put($"/api/episodes/{opened.EpisodeId}/intake", form),
            "trial" => await clinic.Send(
                visit.Id,
                clinic.Trial(rung, rung.Sides == RungSides.Each ? Side.Left : Side.Both, rung.Start, 1, 0)
            ),
            "note" => await browser.Put(
                $"/api/visits/{visit.Id}/note",
                new NoteForm(new(true, Subjective: "Rang up: cannot stand"), 0)
            ),
            _ => await browser.Put(
                $"/api/visits/{visit.Id}/body-chart",
                new ChartForm(new([Zone(ChartZone.LowBack, Side.Left)]), 0)
            ),
        };
        Assert.True(done.IsSuccessStatusCode, await done.Content.ReadAsStringAsync());
        Assert.Equal((VisitState.Open, true), await Begun());

        var path = $"/api/episodes/{opened.EpisodeId}/discharge";
        var ask = await browser.Get<DischargeAsk>(path);
        Assert.Empty(ask.Booked);
        await browser.Post(path, Discharge(ask)).Ok<DischargeAsk>();
        Assert.Contains((await clinic.Episode(opened.EpisodeId)).Visits, v => v.Id == visit.Id);
    }

    [Fact]
    public async Task A_red_flag_does_not_leave_by_a_discharge_and_one_that_comes_after_it_is_on_the_pile()
    {
        var (browser, clinic, opened) = await Opened("Flag After");
        var path = $"/api/episodes/{opened.EpisodeId}";
        await browser.Post($"{path}/danger-reports", new DangerSignsForm(["fever-ill"])).Ok<EpisodeView>();
        var ask = await browser.Get<DischargeAsk>($"{path}/discharge");
        Assert.NotNull(ask.Why);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"{path}/discharge", Discharge(ask))).StatusCode
        );
        var report = (await clinic.Episode(opened.EpisodeId)).DangerReports[0];
        await browser
            .Post($"{path}/danger-reports/{report.Id}/cleared", new DangerClearedForm("Seen", "Sent"))
            .Ok<EpisodeView>();
        await browser
            .Post($"{path}/discharge", Discharge(await browser.Get<DischargeAsk>($"{path}/discharge")))
            .Ok<DischargeAsk>();
        await browser.Post($"{path}/danger-reports", new DangerSignsForm(["night-pain"])).Ok<EpisodeView>();
        Assert.Contains(
            (await browser.Get<DayView>("/api/day")).Pile,
            row => row is { Name: "Flag After", Kind: Data.Day.WorklistKind.DangerSign }
        );
    }

    [Fact]
    public async Task A_trainer_does_not_discharge_and_the_clinics_view_has_no_names()
    {
        var (browser, _, opened) = await Opened("Named Nowhere");
        var (trainer, _) = await one.Running.Joins(Role.Trainer);
        var ask = await trainer.Get<DischargeAsk>($"/api/episodes/{opened.EpisodeId}/discharge");
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await trainer.Post($"/api/episodes/{opened.EpisodeId}/discharge", Discharge(ask))).StatusCode
        );
        await browser.Post($"/api/episodes/{opened.EpisodeId}/discharge", Discharge(ask)).Ok<DischargeAsk>();
        await browser.Get<DayView>("/api/day");
        var view = await browser.Get<ClinicView>("/api/clinic-view");
        Assert.Equal(view.Episodes.Count, view.Open + view.Discharged);
        Assert.Equal(view.Episodes.Count, view.Policies.Sum(p => p.Open + p.Discharged));
        Assert.Contains(view.Episodes, e => e is { Goals: 1, GoalsReached: 0 });
        var csv = await browser.GetStringAsync("/api/clinic-view.csv");
        Assert.Equal(view.Episodes.Count + 1, csv.Trim().Split('\n').Length);
        Assert.DoesNotContain("Named", csv, StringComparison.Ordinal);
        Assert.DoesNotContain($"{opened.EpisodeId}", csv, StringComparison.OrdinalIgnoreCase);
    }
}
