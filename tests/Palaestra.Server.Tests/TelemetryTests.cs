using System.Collections.Concurrent;
using System.Net;
using System.Text;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.Logging;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Measures and traces reach a collector that is named, a log is written in files, and neither holds who was treated.</summary>
public sealed class TelemetryTests
{
    private const string Name = "Quennel Ashgrove";

    [Fact]
    public async Task A_collector_gets_measures_and_traces_without_names_or_keys()
    {
        var told = new ConcurrentBag<(string Path, string Body)>();
        var builder = WebApplication.CreateSlimBuilder();
        builder.WebHost.UseKestrel().UseUrls("http://127.0.0.1:0");
        builder.Logging.ClearProviders();
        await using var collector = builder.Build();
        collector.Run(async context =>
        {
            using var body = new MemoryStream();
            await context.Request.Body.CopyToAsync(body);
            told.Add((context.Request.Path, Encoding.Latin1.GetString(body.ToArray())));
        });
        await collector.StartAsync();
        string key;
        using (var server = new RunningServer(collector: collector.Urls.First()))
        {
            var browser = await server.SignedIn();
            var clinic = new Clinic(browser);
            var opened = await clinic.NewClient(Clinic.Form() with { Name = Name });
            await clinic.Screen(opened.VisitId, 3, 3);
            await clinic.AcceptProposal(opened);
            await browser.GetAsync($"/api/clients?words={Uri.EscapeDataString(Name)}");
            var feed = await browser
                .Post($"/api/episodes/{opened.EpisodeId}/feed", new { })
                .Ok<Server.TakeHome.FeedView>();
            key = feed.Path.Split('/')[^1].Split('.')[0];
            Assert.Equal(HttpStatusCode.OK, (await browser.GetAsync(feed.Path)).StatusCode);
        }
        Assert.Contains(
            told,
            t => t.Path == "/v1/traces" && t.Body.Contains("/api/clients", StringComparison.Ordinal)
        );
        Assert.Contains(
            told,
            t =>
                t.Path == "/v1/metrics"
                && t.Body.Contains("http.server.request.duration", StringComparison.Ordinal)
        );
        foreach (var word in new[] { "Quennel", "Ashgrove", key })
        {
            Assert.DoesNotContain(told, t => t.Body.Contains(word, StringComparison.Ordinal));
        }
    }

    [Fact]
    public async Task What_goes_wrong_stands_in_the_log_of_the_day_without_names()
    {
        using var server = new RunningServer();
        var browser = await server.SignedIn();
        await new Clinic(browser).NewClient(Clinic.Form() with { Name = Name });
        // Started later in the same process, it keeps a log of its own.
        using var other = new RunningServer();
        await other.SignedIn();
        // A file where the folder for backups should be.
        await File.WriteAllTextAsync($"{server.Folder}-backups", "");
        try
        {
            var answer = await browser.Post("/api/backups", new { });
            Assert.Equal(HttpStatusCode.InsufficientStorage, answer.StatusCode);
        }
        finally
        {
            File.Delete($"{server.Folder}-backups");
        }
        var log = Assert.Single(Directory.GetFiles(Path.Combine(server.Folder, "logs")));
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(log));
        await using var reading = new FileStream(log, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        var text = await new StreamReader(reading).ReadToEndAsync();
        Assert.Contains("backup", text);
        Assert.DoesNotContain("Quennel", text);
    }
}
