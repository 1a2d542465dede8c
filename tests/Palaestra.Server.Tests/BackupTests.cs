using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using CsCheck;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Data;
using Palaestra.Data.Keeping;
using Palaestra.Server.Intake;
using Palaestra.Server.Keeping;
using Palaestra.Server.People;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>What a clinic has goes into one file and comes back whole, or is refused.</summary>
public sealed class BackupTests : IDisposable
{
    private const string Passphrase = "salt wind over the łagoon";

    private readonly string place = Directory.CreateTempSubdirectory("palaestra-backup-").FullName;
    private readonly RunningServer server;

    public BackupTests() => server = new("serve", Path.Combine(place, "clinic"));

    private string Folder => server.Folder;
    private string File1 => Path.Combine(place, "one.tar.gz.pgp");

    private static readonly IReadOnlyCollection<string> Known =
    [
        .. new DesignTimeDb().CreateDbContext([]).Database.GetMigrations(),
    ];

    public void Dispose()
    {
        server.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(place, recursive: true);
    }

    private Task<BackupManifest> Make(string? to = null, string? passphrase = Passphrase) =>
        Backup.Write(
            Folder,
            to ?? File1,
            passphrase is null ? null : new Seal(passphrase, null),
            DateTimeOffset.Now
        );

    /// <summary>A clinic with a client, events, and files beside the database.</summary>
    private async Task<(HttpClient Browser, Opened Opened)> Filled()
    {
        var browser = await server.SignedIn();
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        foreach (var (folder, text) in new[] { ("traces", "samples"), ("photos", "a picture") })
        {
            Directory.CreateDirectory(Path.Combine(Folder, folder));
            await File.WriteAllTextAsync(Path.Combine(Folder, folder, "one.bin"), text);
        }
        return (browser, opened);
    }

    /// <summary>
    /// Every event a tablet was told is taken when the backup begins is in the copy; what comes meanwhile is whole or absent.
    /// </summary>
    [Fact]
    public async Task Thirty_tablets_write_while_it_is_made_and_nothing_acknowledged_is_missing()
    {
        var (browser, opened) = await Filled();
        using var stop = new CancellationTokenSource();
        var acknowledged = new System.Collections.Concurrent.ConcurrentDictionary<Guid, bool>();
        var tablets = Enumerable
            .Range(0, 30)
            .Select(_ => Write(browser, opened.VisitId, acknowledged, stop.Token));
        var writing = Task.WhenAll(tablets);
        while (acknowledged.Count < 60)
        {
            await Task.Delay(20);
        }
        var before = acknowledged.Keys.ToList();
        await Make();
        await stop.CancelAsync();
        await writing;
        var target = Path.Combine(place, "restored");
        var (manifest, kept) = Restore.Into(target, File1, new(Passphrase), Known, DateTimeOffset.Now);
        Assert.Null(kept);
        await using var db = Open(target);
        var stored = await db.Events.AsNoTracking().Select(e => e.Id).ToListAsync();
        Assert.Empty(before.Except(stored));
        Assert.Equal(manifest.Rows["Events"], stored.Count);
        Assert.Equal("samples", await File.ReadAllTextAsync(Path.Combine(target, "traces", "one.bin")));
    }

    private static async Task Write(
        HttpClient browser,
        Guid visit,
        System.Collections.Concurrent.ConcurrentDictionary<Guid, bool> acknowledged,
        CancellationToken stop
    )
    {
        while (!stop.IsCancellationRequested)
        {
            var id = Guid.CreateVersion7();
            var told = new SessionPainAsked(id, Guid.CreateVersion7(), DateTimeOffset.UtcNow, 3, 1);
            var answer = await browser.Post($"/api/visits/{visit}/events", new EventBatch([told]));
            if (answer.IsSuccessStatusCode)
            {
                acknowledged[id] = true;
            }
        }
    }

