using System.Formats.Tar;
using System.IO.Compression;
using System.Security.Cryptography;
using Microsoft.Data.Sqlite;
using Palaestra.Data.Audit;

namespace Palaestra.Data.Keeping;

/// <summary>Puts a backup in the place of a data folder, or only looks whether it could.</summary>
public static class Restore
{
    private const string AsideSuffix = ".before-restore-";

    /// <summary>
    /// Unpacks and checks beside the folder, then lets the two change places at once: whoever looks sees the old or the new. The
    /// old one is kept. All sessions end.
    /// </summary>
    /// <param name="known">Migrations of this version.</param>
    /// <param name="erased">Clients who were erased and may still be in the backup: they are erased again.</param>
    /// <returns>What was restored, and where the old folder is kept; none where there was none.</returns>
    /// <exception cref="BackupRefusedException">Cut, altered, newer, or another passphrase.</exception>
    /// <exception cref="StartRefusedException">A server has the folder.</exception>
    public static (BackupManifest Manifest, string? Kept) Into(
        string folder,
        string backup,
        Opener opener,
        IReadOnlyCollection<string> known,
        DateTimeOffset now,
        IReadOnlyList<ErasedBefore>? erased = null
    )
    {
        var target = Path.TrimEndingDirectorySeparator(Path.GetFullPath(folder));
        var there = Directory.Exists(target) && Directory.EnumerateFileSystemEntries(target).Any();
        using var taken = FolderLock.Take(target, now);
        var staging = $"{target}.restoring-{now:yyyyMMdd-HHmmss}";
        var swapped = false;
        try
        {
            var manifest = Unpack(backup, staging, opener, known);
            EndSessions(staging);
            Erasure.Apply(staging, erased ?? []);
            ClinicMark.Put(staging, manifest.Made);
            Posix.Swap(staging, target);
            swapped = there;
            if (!there)
            {
                return (manifest, null);
            }
            var kept = $"{target}{AsideSuffix}{now:yyyyMMdd-HHmmss}";
            taken.SayClosed();
            Directory.Move(staging, kept);
            return (manifest, kept);
        }
        catch (Exception problem)
            when (!swapped && problem is IOException or UnauthorizedAccessException or SqliteException)
        {
            throw new BackupRefusedException(
                $"The backup could not be put into {target}: {problem.Message} Nothing was changed.",
                problem
            );
        }
        finally
        {
            // After the change of places the old folder has this name: it is kept, whatever happens.
            if (!swapped && Directory.Exists(staging))
            {
                Directory.Delete(staging, recursive: true);
            }
        }
    }

    /// <summary>Unpacks into a folder of its own, checks everything and removes it again.</summary>
    /// <exception cref="BackupRefusedException">Cut, altered, newer, or another passphrase.</exception>
    public static BackupManifest Verify(string backup, Opener opener, IReadOnlyCollection<string> known)
    {
        Posix.OwnFilesOnly();
        var scratch = $"{Path.GetFullPath(backup)}.verify-{Guid.NewGuid():N}";
        try
        {
            return Unpack(backup, scratch, opener, known);
        }
        finally
        {
            if (Directory.Exists(scratch))
            {
                Directory.Delete(scratch, recursive: true);
            }
        }
    }

    private static BackupManifest Unpack(
        string backup,
        string to,
        Opener opener,
        IReadOnlyCollection<string> known
    )
    {
        if (!File.Exists(backup))
        {
            throw new BackupRefusedException($"There is no file {backup}.");
        }
        Directory.CreateDirectory(to);
        var opened = Path.Combine(to, "opened.part");
        var wrapped = Envelope.Looks(backup);
        if (wrapped)
        {
            Envelope.Open(backup, opener, opened);
        }
        var manifest = Extract(wrapped ? opened : backup, to, backup);
        File.Delete(opened);
        Compare(manifest, to, backup);
        if (manifest.Migration.Length > 0 && !known.Contains(manifest.Migration))
        {
            throw new BackupRefusedException(
                $"{Path.GetFileName(backup)} is of a newer Palaestra ({manifest.Migration}): restore it with that version."
            );
        }
        LookAtDatabase(Path.Combine(to, Backup.DatabaseEntry), manifest, backup);
        return manifest;
    }

