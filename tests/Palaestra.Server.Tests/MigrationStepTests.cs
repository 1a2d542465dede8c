using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;
using Palaestra.Core.Practice;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Keeping;
using Palaestra.Data.Staff;

namespace Palaestra.Server.Tests;

/// <summary>
/// A start that is killed at any statement of any migration: the folder as it lies there at that moment is what a kill leaves. From
/// each of them the next start comes to the end, with everything that was stored.
/// </summary>
public sealed class MigrationStepTests : IDisposable
{
    private readonly string place = Directory.CreateTempSubdirectory("palaestra-steps-").FullName;

    private string Folder => Path.Combine(place, "clinic");

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(place, recursive: true);
    }

    private static PalaestraDb Open(string folder, params IInterceptor[] interceptors) =>
        new(
            new DbContextOptionsBuilder<PalaestraDb>()
                .UseSqlite(Store.ConnectionString(folder))
                .AddInterceptors(interceptors)
                .Options
        );

    [Theory]
    [InlineData(null)]
    [InlineData("First")]
    [InlineData("VisitAnswers")]
    public async Task Killed_at_any_statement_the_next_start_comes_to_the_end_with_all_there_was(string? from)
    {
        Directory.CreateDirectory(Folder);
        if (from is not null)
        {
            await Fill(from);
        }
        var moments = new Moments(Folder, place);
        await using (var db = Open(Folder, moments))
        {
            await Store.Prepare(db, Folder, DateTime.Now, zone: ClinicZone.Utc);
        }
        SqliteConnection.ClearAllPools();
        Assert.True(moments.Kept.Count > 5, $"only {moments.Kept.Count} moments");
        foreach (var moment in moments.Kept)
        {
            await using var again = Open(moment);
            await Store
                .Prepare(again, moment, DateTime.Now, zone: ClinicZone.Utc)
                .WaitAsync(TimeSpan.FromSeconds(60));
            Assert.Empty(await again.Database.GetPendingMigrationsAsync());
            Assert.False(File.Exists(Path.Combine(moment, MigrationGuard.FileName)));
            Assert.Equal(from is null ? 0 : 1, await again.Clients.CountAsync());
            Assert.Equal(from is null ? [] : ["2026-03-02 09:00:00"], await Times(again));
            SqliteConnection.ClearAllPools();
        }
    }

    private static Task<List<string>> Times(PalaestraDb db) =>
        db.Database.SqlQuery<string>($"SELECT PlannedAt AS Value FROM Visits").ToListAsync();

    /// <summary>A client with a visit, in a database of an earlier version.</summary>
    private async Task Fill(string version)
    {
        await using var old = Open(Folder);
        ZoneOfOldTimes.Add((SqliteConnection)old.Database.GetDbConnection(), ClinicZone.Utc);
        await old.GetService<IMigrator>().MigrateAsync(version);
        var (client, episode, visit) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        await Put(old, "Clients", ("Id", client), ("Name", "Wenna Sorrel"), ("BirthDate", "1980-01-01"));
        await Put(
            old,
            "Episodes",
            ("Id", episode),
            ("ClientId", client),
            ("OpenedOn", "2026-03-02"),
            ("Complaint", "aches"),
            ("Precautions", "[]"),
            ("PolicyId", "mastery-no-rise")
        );
        await Put(old, "Visits", ("Id", visit), ("EpisodeId", episode), ("PlannedAt", "2026-03-02 09:00:00"));
        await old.Database.CloseConnectionAsync();
        SqliteConnection.ClearAllPools();
    }

    /// <summary>0.26 told a reported day by how far the client's log had got.</summary>
    [Fact]
    public async Task Days_that_the_client_reported_stay_reported()
    {
        Directory.CreateDirectory(Folder);
        await Fill("HomeProgrammes");
        await using (var old = Open(Folder))
        {
            var episode = await old
                .Database.SqlQuery<string>($"SELECT Id AS Value FROM Episodes")
                .SingleAsync();
            foreach (
                var (day, count) in new (string, object)[] { ("2026-03-03", 4), ("2026-03-04", DBNull.Value) }
            )
            {
                await Put(
                    old,
                    "HomeLog",
                    ("Id", Guid.NewGuid()),
                    ("EpisodeId", episode),
                    ("Day", day),
                    ("Log", $$"""{"day":"{{day}}","done":[]}"""),
                    ("WrittenAt", "2026-03-05 09:00:00"),
                    ("WrittenBy", "Edda Marl"),
                    ("ReportedCount", count)
                );
            }
            await old.Database.CloseConnectionAsync();
        }
        SqliteConnection.ClearAllPools();
        await using var db = Open(Folder);
        await Store.Prepare(db, Folder, DateTime.Now, zone: ClinicZone.Utc);
        var reported = await db
            .Database.SqlQuery<bool>($"SELECT Reported AS Value FROM HomeLog ORDER BY Day")
            .ToListAsync();
        Assert.Equal([true, false], reported);
    }

    /// <summary>0.28 did not keep why a drill ended.</summary>
    [Fact]
    public async Task A_drill_of_before_that_showed_all_its_clips_ended_so()
    {
        Directory.CreateDirectory(Folder);
        await using (var old = Open(Folder))
        {
            ZoneOfOldTimes.Add((SqliteConnection)old.Database.GetDbConnection(), ClinicZone.Utc);
            await old.GetService<IMigrator>().MigrateAsync("PracticeRoom");
            var edda = Guid.NewGuid();
            await Put(old, "AspNetUsers", ("Id", edda), ("DisplayName", "Edda Marl"), ("UserName", "edda"));
            foreach (
                var (seed, place, ended) in new (int, int, object)[]
                {
                    (1, 12, "2026-12-01 10:00:00"),
                    (2, 5, "2026-12-01 11:00:00"),
                    (3, 5, DBNull.Value),
                }
            )
            {
                await Put(
                    old,
                    "PracticeRuns",
                    ("Id", Guid.NewGuid()),
                    ("AccountId", edda),
                    ("Seed", seed),
                    ("Aim", """{"clips":12,"minutes":20,"faults":[]}"""),
                    ("StartedAt", "2026-12-01 09:00:00"),
                    ("EndedAt", ended),
                    ("Place", place)
                );
            }
            await old.Database.CloseConnectionAsync();
        }
        SqliteConnection.ClearAllPools();
        await using var db = Open(Folder);
        await Store.Prepare(db, Folder, DateTime.Now, zone: ClinicZone.Utc);
        var ends = await db.PracticeRuns.OrderBy(r => r.Seed).Select(r => r.End).ToListAsync();
        Assert.Equal([DrillEnd.AllShown, null, null], ends);
    }

    /// <summary>Whoever had an account goes on working, and whoever kept the clinic goes on keeping it.</summary>
    [Fact]
    public async Task Accounts_of_before_are_practitioners_and_administrators_where_they_were()
    {
        Directory.CreateDirectory(Folder);
        await using (var old = Open(Folder))
        {
            await old.GetService<IMigrator>().MigrateAsync("VisitAnswers");
            var (edda, pell, role) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
            foreach (var (id, name) in new[] { (edda, "Edda Marl"), (pell, "Pell Ashdown") })
            {
                await Put(old, "AspNetUsers", ("Id", id), ("DisplayName", name), ("UserName", name));
            }
            await Put(old, "AspNetRoles", ("Id", role), ("Name", "administrator"));
            await Put(old, "AspNetUserRoles", ("UserId", edda), ("RoleId", role));
            await old.Database.CloseConnectionAsync();
        }
        await using var db = Open(Folder);
        await Store.Prepare(db, Folder, DateTime.Now, zone: ClinicZone.Utc);
        var people = await db.Users.OrderBy(u => u.DisplayName).ToListAsync();
        Assert.Equal([Role.Administrator, Role.Practitioner], people[0].Roles);
        Assert.Equal([Role.Practitioner], people[1].Roles);
        Assert.All(people, p => Assert.Null(p.DisabledAt));
        // Whoever keeps the clinic has the time to set up a second factor from the update on.
        Assert.InRange(
            people[0].AdministratorSince!.Value.ToDateTimeUtc(),
            DateTime.UtcNow.AddMinutes(-5),
            DateTime.UtcNow.AddMinutes(1)
        );
        Assert.Null(people[1].AdministratorSince);
    }

    /// <summary>A row with these values; of the columns that must have one, the others get 0.</summary>
    private static async Task Put(PalaestraDb db, string table, params (string Column, object Value)[] values)
    {
        var connection = (SqliteConnection)db.Database.GetDbConnection();
        await db.Database.OpenConnectionAsync();
        var all = values.ToDictionary(v => v.Column, v => v.Value);
        await using var ask = connection.CreateCommand();
        ask.CommandText =
            $"SELECT name FROM pragma_table_info('{table}') WHERE \"notnull\" = 1 AND dflt_value IS NULL";
        await using (var columns = await ask.ExecuteReaderAsync())
        {
            while (await columns.ReadAsync())
            {
                all.TryAdd(columns.GetString(0), 0);
            }
        }
        await using var put = connection.CreateCommand();
        put.CommandText =
            $"INSERT INTO {table} ({string.Join(", ", all.Keys)}) VALUES ({string.Join(", ", all.Keys.Select(k => "$" + k))})";
        foreach (var (column, value) in all)
        {
            put.Parameters.AddWithValue(
                "$" + column,
                value is Guid id ? id.ToString().ToUpperInvariant() : value
            );
        }
        await put.ExecuteNonQueryAsync();
    }

    /// <summary>Before each statement, the folder as it lies there.</summary>
    private sealed class Moments(string folder, string place) : DbCommandInterceptor
    {
        public List<string> Kept { get; } = [];

        private void Keep()
        {
            var to = Path.Combine(place, $"moment-{Kept.Count:000}");
            Directory.CreateDirectory(to);
            foreach (var file in Directory.GetFiles(folder))
            {
                File.Copy(file, Path.Combine(to, Path.GetFileName(file)));
            }
            Kept.Add(to);
        }

        public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<int> result,
            CancellationToken cancellationToken = default
        )
        {
            Keep();
            return ValueTask.FromResult(result);
        }
    }
}
