using System.Globalization;
using System.Text.Json;
using Palaestra.Data.Audit;
using Palaestra.Data.Keeping;

namespace Palaestra.Server.Keeping;

/// <summary>How the last backups went.</summary>
/// <param name="LastGood">None: there was none yet.</param>
/// <param name="Words">Why the last try failed; none where it did not.</param>
public sealed record BackupStatus(
    DateTimeOffset? LastGood,
    string? File,
    long Bytes,
    DateTimeOffset? LastTry,
    string? Words
);

/// <summary>One backup of the folder.</summary>
public sealed record BackupFile(string Name, DateTimeOffset Made, long Bytes, bool Sealed);

/// <summary>Makes backups into the clinic's folder for them and knows how old the last good one is.</summary>
public sealed class BackupRuns(Settings settings, TimeProvider clock, ILogger<BackupRuns> log) : IDisposable
{
    private const string Prefix = "palaestra-";
    private const string Stamp = "yyyyMMdd-HHmmss'Z'";

    /// <summary>Of before: by the machine's clock.</summary>
    private const string LocalStamp = "yyyyMMdd-HHmmss";
    private const string Plain = ".tar.gz";
    private const string Sealed = ".tar.gz.pgp";

    /// <summary>An administrator is warned from this age on.</summary>
    public static readonly TimeSpan Old = TimeSpan.FromDays(2);

    private readonly SemaphoreSlim turn = new(1);

    private string StatusFile => Path.Combine(settings.BackupFolder, "status.json");

    public void Dispose() => turn.Dispose();

    public BackupStatus Status()
    {
        try
        {
            return File.Exists(StatusFile)
                ? JsonSerializer.Deserialize<BackupStatus>(File.ReadAllText(StatusFile))!
                : new(null, null, 0, null, null);
        }
        catch (Exception problem)
            when (problem is JsonException or IOException or UnauthorizedAccessException)
        {
            return new(null, null, 0, null, "The note of the last backup cannot be read.");
        }
    }

    /// <summary>Made in the folder, the youngest first.</summary>
    public IReadOnlyList<BackupFile> Files() =>
        Directory.Exists(settings.BackupFolder)
            ?
            [
                .. Directory
                    .EnumerateFiles(settings.BackupFolder, Prefix + "*")
                    .Select(FileOf)
                    .OfType<BackupFile>()
                    .OrderByDescending(file => file.Made),
            ]
            : [];

    /// <summary>When the youngest backup of now is removed at the latest; none: there is none.</summary>
    public DateTimeOffset? HeldUntil() =>
        Files() is [var youngest, ..] ? Generations.End(youngest.Made) : null;

    /// <summary>What an administrator is told; none while the last good one is young, and in the demo.</summary>
    public string? Warning()
    {
        if (settings.Demo)
        {
            return null;
        }
        var status = Status();
        var why = status.Words is { } words ? $" {words}" : "";
        return status.LastGood is not { } last
                ? $"There is no backup yet.{(why.Length > 0 ? why : " The first is made within minutes of a start.")}"
            : clock.GetUtcNow() - last > Old
                ? $"The last good backup is {Days(clock.GetUtcNow() - last)} old.{why}"
            : null;
    }

    /// <summary>One backup into the folder, sealed for the clinic's key where it has one; generations past their time go.</summary>
    /// <exception cref="BackupRefusedException">It could not be written; the status says so too.</exception>
    public async Task<BackupStatus> Make()
    {
        await turn.WaitAsync();
        var now = clock.GetUtcNow();
        try
        {
            var seal = settings.BackupKey is { } key ? Seal.For(key) : null;
            await Make(seal, now);
            Drop();
            return Status();
        }
        catch (Exception problem)
            when (problem is BackupRefusedException or IOException or UnauthorizedAccessException)
        {
            TryNote(Status() with { LastTry = now, Words = problem.Message });
            throw problem as BackupRefusedException ?? new BackupRefusedException(problem.Message, problem);
        }
        finally
        {
            turn.Release();
        }
    }

    /// <summary>Into the folder, under the name of its moment, and noted as the last good one.</summary>
    /// <exception cref="BackupRefusedException">It could not be written.</exception>
    public async Task<(string Path, BackupManifest Manifest)> Make(Seal? seal, DateTimeOffset now)
    {
        var name = now.UtcDateTime.ToString(Stamp, CultureInfo.InvariantCulture);
        var path = Path.Combine(settings.BackupFolder, Prefix + name + (seal is null ? Plain : Sealed));
        var manifest = await Backup.Write(settings.DataFolder, path, seal, now);
        NoteGood(path, manifest, now);
        return (path, manifest);
    }

    /// <summary>Wherever it was put, it is the last good one, and the audit can be held against where it stood.</summary>
    public void NoteGood(string path, BackupManifest manifest, DateTimeOffset now)
    {
        Directory.CreateDirectory(settings.BackupFolder);
        Note(new BackupStatus(now, Path.GetFileName(path), new FileInfo(path).Length, now, null));
        if (manifest.Audit is { } head)
        {
            AuditHeads.Note(settings.BackupFolder, head);
        }
    }

    private void Drop()
    {
        var files = Files().ToLookup(file => file.Made.UtcDateTime);
        foreach (var file in Generations.Past(files.Select(same => same.Key)).SelectMany(made => files[made]))
        {
            File.Delete(Path.Combine(settings.BackupFolder, file.Name));
        }
    }

    private void Note(BackupStatus status) => WholeFile.Write(StatusFile, JsonSerializer.Serialize(status));

    /// <summary>Where the folder itself cannot be written, the failure is told by the log and by the age of the last good one.</summary>
    private void TryNote(BackupStatus status)
    {
        try
        {
            Note(status);
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            log.LogError(problem, "The failure of a backup could not be noted.");
        }
    }

    private static BackupFile? FileOf(string path)
    {
        var name = Path.GetFileName(path);
        var end = new[] { Sealed, Plain }.FirstOrDefault(e => name.EndsWith(e, StringComparison.Ordinal));
        return end is not null && MadeOf(name[Prefix.Length..^end.Length]) is { } made
            ? new(name, made, new FileInfo(path).Length, end == Sealed)
            : null;
    }

    private static DateTimeOffset? MadeOf(string stamp)
    {
        bool Reads(string format, DateTimeStyles zone, out DateTimeOffset made) =>
            DateTimeOffset.TryParseExact(stamp, format, CultureInfo.InvariantCulture, zone, out made);
        return Reads(Stamp, DateTimeStyles.AssumeUniversal, out var utc) ? utc
            : Reads(LocalStamp, DateTimeStyles.AssumeLocal, out var local) ? local
            : null;
    }

    private static string Days(TimeSpan age) => $"{(int)age.TotalDays} days";
}
