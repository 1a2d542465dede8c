using System.Diagnostics;
using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;

namespace Palaestra.Bench;

/// <summary>Reads the record of the client who came most often: as the server does for each answer, and the same rows bare.</summary>
internal static class LongRecord
{
    private const int Runs = 30;

    public static async Task Measure(string folder, PracticeLibrary library)
    {
        await using var store = Store.Open(folder);
        var (episodeId, visits) = store
            .Visits.GroupBy(v => v.EpisodeId)
            .Select(g => new { g.Key, Count = g.Count() })
            .OrderByDescending(g => g.Count)
            .AsEnumerable()
            .Select(g => (g.Key, g.Count))
            .First();
        var clock = new ClinicClock(TimeProvider.System);
        await clock.Read(store);

        await using var bare = new SqliteConnection(Store.ConnectionString(folder));
        await bare.OpenAsync();
        var (rows, characters) = Rows(bare, episodeId);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"\nOne record of {visits} visits: {rows} rows, {characters / 1e6:0.0} million characters."
            )
        );
        Console.WriteLine("| one long record, read | median, ms | 95th percentile, ms | runs |");
        Console.WriteLine("|---|---|---|---|");
        await Row(
            "all its rows, bare",
            () =>
            {
                Rows(bare, episodeId);
                return Task.CompletedTask;
            }
        );
        using var keptTaps = new TapShelf();
        using var keptPlans = new PlanShelf();
        await Row(
            "the same as the case that the rules see, first time",
            async () =>
            {
                await using var db = Store.Open(folder);
                using var taps = new TapShelf();
                using var plans = new PlanShelf();
                _ = await new CaseFiles(db, library, clock, taps, plans).OfEpisode(episodeId);
            }
        );
        await Row(
            "the case again, every trial of it folded",
            async () =>
            {
                await using var db = Store.Open(folder);
                var file = (
                    await new CaseFiles(db, library, clock, keptTaps, keptPlans).OfEpisode(episodeId)
                )!;
                foreach (var visit in file.Visits)
                {
                    _ = file.Trials(visit.Id);
                }
            }
        );
    }

    /// <summary>Every column of the tables that a case is made of, without any mapping.</summary>
    private static (int Rows, long Characters) Rows(SqliteConnection connection, Guid episode)
    {
        string[] queries =
        [
            "SELECT c.* FROM Clients c JOIN Episodes e ON e.ClientId = c.Id WHERE e.Id = $id",
            "SELECT * FROM Episodes WHERE Id = $id",
            "SELECT * FROM DangerReports WHERE EpisodeId = $id",
            "SELECT * FROM Visits WHERE EpisodeId = $id",
            "SELECT * FROM Events WHERE VisitId IN (SELECT Id FROM Visits WHERE EpisodeId = $id)",
            "SELECT * FROM Plans WHERE EpisodeId = $id",
            "SELECT * FROM HomeLog WHERE EpisodeId = $id",
            "SELECT * FROM Charts WHERE EpisodeId = $id",
            "SELECT VisitId FROM Notes WHERE EpisodeId = $id",
        ];
        var (rows, characters) = (0, 0L);
        foreach (var query in queries)
        {
            using var command = connection.CreateCommand();
            command.CommandText = query;
            command.Parameters.AddWithValue("$id", episode);
            using var reader = command.ExecuteReader();
            while (reader.Read())
            {
                rows++;
                for (var i = 0; i < reader.FieldCount; i++)
                {
                    characters += reader.GetValue(i) is string text ? text.Length : 0;
                }
            }
        }
        return (rows, characters);
    }

    private static async Task Row(string what, Func<Task> work)
    {
        for (var i = 0; i < 10; i++)
        {
            await work();
        }
        var times = new double[Runs];
        for (var i = 0; i < Runs; i++)
        {
            GC.Collect();
            var watch = Stopwatch.StartNew();
            await work();
            times[i] = watch.Elapsed.TotalMilliseconds;
        }
        Array.Sort(times);
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"| {what} | {times[Runs / 2]:0.0#} | {times[(int)(Runs * 0.95)]:0.0#} | {Runs} |"
            )
        );
    }
}
