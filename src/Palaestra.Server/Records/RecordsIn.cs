using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Data.Keeping;
using Palaestra.Data.Photos;
using Palaestra.Data.Progression;
using Palaestra.Data.Records;
using Palaestra.Data.Traces;
using Palaestra.Exchange.Instruments;
using Palaestra.Exchange.Records;
using Palaestra.Server.Clients;
using Palaestra.Server.Clinics;
using Palaestra.Server.Instruments;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Policies;
using Palaestra.Server.Problems;
using Palaestra.Server.Screening;
using Palaestra.Server.Words;

namespace Palaestra.Server.Records;

/// <param name="What">A part of the record, as its file names it.</param>
/// <param name="Came">Rows that were written. <paramref name="There"/>: were here already.</param>
public sealed record RecordPart(string What, int Came, int There);

/// <summary>What came with a record.</summary>
/// <param name="Fresh">The client was not here before.</param>
/// <param name="From">Name of the clinic that made the file; empty: it had none.</param>
/// <param name="Files">Pictures and traces that were kept.</param>
/// <param name="Missing">Pictures and traces that the record tells of and the file does not hold.</param>
/// <param name="Alike">Somebody who may be the same person.</param>
public sealed record RecordTaken(
    Guid ClientId,
    string Name,
    string Number,
    bool Fresh,
    string From,
    Instant MadeAt,
    IReadOnlyList<RecordPart> Parts,
    int Files,
    int Missing,
    IReadOnlyList<AlikeClient> Alike
);