    private static BackupManifest Extract(string archive, string to, string backup)
    {
        try
        {
            BackupManifest? manifest = null;
            using var gzip = new GZipStream(File.OpenRead(archive), CompressionMode.Decompress);
            using var tar = new TarReader(gzip);
            while (tar.GetNextEntry() is { } entry)
            {
                if (entry.EntryType is not (TarEntryType.RegularFile or TarEntryType.V7RegularFile))
                {
                    throw Altered(backup);
                }
                if (entry.Name == BackupManifest.FileName)
                {
                    using var bytes = new MemoryStream();
                    entry.DataStream?.CopyTo(bytes);
                    manifest = BackupManifest.Read(bytes.ToArray());
                    continue;
                }
                var path = Path.Combine(to, entry.Name);
                // A name that is none of ours, might lead out of the folder, or comes twice.
                if (!Backup.Holds(entry.Name) || Path.Exists(path))
                {
                    throw Altered(backup);
                }
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                using var written = new FileStream(path, FileMode.CreateNew);
                entry.DataStream?.CopyTo(written);
            }
            // To the end of the file: there its checksum stands.
            gzip.CopyTo(Stream.Null);
            return manifest ?? throw Altered(backup);
        }
        catch (Exception problem)
            when (problem is InvalidDataException or EndOfStreamException or FormatException)
        {
            throw Altered(backup, problem);
        }
    }

    private static void Compare(BackupManifest manifest, string folder, string backup)
    {
        if (manifest.Format != 1)
        {
            throw new BackupRefusedException(
                $"{Path.GetFileName(backup)} is of a newer Palaestra (format {manifest.Format}): restore it with that version."
            );
        }
        var files = manifest.Files.ToDictionary(file => file.Path);
        var found = Directory
            .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
            .Select(file => Path.GetRelativePath(folder, file).Replace('\\', '/'))
            .ToHashSet();
        if (!found.SetEquals(files.Keys))
        {
            throw Altered(backup);
        }
        foreach (var file in manifest.Files)
        {
            using var stream = File.OpenRead(Path.Combine(folder, file.Path));
            if (stream.Length != file.Bytes || Convert.ToHexString(SHA256.HashData(stream)) != file.Sha256)
            {
                throw Altered(backup);
            }
        }
    }

    private static void LookAtDatabase(string database, BackupManifest manifest, string backup)
    {
        try
        {
            var rows = DatabaseCheck.Rows(database);
            if (
                DatabaseCheck.Damage(database) is not null
                || rows.Count != manifest.Rows.Count
                || rows.Any(row => manifest.Rows.GetValueOrDefault(row.Key, -1) != row.Value)
            )
            {
                throw Altered(backup);
            }
        }
        catch (SqliteException problem)
        {
            throw Altered(backup, problem);
        }
    }

    /// <summary>Whoever was signed in when the backup was made is not any more: new keys, a new stamp for every account, and codes not taken are void.</summary>
    private static void EndSessions(string folder)
    {
        var keys = Path.Combine(folder, "keys");
        if (Directory.Exists(keys))
        {
            Directory.Delete(keys, recursive: true);
        }
        using var db = new SqliteConnection(
            $"Data Source={Path.Combine(folder, Store.FileName)};Pooling=False"
        );
        db.Open();
        using var end = db.CreateCommand();
        end.CommandText = "UPDATE AspNetUsers SET SecurityStamp = hex(randomblob(16))";
        end.ExecuteNonQuery();
        // A backup from before there were any has none to end, and no audit to tell of it.
        if (DatabaseCheck.HasTable(db, "AuditNotes"))
        {
            end.CommandText =
                "INSERT INTO AuditNotes (At, Kind, \"By\", What) VALUES ($now, 'Change', '', $restored)";
            end.Parameters.AddWithValue("$now", DateTime.UtcNow);
            end.Parameters.AddWithValue("$restored", AuditChain.Restored);
            end.ExecuteNonQuery();
            end.Parameters.Clear();
        }
        if (DatabaseCheck.HasTable(db, "SignIns"))
        {
            end.CommandText =
                "UPDATE SignIns SET EndedAt = BegunAt WHERE EndedAt IS NULL; UPDATE Invitations SET ClosedAt = MadeAt WHERE ClosedAt IS NULL";
            end.ExecuteNonQuery();
        }
    }

    private static BackupRefusedException Altered(string backup, Exception? cause = null) =>
        new($"{Path.GetFileName(backup)} is cut or was altered: it is not restored.", cause);
}
