using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Microsoft.Extensions.DependencyInjection;
using Palaestra.Core.Capture;
using Palaestra.Data;
using Palaestra.Data.Day;
using Palaestra.Server.Amendments;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Policies;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>A tap touches its trial and nothing else, however long the record is.</summary>
public sealed class TapTests(OneServer one) : IClassFixture<OneServer>
{
    private sealed class Counting : DbCommandInterceptor
    {
        public List<string> Statements { get; } = [];

        public override ValueTask<InterceptionResult<DbDataReader>> ReaderExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<DbDataReader> result,
            CancellationToken cancellationToken = default
        )
        {
            Statements.Add(command.CommandText);
            return ValueTask.FromResult(result);
        }

        public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
            DbCommand command,
            CommandEventData eventData,
            InterceptionResult<int> result,
            CancellationToken cancellationToken = default
        )
        {
            Statements.Add(command.CommandText);
            return ValueTask.FromResult(result);
        }
    }

    private PalaestraDb Open(params IInterceptor[] between) =>
        new(
            new DbContextOptionsBuilder<PalaestraDb>()
                .UseSqlite(Store.ConnectionString(one.Running.Folder))
                .AddInterceptors(between)
                .Options
        );

    private async Task<IReadOnlyList<string>> Tap(Guid visitId, params CaptureEvent[] events)
    {
        var counting = new Counting();
        await using var db = Open(new StandingMarks(), counting);
        var library = one.Running.Services.GetRequiredService<PolicyLibrary>().Library;
        var clock = one.Running.Services.GetRequiredService<ClinicClock>();
        using var queue = new TapQueue();
        using var taps = new TapShelf();
        using var plans = new PlanShelf();
        var author = one.Running.Services.CreateScope().ServiceProvider.GetRequiredService<Author>();
        var log = new EventLog(
            db,
            library,
            clock,
            new CaseFiles(db, library, clock, taps, plans),
            queue,
            new TrialMoves(db, author)
        );
        var taken = await log.Append(visitId, events, "Edda Marl");
        Assert.Equal(events.Length, taken?.Value?.Stored);
        return counting.Statements;
    }

    /// <summary>One statement to read; the event and the mark of its episode to write.</summary>
    [Fact]
    public async Task It_asks_as_little_on_the_thousandth_as_on_the_first()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var library = one.Running.Services.GetRequiredService<PolicyLibrary>().Library;
        var rung = library.Rung("B5");
        // The first event marks the episode as changed; that mark is there from then on.
        var start = clinic.Trial(rung, Side.Left, rung.Start, 1, 0)[..1];
        await Tap(opened.VisitId, [.. start]);
        var trial = start[0].TrialId;
        CaptureEvent Rep() => new RepDone(Guid.CreateVersion7(), trial, start[0].At.AddSeconds(5));
        var early = await Tap(opened.VisitId, Rep());
        Assert.True(early.Count <= 3, string.Join("\n\n", early));
        Assert.Single(
            early,
            statement => statement.TrimStart().StartsWith("SELECT", StringComparison.Ordinal)
        );
        for (var i = 0; i < 8; i++)
        {
            await Tap(
                opened.VisitId,
                [.. Enumerable.Range(0, 16).SelectMany(_ => clinic.Trial(rung, Side.Left, rung.Start, 5, 0))]
            );
        }
        var late = await Tap(opened.VisitId, Rep());
        Assert.Equal(early.Count, late.Count);
    }

    /// <summary>
    /// Somebody looks through the record between the reading and the writing of a tap and takes the mark away: the tap, which that look
    /// did not see, marks it anew. Pain that was just told would stay off the day's list otherwise.
    /// </summary>
    [Fact]
    public async Task Its_mark_outlives_a_look_at_the_record_meanwhile()
    {
        var browser = await one.Running.SignedIn();
        var opened = await new Clinic(browser).NewClient();
        await using var tapping = Open(new StandingMarks());
        var standing = await tapping.Standings.SingleAsync(s => s.EpisodeId == opened.EpisodeId);
        standing.Stale = true;
        await tapping.SaveChangesAsync();
        await using (var looking = Open())
        {
            await looking.Standings.ExecuteUpdateAsync(set => set.SetProperty(s => s.Stale, false));
        }
        var (trial, at) = (Guid.CreateVersion7(), DateTimeOffset.UtcNow);
        tapping.Events.Add(
            new()
            {
                Id = trial,
                VisitId = opened.VisitId,
                TrialId = trial,
                Kind = CaptureKind.PainMarked,
                Event = new PainMarked(trial, trial, at, PainPhase.Peak, 8),
                By = "Edda Marl",
            }
        );
        await tapping.SaveChangesAsync();
        await using var after = Open();
        Assert.True((await after.Standings.SingleAsync(s => s.EpisodeId == opened.EpisodeId)).Stale);
    }

    /// <summary>What is undone is looked for by its id, so that one of another trial is told as such.</summary>
    [Fact]
    public async Task What_is_undone_in_another_trial_is_refused_by_name()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var rung = one.Running.Services.GetRequiredService<PolicyLibrary>().Library.Rung("B5");
        var (mine, other) = (
            clinic.Trial(rung, Side.Left, rung.Start, 1, 0),
            clinic.Trial(rung, Side.Right, rung.Start, 1, 0)
        );
        await Tap(opened.VisitId, [.. mine, .. other]);
        using var answer = await clinic.Send(
            opened.VisitId,
            [new Undone(Guid.CreateVersion7(), mine[0].TrialId, mine[^1].At, other[^1].Id)]
        );
        Assert.Equal(System.Net.HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains(
            "events[0].undoes",
            await answer.Content.ReadAsStringAsync(),
            StringComparison.Ordinal
        );
    }
}
