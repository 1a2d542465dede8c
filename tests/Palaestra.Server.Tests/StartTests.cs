using System.Diagnostics;
using System.Text.RegularExpressions;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Keeping;
using Palaestra.Data.Staff;
using Palaestra.Server.Library;
using Palaestra.Server.Words;

namespace Palaestra.Server.Tests;

/// <summary>A server on a damaged folder says why it does not start. The rows are those of docs/clinic.md.</summary>
public sealed class StartTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-start-").FullName;
    private readonly List<IDisposable> held = [];

    private string Database => Path.Combine(folder, Store.FileName);

    public void Dispose()
    {
        held.ForEach(one => one.Dispose());
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    private static readonly IReadOnlyList<(string Broken, int Code, string Words)> Rows =
    [
        .. File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "docs", "clinic.md"))
            .Select(line => Regex.Match(line, @"^\| (.+?) \| (\d+) \| (.+) \|$"))
            .Where(row => row.Success)
            .Select(row => (row.Groups[1].Value, int.Parse(row.Groups[2].Value), row.Groups[3].Value)),
    ];

    public static TheoryData<string> Broken => [.. Rows.Select(row => row.Broken)];

    [Theory]
    [MemberData(nameof(Broken))]
    public async Task A_broken_folder_is_told_and_left_as_it_is(string broken)
    {
        var (_, code, words) = Rows.Single(row => row.Broken == broken);
        await AClinic();
        await Break(broken);
        var before = Contents();
        var refused = await Assert.ThrowsAsync<StartRefusedException>(Start);
        Assert.Equal(code, refused.ExitCode);
        Assert.StartsWith(
            words
                .Replace("{folder}", folder, StringComparison.Ordinal)
                .Replace("{file}", Database, StringComparison.Ordinal),
            refused.Message
        );
        Assert.Equal(before, Contents());
    }

    [Fact]
    public void Every_way_not_to_start_stands_in_the_table() =>
        Assert.Equal(
            Enum.GetValues<StartFault>().Select(fault => (int)fault),
            Rows.Select(row => row.Code).Distinct().Order()
        );

    /// <summary>A clinic with an account, closed as a server closes it.</summary>
    private async Task AClinic()
    {
        await Start();
        await using (var db = Open())
        {
            db.Users.Add(new Practitioner { DisplayName = "Edda Marl", UserName = "edda@clinic.example" });
            await db.SaveChangesAsync();
        }
        ClinicMark.Put(folder, DateTimeOffset.Now);
        await using var whole = new SqliteConnection(Store.ConnectionString(folder));
        await whole.OpenAsync();
        await Run(whole, "PRAGMA wal_checkpoint(TRUNCATE)");
        SqliteConnection.ClearAllPools();
    }

    private async Task Break(string how)
    {
        switch (how)
        {
            case "another server has the folder":
                held.Add(FolderLock.Take(folder, DateTimeOffset.Now));
                break;
            case "another program holds the database":
                var other = new SqliteConnection($"Data Source={Database};Pooling=False");
                held.Add(other);
                await other.OpenAsync();
                await Run(other, "PRAGMA locking_mode = EXCLUSIVE");
                await Run(other, "PRAGMA journal_mode = DELETE");
                await Run(other, "BEGIN EXCLUSIVE");
                break;
            case "the folder cannot be written":
                // Also for an account that may write everywhere: a folder stands where the lock is to be.
                File.Delete(Path.Combine(folder, FolderLock.FileName));
                Directory.CreateDirectory(Path.Combine(folder, FolderLock.FileName));
                break;
            case "the database is gone":
                File.Delete(Database);
                break;
            case "the database is gone, and the mark with it, but traces are there":
                File.Delete(Database);
                File.Delete(Path.Combine(folder, ClinicMark.FileName));
                Directory.CreateDirectory(Path.Combine(folder, "traces"));
                await File.WriteAllTextAsync(Path.Combine(folder, "traces", "one.trace"), "samples");
                break;
            case "the database is empty":
                await File.WriteAllBytesAsync(Database, []);
                break;
            case "the database is some other file":
                await File.WriteAllTextAsync(Database, new string('x', 5000));
                break;
            case "the database is cut":
                using (var file = File.OpenWrite(Database))
                {
                    file.SetLength(file.Length / 2);
                }
                break;
            case "pages of the database are overwritten":
                using (var file = File.OpenWrite(Database))
                {
                    file.Position = 4096;
                    file.Write(new byte[3 * 4096]);
                }
                break;
            case "the database is of a newer version":
                await Change("INSERT INTO __EFMigrationsHistory VALUES ('29990101000000_Later', '99.0.0')");
                break;
            case "the database holds no account any more":
                await Change("DELETE FROM AspNetUsers");
                break;
            case "the log is gone after the plug was pulled":
                using (var taken = FolderLock.Take(folder, DateTimeOffset.Now))
                {
                    taken.SayServing();
                }
                break;
            case "an update of the database fails":
                // It was made already, but the file does not say so.
                await Change("DELETE FROM __EFMigrationsHistory WHERE MigrationId LIKE '%Prescription'");
                break;
            case "an update was broken off, and the version before was worked with since":
                var copy = await Store.Copy(folder, DateTime.Now);
                MigrationGuard.Begin(folder, Path.GetFileName(copy));
                await Change(
                    "INSERT INTO Clients (Id, Name, BirthDate) VALUES ('a', 'Wenna Sorrel', '1980-01-01')"
                );
                break;
            case "a first start was broken off, and another version made a clinic since":
                MigrationGuard.Begin(folder, null);
                break;
            case "an update was broken off and its copy is gone":
                MigrationGuard.Begin(folder, "before-migration-20260101-000000-000.db");
                break;
            case "the clinic's own sentences of the server cannot be read":
                await Own("words/en/day.json", """{ "pile.flag": "{{ flag " }""");
                break;
            case "the clinic's own sentences of the screens cannot be read":
                await Own("words/en/screens/day.json", """{ "day.now": """);
                break;
            case "the clinic's own sentences name one that there is not":
                await Own("words/en/screens/day.json", """{ "day.yesterday": "yesterday" }""");
                break;
            case "the clinic's own rungs have a fault":
                await Own("ladders/own.json", """{ "id": 7 }""");
                break;
            default:
                Assert.Fail($"The table has a row that is not tried: {how}.");
                break;
        }
    }

    private async Task Change(string statement)
    {
        await using var file = new SqliteConnection($"Data Source={Database};Pooling=False");
        await file.OpenAsync();
        await Run(file, statement);
        await Run(file, "PRAGMA wal_checkpoint(TRUNCATE)");
    }

    private static async Task Run(SqliteConnection file, string statement)
    {
        await using var command = file.CreateCommand();
        command.CommandText = statement;
        await command.ExecuteNonQueryAsync();
    }

    private async Task Own(string file, string text)
    {
        var path = Path.Combine(folder, "content", file);
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        await File.WriteAllTextAsync(path, text);
    }

    /// <summary>What a server reads and does before it serves: sentences, library, database.</summary>
    private async Task Start()
    {
        var (ours, own) = (
            Path.Combine(AppContext.BaseDirectory, "content"),
            Path.Combine(folder, "content")
        );
        WordFiles.Load(ours, own);
        ScreenWords.Load(ours, own);
        if (Directory.Exists(own))
        {
            LibraryLoader.Load(ours, own);
        }
        using var taken = FolderLock.Take(folder, DateTimeOffset.Now);
        await using var db = Open();
        await Store.Prepare(db, folder, DateTime.Now, taken.Crashed);
        taken.SayClosed();
    }

    private PalaestraDb Open() =>
        new(new DbContextOptionsBuilder<PalaestraDb>().UseSqlite(Store.ConnectionString(folder)).Options);

    /// <summary>
    /// Names and contents, but for the lock and what reading a database leaves beside it; of a database without its header, which
    /// counts how often it was opened for writing.
    /// </summary>
    private string Contents() =>
        string.Join(
            "\n",
            Directory
                .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
                .Where(file =>
                    !Regex.IsMatch(file, @"server\.(lock|state)$|-(wal|shm)$|(before-migration|taken-back)-")
                )
                .Order(StringComparer.Ordinal)
                .Select(file =>
                {
                    using var stream = new FileStream(
                        file,
                        FileMode.Open,
                        FileAccess.Read,
                        FileShare.ReadWrite
                    );
                    stream.Position = file == Database ? 100 : 0;
                    return $"{file} {Convert.ToHexString(System.Security.Cryptography.SHA256.HashData(stream))}";
                })
        );

    [Fact]
    public async Task Folder_and_files_are_the_accounts_alone_also_those_from_before()
    {
        File.SetUnixFileMode(folder, (UnixFileMode)0b111_101_101);
        var old = Path.Combine(folder, "old.txt");
        await File.WriteAllTextAsync(old, "from before");
        File.SetUnixFileMode(old, (UnixFileMode)0b110_100_100);
        await AClinic();
        Assert.Equal((UnixFileMode)0b111_000_000, File.GetUnixFileMode(folder));
        foreach (var file in Directory.EnumerateFiles(folder))
        {
            Assert.Equal((UnixFileMode)0b110_000_000, File.GetUnixFileMode(file));
        }
    }

    [Fact]
    public async Task A_killed_server_starts_again_while_its_log_is_there()
    {
        await AClinic();
        using (var taken = FolderLock.Take(folder, DateTimeOffset.Now))
        {
            taken.SayServing();
            await using var file = new SqliteConnection($"Data Source={Database};Pooling=False");
            await file.OpenAsync();
            await Run(file, "UPDATE AspNetUsers SET DisplayName = 'Written last'");
            // As it lies there when the process is gone: file and log, unclosed.
            File.Copy(Database, Database + ".then");
            File.Copy(Database + "-wal", Database + ".then-wal");
        }
        File.Move(Database + ".then", Database, overwrite: true);
        File.Move(Database + ".then-wal", Database + "-wal", overwrite: true);
        File.Delete(Database + "-shm");
        await Start();
        await using var db = Open();
        Assert.Equal("Written last", (await db.Users.SingleAsync()).DisplayName);
    }

    /// <summary>Killed before, within and after each migration of a clinic's database: the next start brings it to the present.</summary>
    [Fact]
    public async Task A_migration_that_was_killed_begins_again()
    {
        await using var first = Open();
        var all = first.Database.GetMigrations().ToList();
        var before = all[^2];
        ZoneOfOldTimes.Add((SqliteConnection)first.Database.GetDbConnection(), ClinicZone.Utc);
        await first.GetService<IMigrator>().MigrateAsync(before);
        await first.Database.ExecuteSqlAsync(
            $"INSERT INTO Clients (Id, Name, BirthDate) VALUES ({Guid.NewGuid()}, 'Wenna Sorrel', '1980-01-01')"
        );
        await first.Database.CloseConnectionAsync();
        SqliteConnection.ClearAllPools();
        foreach (var moment in Enumerable.Range(0, 4))
        {
            var copy = await Store.Copy(folder, DateTime.Now);
            MigrationGuard.Begin(folder, Path.GetFileName(copy));
            // What a killed migration leaves: its lock, half of its tables, or all but the guard's last word.
            await using (var killed = Open())
            {
                await killed.Database.ExecuteSqlRawAsync(
                    "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER PRIMARY KEY, Timestamp TEXT NOT NULL); INSERT OR IGNORE INTO __EFMigrationsLock VALUES (1, '2026-01-01')"
                );
                if (moment == 1)
                {
                    await killed.Database.ExecuteSqlRawAsync("DROP TABLE Clients");
                }
                if (moment == 2)
                {
                    await killed.Database.ExecuteSqlRawAsync("DROP TABLE __EFMigrationsLock");
                    ZoneOfOldTimes.Add((SqliteConnection)killed.Database.GetDbConnection(), ClinicZone.Utc);
                    await killed.Database.MigrateAsync();
                }
            }
            SqliteConnection.ClearAllPools();
            await Start().WaitAsync(TimeSpan.FromSeconds(60));
            await using var after = Open();
            Assert.Empty(await after.Database.GetPendingMigrationsAsync());
            Assert.Equal("Wenna Sorrel", (await after.Clients.SingleAsync()).Name);
            Assert.False(File.Exists(Path.Combine(folder, MigrationGuard.FileName)));
            SqliteConnection.ClearAllPools();
            File.Copy(copy, Database, overwrite: true);
            File.Delete(Database + "-wal");
            File.Delete(Database + "-shm");
        }
    }

    [Fact]
    public async Task The_process_itself_ends_with_the_code_and_the_words()
    {
        await AClinic();
        await File.WriteAllBytesAsync(Database, []);
        var (code, said) = await Process();
        Assert.Equal((int)StartFault.DatabaseEmpty, code);
        Assert.Contains("Palaestra did not start: The database", said);
    }

    [Fact]
    public async Task A_sentence_of_the_clinic_s_own_ends_the_start_before_the_folder_is_touched()
    {
        await Own("words/en/screens/day.json", """{ "day.yesterday": "yesterday" }""");
        var (code, said) = await Process();
        Assert.Equal((int)StartFault.Content, code);
        Assert.Contains("own words/en/screens/day.json: day.yesterday", said);
        Assert.False(File.Exists(Database));
    }

    private async Task<(int Code, string Said)> Process()
    {
        var start = new ProcessStartInfo("dotnet", typeof(Settings).Assembly.Location)
        {
            RedirectStandardError = true,
            RedirectStandardOutput = true,
            Environment =
            {
                ["PALAESTRA_DATA"] = folder,
                ["PALAESTRA_MODE"] = "serve",
                ["ASPNETCORE_URLS"] = "http://127.0.0.1:0",
            },
        };
        using var server = System.Diagnostics.Process.Start(start)!;
        var said = await server.StandardError.ReadToEndAsync();
        await server.WaitForExitAsync().WaitAsync(TimeSpan.FromSeconds(60));
        return (server.ExitCode, said);
    }
}
