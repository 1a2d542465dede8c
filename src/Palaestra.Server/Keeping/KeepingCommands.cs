using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Logging.Abstractions;
using Palaestra.Data;
using Palaestra.Data.Keeping;

namespace Palaestra.Server.Keeping;

/// <summary>backup, backup --verify, restore and erase, as commands beside the server. Exit codes: 0 done, 1 refused, 2 not understood.</summary>
public static class KeepingCommands
{
    public const string Usage =
        "backup [FILE] [--passphrase-file FILE | --key PUBLIC-KEY | --plain]   backup --verify FILE   restore FILE   (--passphrase-file FILE, --key SECRET-KEY)   erase CLIENT [--yes]";

    /// <returns>None where the words are no command of ours.</returns>
    public static async Task<int?> Run(string[] args, Settings settings)
    {
        if (args is not ["backup" or "restore" or "erase", ..])
        {
            return null;
        }
        try
        {
            return args switch
            {
                ["backup", "--verify", var file, .. var rest] => Verify(file, Options.Read(rest)),
                ["restore", var file, .. var rest] => Restored(file, Options.Read(rest), settings),
                ["erase", var id, .. var rest] => Erased(id, rest, settings),
                ["backup", .. var rest] => await Made(Options.Read(rest), settings),
                ["erase"] => throw new FormatException("Which client?"),
                _ => throw new FormatException("Which file?"),
            };
        }
        catch (Exception problem)
            when (problem
                    is BackupRefusedException
                        or StartRefusedException
                        or IOException
                        or UnauthorizedAccessException
            )
        {
            await Console.Error.WriteLineAsync(problem.Message);
            return (problem as StartRefusedException)?.ExitCode ?? 1;
        }
        catch (FormatException problem)
        {
            await Console.Error.WriteLineAsync($"{problem.Message}\n{Usage}");
            return 2;
        }
    }

    private static async Task<int> Made(Options options, Settings settings)
    {
        var now = DateTimeOffset.Now;
        var seal = options switch
        {
            { Plain: true } => null,
            { Key: { } key } => Seal.For(key),
            _ => new Seal(Passphrase(options, twice: true), null),
        };
        using var runs = new BackupRuns(settings, TimeProvider.System, NullLogger<BackupRuns>.Instance);
        var (file, manifest) = options.File is { } named
            ? (named, await Backup.Write(settings.DataFolder, named, seal, now))
            : await runs.Make(seal, now);
        if (options.File is not null)
        {
            runs.NoteGood(file, manifest, now);
        }
        Console.WriteLine($"{file}: {Words(manifest)}.");
        if (seal is null)
        {
            Console.WriteLine("It is not sealed: whoever has the file can read the clinic's records.");
        }
        return 0;
    }

    private static int Verify(string file, Options options)
    {
        var manifest = Restore.Verify(file, OpenerOf(file, options), Known());
        Console.WriteLine($"{file} is whole, of {manifest.Made:yyyy-MM-dd HH:mm}: {Words(manifest)}.");
        return 0;
    }

    /// <param name="id">Of the client or an episode: the long word after episodes/ in the address of a page.</param>
    private static int Erased(string id, string[] rest, Settings settings)
    {
        if (!Guid.TryParse(id, out var asked) || rest is not ([] or ["--yes"]))
        {
            throw new FormatException(
                "A client is named by the long word after episodes/ in the address of their pages."
            );
        }
        using var taken = FolderLock.Take(settings.DataFolder, DateTimeOffset.Now);
        if (
            !File.Exists(Path.Combine(settings.DataFolder, Store.FileName))
            || Erasure.Find(settings.DataFolder, asked) is not { } found
        )
        {
            throw new BackupRefusedException($"There is no such client in {settings.DataFolder}.");
        }
        if (rest.Length == 0 && !Said(found.Name))
        {
            Console.WriteLine("Nothing was erased.");
            return 1;
        }
        var gone = Erasure.ForGood(
            settings.DataFolder,
            settings.BackupFolder,
            found.Id,
            DateTimeOffset.UtcNow
        )!;
        taken.SayClosed();
        Console.WriteLine(
            $"Erased for good: {string.Join(", ", gone.Rows.Where(r => r.Value > 0).Select(r => $"{r.Value} of {r.Key}"))}, {gone.Files} files, and the copies made before updates. Backups hold them until their time is over; {Path.Combine(settings.BackupFolder, Erasure.ListName)} erases them again after a restore. Folders kept by a restore ({settings.DataFolder}.before-restore-…) are yours to delete."
        );
        return 0;
    }

