using System.Net;
using Palaestra.Data.Amendments;
using Palaestra.Data.Intake;
using Palaestra.Data.Staff;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clients;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests;

/// <summary>Clients at the desk: taken in, found, put together, filed where they belong, put away.</summary>
public sealed class ClientWorkTests(OneServer one) : IClassFixture<OneServer>
{
    private static int count;

    private static ClientForm Form(string? name = null, Guid? id = null) =>
        new(name ?? $"Person {Interlocked.Increment(ref count)}", new DateOnly(1984, 5, 17), id);

    private static Task<ClientCard> Registered(HttpClient browser, ClientForm form) =>
        browser.Post("/api/clients/registered", form).Ok<ClientCard>();

    private static async Task<IReadOnlyList<string>> Found(HttpClient browser, string words) =>
        [
            .. (
                await browser.Get<IReadOnlyList<ClientLine>>(
                    $"/api/clients?words={Uri.EscapeDataString(words)}"
                )
            ).Select(line => line.Name),
        ];

    [Fact]
    public async Task The_desk_takes_a_client_in_books_them_and_sees_nothing_clinical()
    {
        var (desk, _) = await one.Running.Joins(Role.Reception);
        var card = await Registered(
            desk,
            Form("Isbel Carrow") with
            {
                Phone = "0151 204 11",
                Guardian = new("Tamsin Carrow", "mother"),
            }
        );
        Assert.True(int.Parse(card.Number, System.Globalization.CultureInfo.InvariantCulture) > 1000);
        var booking = await desk.Post(
                $"/api/clients/{card.Id}/episodes",
                new OpenEpisodeForm(new BookVisitForm())
            )
            .Ok<Booking>();
        var day = await desk.Get<DayView>("/api/day");
        var visit = Assert.Single(day.Visits, v => v.VisitId == booking.VisitId);
        Assert.Equal(("Isbel Carrow", "0151 204 11"), (visit.Name, visit.Phone));
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await desk.GetAsync($"/api/episodes/{booking.EpisodeId}")).StatusCode
        );

        // Nobody has asked yet: nothing is planned on answers that are none.
        var clinician = await one.Running.SignedIn();
        var clinic = new Given.Clinic(clinician);
        var episode = await clinic.Episode(booking.EpisodeId);
        Assert.False(episode.Asked);
        Assert.NotNull(episode.Held);
        Assert.Equal(VisitState.Planned, episode.Visits[0].State);
        Assert.Null(episode.Visits[0].Pain);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (
                await clinician.Put(
                    $"/api/episodes/{booking.EpisodeId}/neutral",
                    new NeutralForm(
                        Core.Intake.RestingShape.Middling,
                        Core.Intake.SpinalStrategy.Neutral,
                        Core.Library.Activation.Brace,
                        episode.Version
                    )
                )
            ).StatusCode
        );
        var asked = await clinician
            .Put(
                $"/api/episodes/{booking.EpisodeId}/intake",
                Given.Clinic.Form() with
                {
                    Name = "Isbel Carrow",
                    Version = episode.Version,
                    VisitId = booking.VisitId,
                    FlagsAsked = true,
                }
            )
            .Ok<EpisodeView>();
        Assert.True(asked.Asked);
        Assert.Null(asked.Held);
        Assert.Equal(2, asked.Visits[0].Pain);
        // What the desk wrote is still there.
        Assert.Equal("0151 204 11", (await desk.Get<ClientCard>($"/api/clients/{card.Id}")).Phone);
    }

    [Fact]
    public async Task A_second_tap_makes_no_second_client_episode_or_visit()
    {
        var browser = await one.Running.SignedIn();
        var id = Guid.CreateVersion7();
        var cards = await Task.WhenAll(
            Enumerable.Range(0, 4).Select(_ => browser.Post("/api/clients/registered", Form("Twice", id)))
        );
        Assert.Contains(cards, c => c.StatusCode == HttpStatusCode.Created);
        Assert.Single(await Found(browser, "twice"));

        var intake = Given.Clinic.Form() with { Name = "Thrice", Id = Guid.CreateVersion7() };
        var first = await browser.Post("/api/clients", intake).Ok<Opened>();
        Assert.Equal(first, await browser.Post("/api/clients", intake).Ok<Opened>());

        var visit = new BookVisitForm(DateTime.Now.AddDays(3), Guid.CreateVersion7());
        var path = $"/api/episodes/{first.EpisodeId}/visits";
        var booked = await browser.Post(path, visit).Ok<VisitView>();
        Assert.Equal(booked.Id, (await browser.Post(path, visit).Ok<VisitView>()).Id);
        Assert.Equal(2, (await new Given.Clinic(browser).Episode(first.EpisodeId)).Visits.Count);

        // Of taps that come at once each is answered with what the first of them made.
        async Task<IReadOnlyList<T>> AtOnce<T>(string to, object form) =>
            await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => browser.Post(to, form).Ok<T>()));
        var series = await AtOnce<SeriesBooked>(
            $"{path}/series",
            new SeriesForm(
                DateOnly.FromDateTime(DateTime.UtcNow).AddDays(5).ToDateTime(new(9, 0)),
                7,
                3,
                Guid.CreateVersion7()
            )
        );
        Assert.Equal(5, (await new Given.Clinic(browser).Episode(first.EpisodeId)).Visits.Count);
        Assert.All(
            series,
            s => Assert.Equal(series[0].Booked.Select(b => b.VisitId), s.Booked.Select(b => b.VisitId))
        );
        var registered = await AtOnce<ClientCard>(
            "/api/clients/registered",
            Form("Fourfold", Guid.CreateVersion7())
        );
        var bookings = await AtOnce<Booking>(
            $"/api/clients/{registered[0].Id}/episodes",
            new OpenEpisodeForm(new(DateTime.Now.AddDays(2), Guid.CreateVersion7()), Guid.CreateVersion7())
        );
        Assert.Single(bookings.Select(b => b.VisitId).Distinct());
        Assert.Single((await browser.Get<ClientCard>($"/api/clients/{registered[0].Id}")).Episodes);
    }

    [Fact]
    public async Task Numbers_are_each_of_one_client_also_when_many_come_at_once()
    {
        var browser = await one.Running.SignedIn();
        var cards = await Task.WhenAll(
            Enumerable.Range(0, 12).Select(i => Registered(browser, Form($"At Once {i}")))
        );
        Assert.Equal(12, cards.Select(c => c.Number).Distinct().Count());
        Assert.Equal(
            ["number"],
            await browser
                .Post("/api/clients/registered", Form() with { Number = cards[0].Number })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    /// <summary>Six scripts, marks or none, spellings, a number, a birth date, a telephone; a sign is a sign.</summary>
    [Theory]
    [InlineData("Łukasz Żółć", "lukasz")]
    [InlineData("Łukasz Żółć", "ŻÓŁĆ łuk")]
    [InlineData("Мария Ёлкина", "елкина")]
    [InlineData("Мария Ёлкина", "mariya")]
    [InlineData("Άννα Παππάς", "αννα παππας")]
    [InlineData("أحمد إبراهيم", "احمد")]
    [InlineData("شيماء مُحَمَّد", "محمد")]
    [InlineData("שָׂרָה כהן", "שרה")]
    [InlineData("王小明", "王")]
    [InlineData("Jörg Müller", "mueller")]
    [InlineData("Jörg Müller", "MULLER jorg")]
    [InlineData("Zoe\u0301 O’Brien", "zoé obrien")]
    [InlineData("Anne-Mette Ødegård", "mette odegard")]
    public async Task A_client_is_found_however_the_name_is_typed(string name, string words)
    {
        var browser = await one.Running.SignedIn();
        await Registered(browser, Form(name));
        Assert.Contains(name, await Found(browser, words));
    }

    [Fact]
    public async Task A_client_is_found_by_number_birth_date_and_telephone_and_a_percent_sign_finds_nobody()
    {
        var browser = await one.Running.SignedIn();
        var card = await Registered(
            browser,
            new ClientForm(
                "Perran Nance",
                new DateOnly(1961, 3, 2),
                Number: "K-77/3",
                Phone: "+49 (0)151 99-88-77"
            )
        );
        foreach (
            var words in new[]
            {
                "k-77",
                "1961-03-02",
                "2.3.1961",
                "02/03/1961",
                "0151998877",
                "perran 1961-03-02",
            }
        )
        {
            Assert.True((await Found(browser, words)).Contains(card.Name), words);
        }
        foreach (var words in new[] { "%", "_", "%%", "\\", "'", "3.2.1961" })
        {
            Assert.False((await Found(browser, words)).Contains(card.Name), words);
        }
    }

    [Fact]
    public async Task Whoever_may_be_the_same_is_told_before_a_client_is_made()
    {
        var browser = await one.Running.SignedIn();
        var known = await Registered(
            browser,
            new ClientForm("Łowenna Tregear", new DateOnly(1977, 7, 7), Phone: "0171 5550 12")
        );
        async Task<bool?> Sure(string query) =>
            (await browser.Get<IReadOnlyList<AlikeClient>>($"/api/clients/alike?{query}"))
                .FirstOrDefault(c => c.ClientId == known.Id)
                ?.Sure;
        Assert.True(await Sure("name=Tregear%20Lowenna&birthDate=1977-07-07"));
        Assert.False(await Sure("name=Lowena%20Tregear&birthDate=1977-07-07"));
        Assert.False(await Sure("name=Lowenna%20Tregear&birthDate=1978-07-07"));
        Assert.False(await Sure("name=Somebody%20Else&birthDate=1950-01-01&phone=01715550-12"));
        Assert.Null(await Sure("name=Somebody%20Else&birthDate=1977-07-07"));
        Assert.Null(await Sure($"name=Lowenna%20Tregear&birthDate=1977-07-07&besides={known.Id}"));
    }

    [Fact]
    public async Task A_merge_and_a_split_keep_every_event_and_say_so()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Given.Clinic(browser);
        var kept = await clinic.NewClient(Given.Clinic.Form() with { Name = "Merryn Hale" });
        var twin = await clinic.NewClient(
            Given.Clinic.Form() with
            {
                Name = "Merryn Hale-Roe",
                Complaint = "Knee.",
            }
        );
        await clinic.Screen(twin.VisitId, 2, 2);
        var events = (await browser.Get<VisitEvents>($"/api/visits/{twin.VisitId}/events")).Events.Count;
        var (into, from) = (
            (await clinic.Episode(kept.EpisodeId)).ClientId,
            (await clinic.Episode(twin.EpisodeId)).ClientId
        );
        Assert.Equal(
            ["reason"],
            await browser
                .Post($"/api/clients/{from}/merge", new MergeForm(into, " "))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        var card = await browser
            .Post($"/api/clients/{from}/merge", new MergeForm(into, "Married meanwhile"))
            .Ok<ClientCard>();
        Assert.Equal(2, card.Episodes.Count);
        Assert.Equal(into, (await browser.Get<ClientCard>($"/api/clients/{from}")).MergedIntoId);
        Assert.DoesNotContain("Merryn Hale-Roe", await Found(browser, "merryn"));
        Assert.Equal(
            events,
            (await browser.Get<VisitEvents>($"/api/visits/{twin.VisitId}/events")).Events.Count
        );
        Assert.Equal("Merryn Hale", (await clinic.Episode(twin.EpisodeId)).Intake.Name);
        // A second merge of the same goes nowhere, nor does a circle.
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"/api/clients/{into}/merge", new MergeForm(from, "back"))).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Post($"/api/clients/{from}/merge", new MergeForm(into, "again"))).StatusCode
        );

        var filed = await browser
            .Post($"/api/episodes/{twin.EpisodeId}/client", new FileEpisodeForm(from, "Two people after all"))
            .Ok<ClientCard>();
        Assert.Equal((from, null, 1), (filed.Id, filed.MergedIntoId, filed.Episodes.Count));
        Assert.Contains("Merryn Hale-Roe", await Found(browser, "merryn"));
        Assert.Equal(
            events,
            (await browser.Get<VisitEvents>($"/api/visits/{twin.VisitId}/events")).Events.Count
        );
        var told = (
            await browser.Get<IReadOnlyList<RecordChange>>($"/api/episodes/{twin.EpisodeId}/amendments")
        )
            .Where(c => c.Entry == AmendedPart.Filed)
            .Select(c => c.Reason);
        Assert.Equal(["Two people after all", "Married meanwhile"], told);
    }

    [Fact]
    public async Task An_edit_on_an_older_version_shows_the_present_one_and_stores_nothing()
    {
        var browser = await one.Running.SignedIn();
        var card = await Registered(browser, Form("Kerensa Vane"));
        var form = new ClientForm("Kerensa Vane", card.BirthDate, Phone: "0123 456", Version: card.Version);
        await browser.Put($"/api/clients/{card.Id}", form).Ok<ClientCard>();
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await browser.Put($"/api/clients/{card.Id}", form with { Phone = "999" })).StatusCode
        );
        Assert.Equal("0123 456", (await browser.Get<ClientCard>($"/api/clients/{card.Id}")).Phone);
        Assert.Equal(
            ["birthDate", "email", "guardian.name", "inChargeId", "name", "phone"],
            (
                await browser
                    .Put(
                        $"/api/clients/{card.Id}",
                        new ClientForm(
                            "",
                            new DateOnly(1800, 1, 1),
                            Phone: "none",
                            Email: "x",
                            Guardian: new(" "),
                            InChargeId: Guid.NewGuid(),
                            Version: 2
                        )
                    )
                    .RefusedFields(HttpStatusCode.UnprocessableEntity)
            ).Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public async Task Whoever_is_still_to_come_or_in_danger_is_not_put_away()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Given.Clinic(browser);
        var opened = await clinic.NewClient(Given.Clinic.Form("fever-ill") with { Name = "Put Away" });
        var client = (await clinic.Episode(opened.EpisodeId)).ClientId;
        async Task<HttpStatusCode> Away()
        {
            var card = await browser.Get<ClientCard>($"/api/clients/{client}");
            return (
                await browser.Put($"/api/clients/{client}/archived", new ArchiveForm(true, card.Version))
            ).StatusCode;
        }
        Assert.Equal(HttpStatusCode.Conflict, await Away());
        var report = (await clinic.Episode(opened.EpisodeId)).DangerReports[0];
        await browser
            .Post(
                $"/api/episodes/{opened.EpisodeId}/danger-reports/{report.Id}/cleared",
                new DangerClearedForm("Seen", "Sent")
            )
            .Ok<EpisodeView>();
        // Today's visit is still one to come.
        Assert.Equal(HttpStatusCode.Conflict, await Away());

        var registered = await Registered(browser, Form("Put Away Two"));
        await browser
            .Put($"/api/clients/{registered.Id}/archived", new ArchiveForm(true, 1))
            .Ok<ClientCard>();
        Assert.DoesNotContain("Put Away Two", await Found(browser, "away two"));
        var archived = await browser.Get<IReadOnlyList<ClientLine>>(
            "/api/clients?words=away%20two&archived=true"
        );
        Assert.Equal("Put Away Two", Assert.Single(archived).Name);
        // Booked again, they are back.
        await browser
            .Post($"/api/clients/{registered.Id}/episodes", new OpenEpisodeForm(new BookVisitForm()))
            .Ok<Booking>();
        Assert.Contains("Put Away Two", await Found(browser, "away two"));
    }
}
