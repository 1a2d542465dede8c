using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Palaestra.Data.Keeping;

/// <summary>
/// Says which copy a migration began from. A server that finds it at its start was killed in the middle: the copy is put back,
/// and the migration begins again.
/// </summary>
public static class MigrationGuard
{
    public const string FileName = "migrating";

    /// <summary>What stood in the place of a copy that was put back; never deleted by us.</summary>
    public const string AsidePrefix = "taken-back-";

    /// <param name="copy">Name of the copy made before; none where there was no database.</param>
    public static void Begin(string folder, string? copy) =>
        WholeFile.Write(Path.Combine(folder, FileName), copy ?? "");

    public static void Done(string folder) => File.Delete(Path.Combine(folder, FileName));

    /// <summary>
    /// Puts back what was before a migration that was not finished, and what stands there aside; does nothing where none was under
    /// way.
    /// </summary>
    /// <exception cref="StartRefusedException">
    /// The copy is gone, or the database was worked with since, as by the version before: putting the copy back would lose that.
    /// </exception>
    public static void TakeBack(string folder, DateTime now)
    {
        var mark = Path.Combine(folder, FileName);
        if (!File.Exists(mark))
        {
            return;
        }
        var file = Path.Combine(folder, Store.FileName);
        var name = File.ReadAllText(mark).Trim();
        var copy = name.Length > 0 ? Path.Combine(folder, name) : null;
        if (copy is not null && !File.Exists(copy))
        {
            throw new StartRefusedException(
                StartFault.NotMigrated,
                $"An update of the database was broken off, and the copy made before it ({copy}) is gone. Restore a backup (./palaestra restore FILE); nothing was changed."
            );
        }
        if (WorkedWithSince(file, copy))
        {
            throw new StartRefusedException(
                StartFault.NotMigrated,
                $"An update of the database was broken off once, but the database in {folder} was worked with since. To go on with it as it stands, delete the file {FileName} there; nothing was changed."
            );
        }
        PutAside(file, now);
        if (copy is not null)
        {
            WholeFile.Put(file, part => File.Copy(copy, part, overwrite: true));
        }
        File.Delete(mark);
    }

    /// <summary>Whether a table has more rows than the copy has; where there was no copy, whether anybody can sign in.</summary>
    private static bool WorkedWithSince(string file, string? copy)
    {
        if (!File.Exists(file) || new FileInfo(file).Length == 0)
        {
            return false;
        }
        try
        {
            var rows = DatabaseCheck.Rows(file);
            return copy is null
                ? rows.GetValueOrDefault("AspNetUsers") > 0
                : DatabaseCheck
                    .Rows(copy)
                    // The clinic's one row is put there by a migration.
                    .Any(then => then.Key != "Clinics" && rows.GetValueOrDefault(then.Key) > then.Value);
        }
        catch (SqliteException)
        {
            // What was broken off in the middle may not be readable.
            return false;
        }
    }

    /// <summary>With its log, which must not be read into the copy.</summary>
    private static void PutAside(string file, DateTime now)
    {
        var stamp = now.ToString("yyyyMMdd-HHmmss-fff", CultureInfo.InvariantCulture);
        var aside = Path.Combine(Path.GetDirectoryName(file)!, $"{AsidePrefix}{stamp}.db");
        foreach (var ending in new[] { "-wal", "-shm", "" })
        {
            if (File.Exists(file + ending))
            {
                File.Move(file + ending, aside + ending);
            }
        }
    }
}
