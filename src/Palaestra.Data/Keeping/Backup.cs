using System.Formats.Tar;
using System.IO.Compression;
using System.Security.Cryptography;
using Microsoft.Data.Sqlite;
using Palaestra.Data.Audit;

namespace Palaestra.Data.Keeping;

/// <summary>
/// Everything a clinic has, in one file: the database by SQLite's own backup, so while a server writes; then the files beside
/// it. A gzip-compressed tar archive, sealed or plain, with the manifest as its last entry.
/// </summary>
public static class Backup
{
    public const string DatabaseEntry = Store.FileName;

    /// <summary>What is taken beside the database. Caches, locks and copies are made anew where they are needed.</summary>
    private static readonly IReadOnlyList<string> Folders =
    [
        Traces.TraceFiles.FolderName,
        Photos.PhotoFiles.FolderName,
        "keys",
        "content",
        "certificates",
    ];

    /// <summary>Whether an entry of that name can be one of ours.</summary>
    public static bool Holds(string entry) =>
        entry == DatabaseEntry
        || Folders.Any(folder => entry.StartsWith(folder + "/", StringComparison.Ordinal))
            && entry.Split('/').All(part => part.Length > 0 && part is not (".." or "."))
            && !entry.Any(char.IsControl);

    /// <param name="to">Written beside itself and put in its place when it is whole; what is there under the name is replaced.</param>
    /// <param name="seal">None: plain.</param>
    /// <exception cref="BackupRefusedException">There is no database, or no room.</exception>
    public static async Task<BackupManifest> Write(string folder, string to, Seal? seal, DateTimeOffset now)
    {
        if (!File.Exists(Path.Combine(folder, Store.FileName)))
        {
            throw new BackupRefusedException($"There is no database in {folder}.");
        }
        var target = Path.GetFullPath(to);
        Posix.OwnFilesOnly();
        Directory.CreateDirectory(Path.GetDirectoryName(target)!);
        var part = target + ".part";
        // Not sealed yet: it lies where the records lie, also when this is killed.
        RemoveLeftCopies(folder);
        var copy = Path.Combine(folder, $"{CopyPrefix}{Guid.NewGuid():N}.db");
        try
        {
            await Store.CopyTo(folder, copy);
            Look(copy, folder);
            BackupManifest? manifest = null;
            await using (var file = new FileStream(part, FileMode.Create, FileAccess.Write))
            {
                void Fill(Stream stream) => manifest = Archive(stream, folder, copy, now);
                if (seal is null)
                {
                    Fill(file);
                }
                else
                {
                    Envelope.Seal(file, seal, Fill);
                }
                file.Flush(flushToDisk: true);
            }
            File.Move(part, target, overwrite: true);
            return manifest!;
        }
        catch (SqliteException problem)
        {
            throw new BackupRefusedException(
                problem.SqliteErrorCode == DatabaseCheck.Full
                    ? $"The disk of {folder} is full: there is no room for a copy of the database."
                    : $"The database in {folder} could not be copied: {problem.Message}",
                problem
            );
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            throw new BackupRefusedException(
                $"The backup {target} could not be written: {problem.Message}",
                problem
            );
        }
        finally
        {
            File.Delete(part);
            File.Delete(copy);
        }
    }

    private const string CopyPrefix = "backup-copy-";

    private static void RemoveLeftCopies(string folder)
    {
        foreach (var left in Directory.EnumerateFiles(folder, CopyPrefix + "*"))
        {
            if (File.GetLastWriteTimeUtc(left) < DateTime.UtcNow.AddDays(-1))
            {
                File.Delete(left);
            }
        }
    }

    /// <summary>A damaged database makes no good backup: it must not push out those that are.</summary>
    private static void Look(string copy, string folder)
    {
        if (DatabaseCheck.Damage(copy) is { } found)
        {
            throw new BackupRefusedException(
                $"The database in {folder} is damaged ({found}): this would be no good backup. Keep the ones there are."
            );
        }
    }

    private static BackupManifest Archive(Stream to, string folder, string copy, DateTimeOffset now)
    {
        using var gzip = new GZipStream(to, CompressionLevel.Fastest, leaveOpen: true);
        using var tar = new TarWriter(gzip, TarEntryFormat.Pax, leaveOpen: true);
        var files = new List<BackedUp> { Put(tar, DatabaseEntry, copy) };
        foreach (var name in Folders)
        {
            var inner = Path.Combine(folder, name);
            if (!Directory.Exists(inner))
            {
                continue;
            }
            var found = Directory.EnumerateFiles(inner, "*", SearchOption.AllDirectories);
            foreach (
                var file in found.Where(path => !WholeFile.IsUnfinished(path)).Order(StringComparer.Ordinal)
            )
            {
                var path = Path.GetRelativePath(folder, file);
                if (!Holds(path))
                {
                    throw new BackupRefusedException(
                        $"The file {file} has a name no backup can hold: rename it."
                    );
                }
                if (TryPut(tar, path, file) is { } put)
                {
                    files.Add(put);
                }
            }
        }
        var manifest = new BackupManifest(
            1,
            now,
            DatabaseCheck.LastMigration(copy),
            files,
            DatabaseCheck.Rows(copy),
            AuditHeads.Of(copy)
        );
        tar.WriteEntry(
            new PaxTarEntry(TarEntryType.RegularFile, BackupManifest.FileName)
            {
                DataStream = new MemoryStream(manifest.Write()),
            }
        );
        return manifest;
    }

    /// <summary>None where it was deleted meanwhile.</summary>
    private static BackedUp? TryPut(TarWriter tar, string path, string file)
    {
        try
        {
            return Put(tar, path, file);
        }
        catch (FileNotFoundException)
        {
            return null;
        }
    }

    private static BackedUp Put(TarWriter tar, string path, string file)
    {
        using var stream = new FileStream(
            file,
            FileMode.Open,
            FileAccess.Read,
            FileShare.ReadWrite | FileShare.Delete
        );
        var hash = Convert.ToHexString(SHA256.HashData(stream));
        stream.Position = 0;
        tar.WriteEntry(new PaxTarEntry(TarEntryType.RegularFile, path) { DataStream = stream });
        return new(path, stream.Length, hash);
    }
}
