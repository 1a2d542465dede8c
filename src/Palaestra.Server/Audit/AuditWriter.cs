using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Audit;

namespace Palaestra.Server.Audit;

/// <summary>
/// The one writer of the chain. What is looked at is told to it and goes on at once; it links what it was told, and what was
/// stored with changes, at most a second later. What it could not write, and for how long, is told by an entry of its own.
/// </summary>
public sealed class AuditWriter(
    IServiceScopeFactory scopes,
    Settings settings,
    TimeProvider time,
    ILogger<AuditWriter> log
) : BackgroundService
{
    /// <summary>A record is noted as looked at once per account in so long a time.</summary>
    public static readonly Duration ViewOnce = Duration.FromMinutes(10);

    /// <summary>A link is written at most so long after it was told.</summary>
    private static readonly TimeSpan Beat = TimeSpan.FromMilliseconds(500);

    private const int WaitingMost = 10_000;
    private const int AtOnce = 500;

    private readonly Channel<AuditNote> told = Channel.CreateBounded<AuditNote>(
        new BoundedChannelOptions(WaitingMost) { FullMode = BoundedChannelFullMode.DropWrite }
    );
    private readonly Dictionary<(Guid? Account, string What, Guid? Episode, Guid? Visit), Instant> seen = [];
    private readonly Lock gate = new();
    private Task running = Task.CompletedTask;
    private long lost;
    private Instant? lostSince;

    private Instant Now => Instant.FromDateTimeOffset(time.GetUtcNow());

    /// <summary>Never waits and never fails: where it cannot be kept, that is told later.</summary>
    public void Tell(AuditNote note)
    {
        // A tablet whose sign-in has ended asks again and again.
        var again =
            note.Kind == AuditKind.View
            || note is { Kind: AuditKind.Refusal, AccountId: null, What: not "SignIn" };
        if (again && SeenLately(note))
        {
            return;
        }
        if (!told.Writer.TryWrite(note))
        {
            Lose(1);
        }
    }

    /// <summary>Links everything that was told until now; for whoever reads the audit, and at the end.</summary>
    public Task CaughtUp(CancellationToken gone = default)
    {
        lock (gate)
        {
            running = After(running);
            return running.WaitAsync(gone);
        }
    }

    /// <summary>One after the other: there is one end of the chain.</summary>
    private async Task After(Task before)
    {
        await before.ContinueWith(_ => { }, TaskScheduler.Default);
        while (await Write() == AtOnce) { }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            await Task.Delay(Beat, CancellationToken.None).WaitAsync(stoppingToken);
            await TryCatchUp();
        }
    }

    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        await TryCatchUp();
    }

    private async Task TryCatchUp()
    {
        try
        {
            await CaughtUp();
        }
        catch (ObjectDisposedException)
        {
            // The server ends.
        }
        // Reads and changes go on; what waited here is counted and told when it can be.
        catch (Exception problem) when (problem is not OperationCanceledException)
        {
            log.LogError(problem, "The audit cannot be written.");
        }
    }

    private async Task<int> Write()
    {
        var notes = new List<AuditNote>();
        while (notes.Count < AtOnce && told.Reader.TryRead(out var note))
        {
            notes.Add(note);
        }
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<PalaestraDb>();
            var stored = await db.AuditNotes.OrderBy(n => n.Id).Take(AtOnce).ToListAsync();
            if (notes.Count + stored.Count == 0 && lost == 0)
            {
                return 0;
            }
            await using var whole = await db.Database.BeginTransactionAsync();
            var last = await db
                .Audit.AsNoTracking()
                .OrderByDescending(e => e.Number)
                .Select(e => new AuditHead(e.Chain, e.Number, e.Hash))
                .FirstOrDefaultAsync();
            var missing = Interlocked.Read(ref lost);
            // A restore comes first: what follows it belongs to the new chain.
            var all = stored
                .Concat(notes)
                .OrderBy(n => n.What != AuditChain.Restored)
                .ThenBy(n => n.At)
                .ToList();
            if (missing > 0)
            {
                all.Insert(0, GapOf(missing));
            }
            var episodes = await EpisodesOf(all, db);
            foreach (var note in all)
            {
                var entry = AuditChain.Link(Placed(note, episodes), last);
                db.Audit.Add(entry);
                last = AuditChain.HeadOf(entry);
            }
            db.AuditNotes.RemoveRange(stored);
            await db.SaveChangesAsync();
            await whole.CommitAsync();
            AuditHeads.Put(settings.DataFolder, last!);
            Found(missing);
            return Math.Max(notes.Count, stored.Count);
        }
        catch
        {
            Lose(notes.Count);
            throw;
        }
    }

    private AuditNote GapOf(long missing) =>
        new()
        {
            At = Now,
            Kind = AuditKind.Gap,
            By = "",
            What = "Gap",
            Payload = $$"""{"entries":{{missing}},"since":"{{lostSince}}"}""",
        };

    private static async Task<Dictionary<Guid, Guid>> EpisodesOf(List<AuditNote> notes, PalaestraDb db)
    {
        var visits = notes
            .Where(n => n.Episode is null)
            .Select(n => n.Visit)
            .OfType<Guid>()
            .Distinct()
            .ToList();
        return await db
            .Visits.AsNoTracking()
            .Where(v => visits.Contains(v.Id))
            .ToDictionaryAsync(v => v.Id, v => v.EpisodeId);
    }

    private static AuditNote Placed(AuditNote note, Dictionary<Guid, Guid> episodes) =>
        note.Episode is null && note.Visit is { } visit && episodes.TryGetValue(visit, out var episode)
            ? new()
            {
                At = note.At,
                Kind = note.Kind,
                AccountId = note.AccountId,
                By = note.By,
                What = note.What,
                Person = note.Person,
                Episode = episode,
                Visit = note.Visit,
                Payload = note.Payload,
            }
            : note;

    private bool SeenLately(AuditNote note)
    {
        var key = (note.AccountId, note.What, note.Episode, note.Visit);
        lock (gate)
        {
            if (seen.Count > WaitingMost)
            {
                foreach (
                    var old in seen.Where(s => s.Value <= note.At - ViewOnce).Select(s => s.Key).ToList()
                )
                {
                    seen.Remove(old);
                }
            }
            if (seen.TryGetValue(key, out var last) && last > note.At - ViewOnce)
            {
                return true;
            }
            seen[key] = note.At;
            return false;
        }
    }

    private void Lose(int count)
    {
        if (count == 0)
        {
            return;
        }
        lock (gate)
        {
            lost += count;
            lostSince ??= Now;
        }
    }

    private void Found(long count)
    {
        lock (gate)
        {
            lost -= count;
            lostSince = lost == 0 ? null : lostSince;
        }
    }
}