/// <summary>
/// Takes in a record that was made as a file, here or in another clinic: under ids of its own where the client is not known here,
/// else what is not here yet. All of it, or nothing.
/// </summary>
public sealed class RecordsIn(
    PalaestraDb db,
    PracticeLibrary library,
    CaseFiles files,
    TraceStore traces,
    TraceFiles traceFiles,
    PhotoFiles photoFiles,
    ClinicPolicies clinicPolicies,
    PolicyLibrary policyLibrary,
    ClientSearch search,
    ClinicWords words,
    ClinicClock clock,
    WhoIsHere who,
    Settings settings,
    TapQueue queue,
    TapShelf taps,
    PlanShelf plans
)
{
    /// <summary>What is written at once; the store keeps no more of it in memory.</summary>
    private const int Batch = 2000;

    private readonly List<RecordPart> parts = [];
    private readonly List<string> written = [];

    /// <param name="from">Can be sought in.</param>
    public async Task<Checked<RecordTaken>> Take(Stream from)
    {
        var opened = RecordZip.Open(from);
        if (opened.Value is not { } zip)
        {
            return Checked<RecordTaken>.Bad(opened.Errors);
        }
        using (zip)
        {
            if (zip.Read(ClientRecord.FileName) is not { } bytes)
            {
                return Bad(Message.Of("record.foreign"));
            }
            try
            {
                return await Take(zip, bytes);
            }
            catch (JsonException unread)
            {
                return Bad(Message.Of("record.unread", ("at", unread.Path ?? "$")));
            }
        }
    }

    private async Task<Checked<RecordTaken>> Take(RecordZip zip, byte[] json)
    {
        var told = JsonSerializer.Deserialize<Head>(json, RecordJson.Options)!;
        if (told.Format > ClientRecord.Present)
        {
            return Bad(Message.Of("record.newer"));
        }
        var names = await NamesFor(told.Client.Id);
        var origin = words.Say(
            told.From.Length > 0
                ? Message.Of("record.imported-from", ("clinic", told.From))
                : Message.Of("record.imported")
        );
        names.In(json);
        var record = JsonSerializer.Deserialize<ClientRecord>(json, RecordJson.Imported(origin))!;
        if (RecordCheck.Fault(record, library) is { } fault)
        {
            return Bad(fault);
        }
        if (record.Policies.SelectMany(p => clinicPolicies.Errors(p.Policy)).FirstOrDefault() is { } wrong)
        {
            return Bad(Message.Of("record.impossible", ("field", wrong.Field), ("said", wrong.Message)));
        }
        var alike = await search.Alike(
            record.Client.Name,
            record.Client.BirthDate,
            record.Client.Phone,
            record.Client.Id
        );
        Checked<RecordTaken>? taken = null;
        await queue.Write(async () => taken = await Write(zip, record, names, alike));
        return taken!;
    }

    /// <summary>As much as is needed to know whose it is.</summary>
    private sealed record Head(int Format, string From, HeadClient Client);

    private sealed record HeadClient(Guid Id);

    /// <summary>Under the ids it has where the client is here; else under its own, and others after each erasure.</summary>
    private async Task<RecordNames> NamesFor(Guid client)
    {
        if (await db.Clients.AnyAsync(c => c.Id == client))
        {
            return new(null);
        }
        var erased = Erasure.Listed(settings.BackupFolder).Select(entry => entry.Client).ToHashSet();
        var turn = 0;
        while (erased.Contains(new RecordNames(turn).Of(client)))
        {
            turn++;
        }
        return new(turn);
    }

    private async Task<Checked<RecordTaken>> Write(
        RecordZip zip,
        ClientRecord record,
        RecordNames names,
        IReadOnlyList<AlikeClient> alike
    )
    {
        // Rows are added and nothing else: looked over for changes, each would be written as JSON several times.
        db.ChangeTracker.AutoDetectChangesEnabled = false;
        try
        {
            await using var whole = await db.Database.BeginTransactionAsync();
            if (await WentOtherwise(record))
            {
                return Bad(Message.Of("record.went-on"));
            }
            var fresh = !await db.Clients.AnyAsync(c => c.Id == record.Client.Id);
            var came = await Rows(record);
            var (kept, missing) = await Files(zip, record, names, came);
            if (parts.Any(part => part.Came > 0))
            {
                db.RecordImports.Add(
                    new()
                    {
                        ClientId = record.Client.Id,
                        From = record.From,
                        MadeAt = record.MadeAt,
                        At = clock.Now,
                        By = who.Name,
                        AccountId = who.AccountId,
                        Audit = fresh ? record.Audit : [],
                    }
                );
                await db.SaveChangesAsync();
            }
            db.ChangeTracker.Clear();
            if (await CannotBeOpened(record))
            {
                TakeBack();
                return Bad(Message.Of("record.not-opened"));
            }
            db.ChangeTracker.Clear();
            await whole.CommitAsync();
            if (record.Policies.Count > 0)
            {
                policyLibrary.Put(await clinicPolicies.Revisions());
            }
            var client = await db.Clients.AsNoTracking().SingleAsync(c => c.Id == record.Client.Id);
            return Checked<RecordTaken>.Good(
                new(
                    client.Id,
                    client.Name,
                    client.Number,
                    fresh,
                    record.From,
                    record.MadeAt,
                    parts,
                    kept,
                    missing,
                    fresh ? alike : []
                )
            );
        }
        catch (DbUpdateException problem) when (!Keeping.StoreFault.Is(problem))
        {
            // An id in it is that of something else here.
            TakeBack();
            return Bad(Message.Of("record.went-on"));
        }
        catch
        {
            TakeBack();
            throw;
        }
    }

    /// <summary>Nothing is stored: neither do its files stay.</summary>
    private void TakeBack()
    {
        written.ForEach(File.Delete);
        taps.Clear();
        plans.Clear();
    }

    /// <summary>What stands here under these ids belongs to somebody else by now, or another plan took the place of one in the file.</summary>
    private async Task<bool> WentOtherwise(ClientRecord record)
    {
        Guid[] persons = [record.Client.Id, .. record.Merged.Select(c => c.Id)];
        var episodes = record.Episodes.Select(e => e.Id).ToList();
        var visits = record.Visits.ToDictionary(v => v.Id, v => v.EpisodeId);
        var ids = visits.Keys.ToList();
        var stand = await db
            .Visits.Where(v => ids.Contains(v.Id))
            .Select(v => new { v.Id, v.EpisodeId })
            .ToListAsync();
        var revisions = record.Plans.ToDictionary(p => (p.EpisodeId, p.Revision), p => p.Id);
        var accepted = await db
            .Plans.Where(p => episodes.Contains(p.EpisodeId))
            .Select(p => new
            {
                p.Id,
                p.EpisodeId,
                p.Revision,
            })
            .ToListAsync();
        return await db.Clients.AnyAsync(c =>
                persons.Contains(c.Id) && c.MergedIntoId != null && c.MergedIntoId != record.Client.Id
            )
            || await db.Episodes.AnyAsync(e => episodes.Contains(e.Id) && !persons.Contains(e.ClientId))
            || stand.Any(v => visits[v.Id] != v.EpisodeId)
            || accepted.Any(p => revisions.TryGetValue((p.EpisodeId, p.Revision), out var id) && id != p.Id);
    }

    /// <returns>Trials of which something was written.</returns>
    private async Task<IReadOnlySet<Guid>> Rows(ClientRecord record)
    {
        var episodes = record.Episodes.Select(e => e.Id).ToList();
        var visits = record.Visits.Select(v => v.Id).ToList();
        await Policies(record);
        foreach (var client in record.Merged.Prepend(record.Client))
        {
            // Who is in charge there is nobody here, and a number is a clinic's own.
            client.InChargeId = null;
            if (await db.Clients.AnyAsync(c => c.Number == client.Number))
            {
                client.Number = "";
            }
        }
        record.Visits.ToList().ForEach(visit => visit.WithId = null);
        // The client agreed that their colleagues there rate it, not those here.
        record.Episodes.ToList().ForEach(episode => episode.PracticeConsent = null);
        Guid[] persons = [record.Client.Id, .. record.Merged.Select(c => c.Id)];
        await Put(
            "client",
            record.Merged.Prepend(record.Client),
            c => c.Id,
            db.Clients.Where(c => persons.Contains(c.Id)).Select(c => c.Id)
        );
        await Put(
            "episodes",
            record.Episodes,
            e => e.Id,
            db.Episodes.Where(e => episodes.Contains(e.Id)).Select(e => e.Id)
        );
        await Put(
            "visits",
            record.Visits,
            v => v.Id,
            db.Visits.Where(v => episodes.Contains(v.EpisodeId)).Select(v => v.Id)
        );
        await Put(
            "episodeMoves",
            record.EpisodeMoves,
            m => m.Id,
            db.EpisodeMoves.Where(m => episodes.Contains(m.EpisodeId)).Select(m => m.Id)
        );
        await Put(
            "dangerReports",
            record.DangerReports,
            r => r.Id,
            db.DangerReports.Where(r => episodes.Contains(r.EpisodeId)).Select(r => r.Id)
        );
        var events = await Put(
            "events",
            record.Events,
            e => e.Id,
            db.Events.Where(e => visits.Contains(e.VisitId)).Select(e => e.Id)
        );
        await Put(
            "trialMoves",
            record.TrialMoves,
            m => m.Id,
            db.TrialMoves.Where(m => visits.Contains(m.VisitId)).Select(m => m.Id)
        );
        await Put(
            "plans",
            record.Plans,
            p => p.Id,
            db.Plans.Where(p => episodes.Contains(p.EpisodeId)).Select(p => p.Id)
        );
        await Put(
            "decisions",
            record.Decisions,
            d => d.Id,
            db.Decisions.Where(d => visits.Contains(d.VisitId)).Select(d => d.Id)
        );
        var decided = (
            await db.DecidedVisits.Where(d => visits.Contains(d.VisitId)).Select(d => d.VisitId).ToListAsync()
        ).ToHashSet();
        await Put(
            "decidedVisits",
            record.DecidedVisits.Where(d => !decided.Contains(d.VisitId)).Select(Decided),
            d => d.VisitId,
            null,
            record.DecidedVisits.Count
        );
        var days = await db
            .HomeLog.Where(d => episodes.Contains(d.EpisodeId))
            .Select(d => new { d.EpisodeId, d.Day })
            .ToListAsync();
        await Put(
            "homeLog",
            record.HomeLog.Where(d => !days.Contains(new { d.EpisodeId, d.Day })),
            d => d.Id,
            null,
            record.HomeLog.Count
        );
        await Put(
            "notes",
            record.Notes,
            n => n.VisitId,
            db.Notes.Where(n => episodes.Contains(n.EpisodeId)).Select(n => n.VisitId)
        );
        await Put(
            "charts",
            record.Charts,
            c => c.VisitId,
            db.Charts.Where(c => episodes.Contains(c.EpisodeId)).Select(c => c.VisitId)
        );
        await Put(
            "letters",
            record.Letters,
            l => l.VisitId,
            db.Letters.Where(l => visits.Contains(l.VisitId)).Select(l => l.VisitId)
        );
        await Put(
            "discharges",
            record.Discharges,
            d => d.Id,
            db.Discharges.Where(d => episodes.Contains(d.EpisodeId)).Select(d => d.Id)
        );
        await Put(
            "amendments",
            record.Amendments,
            a => a.Id,
            db.Amendments.Where(a => episodes.Contains(a.EpisodeId)).Select(a => a.Id)
        );
        return events.Select(e => e.TrialId).ToHashSet();
    }

    /// <exception cref="JsonException">Its input is none, or has nothing where something must be.</exception>
    private static DecidedVisit Decided(DecidedRow row)
    {
        var decided = row.Visit();
        return NullMembers.Errors(decided.Input, "input", 0).FirstOrDefault() is { } empty
            ? throw new JsonException(null, $"$.decidedVisits.{empty.Field}", null, null)
            : decided;
    }

    /// <summary>The clinic's own rules that the record followed, where they are not here.</summary>
    private async Task Policies(ClientRecord record)
    {
        var ids = record.Policies.Select(p => p.PolicyId).Distinct().ToList();
        var known = await db
            .Policies.Where(p => ids.Contains(p.PolicyId))
            .Select(p => p.PolicyId)
            .ToListAsync();
        await Put(
            "policies",
            record.Policies.Where(p => !known.Contains(p.PolicyId)),
            p => p.Id,
            null,
            record.Policies.Count
        );
    }

    private async Task<IReadOnlyList<T>> Put<T>(
        string what,
        IEnumerable<T> rows,
        Func<T, Guid> key,
        IQueryable<Guid>? there,
        int? all = null
    )
        where T : class
    {
        var known = there is null ? [] : (await there.ToListAsync()).ToHashSet();
        var told = rows.ToList();
        var fresh = told.Where(row => known.Add(key(row))).ToList();
        foreach (var some in fresh.Chunk(Batch))
        {
            db.AddRange(some.AsEnumerable<object>());
            await db.SaveChangesAsync();
            db.ChangeTracker.Clear();
        }
        parts.Add(new(what, fresh.Count, (all ?? told.Count) - fresh.Count));
        return fresh;
    }

    /// <summary>Pictures and samples of trials that came; one that was taken away here does not come back.</summary>
    private async Task<(int Kept, int Missing)> Files(
        RecordZip zip,
        ClientRecord record,
        RecordNames names,
        IReadOnlySet<Guid> trials
    )
    {
        var old = zip.Names.DistinctBy(NewName).ToDictionary(NewName, name => name);
        var (kept, missing) = (0, 0);
        var photos = record.Photos.Where(p => trials.Contains(p.TrialId)).ToList();
        foreach (var photo in photos.Where(p => p.RemovedAt is null))
        {
            var name = PhotoFiles
                .Endings.Select(e => ClientRecord.PhotoName(photo.Id, e))
                .FirstOrDefault(old.ContainsKey);
            if (name is not null && PlainPicture.Of(zip.Read(old[name])!) is { } plain)
            {
                written.Add(await photoFiles.Put(photo.Id, plain));
                kept++;
            }
            else
            {
                missing++;
            }
        }
        await Put("photos", photos, p => p.Id, null, record.Photos.Count);
        var rows = new List<StoredTrace>();
        foreach (var row in record.Traces.Where(t => trials.Contains(t.TrialId)))
        {
            if (
                old.TryGetValue(ClientRecord.TraceName(row.Id), out var csv)
                && ReadTrace(zip.Read(csv)!, row) is { } trace
            )
            {
                var hash = await traceFiles.Write(
                    row.Id,
                    trace,
                    traces.SetupOf(row.Instrument).Channels.Count
                );
                written.Add(traceFiles.PathOf(row.Id));
                rows.Add(row.With(trace.Samples.Count, hash));
                kept++;
            }
            else
            {
                missing++;
            }
        }
        await Put("traces", rows, t => t.Id, null, record.Traces.Count);
        return (kept, missing);

        string NewName(string name) =>
            Guid.TryParse(Path.GetFileNameWithoutExtension(name), out var id)
                ? $"{Path.GetDirectoryName(name)}/{names.Of(id)}{Path.GetExtension(name)}"
                : name;
    }

    private Core.Signals.Trace? ReadTrace(byte[] csv, StoredTrace row) =>
        TraceReader.Read(new TraceText(csv), [traces.SetupOf(row.Instrument)], row.StartedAt).Value;

    /// <summary>Every episode is read and shown once before anything is stored for good.</summary>
    private async Task<bool> CannotBeOpened(ClientRecord record)
    {
        try
        {
            foreach (var episode in record.Episodes)
            {
                var file = (await files.OfEpisode(episode.Id))!;
                EpisodeView.Of(file, library, clock.Today);
            }
            return false;
        }
        // Whatever a record does to the rules that read it, it is the record's fault and told as that.
        catch (Exception problem) when (!Keeping.StoreFault.Is(problem))
        {
            return true;
        }
    }

    private static Checked<RecordTaken> Bad(Message message) =>
        Checked<RecordTaken>.Bad(new FieldError("file", message));
}
