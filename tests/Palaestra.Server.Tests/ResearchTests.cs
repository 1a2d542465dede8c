using System.Globalization;
using System.IO.Compression;
using CsvHelper;
using Microsoft.EntityFrameworkCore;
using Palaestra.Data;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The clinic's work for whoever counts it, and nothing that says whose it is.</summary>
public sealed class ResearchTests : IClassFixture<DemoServer>
{
    private readonly DemoServer demo;

    public ResearchTests(DemoServer demo) => this.demo = demo;

    private static Dictionary<string, List<IDictionary<string, object>>> Tables(byte[] file)
    {
        using var zip = new ZipArchive(new MemoryStream(file));
        return zip.Entries.ToDictionary(
            entry => entry.Name,
            entry =>
            {
                using var text = new StreamReader(entry.Open());
                using var csv = new CsvReader(text, CultureInfo.InvariantCulture);
                return csv.GetRecords<dynamic>().Select(row => (IDictionary<string, object>)row).ToList();
            }
        );
    }

    [Fact]
    public async Task A_row_a_trial_a_set_a_decision_and_every_column_explained()
    {
        var browser = await demo.SignedIn();
        var tables = Tables(await browser.GetByteArrayAsync(new Uri("/api/research.zip", UriKind.Relative)));
        Assert.Equal(
            ["codebook.csv", "decisions.csv", "sets.csv", "trials.csv"],
            tables.Keys.Order(StringComparer.Ordinal)
        );
        await using var db = Store.Open(demo.Running.Folder);
        Assert.Equal(await db.Decisions.CountAsync(), tables["decisions.csv"].Count);
        Assert.NotEmpty(tables["sets.csv"]);
        Assert.NotEmpty(tables["trials.csv"]);
        var explained = tables["codebook.csv"].Select(row => (string)row["column"]).ToList();
        Assert.Equal(explained.Distinct(), explained);
        var columns = tables.Where(t => t.Key != "codebook.csv").SelectMany(t => t.Value[0].Keys).Distinct();
        Assert.Equal(columns.Order(StringComparer.Ordinal), explained.Order(StringComparer.Ordinal));
        // Clean work is never more than was done.
        Assert.All(
            tables["sets.csv"],
            row =>
                Assert.InRange(
                    int.Parse((string)row["clean_reps"], CultureInfo.InvariantCulture),
                    0,
                    int.Parse((string)row["reps"], CultureInfo.InvariantCulture)
                )
        );
    }

    [Fact]
    public async Task Nobody_can_be_told_from_it_and_two_exports_do_not_number_alike()
    {
        var browser = await demo.SignedIn();
        var file = await browser.GetByteArrayAsync(new Uri("/api/research.zip", UriKind.Relative));
        await using var db = Store.Open(demo.Running.Folder);
        var told = await db.Clients.Select(c => c.Name).ToListAsync();
        told.AddRange(await db.Users.Select(u => u.DisplayName).ToListAsync());
        told.AddRange(await db.Clients.Select(c => c.Number).ToListAsync());
        var cells = Tables(file)
            .SelectMany(t => t.Value)
            .SelectMany(row => row.Values)
            .Select(cell => (string)cell)
            .ToHashSet();
        Assert.DoesNotContain(told, cells.Contains);
        Assert.DoesNotContain(
            cells,
            cell =>
                Guid.TryParse(cell, out _) || DateTime.TryParseExact(cell, "yyyy-MM-dd", null, default, out _)
        );
        var orders = new HashSet<string>();
        for (var i = 0; i < 5; i++)
        {
            var rows = Tables(
                await browser.GetByteArrayAsync(new Uri("/api/research.zip", UriKind.Relative))
            )["decisions.csv"];
            orders.Add(string.Join(' ', rows.Select(row => (string)row["rung"])));
        }
        Assert.True(orders.Count > 1);
    }
}
