using System.Net;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;
using Palaestra.Data;
using Palaestra.Data.Audit;
using Palaestra.Data.Keeping;
using Palaestra.Data.Staff;
using Palaestra.Server.Audit;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>What the audit tells of a clinic at work.</summary>
public sealed class AuditTests : IDisposable
{
    private readonly HeldClock clock = new();
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-test-").FullName;
    private readonly RunningServer server;

    public AuditTests() => server = new RunningServer(folder: folder, clock: clock);

    public void Dispose()
    {
        server.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
        if (Directory.Exists($"{folder}-backups"))
        {
            Directory.Delete($"{folder}-backups", recursive: true);
        }
    }

    private static Task<AuditPage> Read(HttpClient browser, string query = "") =>
        browser.Get<AuditPage>($"/api/audit{query}");

    private void Sql(string text)
    {
        using var db = new SqliteConnection(Store.ConnectionString(folder));
        db.Open();
        using var command = db.CreateCommand();
        command.CommandText = text;
        command.ExecuteNonQuery();
    }

    [Fact]
    public async Task A_change_tells_what_was_before_and_after_and_by_whom()
    {
        var browser = await server.SignedIn();
        var opened = await new Clinic(browser).NewClient(Clinic.Form() with { Name = "Wilmot Sedge" });
        var episode = await browser.Get<EpisodeView>($"/api/episodes/{opened.EpisodeId}");
        await browser
            .Put(
                $"/api/episodes/{opened.EpisodeId}/intake",
                Clinic.Form() with
                {
                    Name = "Wilmot Sedgemoor",
                    VisitId = opened.VisitId,
                    Version = episode.Version,
                }
            )
            .Ok<EpisodeView>();
        var line = (await Read(browser, "?kind=change&words=Client")).Lines.First(l => l.What == "Client");
        Assert.Equal("Edda Marl", line.By);
        var name = JsonDocument.Parse(line.Payload!).RootElement.GetProperty("Name");
        Assert.Equal(
            ("Wilmot Sedge", "Wilmot Sedgemoor"),
            (name.GetProperty("before").GetString(), name.GetProperty("after").GetString())
        );
        // Found by whose record it is.
        Assert.NotEmpty((await Read(browser, "?words=sedgemoor")).Lines);
        Assert.Empty((await Read(browser, "?words=%25nobody%25")).Lines);
        Assert.Empty((await browser.Get<AuditState>("/api/audit/state")).Faults);
    }

    [Fact]
    public async Task A_look_is_noted_once_in_ten_minutes_for_each_account()
    {
        var browser = await server.SignedIn();
        var opened = await new Clinic(browser).NewClient();
        async Task<int> Looks()
        {
            var page = await Read(browser, $"?kind=view&episode={opened.EpisodeId}&words=GetPlan");
            return page.Lines.Count;
        }
        for (var i = 0; i < 5; i++)
        {
            await browser.GetStringAsync($"/api/episodes/{opened.EpisodeId}/plan");
        }
        Assert.Equal(1, await Looks());
        var (other, _) = await server.Joins(Role.Trainer);
        await other.GetStringAsync($"/api/episodes/{opened.EpisodeId}/plan");
        Assert.Equal(2, await Looks());
        clock.Go(TimeSpan.FromMinutes(10));
        await browser.GetStringAsync($"/api/episodes/{opened.EpisodeId}/plan");
        Assert.Equal(3, await Looks());
        var seen = await browser.Get<IReadOnlyList<SeenBy>>($"/api/episodes/{opened.EpisodeId}/seen");
        Assert.Equal(["Edda Marl", "Some Body"], seen.Select(s => s.By).Order());
    }

