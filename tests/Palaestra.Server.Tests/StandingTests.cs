using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Palaestra.Data;
using Palaestra.Server.Day;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Where episodes stand is worked out beside the requests; reading the day writes nothing.</summary>
public sealed class StandingTests : IAsyncLifetime
{
    private readonly RunningServer server = new();
    private HttpClient browser = null!;
    private Clinic clinic = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await server.SignedIn();
        clinic = new(browser);
    }

    public async ValueTask DisposeAsync() => await server.DisposeAsync();

    private Task<DayView> Day() => browser.Get<DayView>("/api/day");

    private SqliteConnection Open()
    {
        var db = new SqliteConnection(Store.ConnectionString(server.Folder) + ";Pooling=False");
        db.Open();
        return db;
    }

    private static void Run(SqliteConnection db, string words, params (string Name, object Value)[] values)
    {
        using var command = db.CreateCommand();
        command.CommandText = words;
        foreach (var (name, value) in values)
        {
            command.Parameters.AddWithValue(name, value);
        }
        command.ExecuteNonQuery();
    }

    [Fact]
    public async Task The_day_shows_what_was_written_just_before()
    {
        for (var i = 0; i < 5; i++)
        {
            var opened = await clinic.NewClient();
            var day = await Day();
            Assert.Contains(day.Visits, v => v.VisitId == opened.VisitId);
            Assert.Equal(0, day.Behind);
        }
    }

    /// <summary>A backup or another program holds the store: what was known is told, with how many are out of date.</summary>
    [Fact]
    public async Task While_nothing_can_be_written_the_day_is_read_all_the_same()
    {
        var opened = await clinic.NewClient();
        await Day();
        using var other = Open();
        Run(
            other,
            "UPDATE Standings SET Stale = 1 WHERE EpisodeId = $id",
            ("$id", $"{opened.EpisodeId}".ToUpperInvariant())
        );
        Run(other, "BEGIN IMMEDIATE");
        var took = Stopwatch.StartNew();
        var day = await Day();
        Assert.Equal(1, day.Behind);
        Assert.Contains(day.Visits, v => v.VisitId == opened.VisitId);
        // Two seconds of patience, and a machine that may be busy.
        Assert.InRange(took.Elapsed, TimeSpan.Zero, TimeSpan.FromSeconds(10));
        Run(other, "ROLLBACK");
        await Bridge.Until(async () => (await Day()).Behind == 0);
    }

    [Fact]
    public async Task A_record_that_cannot_be_worked_out_does_not_hold_up_the_others()
    {
        var broken = await clinic.NewClient();
        await clinic.Screen(broken.VisitId, 3, 3);
        await Day();
        using (var db = Open())
        {
            Run(
                db,
                """
                INSERT INTO Events (Id, VisitId, TrialId, Kind, Event, ReceivedAt, By)
                SELECT $odd, VisitId, TrialId, Kind, '{"kind":"odd"}', ReceivedAt, By FROM Events WHERE VisitId = $id LIMIT 1
                """,
                ("$odd", $"{Guid.NewGuid()}".ToUpperInvariant()),
                ("$id", $"{broken.VisitId}".ToUpperInvariant())
            );
            Run(db, "UPDATE Standings SET Stale = 1");
        }
        var later = await clinic.NewClient();
        var day = await Day();
        Assert.Contains(day.Visits, v => v.VisitId == later.VisitId);
        Assert.Equal(1, day.Behind);
    }
}
