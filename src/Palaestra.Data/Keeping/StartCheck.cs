using System.Buffers.Binary;
using Microsoft.Data.Sqlite;

namespace Palaestra.Data.Keeping;

/// <summary>
/// Looks at a database file before anything is opened for writing. What is missing, empty, cut, damaged or of a newer version
/// stops the start; it is never replaced by an empty clinic. Header fields: "Database File Format" of the SQLite documentation,
/// from memory.
/// </summary>
public static class StartCheck
{
    /// <summary>Above this size the whole file is read only after a server that did not close, bytes.</summary>
    private const long ReadWholeBelow = 64_000_000;

    private const string Way =
        "Restore a backup (./palaestra restore FILE) or bring the file back; nothing was changed.";

    private static ReadOnlySpan<byte> Magic => "SQLite format 3\0"u8;

    /// <param name="known">Migrations of this version.</param>
    /// <param name="crashed">The last server did not close.</param>
    /// <exception cref="StartRefusedException">The file is not fit to be served.</exception>
    public static void Look(string folder, IReadOnlyCollection<string> known, bool crashed)
    {
        var file = Path.Combine(folder, Store.FileName);
        if (!File.Exists(file))
        {
            if (HeldAClinic(folder))
            {
                throw new StartRefusedException(
                    StartFault.DatabaseMissing,
                    $"A clinic lives in {folder}, but its database {Store.FileName} is not there. {Way}"
                );
            }
            return;
        }
        LookAtFile(file, crashed);
        LookInside(file, folder, known, crashed);
    }

    /// <summary>By its mark, or by what only a clinic leaves: traces, photographs, copies before migrations, a log of writes.</summary>
    private static bool HeldAClinic(string folder) =>
        ClinicMark.Stands(folder)
        || Directory.EnumerateFiles(folder, Store.CopyPattern).Any()
        || new FileInfo(Path.Combine(folder, Store.FileName + "-wal")) is { Exists: true, Length: > 0 }
        || new[] { Traces.TraceFiles.FolderName, Photos.PhotoFiles.FolderName }
            .Select(name => Path.Combine(folder, name))
            .Any(path => Directory.Exists(path) && Directory.EnumerateFileSystemEntries(path).Any());

    private static void LookAtFile(string file, bool crashed)
    {
        var length = new FileInfo(file).Length;
        if (length == 0)
        {
            throw new StartRefusedException(
                StartFault.DatabaseEmpty,
                $"The database {file} is empty (0 bytes). {Way} Where no clinic was ever set up here, delete the file and start again."
            );
        }
        var head = new byte[100];
        using (var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite))
        {
            stream.ReadAtLeast(head, head.Length, throwOnEndOfStream: false);
        }
        if (!head.AsSpan(0, Magic.Length).SequenceEqual(Magic))
        {
            throw new StartRefusedException(
                StartFault.NotADatabase,
                $"The file {file} is not a database. {Way}"
            );
        }
        var log = new FileInfo(file + "-wal");
        if (crashed && !log.Exists)
        {
            throw new StartRefusedException(
                StartFault.LogLost,
                $"The server did not close the last time, and its write-ahead log {log.Name} is gone: what was written last is missing. Bring it back from where the folder was copied, or restore a backup. To go on without what is missing, delete {FolderLock.StateFileName} and start again."
            );
        }
        var size = BinaryPrimitives.ReadUInt16BigEndian(head.AsSpan(16));
        var page = size == 1 ? 65536 : size;
        var pages = BinaryPrimitives.ReadUInt32BigEndian(head.AsSpan(28));
        // The page count holds only where the change counter says so; with a log the file may be on its way.
        var counted = head.AsSpan(24, 4).SequenceEqual(head.AsSpan(92, 4));
        if (counted && log is not { Exists: true, Length: > 0 } && length < page * (long)pages)
        {
            throw new StartRefusedException(
                StartFault.DatabaseCut,
                $"The database {file} is cut: {length:N0} of {page * (long)pages:N0} bytes. {Way}"
            );
        }
    }

    private static void LookInside(
        string file,
        string folder,
        IReadOnlyCollection<string> known,
        bool crashed
    )
    {
        try
        {
            using var db = new SqliteConnection(
                new SqliteConnectionStringBuilder
                {
                    DataSource = file,
                    Pooling = false,
                    DefaultTimeout = 30,
                }.ToString()
            );
            db.Open();
            if (crashed || new FileInfo(file).Length < ReadWholeBelow)
            {
                if (DatabaseCheck.Damage(db) is { } found)
                {
                    throw Damaged(file, found);
                }
            }
            LookAtMigrations(db, file, known);
            if (ClinicMark.Stands(folder) && !HasAccounts(db))
            {
                throw new StartRefusedException(
                    StartFault.AccountsGone,
                    $"A clinic lives in {folder}, but its database holds no account: what was written is gone, as when the file was copied without its log. {Way}"
                );
            }
        }
        catch (SqliteException problem)
            when (problem.SqliteErrorCode is DatabaseCheck.Busy or DatabaseCheck.Locked)
        {
            throw new StartRefusedException(
                StartFault.InUse,
                $"The database {file} is locked by another program for half a minute by now. Close it, then start again.",
                problem
            );
        }
        catch (SqliteException problem)
        {
            throw Damaged(file, problem.Message, problem);
        }
    }

    private static StartRefusedException Damaged(string file, string found, Exception? cause = null) =>
        new(
            StartFault.DatabaseDamaged,
            $"The database {file} is damaged ({found.TrimEnd('.')}). {Way}",
            cause
        );

    private static void LookAtMigrations(SqliteConnection db, string file, IReadOnlyCollection<string> known)
    {
        if (!DatabaseCheck.HasTable(db, DatabaseCheck.History))
        {
            return;
        }
        using var ask = db.CreateCommand();
        ask.CommandText = $"SELECT MigrationId FROM {DatabaseCheck.History}";
        using var row = ask.ExecuteReader();
        while (row.Read())
        {
            if (!known.Contains(row.GetString(0)))
            {
                throw new StartRefusedException(
                    StartFault.DatabaseNewer,
                    $"The database {file} was written by a newer Palaestra ({row.GetString(0)}). Start that version, or restore a backup of this one; nothing was changed."
                );
            }
        }
    }

    private static bool HasAccounts(SqliteConnection db)
    {
        if (!DatabaseCheck.HasTable(db, "AspNetUsers"))
        {
            return false;
        }
        using var ask = db.CreateCommand();
        ask.CommandText = "SELECT EXISTS (SELECT 1 FROM AspNetUsers)";
        return (long)ask.ExecuteScalar()! == 1;
    }
}