    [Fact]
    public async Task What_leaves_the_house_and_every_sign_in_wrong_or_right_is_told()
    {
        var browser = await server.SignedIn();
        var opened = await new Clinic(browser).NewClient();
        (await browser.GetAsync($"/api/visits/{opened.VisitId}/letter.pdf")).EnsureSuccessStatusCode();
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await server.Browser().SignsIn("edda@clinic.example", "not it")).StatusCode
        );
        await server.Browser().SignsIn("edda@clinic.example");
        var lines = (await Read(browser)).Lines;
        Assert.Contains(
            lines,
            l =>
                l is { Kind: AuditKind.Export, What: "GetLetterPdf", By: "Edda Marl" }
                && l.Episode == opened.EpisodeId
        );
        Assert.Contains(lines, l => l is { Kind: AuditKind.Refusal, What: "SignIn", By: "" });
        Assert.Contains(lines, l => l is { Kind: AuditKind.SignIn, What: "SignIn" });
    }

    [Fact]
    public async Task A_refusal_stands_under_the_name_of_who_tried()
    {
        var (browser, _) = await server.Joins(Role.Reception);
        var administrator = await server.SignedIn();
        var opened = await new Clinic(administrator).NewClient();
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await browser.GetAsync($"/api/episodes/{opened.EpisodeId}")).StatusCode
        );
        var line = Assert.Single((await Read(administrator, "?kind=refusal")).Lines);
        Assert.Equal(("Some Body", "GetEpisode"), (line.By, line.What));
        // Whoever is not signed in is told once, however often they ask.
        for (var i = 0; i < 3; i++)
        {
            Assert.Equal(
                HttpStatusCode.Unauthorized,
                (await server.Browser().GetAsync($"/api/episodes/{opened.EpisodeId}")).StatusCode
            );
        }
        Assert.Single((await Read(administrator, "?kind=refusal")).Lines, l => l.By.Length == 0);
        // Having been refused is not having seen.
        var seen = await administrator.Get<IReadOnlyList<SeenBy>>($"/api/episodes/{opened.EpisodeId}/seen");
        Assert.DoesNotContain(seen, s => s.By == "Some Body");
    }

    [Fact]
    public async Task No_password_and_no_code_is_told()
    {
        var administrator = await server.SignedIn();
        await server.Joins(Role.Trainer);
        (
            await administrator.Post(
                "/api/account/password",
                new PasswordForm(Staff.Password, "lantern over the quay")
            )
        ).EnsureSuccessStatusCode();
        var text = JsonSerializer.Serialize((await Read(administrator)).Lines);
        Assert.Contains("Invitation", text, StringComparison.Ordinal);
        foreach (var secret in new[] { "PasswordHash", "SecurityStamp", "CodeHash", "lantern over" })
        {
            Assert.DoesNotContain(secret, text, StringComparison.Ordinal);
        }
    }

    [Fact]
    public async Task While_it_cannot_be_written_work_goes_on_and_the_gap_is_told_afterwards()
    {
        var browser = await server.SignedIn();
        var opened = await new Clinic(browser).NewClient();
        await Read(browser);
        Sql("CREATE TRIGGER NoAudit BEFORE INSERT ON Audit BEGIN SELECT RAISE(ABORT, 'no'); END");
        (await browser.GetAsync($"/api/episodes/{opened.EpisodeId}")).EnsureSuccessStatusCode();
        var other = await new Clinic(browser).NewClient();
        (await browser.GetAsync($"/api/episodes/{other.EpisodeId}")).EnsureSuccessStatusCode();
        // Told until the writer has tried in vain.
        await Bridge.Until(() =>
            Task.FromResult(
                Directory.Exists(Path.Combine(folder, "logs"))
                    && Directory
                        .GetFiles(Path.Combine(folder, "logs"))
                        .Any(Holds("The audit cannot be written"))
            )
        );
        Sql("DROP TRIGGER NoAudit");
        var lines = (await Read(browser)).Lines;
        var gap = Assert.Single(lines, l => l.Kind == AuditKind.Gap);
        Assert.True(JsonDocument.Parse(gap.Payload!).RootElement.GetProperty("entries").GetInt64() >= 1);
        // Changes were kept with what they tell of.
        Assert.Contains(
            lines,
            l =>
                l is { Kind: AuditKind.Change, What: "Client" } or { What: "Episode" }
                && l.Episode == other.EpisodeId
        );
        Assert.Empty((await browser.Get<AuditState>("/api/audit/state")).Faults);
    }

    [Fact]
    public async Task What_is_told_faster_than_it_can_be_kept_is_counted()
    {
        var browser = await server.SignedIn();
        await Read(browser);
        // Nobody empties it: as a writer that has come to a stand.
        using var writer = ActivatorUtilities.CreateInstance<AuditWriter>(server.Services);
        var account = Guid.NewGuid();
        for (var i = 0; i < 10_007; i++)
        {
            writer.Tell(
                new AuditNote
                {
                    Kind = AuditKind.Refusal,
                    AccountId = account,
                    By = "Somebody",
                    What = "GetEpisode",
                }
            );
        }
        await writer.CaughtUp();
        var gap = Assert.Single((await Read(browser, "?kind=gap")).Lines);
        Assert.Equal(7, JsonDocument.Parse(gap.Payload!).RootElement.GetProperty("entries").GetInt64());
        Assert.True((await browser.Get<AuditState>("/api/audit/state")).Entries > 10_000);
        Assert.Empty((await browser.Get<AuditState>("/api/audit/state")).Faults);
    }

    private static Func<string, bool> Holds(string words) =>
        file =>
        {
            using var stream = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
            return new StreamReader(stream).ReadToEnd().Contains(words, StringComparison.Ordinal);
        };

    [Fact]
    public async Task The_store_itself_lets_nothing_be_changed_or_taken_out()
    {
        var browser = await server.SignedIn();
        await new Clinic(browser).NewClient();
        await Read(browser);
        foreach (
            var attempt in new[]
            {
                "DELETE FROM Audit WHERE Number = 1",
                "UPDATE Audit SET \"By\" = 'Nobody'",
                "UPDATE Audit SET Payload = '{}' WHERE Payload IS NOT NULL",
                "UPDATE Audit SET Hash = ''",
            }
        )
        {
            Assert.Throws<SqliteException>(() => Sql(attempt));
        }
    }

    [Fact]
    public async Task Whoever_goes_round_the_store_is_found_by_the_command_and_a_backup_knows_the_end()
    {
        using (var first = new RunningServer(folder: folder + "-own"))
        {
            var browser = await first.SignedIn();
            await new Clinic(browser).NewClient();
            await Read(browser);
            (await browser.Post("/api/backups", new { })).EnsureSuccessStatusCode();
        }
        var own = folder + "-own";
        try
        {
            var settings = new Settings(false, own, "", "", "", own + "-backups");
            Assert.Equal(0, await AuditCommand.Run(["audit", "verify"], settings));
            Assert.Equal(2, await AuditCommand.Run(["audit", "look"], settings));
            Assert.Null(await AuditCommand.Run(["serve"], settings));
            // Cut, and the file beside the database put right: the backup's head still knows.
            using (var db = new SqliteConnection(Store.ConnectionString(own)))
            {
                db.Open();
                using var cut = db.CreateCommand();
                cut.CommandText = "DROP TRIGGER AuditStays; DELETE FROM Audit WHERE Number > 2";
                cut.ExecuteNonQuery();
            }
            AuditHeads.Put(own, AuditHeads.Of(Path.Combine(own, Store.FileName))!);
            Assert.Equal(1, await AuditCommand.Run(["audit", "verify"], settings));
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(own, recursive: true);
            Directory.Delete(own + "-backups", recursive: true);
        }
    }

    [Fact]
    public async Task An_erased_client_is_named_by_nothing_in_the_audit_and_the_chain_stays_whole()
    {
        var own = folder + "-own";
        try
        {
            Opened gone;
            using (var first = new RunningServer(folder: own))
            {
                var browser = await first.SignedIn();
                gone = await new Clinic(browser).NewClient(
                    Clinic.Form() with
                    {
                        Name = "Quennel Ashgrove",
                        Complaint = "stiff in the mornings",
                    }
                );
                await browser.GetStringAsync($"/api/episodes/{gone.EpisodeId}");
                await new Clinic(browser).NewClient(Clinic.Form() with { Name = "Wenna Sorrel" });
                await Read(browser);
            }
            Assert.NotNull(Erasure.Of(own, Erasure.Find(own, gone.EpisodeId)!.Value.Id));
            foreach (var file in Directory.GetFiles(own, "*.db*"))
            {
                var text = System.Text.Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file));
                Assert.DoesNotContain("Quennel", text, StringComparison.Ordinal);
                Assert.DoesNotContain("stiff in the mornings", text, StringComparison.Ordinal);
            }
            using var second = new RunningServer(folder: own);
            var again = await second.SignedIn();
            Assert.Empty((await again.Get<AuditState>("/api/audit/state")).Faults);
            Assert.Empty((await Read(again, $"?episode={gone.EpisodeId}")).Lines);
            var lines = (await Read(again)).Lines;
            Assert.Contains(lines, l => l is { What: "Client", Payload: null });
            Assert.Single(lines, l => l is { What: AuditChain.Erased, By: "", Client: null });
            Assert.Contains((await Read(again, "?words=Wenna")).Lines, l => l.Payload is not null);
        }
        finally
        {
            SqliteConnection.ClearAllPools();
            Directory.Delete(own, recursive: true);
        }
    }

    [Fact]
    public async Task The_audit_is_for_administrators_a_record_s_own_for_whoever_works_with_it()
    {
        var (trainer, _) = await server.Joins(Role.Trainer);
        var opened = await new Clinic(trainer).NewClient();
        Assert.Equal(HttpStatusCode.Forbidden, (await trainer.GetAsync("/api/audit")).StatusCode);
        Assert.Equal(
            HttpStatusCode.OK,
            (await trainer.GetAsync($"/api/episodes/{opened.EpisodeId}/seen")).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await trainer.GetAsync($"/api/episodes/{Guid.NewGuid()}/seen")).StatusCode
        );
    }
}
