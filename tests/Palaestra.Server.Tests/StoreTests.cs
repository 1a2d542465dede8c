using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Day;
using Palaestra.Data.Visits;

namespace Palaestra.Server.Tests;

public sealed class StoreTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-store-").FullName;

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    private PalaestraDb Open() =>
        new(new DbContextOptionsBuilder<PalaestraDb>().UseSqlite(Store.ConnectionString(folder)).Options);

    [Fact]
    public async Task A_new_file_is_in_wal_mode_with_foreign_keys_on()
    {
        await using var db = Open();
        await Store.Prepare(db, folder, DateTime.Now);
        Assert.Equal("wal", await Pragma(db, "journal_mode"));
        Assert.Equal("1", await Pragma(db, "foreign_keys"));
        db.Visits.Add(new Visit { EpisodeId = Guid.NewGuid() });
        await Assert.ThrowsAsync<DbUpdateException>(() => db.SaveChangesAsync());
    }

    [Fact]
    public async Task An_older_file_is_copied_before_it_is_migrated()
    {
        // A file from before the first migration: it holds something, and a migration is pending.
        await using (var old = new SqliteConnection(Store.ConnectionString(folder)))
        {
            await old.OpenAsync();
            var make = old.CreateCommand();
            make.CommandText =
                "CREATE TABLE Keepsake (Words TEXT); INSERT INTO Keepsake VALUES ('here before');";
            await make.ExecuteNonQueryAsync();
        }
        await using var db = Open();
        await Store.Prepare(db, folder, DateTime.Now);
        var copy = Assert.Single(Directory.GetFiles(folder, "before-migration-*.db"));
        await using var kept = new SqliteConnection($"Data Source={copy};Pooling=False");
        await kept.OpenAsync();
        var read = kept.CreateCommand();
        read.CommandText = "SELECT Words FROM Keepsake";
        Assert.Equal("here before", await read.ExecuteScalarAsync());
        Assert.Empty(await db.Database.GetPendingMigrationsAsync());
    }

    /// <summary>Clients of an earlier version get numbers in the order in which they came, and are found by their folded names.</summary>
    [Fact]
    public async Task Clients_of_an_earlier_version_are_numbered_and_found()
    {
        var ids = Enumerable
            .Range(0, 3)
            .Select(i => Guid.CreateVersion7(DateTimeOffset.UtcNow.AddSeconds(i)))
            .ToArray();
        string[] names = ["Łukasz Żółć", "Μαρία", "Wenna Sorrel"];
        await using (var old = Open())
        {
            await old.GetService<IMigrator>()
                .MigrateAsync("VisitAnswers", TestContext.Current.CancellationToken);
            // Stored in another order than they came in.
            foreach (var i in new[] { 2, 0, 1 })
            {
                await old.Database.ExecuteSqlAsync(
                    $"INSERT INTO Clients (Id, Name, BirthDate) VALUES ({ids[i]}, {names[i]}, '1980-01-01')"
                );
            }
        }
        await using var db = Open();
        await Store.Prepare(db, folder, DateTime.Now);
        var clients = await db
            .Clients.AsNoTracking()
            .OrderBy(c => c.Number)
            .ToListAsync(TestContext.Current.CancellationToken);
        Assert.Equal(names, clients.Select(c => c.Name));
        Assert.Equal(["1001", "1002", "1003"], clients.Select(c => c.Number));
        Assert.Equal(
            ["lukasz zolc 1001 1980-01-01", "maria 1002 1980-01-01", "wenna sorrel 1003 1980-01-01"],
            clients.Select(c => c.SearchText)
        );
        // The next one goes on from there.
        db.Clients.Add(new() { Name = "Next", BirthDate = new(1990, 1, 1) });
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        Assert.Equal(
            "1004",
            (
                await db.Clients.SingleAsync(c => c.Name == "Next", TestContext.Current.CancellationToken)
            ).Number
        );
    }

    /// <summary>
    /// A record of the version before: what was asked at first becomes the first visit's own, a worst that stood below the
    /// present is lifted to it, and an event with fields of every kind and nothing in them is read.
    /// </summary>
    [Fact]
    public async Task A_record_of_the_version_before_keeps_what_it_holds()
    {
        var (client, episode, first, second) = (
            Guid.NewGuid(),
            Guid.NewGuid(),
            Guid.NewGuid(),
            Guid.NewGuid()
        );
        var (trial, id) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await using (var old = Open())
        {
            await old.GetService<IMigrator>().MigrateAsync("Traces", TestContext.Current.CancellationToken);
            await old.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO Clients (Id, Name, BirthDate) VALUES ({client}, 'Wenna Sorrel', '1980-01-01')
                """
            );
            await old.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO Episodes (Id, ClientId, OpenedOn, Complaint, PainNow, PainWorst, PainUsual, SettleHours, WakesAtNight, Precautions, PolicyId, MinutesPerDay, Version)
                VALUES ({episode}, {client}, '2026-03-02', 'aches', 6, 3, 4, 6, 1, '[]', 'mastery-no-rise', 15, 0)
                """
            );
            foreach (
                var (visit, day) in new[] { (second, "2026-03-09 09:00:00"), (first, "2026-03-02 09:00:00") }
            )
            {
                await old.Database.ExecuteSqlAsync(
                    $"INSERT INTO Visits (Id, EpisodeId, PlannedAt, Version, BatteryVersion, AnswersVersion) VALUES ({visit}, {episode}, {day}, 0, 0, 0)"
                );
            }
            var stored =
                $$"""{"id":"{{id}}","trialId":"{{trial}}","kind":"rep-done","at":"2026-03-02T09:10:00+00:00","rungId":null,"side":null,"purpose":null,"target":null,"fault":null,"phase":null,"value":null,"by":"Ines Tarrow"}""";
            await old.Database.ExecuteSqlAsync(
                $"INSERT INTO Events (Id, VisitId, TrialId, Kind, Event, ReceivedAt, By) VALUES ({id}, {first}, {trial}, 'RepDone', {stored}, '2026-03-02 09:10:01', 'Ines Tarrow')"
            );
        }
        await using var db = Open();
        await Store.Prepare(db, folder, DateTime.Now, zone: ClinicZone.Find("Europe/Berlin"));
        // Nine on the wall there, in winter: eight in UTC.
        Assert.Equal(
            ["2026-03-02 08:00:00", "2026-03-09 08:00:00"],
            await db
                .Database.SqlQuery<string>($"SELECT PlannedAt AS Value FROM Visits ORDER BY PlannedAt")
                .ToListAsync(TestContext.Current.CancellationToken)
        );
        Assert.Equal(
            "Europe/Berlin",
            (await db.Clinics.SingleAsync(TestContext.Current.CancellationToken)).TimeZone
        );
        var visits = await db
            .Visits.AsNoTracking()
            .OrderBy(v => v.PlannedAt)
            .ToListAsync(TestContext.Current.CancellationToken);
        Assert.Equal(first, visits[0].Id);
        Assert.Equal(new Palaestra.Core.Intake.Pain(6, 6, 4), visits[0].Intake!.Pain);
        Assert.True(visits[0].Intake!.WakesAtNight);
        Assert.Null(visits[1].Intake);
        Assert.Null(visits[0].Flags);
        var read = await db.Events.AsNoTracking().SingleAsync(TestContext.Current.CancellationToken);
        Assert.IsType<Palaestra.Core.Capture.RepDone>(read.Event);
    }

    [Fact]
    public async Task Standings_worked_out_with_other_content_are_worked_out_anew()
    {
        await using var db = Open();
        await Store.Prepare(db, folder, DateTime.Now);
        var (old, today) = (Guid.NewGuid(), Guid.NewGuid());
        await db.Database.OpenConnectionAsync();
        await db.Database.ExecuteSqlAsync($"PRAGMA foreign_keys = OFF");
        db.Standings.AddRange(
            new Standing
            {
                EpisodeId = old,
                Stale = false,
                LibraryVersion = "earlier",
            },
            new Standing
            {
                EpisodeId = today,
                Stale = false,
                LibraryVersion = "now",
            }
        );
        await db.SaveChangesAsync();
        await Store.MarkStandingsOfOtherContent(db, "now");
        Assert.Equal(
            [old],
            await db.Standings.AsNoTracking().Where(s => s.Stale).Select(s => s.EpisodeId).ToListAsync()
        );
    }

    private static async Task<string> Pragma(PalaestraDb db, string name)
    {
        await db.Database.OpenConnectionAsync();
        await using var command = db.Database.GetDbConnection().CreateCommand();
        command.CommandText = $"PRAGMA {name}";
        return (await command.ExecuteScalarAsync())!.ToString()!;
    }
}
