using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
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
