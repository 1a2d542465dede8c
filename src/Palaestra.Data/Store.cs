using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data.Clinics;
using Palaestra.Data.Keeping;

namespace Palaestra.Data;

/// <summary>Opens the database file: WAL mode, foreign keys, migrations at start with a copy made before.</summary>
public static class Store
{
    public const string FileName = "palaestra.db";

    /// <summary>Copies made before migrations, the youngest last in the order of names.</summary>
    public const string CopyPattern = "before-migration-*.db";

    private const int CopiesKept = 3;

    public static string ConnectionString(string folder) =>
        new SqliteConnectionStringBuilder
        {
            DataSource = Path.Combine(folder, FileName),
            ForeignKeys = true,
            DefaultTimeout = 10,
        }.ToString();

    /// <summary>The store of a folder, for a command beside the server.</summary>
    public static PalaestraDb Open(string folder) =>
        new(new DbContextOptionsBuilder<PalaestraDb>().UseSqlite(ConnectionString(folder)).Options);

    /// <summary>Makes what every store of this process shares: what its tables look like. Nothing is opened.</summary>
    public static void MakeModel(string folder)
    {
        using var db = Open(folder);
        _ = db.Model;
    }

    /// <summary>
    /// Brings the file to the present schema; the caller holds the folder's lock. An existing file is copied beside itself first;
    /// a migration that was broken off begins again from that copy.
    /// </summary>
    /// <exception cref="StartRefusedException">The file is not fit to be served; see docs/clinic.md.</exception>
    /// <param name="zone">Zone of times that were stored before zones were; none: the machine's.</param>
    public static async Task Prepare(
        PalaestraDb db,
        string folder,
        DateTime now,
        bool crashed = false,
        ClinicZone? zone = null
    )
    {
        Directory.CreateDirectory(folder);
        MigrationGuard.TakeBack(folder, now);
        StartCheck.Look(folder, [.. db.Database.GetMigrations()], crashed);
        var pending = (await db.Database.GetPendingMigrationsAsync()).ToList();
        // Migrating compares the whole model first; a file that is up to date is ready without that.
        if (pending.Count > 0)
        {
            var copy = File.Exists(Path.Combine(folder, FileName)) ? await Copy(folder, now) : null;
            MigrationGuard.Begin(folder, Path.GetFileName(copy));
            await Migrate(db, folder, now, zone ?? ClinicZone.OfMachine());
            Prune(folder);
        }
        await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode = WAL;");
        // Asked of the file itself: one that was killed between its migration and here has some left.
        if (await Exists(folder, "SELECT 1 FROM Clients WHERE SearchText = ''"))
        {
            await FoldNames(db);
        }
    }

    /// <summary>To the end, or back to what was before.</summary>
    private static async Task Migrate(PalaestraDb db, string folder, DateTime now, ClinicZone zone)
    {
        try
        {
            ZoneOfOldTimes.Add((SqliteConnection)db.Database.GetDbConnection(), zone);
            await Unlock(db);
            await db.Database.MigrateAsync();
            MigrationGuard.Done(folder);
        }
        catch (System.Data.Common.DbException problem)
        {
            await db.Database.CloseConnectionAsync();
            SqliteConnection.ClearAllPools();
            MigrationGuard.TakeBack(folder, now);
            throw new StartRefusedException(
                StartFault.NotMigrated,
                $"The database in {folder} could not be brought to this version ({problem.Message.TrimEnd('.')}). What was there before is back in its place: start the version before, and tell us.",
                problem
            );
        }
    }

    /// <summary>A migration that was killed leaves its lock in the file, and the next would wait for it for ever.</summary>
    private static async Task Unlock(PalaestraDb db) =>
        await db.Database.ExecuteSqlRawAsync("DROP TABLE IF EXISTS __EFMigrationsLock");

    private static void Prune(string folder)
    {
        var copies = Directory.GetFiles(folder, CopyPattern).OrderDescending(StringComparer.Ordinal);
        foreach (var old in copies.Skip(CopiesKept))
        {
            File.Delete(old);
        }
    }

    /// <summary>Names that were stored before they were folded can be found from here on.</summary>
    private static async Task FoldNames(PalaestraDb db)
    {
        foreach (var client in await db.Clients.Where(c => c.SearchText == "").ToListAsync())
        {
            db.Entry(client).State = EntityState.Modified;
        }
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
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
    public static Task<bool> HasOwnPolicies(string folder) => HasRows(folder, "Policies");

    /// <summary>Whether anybody can sign in; asked of the file itself, as above.</summary>
    public static Task<bool> HasAccounts(string folder) => HasRows(folder, "AspNetUsers");

    /// <summary>Name of the zone the clinic keeps; none where there is no clinic yet, or one of a version without zones.</summary>
    public static string? ZoneOf(string folder)
    {
        var path = Path.Combine(folder, FileName);
        if (!File.Exists(path))
        {
            return null;
        }
        try
        {
            using var file = new SqliteConnection($"Data Source={path};Mode=ReadOnly;Pooling=False");
            file.Open();
            using var ask = file.CreateCommand();
            ask.CommandText = "SELECT TimeZone FROM Clinics";
            return ask.ExecuteScalar() as string;
        }
        catch (SqliteException)
        {
            return null;
        }
    }

    private static Task<bool> HasRows(string folder, string table) =>
        Exists(folder, $"SELECT 1 FROM {table}");

    private static async Task<bool> Exists(string folder, string rows)
    {
        await using var file = new SqliteConnection(ConnectionString(folder));
        await file.OpenAsync();
        await using var ask = file.CreateCommand();
        ask.CommandText = $"SELECT EXISTS ({rows})";
        return (long)(await ask.ExecuteScalarAsync())! == 1;
    }

    /// <summary>A whole copy through SQLite's own backup, so that what is still in the write-ahead log is in it.</summary>
    public static async Task<string> Copy(string folder, DateTime now)
    {
        var stamp = now.ToString("yyyyMMdd-HHmmss-fff", CultureInfo.InvariantCulture);
        var target = Path.Combine(folder, $"before-migration-{stamp}.db");
        await WholeFile.Put(target, part => CopyTo(folder, part));
        return target;
    }

    /// <summary>A whole copy under a name of the caller's; what is there under it is overwritten.</summary>
    public static async Task CopyTo(string folder, string target)
    {
        await using var from = new SqliteConnection(ConnectionString(folder));
        await using var to = new SqliteConnection($"Data Source={target};Pooling=False");
        await from.OpenAsync();
        await to.OpenAsync();
        from.BackupDatabase(to);
        // One file, without a log beside it.
        await using var whole = to.CreateCommand();
        whole.CommandText = "PRAGMA journal_mode = DELETE";
        await whole.ExecuteNonQueryAsync();
    }
}
