using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using Palaestra.Data.Clinics;
using Palaestra.Server.Clinics;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.Outcomes;
using Palaestra.Server.People;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>A clinic where it is always another day than on the other side of the world, whatever zone the machine is in.</summary>
public sealed class ClinicTimeTests : IAsyncLifetime
{
    /// <summary>25 hours apart: at no instant is it the same day in both.</summary>
    private const string Early = "Pacific/Kiritimati";
    private const string Late = "Pacific/Pago_Pago";

    private readonly RunningServer server = new(zone: Early);
    private HttpClient browser = null!;
    private Given.Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await server.SignedIn();
        clinic = new(browser);
    }

    public ValueTask DisposeAsync()
    {
        server.Dispose();
        return ValueTask.CompletedTask;
    }

    private static DateOnly TodayIn(string zone) => ClinicZone.Find(zone)!.DayOf(Now);

    private static NodaTime.Instant Now => NodaTime.Instant.FromDateTimeUtc(DateTime.UtcNow);

    private async Task<ClinicForm> Move(string zone, DateOrder order = DateOrder.DayMonthYear)
    {
        var form = await browser.Get<ClinicForm>("/api/clinic");
        return await browser
            .Put("/api/clinic", form with { Time = new(zone, order, DayOfWeek.Sunday) })
            .Ok<ClinicForm>();
    }

    [Fact]
    public async Task The_day_is_the_clinics_and_instants_are_told_on_its_wall()
    {
        var opened = await clinic.NewClient();
        Assert.Equal(Early, (await browser.Get<StartView>("/api/start")).Time!.Zone);
        var day = await browser.Get<DayView>("/api/day");
        Assert.Equal(TodayIn(Early), day.Date);
        Assert.Equal(opened.VisitId, Assert.Single(day.Visits).VisitId);
        var told = JsonNode.Parse(await browser.GetStringAsync("/api/day"))!["visits"]![0]!["plannedAt"]!;
        Assert.EndsWith("+14:00", told.GetValue<string>(), StringComparison.Ordinal);

        await Move(Late);
        var there = await browser.Get<DayView>("/api/day");
        Assert.Equal(TodayIn(Late), there.Date);
        // What has been keeps its instant: it is still the visit of just now.
        Assert.Equal(day.Visits[0].PlannedAt, Assert.Single(there.Visits).PlannedAt);
    }

    [Fact]
    public async Task A_visit_without_a_zone_is_booked_on_the_wall_and_stays_there_when_the_zone_is_set_right()
    {
        var opened = await clinic.NewClient();
        var address = $"/api/episodes/{opened.EpisodeId}/visits";
        var wall = TodayIn(Early).AddDays(7).ToDateTime(new TimeOnly(9, 30));
        var booked = await browser.Post(address, new { plannedAt = wall }).Ok<VisitView>();
        Assert.Equal(wall, ClinicZone.Find(Early)!.Local(booked.PlannedAt));
        await Move("Europe/Berlin");
        var moved = (await clinic.Episode(opened.EpisodeId)).Visits.Single(v => v.Id == booked.Id);
        Assert.Equal(wall, ClinicZone.Find("Europe/Berlin")!.Local(moved.PlannedAt));
        Assert.NotEqual(booked.PlannedAt, moved.PlannedAt);

        // One with its distance from UTC is that instant, whichever zone it was written in.
        var instant = moved.PlannedAt.ToDateTimeOffset().AddDays(1);
        var other = await browser
            .Post(address, new { plannedAt = instant.ToOffset(TimeSpan.FromHours(-7)) })
            .Ok<VisitView>();
        Assert.Equal(instant, other.PlannedAt.ToDateTimeOffset());
    }

    [Fact]
    public async Task A_time_that_the_clock_leaves_out_is_refused_with_words()
    {
        await Move("Europe/Berlin");
        var opened = await clinic.NewClient();
        var night = Enumerable
            .Range(0, 400)
            .Select(day => TodayIn("Europe/Berlin").AddDays(day).ToDateTime(new TimeOnly(2, 30)))
            .First(wall => !ClinicZone.Find("Europe/Berlin")!.Has(wall));
        Assert.Equal((3, DayOfWeek.Sunday), (night.Month, night.DayOfWeek));
        Assert.Equal(
            ["plannedAt"],
            await browser
                .Post($"/api/episodes/{opened.EpisodeId}/visits", new { plannedAt = night })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task A_zone_nobody_knows_is_refused_and_an_edit_without_times_leaves_them()
    {
        var form = await browser.Get<ClinicForm>("/api/clinic");
        Assert.Equal(
            ["time.zone"],
            await browser
                .Put("/api/clinic", form with { Time = form.Time! with { Zone = "Nowhere/Land" } })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        await browser
            .Put(
                "/api/clinic",
                new
                {
                    name = "Quay",
                    contact = "",
                    version = 0,
                }
            )
            .Ok<ClinicForm>();
        Assert.Equal(form.Time, (await browser.Get<ClinicForm>("/api/clinic")).Time);
    }

    [Theory]
    [InlineData(DateOrder.DayMonthYear, "d MMMM yyyy")]
    [InlineData(DateOrder.MonthDayYear, "MMMM d, yyyy")]
    [InlineData(DateOrder.YearMonthDay, "yyyy-MM-dd")]
    public async Task A_letter_writes_its_dates_in_the_order_of_the_clinic(DateOrder order, string format)
    {
        await Move(Early, order);
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
        var letter = await browser.Get<LetterView>($"/api/visits/{opened.VisitId}/letter");
        Assert.Contains(
            $"First seen on {TodayIn(Early).ToString(format, CultureInfo.InvariantCulture)}:",
            string.Join(' ', letter.Letter.Parts.SelectMany(part => part.Paragraphs)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task The_zone_outlives_a_restart_and_a_setting_that_says_another()
    {
        await Move("Europe/Berlin", DateOrder.MonthDayYear);
        var kept = Directory.CreateTempSubdirectory("palaestra-zone-").FullName;
        try
        {
            await Data.Store.CopyTo(server.Folder, Path.Combine(kept, Data.Store.FileName));
            using var again = new RunningServer(folder: kept, zone: Late);
            var there = await again.SignedIn();
            Assert.Equal(
                new("Europe/Berlin", DateOrder.MonthDayYear, DayOfWeek.Sunday, PersonUnits.KgCm),
                (await there.Get<StartView>("/api/start")).Time
            );
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(kept, recursive: true);
        }
    }
}
