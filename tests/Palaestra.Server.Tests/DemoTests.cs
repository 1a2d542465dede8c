using System.Net.Http.Json;
using Palaestra.Core.Progression;
using Palaestra.Data.Day;
using Palaestra.Server.Day;
using Palaestra.Server.Demo;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Progression;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

public sealed class DemoTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-demo-").FullName;

    public void Dispose()
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task The_clinic_of_the_demo_is_always_of_today()
    {
        using var server = new RunningServer("demo", folder);
        var browser = await server.InDemo();
        var day = await browser.Get<DayView>("/api/day");
        Assert.Equal(DateOnly.FromDateTime(DateTime.Now), day.Date);
        Assert.True(day.Visits.Count + day.Others.Count >= 5);
        Assert.Contains(day.Visits, v => v is { Number: 1, State: VisitState.Open });
        Assert.Contains(day.Visits, v => v.Number >= 5);
        Assert.Equal(WorklistKind.DangerSign, day.Pile[0].Kind);
        Assert.Contains(day.Pile, entry => entry.Kind == WorklistKind.Soreness);
        Assert.Contains(day.Pile, entry => entry.Kind == WorklistKind.RescreenDue);
    }

    [Fact]
    public async Task It_shows_a_painful_session_a_shortened_range_and_a_leg_that_is_remembered()
    {
        using var server = new RunningServer("demo", folder);
        var browser = await server.InDemo();
        var halla = await Decided(browser, "Halla Wintering");
        Assert.Contains(halla.Proposals, d => d.RuleId == "D-PAIN-STOP");
        Assert.DoesNotContain(halla.Proposals, d => d.Outcome is Outcome.Add or Outcome.StepUp);
        Assert.True(
            halla.Plan!.Plan.Items.Any(i => i.Doses.All(d => d.Dose.Range < 1)),
            string.Join("; ", halla.Plan.Plan.Items.Select(i => $"{i.RungId} {i.Doses[0].Dose}"))
        );
        var corin = await Decided(browser, "Corin Ashmere");
        Assert.Contains(corin.Proposals, d => d.Rules.Contains("D-LEG-MEMORY"));
        Assert.DoesNotContain(corin.Proposals, d => d.Outcome is Outcome.Add or Outcome.StepUp);
    }

    private static async Task<DecideView> Decided(HttpClient browser, string name)
    {
        var day = await browser.Get<DayView>("/api/day");
        var id = day.Others.Single(e => e.Name == name).EpisodeId!.Value;
        var visits = (await new Clinic(browser).Episode(id)).Visits;
        return await browser.Get<DecideView>($"/api/visits/{visits[^1].Id}/decisions");
    }

    [Fact]
    public async Task A_restart_on_the_same_day_keeps_what_was_entered_and_a_new_day_begins_anew()
    {
        Guid made;
        using (var server = new RunningServer("demo", folder))
        {
            made = (await new Clinic(await server.InDemo()).NewClient()).EpisodeId;
        }
        using (var server = new RunningServer("demo", folder))
        {
            Assert.Equal("Wenna Sorrel", (await new Clinic(await server.InDemo()).Episode(made)).Intake.Name);
        }
        Assert.False(DemoStart.NeedsFilling(folder, DateTime.Now));
        Assert.True(DemoStart.NeedsFilling(folder, DateTime.Now.AddDays(1)));
        Assert.Empty(Directory.GetFiles(folder, "*.db"));
    }
}