    private static bool Said(string name)
    {
        if (Console.IsInputRedirected)
        {
            throw new BackupRefusedException("Say --yes to erase without being asked.");
        }
        Console.Write($"Everything about {name} will be gone for good. Type the name to go on: ");
        return Console.ReadLine()?.Trim() == name;
    }

    /// <summary>From the folder for backups, and from beside the backup, which may come from another machine.</summary>
    private static List<ErasedBefore> ErasedBefore(string file, Settings settings) =>
        [
            .. new[] { settings.BackupFolder, Path.GetDirectoryName(Path.GetFullPath(file))! }
                .Distinct()
                .SelectMany(Erasure.Listed)
                .DistinctBy(entry => entry.Client),
        ];

    private static int Restored(string file, Options options, Settings settings)
    {
        var erased = ErasedBefore(file, settings);
        var (manifest, kept) = Restore.Into(
            settings.DataFolder,
            file,
            OpenerOf(file, options),
            Known(),
            DateTimeOffset.Now,
            erased
        );
        Console.WriteLine(
            $"{settings.DataFolder} is as of {manifest.Made:yyyy-MM-dd HH:mm}: {Words(manifest)}."
        );
        if (erased.Count > 0)
        {
            Console.WriteLine(
                $"Of these, clients on the list of erased ones ({erased.Count}) were erased again."
            );
        }
        if (kept is not null)
        {
            Console.WriteLine($"What was there before is kept in {kept}. Everybody signs in again.");
        }
        return 0;
    }

    private static string Words(BackupManifest manifest)
    {
        long Rows(string table) => manifest.Rows.GetValueOrDefault(table);
        return $"{Rows("Clients")} clients, {Rows("Visits")} visits, {Rows("Events")} events, {manifest.Files.Count - 1} files beside the database";
    }

    /// <summary>Migrations of this version.</summary>
    private static IReadOnlyCollection<string> Known()
    {
        using var db = new DesignTimeDb().CreateDbContext([]);
        return [.. db.Database.GetMigrations()];
    }

    private static Opener OpenerOf(string file, Options options) =>
        File.Exists(file) && Envelope.Looks(file)
            ? new(Passphrase(options, twice: false), options.Key)
            : new(null);

    private static string Passphrase(Options options, bool twice)
    {
        if (options.PassphraseFile is { } file)
        {
            var read = File.Exists(file)
                ? File.ReadAllText(file).TrimEnd('\r', '\n')
                : throw new BackupRefusedException($"There is no file {file}.");
            return read.Length > 0 ? read : throw new BackupRefusedException($"The file {file} is empty.");
        }
        if (Environment.GetEnvironmentVariable("PALAESTRA_PASSPHRASE") is { Length: > 0 } known)
        {
            return known;
        }
        if (Console.IsInputRedirected)
        {
            throw new BackupRefusedException(
                "Give a passphrase in --passphrase-file FILE, or say --plain for a backup anybody can read."
            );
        }
        var words = Ask("Passphrase: ");
        return words.Length == 0 ? throw new BackupRefusedException("A passphrase is needed.")
            : twice && Ask("Once more: ") != words
                ? throw new BackupRefusedException("They are not the same.")
            : words;
    }

    private static string Ask(string question)
    {
        Console.Write(question);
        var words = new System.Text.StringBuilder();
        while (Console.ReadKey(intercept: true) is { Key: not ConsoleKey.Enter } key)
        {
            if (key.Key == ConsoleKey.Backspace)
            {
                words.Length = Math.Max(0, words.Length - 1);
            }
            else
            {
                words.Append(key.KeyChar);
            }
        }
        Console.WriteLine();
        return words.ToString();
    }

    private sealed record Options(string? File, string? PassphraseFile, string? Key, bool Plain)
    {
        /// <exception cref="FormatException">Something is not understood.</exception>
        public static Options Read(string[] words)
        {
            var read = new Options(null, null, null, false);
            for (var i = 0; i < words.Length; i++)
            {
                var next = i + 1 < words.Length ? words[i + 1] : null;
                switch (words[i])
                {
                    case "--plain":
                        read = read with { Plain = true };
                        break;
                    case "--passphrase-file" when next is not null:
                        read = read with { PassphraseFile = next };
                        i++;
                        break;
                    case "--key" when next is not null:
                        read = read with { Key = next };
                        i++;
                        break;
                    case var file when !file.StartsWith('-') && read.File is null:
                        read = read with { File = file };
                        break;
                    default:
                        throw new FormatException($"{words[i]} is not understood.");
                }
            }
            return read;
        }
    }
}
