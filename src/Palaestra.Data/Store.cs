using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Palaestra.Data;

/// <summary>Opens the database file: WAL mode, foreign keys, migrations at start with a copy made before.</summary>
public static class Store
{
    public const string FileName = "palaestra.db";

    public static string ConnectionString(string folder) =>
        new SqliteConnectionStringBuilder
        {
            DataSource = Path.Combine(folder, FileName),
            ForeignKeys = true,
            DefaultTimeout = 10,
        }.ToString();

    /// <summary>Brings the file to the present schema. An existing file is copied beside itself first.</summary>
    public static async Task Prepare(PalaestraDb db, string folder, DateTime now)
    {
        Directory.CreateDirectory(folder);
        var file = Path.Combine(folder, FileName);
        var pending = (await db.Database.GetPendingMigrationsAsync()).ToList();
        if (File.Exists(file) && pending.Count > 0)
        {
            await Copy(folder, now);
        }
        // Migrating compares the whole model first; a file that is up to date is ready without that.
        if (pending.Count > 0)
        {
            await db.Database.MigrateAsync();
        }
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode = WAL;");
    }

    /// <summary>What was worked out with other content is worked out anew when the day is next looked at.</summary>
    public static Task<int> MarkStandingsOfOtherContent(PalaestraDb db, string libraryVersion) =>
        db.Database.ExecuteSqlAsync(
            $"UPDATE Standings SET Stale = 1 WHERE Stale = 0 AND LibraryVersion <> {libraryVersion}"
        );

    /// <summary>
    /// Whether the clinic has policies of its own. Asked of the file itself: at a start this spares the mapper's first use,
    /// which takes longer than all the rest.
    /// </summary>
    public static async Task<bool> HasOwnPolicies(string folder)
    {
        await using var file = new SqliteConnection(ConnectionString(folder));
        await file.OpenAsync();
        await using var ask = file.CreateCommand();
        ask.CommandText = "SELECT EXISTS (SELECT 1 FROM Policies)";
        return (long)(await ask.ExecuteScalarAsync())! == 1;
    }

    /// <summary>A whole copy through SQLite's own backup, so that what is still in the write-ahead log is in it.</summary>
    public static async Task<string> Copy(string folder, DateTime now)
    {
        var stamp = now.ToString("yyyyMMdd-HHmmss-fff", CultureInfo.InvariantCulture);
        var target = Path.Combine(folder, $"before-migration-{stamp}.db");
        await using var from = new SqliteConnection(ConnectionString(folder));
        await using var to = new SqliteConnection($"Data Source={target};Pooling=False");
        await from.OpenAsync();
        await to.OpenAsync();
        from.BackupDatabase(to);
        return target;
    }
}
