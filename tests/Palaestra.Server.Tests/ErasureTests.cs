using System.Diagnostics;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Palaestra.Data;
using Palaestra.Data.Keeping;
using Palaestra.Server.Intake;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>A client who is erased is nowhere any more, and does not come back with a backup.</summary>
public sealed class ErasureTests : IDisposable
{
    private const string Name = "Quennel Ashgrove";
    private readonly string place = Directory.CreateTempSubdirectory("palaestra-erase-").FullName;

    private string Folder => Path.Combine(place, "clinic");
    private string Backups => Path.Combine(place, "clinic-backups");

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(place, recursive: true);
    }

    private static readonly IReadOnlyCollection<string> Known =
    [
        .. new DesignTimeDb().CreateDbContext([]).Database.GetMigrations(),
    ];

    /// <summary>Two clients with all a visit leaves, a copy from before a migration, and a backup.</summary>
    private async Task<(Opened Gone, Opened Stays, string Backup)> Filled()
    {
        using var server = new RunningServer(folder: Folder);
        var clinic = new Given.Clinic(await server.SignedIn());
        var gone = await Lived(clinic, Name);
        var stays = await Lived(clinic, "Wenna Sorrel");
        await Store.Copy(Folder, DateTime.Now);
        var backup = Path.Combine(place, "one.tar.gz");
        await Data.Keeping.Backup.Write(Folder, backup, null, DateTimeOffset.Now);
        return (gone, stays, backup);
    }

    private static async Task<Opened> Lived(Given.Clinic clinic, string name)
    {
        var opened = await clinic.NewClient(
            Given.Clinic.Form() with
            {
                Name = name,
                Complaint = $"{name} aches.",
            }
        );
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
        await clinic.Book(opened.EpisodeId);
        return opened;
    }

    /// <summary>Text of every column of every table, and what the files of the folder hold, bytes and all.</summary>
    private static bool Holds(string folder, string words) =>
        Directory
            .EnumerateFiles(folder, "*", SearchOption.AllDirectories)
            // Held by the server alone; it says who, and since when.
            .Where(file => Path.GetFileName(file) != "server.lock")
            .Any(file =>
                File.ReadAllText(file, System.Text.Encoding.Latin1)
                    .Contains(words, StringComparison.OrdinalIgnoreCase)
            );

    private static IReadOnlyDictionary<string, long> Rows(string folder) =>
        DatabaseCheck.Rows(Path.Combine(folder, Store.FileName));

    [Fact]
    public async Task Nothing_of_the_client_is_left_in_any_file_and_a_restore_does_not_bring_them_back()
    {
        var (gone, stays, backup) = await Filled();
        Assert.True(Holds(Folder, Name));
        var before = Rows(Folder);
        Assert.Equal(0, (await Run("erase", $"{gone.EpisodeId}", "--yes")).Code);

        foreach (var words in new[] { Name, $"{gone.EpisodeId}", $"{gone.VisitId}", $"{gone.VisitId:N}" })
        {
            Assert.False(Holds(Folder, words), words);
        }
        Assert.True(Holds(Folder, "Wenna Sorrel"));
        var after = Rows(Folder);
        foreach (var table in new[] { "Clients", "Episodes", "Events", "Plans" })
        {
            Assert.Equal(before[table], 2 * after[table]);
        }

        Assert.Equal(0, (await Run("restore", backup)).Code);
        Assert.False(Holds(Folder, Name));
        using var again = new RunningServer(folder: Folder);
        var there = await again.SignedIn();
        Assert.Equal(
            "Wenna Sorrel",
            (await there.Get<EpisodeView>($"/api/episodes/{stays.EpisodeId}")).Intake.Name
        );
        Assert.Equal(
            System.Net.HttpStatusCode.NotFound,
            (await there.GetAsync($"/api/episodes/{gone.EpisodeId}")).StatusCode
        );
    }

    /// <summary>While the clinic works: the certificate counts what went, and a merged twin does not come back from an older backup.</summary>
    [Fact]
    public async Task An_administrator_erases_while_the_clinic_works_and_a_merged_twin_goes_too()
    {
        Opened gone,
            twin,
            stays;
        var backup = Path.Combine(place, "before-merge.tar.gz");
        using (var server = new RunningServer(folder: Folder))
        {
            var browser = await server.SignedIn();
            var clinic = new Given.Clinic(browser);
            gone = await Lived(clinic, Name);
            twin = await Lived(clinic, "Quennel Ashgrave");
            stays = await Lived(clinic, "Wenna Sorrel");
            await Data.Keeping.Backup.Write(Folder, backup, null, DateTimeOffset.Now);
            var (id, other) = (
                (await clinic.Episode(gone.EpisodeId)).ClientId,
                (await clinic.Episode(twin.EpisodeId)).ClientId
            );
            await browser
                .Post($"/api/clients/{other}/merge", new Clients.MergeForm(id, "One person"))
                .Ok<Clients.ClientCard>();
            var path = $"/api/clients/{id}/erasure";
            Assert.Equal(
                ["name"],
                await browser
                    .Post(path, new Clients.EraseForm("Quennel", "Asked for", true))
                    .RefusedFields(System.Net.HttpStatusCode.UnprocessableEntity)
            );
            // The record is to be kept for ten years yet.
            Assert.Equal(
                ["early"],
                await browser
                    .Post(path, new Clients.EraseForm(Name, "Asked for"))
                    .RefusedFields(System.Net.HttpStatusCode.UnprocessableEntity)
            );
            var (taps, plans) = (
                server.Services.GetRequiredService<Intake.TapShelf>(),
                server.Services.GetRequiredService<Intake.PlanShelf>()
            );
            Assert.NotEqual((0, 0), (taps.Count, plans.Count));
            var certificate = await browser
                .Post(path, new Clients.EraseForm(Name, "Asked for", true))
                .Ok<Clients.ErasureCertificate>();
            Assert.Equal((0, 0), (taps.Count, plans.Count));
            Assert.Equal(
                (Name, 2),
                (certificate.Name, certificate.Rows.Single(r => r.What == "Clients").Rows)
            );
            Assert.Equal(
                System.Net.HttpStatusCode.NotFound,
                (await browser.GetAsync($"/api/clients/{id}")).StatusCode
            );
            // Tablets hear which visits they are to forget; those of others are not among them.
            var told = await browser.Get<IReadOnlyList<Guid>>("/api/erased");
            Assert.Subset(told.ToHashSet(), new HashSet<Guid> { gone.VisitId, twin.VisitId });
            Assert.DoesNotContain(stays.VisitId, told);
            // The clinic goes on.
            await Lived(clinic, "Next Client");
            foreach (var words in new[] { Name, "Ashgrave", $"{gone.EpisodeId}", $"{twin.EpisodeId}" })
            {
                Assert.False(Holds(Folder, words), words);
            }
        }
        Assert.Equal(0, (await Run("restore", backup)).Code);
        Assert.False(Holds(Folder, Name));
        Assert.False(Holds(Folder, "Ashgrave"));
        Assert.True(Holds(Folder, "Wenna Sorrel"));
    }

    [Fact]
    public async Task A_list_that_cannot_be_read_stops_a_restore_and_nobody_is_erased_by_mistake()
    {
        var (gone, _, backup) = await Filled();
        Assert.Equal(1, (await Run("erase", $"{Guid.NewGuid()}", "--yes")).Code);
        Assert.Equal(2, (await Run("erase", "Quennel", "--yes")).Code);
        Assert.Equal(1, (await Run("erase", $"{gone.EpisodeId}")).Code);
        Assert.True(Holds(Folder, Name));
        Assert.Empty(Erasure.Listed(Backups));
        Directory.CreateDirectory(Backups);
        await File.WriteAllTextAsync(Path.Combine(Backups, Erasure.ListName), "[{");
        var (code, error) = await Run("restore", backup);
        Assert.Equal(1, code);
        Assert.Contains("list of erased clients", error);
    }

    [Fact]
    public async Task A_server_that_runs_keeps_its_folder()
    {
        using var server = new RunningServer(folder: Folder);
        var opened = await new Given.Clinic(await server.SignedIn()).NewClient();
        Assert.Equal((int)StartFault.InUse, (await Run("erase", $"{opened.EpisodeId}", "--yes")).Code);
    }

    private async Task<(int Code, string Error)> Run(params string[] words)
    {
        var start = new ProcessStartInfo("dotnet")
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
        };
        start.ArgumentList.Add(typeof(Settings).Assembly.Location);
        foreach (var word in words)
        {
            start.ArgumentList.Add(word);
        }
        start.Environment["PALAESTRA_DATA"] = Folder;
        using var process = Process.Start(start)!;
        process.StandardInput.Close();
        var error = process.StandardError.ReadToEndAsync();
        await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        return (process.ExitCode, await error);
    }
}
