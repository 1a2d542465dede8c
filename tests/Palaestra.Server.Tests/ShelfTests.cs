using Microsoft.Data.Sqlite;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Terms;
using Palaestra.Data;
using Palaestra.Data.Amendments;
using Palaestra.Data.Intake;
using Palaestra.Data.Planning;
using Palaestra.Data.Screening;
using Palaestra.Data.Visits;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;

namespace Palaestra.Server.Tests;

/// <summary>What is kept of records that were read lately is never older than the record.</summary>
public sealed class ShelfTests : IDisposable, IAsyncLifetime
{
    private static readonly PracticeLibrary library = LibraryLoader.Load(
        Path.Combine(AppContext.BaseDirectory, "content")
    );

    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-shelf-").FullName;
    private readonly TapShelf taps = new();
    private readonly PlanShelf plans = new();
    private readonly Guid episode = Guid.CreateVersion7();
    private readonly Guid monday = Guid.CreateVersion7();
    private readonly Guid friday = Guid.CreateVersion7();

    public void Dispose()
    {
        taps.Dispose();
        plans.Dispose();
        SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    public async ValueTask InitializeAsync()
    {
        await using var db = Store.Open(folder);
        await Store.Prepare(db, folder, DateTime.Now);
        var client = new Client { Name = "Wenna Sorrel", BirthDate = new(1980, 1, 1) };
        db.Clients.Add(client);
        db.Episodes.Add(
            new Episode
            {
                Id = episode,
                ClientId = client.Id,
                Complaint = "An ache.",
                Precautions = [],
                PolicyId = library.DefaultPolicy.Id,
            }
        );
        db.Visits.Add(new Visit { Id = monday, EpisodeId = episode });
        db.Visits.Add(new Visit { Id = friday, EpisodeId = episode });
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
    }

    [Fact]
    public async Task Taps_are_read_once_and_again_when_there_are_more()
    {
        var trial = await Tap(monday, reps: 2);
        var first = await Read();
        Assert.Equal(3, first[monday].Events.Count);
        Assert.Same(first[monday], (await Read())[monday]);
        await Tap(friday, reps: 1);
        await Tap(monday, reps: 1, trial);
        var then = await Read();
        Assert.Equal((4, 2), (then[monday].Events.Count, then[friday].Events.Count));
    }

    [Fact]
    public async Task Trials_filed_elsewhere_are_seen_there_though_each_visit_has_as_many_taps_as_before()
    {
        var (one, other) = (await Tap(monday, reps: 2), await Tap(friday, reps: 2));
        await Read();
        await Move(one, monday, friday);
        await Move(other, friday, monday);
        var then = await Read();
        Assert.All(then[monday].Events, e => Assert.Equal(other, e.TrialId));
        Assert.All(then[friday].Events, e => Assert.Equal(one, e.TrialId));
    }

    [Fact]
    public async Task What_was_taken_back_before_it_was_stored_is_not_remembered()
    {
        await using (var db = Store.Open(folder))
        {
            await using var never = await db.Database.BeginTransactionAsync(
                TestContext.Current.CancellationToken
            );
            db.Events.AddRange(Taps(monday, 2, Guid.CreateVersion7()));
            db.Plans.Add(PlanOf(1));
            await db.SaveChangesAsync(TestContext.Current.CancellationToken);
            Assert.Equal(3, (await taps.Of([monday], db, library))[monday].Events.Count);
            Assert.Single(await plans.Of(episode, db, library));
            await never.RollbackAsync(TestContext.Current.CancellationToken);
        }
        var trial = await Tap(monday, reps: 2);
        Assert.All((await Read())[monday].Events, e => Assert.Equal(trial, e.TrialId));
        await using var now = Store.Open(folder);
        Assert.Empty(await plans.Of(episode, now, library));
    }

    [Fact]
    public async Task Another_library_reads_anew()
    {
        await Tap(monday, reps: 2);
        var first = (await Read())[monday];
        var other = library with { Version = "another" };
        await using var db = Store.Open(folder);
        var then = (await taps.Of([monday], db, other))[monday];
        Assert.NotSame(first, then);
        Assert.Same(then, (await taps.Of([monday], db, other))[monday]);
    }

    [Fact]
    public async Task Plans_come_in_their_order_the_new_one_too()
    {
        await using var db = Store.Open(folder);
        db.Plans.Add(PlanOf(2));
        db.Plans.Add(PlanOf(1));
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        var first = await plans.Of(episode, db, library);
        db.Plans.Add(PlanOf(3));
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        var then = await plans.Of(episode, db, library);
        Assert.Equal([1, 2, 3], then.Select(p => p.Revision));
        Assert.Same(first[0].Plan, then[0].Plan);
    }

    [Fact]
    public void Pain_the_visit_began_with_is_part_of_what_taps_fold_into()
    {
        var trial = Guid.CreateVersion7();
        var at = DateTimeOffset.UtcNow;
        var visit = new VisitTaps(
            [
                Start(trial, at),
                new PainMarked(Guid.CreateVersion7(), trial, at.AddSeconds(5), PainPhase.Peak, 5),
                new RepDone(Guid.CreateVersion7(), trial, at.AddSeconds(6)),
                new TrialEnded(Guid.CreateVersion7(), trial, at.AddSeconds(9), EndReason.TargetMet),
            ],
            new HashSet<Guid>(),
            library
        );
        var rule = new PainRule(PainRuleKind.NoRise, 5);
        Assert.NotEqual(visit.Trials(rule, 5)[0].PainOverLimit, visit.Trials(rule, 0)[0].PainOverLimit);
        Assert.Same(visit.Trials(rule, 5), visit.Trials(rule, 5));
    }

    private async Task<IReadOnlyDictionary<Guid, VisitTaps>> Read()
    {
        await using var db = Store.Open(folder);
        return await taps.Of([monday, friday], db, library);
    }

    private async Task<Guid> Tap(Guid visit, int reps, Guid? more = null)
    {
        var trial = more ?? Guid.CreateVersion7();
        await using var db = Store.Open(folder);
        db.Events.AddRange(Taps(visit, reps, trial).Skip(more is null ? 0 : 1));
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        return trial;
    }

    private async Task Move(Guid trial, Guid from, Guid to)
    {
        await using var db = Store.Open(folder);
        foreach (var logged in db.Events.Where(e => e.VisitId == from && e.TrialId == trial))
        {
            db.Entry(logged).Property(e => e.VisitId).CurrentValue = to;
        }
        db.TrialMoves.Add(
            new TrialMove
            {
                TrialId = trial,
                VisitId = from,
                ToVisitId = to,
                Reason = "The other visit.",
                By = "Edda Marl",
            }
        );
        await db.SaveChangesAsync(TestContext.Current.CancellationToken);
    }

    private static TrialStarted Start(Guid trial, DateTimeOffset at) =>
        new(
            Guid.CreateVersion7(),
            trial,
            at,
            "B5",
            Side.Left,
            TrialPurpose.Screen,
            library.Rung("B5").Start with
            {
                Sets = 1,
            }
        );

    private static IEnumerable<LoggedEvent> Taps(Guid visit, int reps, Guid trial)
    {
        var at = DateTimeOffset.UtcNow;
        return Enumerable
            .Range(0, reps)
            .Select(CaptureEvent (i) => new RepDone(Guid.CreateVersion7(), trial, at.AddSeconds(i + 1)))
            .Prepend(Start(trial, at))
            .Select(e => new LoggedEvent
            {
                Id = e.Id,
                VisitId = visit,
                TrialId = trial,
                Event = e,
                ReceivedAt = Instant.FromDateTimeOffset(at),
                By = "Edda Marl",
            });
    }

    private PlanRevision PlanOf(int revision) =>
        new()
        {
            EpisodeId = episode,
            VisitId = monday,
            Revision = revision,
            Plan = new Plan(
                [],
                SpinalStrategy.Neutral,
                Activation.Brace,
                library.DefaultPolicy.Id,
                1,
                library.Version,
                15,
                []
            ),
            AcceptedBy = "Edda Marl",
        };
}
