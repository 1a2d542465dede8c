using System.Text.Json;
using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Audit;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Audit;

/// <summary>
/// The one writer of the chain. What is looked at is told to it and goes on at once; it links what it was told, and what was
/// stored with changes, at most a second later. What it could not write, and for how long, is told by an entry of its own.
/// </summary>
public sealed class AuditWriter(
    IServiceScopeFactory scopes,
    Settings settings,
    ClinicClock clock,
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
        // Full, it takes no more and says so: what is lost is counted.
        new BoundedChannelOptions(WaitingMost) { FullMode = BoundedChannelFullMode.Wait }
    );
    private readonly Dictionary<(Guid? Account, string What, Guid? Episode, Guid? Visit), Instant> seen = [];
    private readonly Lock gate = new();
    private Task running = Task.CompletedTask;
    private Task? last;
    private long lost;
    private Instant? lostSince;

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
        lock (gate)
        {
            // A host may be told to stop twice, and the second time while the database is being closed.
            last ??= TryCatchUp();
        }
        await last;
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

    /// <returns>How many were linked of either kind, the larger number; there may be more where it is the most.</returns>
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
            var (missing, since) = Lost();
            var most = Math.Max(notes.Count, stored.Count);
            if (most + missing > 0)
            {
                var head = await Link(db, notes, stored, missing > 0 ? GapOf(missing, since) : null);
                // Linked: whatever goes wrong from here on, these are not lost.
                notes.Clear();
                Found(missing);
                AuditHeads.Put(settings.DataFolder, head);
            }
            return most;
        }
        catch
        {
            Lose(notes.Count);
            throw;
        }
    }

    private static async Task<AuditHead> Link(
        PalaestraDb db,
        List<AuditNote> notes,
        List<AuditNote> stored,
        AuditNote? gap
    )
    {
        await using var whole = await db.Database.BeginTransactionAsync();
        var last = await db
            .Audit.AsNoTracking()
            .OrderByDescending(e => e.Number)
            .Select(e => new AuditHead(e.Chain, e.Number, e.Hash))
            .FirstOrDefaultAsync();
        // A restore comes first: what follows it belongs to the new chain.
        var all = stored.Concat(notes).OrderBy(n => n.What != AuditChain.Restored).ThenBy(n => n.At).ToList();
        if (gap is not null)
        {
            all.Insert(0, gap);
        }
        await Place(all, db);
        foreach (var note in all)
        {
            var entry = AuditChain.Link(note, last);
            db.Audit.Add(entry);
            last = AuditChain.HeadOf(entry);
        }
        db.AuditNotes.RemoveRange(stored);
        await db.SaveChangesAsync();
        await whole.CommitAsync();
        return last!;
    }

    private AuditNote GapOf(long missing, Instant? since) =>
        new()
        {
            At = clock.Now,
            Kind = AuditKind.Gap,
            By = "",
            What = "Gap",
            Payload = JsonSerializer.Serialize(new { entries = missing, since = since?.ToDateTimeOffset() }),
        };

    /// <summary>Whose record a visit is of; what waited while a client was erased names nothing of theirs any more.</summary>
    private static async Task Place(List<AuditNote> notes, PalaestraDb db)
    {
        var visits = notes.Select(n => n.Visit).OfType<Guid>().Distinct().ToList();
        var episodesOf = await db
            .Visits.AsNoTracking()
            .Where(v => visits.Contains(v.Id))
            .ToDictionaryAsync(v => v.Id, v => v.EpisodeId);
        var named = notes.Select(n => n.Episode).OfType<Guid>().Distinct().ToList();
        var episodes = await db
            .Episodes.AsNoTracking()
            .Where(e => named.Contains(e.Id))
            .Select(e => e.Id)
            .ToHashSetAsync();
        foreach (var note in notes)
        {
            if (
                note.Visit is { } visit && !episodesOf.ContainsKey(visit)
                || note.Episode is { } episode && !episodes.Contains(episode)
            )
            {
                (note.Visit, note.Episode, note.Person, note.Payload) = (null, null, null, null);
            }
            note.Episode ??= note.Visit is { } known ? episodesOf[known] : null;
        }
    }

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

    private (long Count, Instant? Since) Lost()
    {
        lock (gate)
        {
            return (lost, lostSince);
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
            lostSince ??= clock.Now;
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