    [Fact]
    public async Task It_comes_back_whole_ends_all_sessions_and_keeps_what_was_there()
    {
        var (browser, opened) = await Filled();
        await Make();
        var later = await new Clinic(browser).NewClient(Clinic.Form() with { Name = "Later Client" });
        server.Dispose();
        var (_, kept) = Restore.Into(Folder, File1, new(Passphrase), Known, DateTimeOffset.Now);
        using var again = new RunningServer("serve", Folder);
        // The sign-in of before counts no more, the password does.
        using var carried = new HttpRequestMessage(
            HttpMethod.Get,
            new Uri(again.Browser().BaseAddress!, "/api/day")
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await browser.SendAsync(carried)).StatusCode);
        var back = await again.SignedIn();
        Assert.Equal(
            HttpStatusCode.OK,
            (await back.GetAsync($"/api/episodes/{opened.EpisodeId}")).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await back.GetAsync($"/api/episodes/{later.EpisodeId}")).StatusCode
        );
        await using var old = Open(kept!);
        Assert.Equal(2, await old.Clients.CountAsync());
        Assert.Equal("a picture", await File.ReadAllTextAsync(Path.Combine(Folder, "photos", "one.bin")));
        Assert.False((await back.Get<StartView>("/api/start")).NeedsFirstAdministrator);
    }

    [Fact]
    public async Task A_server_that_runs_is_not_restored_over()
    {
        await Filled();
        await Make();
        Assert.Equal(
            StartFault.InUse,
            Assert
                .Throws<StartRefusedException>(() =>
                    Restore.Into(Folder, File1, new(Passphrase), Known, DateTimeOffset.Now)
                )
                .Fault
        );
    }

    [Theory]
    [InlineData(null)]
    [InlineData(Passphrase)]
    public async Task Wherever_a_byte_is_changed_or_the_end_is_cut_it_is_refused(string? passphrase)
    {
        await Filled();
        await Make(File1, passphrase);
        var whole = await File.ReadAllBytesAsync(File1);
        Assert.Equal(1, Restore.Verify(File1, new(passphrase), Known).Rows["Clients"]);
        var hurt = Path.Combine(place, "hurt");
        Gen.Select(Gen.Int[0, whole.Length - 1], Gen.Bool)
            .Sample(
                (at, cut) =>
                {
                    var bytes = cut ? whole[..at] : [.. whole];
                    if (!cut)
                    {
                        bytes[at] ^= 0x20;
                    }
                    File.WriteAllBytes(hurt, bytes);
                    Refused(hurt, passphrase);
                },
                iter: passphrase is null ? 25 : 10,
                threads: 1
            );
        Assert.Equal(["clinic", "hurt", "one.tar.gz.pgp"], Names(place));
    }

    /// <summary>Refused in words; where a gzip header has a byte nobody reads, what comes out is the same.</summary>
    private static void Refused(string file, string? passphrase)
    {
        try
        {
            var manifest = Restore.Verify(file, new(passphrase), Known);
            Assert.Equal(1, manifest.Rows["Clients"]);
            Assert.Null(passphrase);
        }
        catch (BackupRefusedException refused)
        {
            Assert.Matches("cut or was altered|does not open|sealed", refused.Message);
        }
    }

    private static IEnumerable<string> Names(string folder) =>
        Directory.EnumerateFileSystemEntries(folder).Select(path => Path.GetFileName(path)).Order();

    [Fact]
    public async Task Another_passphrase_none_and_a_newer_version_are_refused_each_in_its_words()
    {
        await Filled();
        await Make();
        string Words(Opener opener, IReadOnlyCollection<string>? known = null) =>
            Assert
                .Throws<BackupRefusedException>(() => Restore.Verify(File1, opener, known ?? Known))
                .Message;
        Assert.Contains("does not open with this passphrase", Words(new("another one")));
        Assert.Contains("sealed with a passphrase", Words(new(null)));
        Assert.Contains("newer Palaestra", Words(new(Passphrase), [.. Known.SkipLast(1)]));
        Assert.Contains(
            "There is no file",
            Assert.Throws<BackupRefusedException>(() => Restore.Verify(File1 + "x", new(null), Known)).Message
        );
    }

    [Fact]
    public async Task A_damaged_database_and_a_name_nothing_can_hold_make_no_backup()
    {
        await Filled();
        var odd = Path.Combine(Folder, "content", "a\nb.json");
        Directory.CreateDirectory(Path.GetDirectoryName(odd)!);
        await File.WriteAllTextAsync(odd, "{}");
        Assert.Contains(
            "rename it",
            (await Assert.ThrowsAsync<BackupRefusedException>(() => Make())).Message
        );
        File.Delete(odd);
        server.Dispose();
        using (var file = File.OpenWrite(Path.Combine(Folder, Store.FileName)))
        {
            file.Position = 8 * 4096;
            file.Write(new byte[8 * 4096]);
        }
        Assert.Matches(
            "damaged|malformed",
            (await Assert.ThrowsAsync<BackupRefusedException>(() => Make())).Message
        );
        Assert.Equal(["clinic"], Names(place));
    }

    /// <summary>Another OpenPGP program, where the machine has one.</summary>
    [Fact]
    public async Task Another_program_opens_it_and_makes_keys_it_is_sealed_for()
    {
        Assert.SkipUnless(File.Exists("/usr/bin/gpg"), "There is no gpg on this machine.");
        await Filled();
        await Make();
        var secret = Path.Combine(place, "passphrase");
        await File.WriteAllTextAsync(secret, Passphrase);
        await Gpg(
            "--pinentry-mode",
            "loopback",
            "--passphrase-file",
            secret,
            "-o",
            "plain.tar.gz",
            "-d",
            File1
        );
        Assert.Equal(
            1,
            Restore.Verify(Path.Combine(place, "plain.tar.gz"), new(null), Known).Rows["Clients"]
        );

        await Gpg(
            "--pinentry-mode",
            "loopback",
            "--passphrase-file",
            secret,
            "--quick-gen-key",
            "clinic@clinic.example",
            "rsa2048",
            "encr",
            "never"
        );
        await Gpg("--armor", "-o", "public.asc", "--export", "clinic@clinic.example");
        await Gpg(
            "--pinentry-mode",
            "loopback",
            "--passphrase-file",
            secret,
            "--armor",
            "-o",
            "secret.asc",
            "--export-secret-keys",
            "clinic@clinic.example"
        );
        var keyed = Path.Combine(place, "keyed.tar.gz.pgp");
        await Backup.Write(Folder, keyed, Seal.For(Path.Combine(place, "public.asc")), DateTimeOffset.Now);
        Assert.Contains(
            "sealed for a key",
            Assert.Throws<BackupRefusedException>(() => Restore.Verify(keyed, new(Passphrase), Known)).Message
        );
        Assert.Equal(
            1,
            Restore.Verify(keyed, new(Passphrase, Path.Combine(place, "secret.asc")), Known).Rows["Clients"]
        );
        Assert.Contains(
            "does not open",
            Assert
                .Throws<BackupRefusedException>(() =>
                    Restore.Verify(keyed, new("another one", Path.Combine(place, "secret.asc")), Known)
                )
                .Message
        );
    }

    private async Task Gpg(params string[] words)
    {
        var home = Directory.CreateDirectory(Path.Combine(place, "gpg"), (UnixFileMode)0b111_000_000);
        using var gpg = Process.Start(
            new ProcessStartInfo("/usr/bin/gpg", ["--batch", "--yes", "--homedir", home.FullName, .. words])
            {
                WorkingDirectory = place,
                RedirectStandardError = true,
            }
        )!;
        var said = await gpg.StandardError.ReadToEndAsync();
        await gpg.WaitForExitAsync();
        Assert.True(gpg.ExitCode == 0, said);
    }

    /// <summary>Of each command: five in the test run, a hundred in `./palaestra soak`.</summary>
    private static readonly int Kills = Environment.GetEnvironmentVariable("PALAESTRA_SOAK") is null
        ? 5
        : 100;

    [Fact]
    public async Task Killed_while_it_is_made_or_restored_there_is_the_old_or_the_new()
    {
        await Filled();
        var secret = Path.Combine(place, "passphrase");
        await File.WriteAllTextAsync(secret, Passphrase);
        await Make();
        // As long as it takes to the end, so that the moments fall all over it.
        var whole = Stopwatch.StartNew();
        await KillLater(60_000, "backup", File1, "--passphrase-file", secret);
        var most = (int)(1.1 * whole.ElapsedMilliseconds);
        var random = new Random(20261128);
        for (var i = 0; i < Kills; i++)
        {
            await KillLater(random.Next(most), "backup", File1, "--passphrase-file", secret);
            Assert.Equal(1, Restore.Verify(File1, new(Passphrase), Known).Rows["Clients"]);
        }
        server.Dispose();
        var before = await Clients();
        for (var i = 0; i < Kills; i++)
        {
            await KillLater(random.Next(most), "restore", File1, "--passphrase-file", secret);
            Assert.Equal(before, await Clients());
            using var taken = FolderLock.Take(Folder, DateTimeOffset.Now);
            StartCheck.Look(Folder, Known, taken.Crashed);
            taken.SayClosed();
        }

        async Task<int> Clients()
        {
            await using var db = Open(Folder);
            return await db.Clients.CountAsync();
        }
    }

    private async Task KillLater(int milliseconds, params string[] words)
    {
        using var command = Process.Start(
            new ProcessStartInfo("dotnet", [typeof(Settings).Assembly.Location, .. words])
            {
                Environment = { ["PALAESTRA_DATA"] = Folder, ["PALAESTRA_MODE"] = "serve" },
                RedirectStandardError = true,
                RedirectStandardOutput = true,
            }
        )!;
        await Task.WhenAny(command.WaitForExitAsync(), Task.Delay(milliseconds));
        command.Kill();
        await command.WaitForExitAsync();
    }

    [Fact]
    public async Task Administrators_see_and_make_them_and_are_warned_when_the_last_is_old()
    {
        var browser = await server.SignedIn();
        var view = await browser.Get<BackupsView>("/api/backups");
        Assert.StartsWith("There is no backup yet.", view.Warning);
        Assert.Equal(view.Warning, (await browser.Get<StartView>("/api/start")).BackupWarning);
        Assert.Null((await server.Browser().Get<StartView>("/api/start")).BackupWarning);
        var made = await browser.Post("/api/backups", new { }).Ok<BackupsView>();
        Assert.Null(made.Warning);
        var file = Assert.Single(made.Files);
        Assert.Equal(made.Status.File, file.Name);
        Restore.Verify(Path.Combine(made.Folder, file.Name), new(null), Known);
        var health = await server.Browser().GetFromJsonAsync<System.Text.Json.JsonElement>("/health");
        Assert.True(health.GetProperty("writes").GetBoolean());
        Assert.InRange(health.GetProperty("backupAgeHours").GetDouble(), 0, 0.1);
        Assert.True(health.GetProperty("diskFree").GetInt64() > 0);
        Directory.Delete(made.Folder, recursive: true);
    }

    private static PalaestraDb Open(string folder) =>
        new(new DbContextOptionsBuilder<PalaestraDb>().UseSqlite(Store.ConnectionString(folder)).Options);
}
