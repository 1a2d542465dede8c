using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Data.Intake;
using Palaestra.Data.Photos;
using Palaestra.Data.Records;
using Palaestra.Exchange.Instruments;
using Palaestra.Exchange.Letters;
using Palaestra.Exchange.Records;
using Palaestra.Exchange.Sheets;
using Palaestra.Server.Clinics;
using Palaestra.Server.Instruments;
using Palaestra.Server.Intake;
using Palaestra.Server.Outcomes;
using Palaestra.Server.People;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Words;

namespace Palaestra.Server.Records;

/// <summary>Packs all that is kept of a client into one file.</summary>
public sealed class RecordsOut(
    PalaestraDb db,
    CaseFiles files,
    TraceStore traces,
    PhotoFiles photos,
    HomeProgrammes programmes,
    LetterComposer composer,
    ClinicWords words,
    ClinicClock clock,
    WhoIsHere who
)
{
    /// <summary>All rows are of one moment.</summary>
    public async Task Write(Client client, Stream to)
    {
        ClientRecord record;
        await using (await db.Look())
        {
            record = await Of(client);
        }
        using var zip = new RecordZipWriter(to, clock.Zone.Tell(record.MadeAt));
        zip.Add(ClientRecord.FileName, JsonSerializer.SerializeToUtf8Bytes(record, RecordJson.Options));
        await AddTraces(record, zip);
        foreach (var photo in record.Photos)
        {
            if (photos.Find(photo.Id) is var (path, _))
            {
                zip.Add(
                    ClientRecord.PhotoName(photo.Id, Path.GetExtension(path)),
                    await File.ReadAllBytesAsync(path)
                );
            }
        }
        await AddDocuments(record, zip);
    }

    public async Task<ClientRecord> Of(Client client)
    {
        var merged = await db.Clients.AsNoTracking().Where(c => c.MergedIntoId == client.Id).ToListAsync();
        Guid[] persons = [client.Id, .. merged.Select(c => c.Id)];
        var episodes = await db
            .Episodes.AsNoTracking()
            .Where(e => persons.Contains(e.ClientId))
            .OrderBy(e => e.OpenedOn)
            .ToListAsync();
        var ids = episodes.Select(e => e.Id).ToList();
        var visits = await db
            .Visits.AsNoTracking()
            .Where(v => ids.Contains(v.EpisodeId))
            .OrderBy(v => v.PlannedAt)
            .ToListAsync();
        var at = visits.Select(v => v.Id).ToList();
        var plans = await db
            .Plans.AsNoTracking()
            .Where(p => ids.Contains(p.EpisodeId))
            .OrderBy(p => p.Revision)
            .ToListAsync();
        var policies = episodes
            .Select(e => e.PolicyId)
            .Concat(plans.Select(p => p.Plan.PolicyId))
            .Distinct()
            .ToList();
        return new(
            ClientRecord.Present,
            Product.Version,
            clock.Now,
            await db.Clinics.Select(c => c.Name).SingleAsync(),
            client,
            merged,
            episodes,
            await db
                .EpisodeMoves.AsNoTracking()
                .Where(m =>
                    ids.Contains(m.EpisodeId)
                    && persons.Contains(m.FromClientId)
                    && persons.Contains(m.ToClientId)
                )
                .ToListAsync(),
            await db.DangerReports.AsNoTracking().Where(r => ids.Contains(r.EpisodeId)).ToListAsync(),
            visits,
            await db.Events.AsNoTracking().Where(e => at.Contains(e.VisitId)).ToListAsync(),
            await db
                .TrialMoves.AsNoTracking()
                .Where(m => at.Contains(m.VisitId) && at.Contains(m.ToVisitId))
                .ToListAsync(),
            plans,
            await db.Decisions.AsNoTracking().Where(d => at.Contains(d.VisitId)).ToListAsync(),
            await DecidedOf(persons),
            await db
                .HomeLog.AsNoTracking()
                .Where(d => ids.Contains(d.EpisodeId))
                .OrderBy(d => d.Day)
                .ToListAsync(),
            await db.Notes.AsNoTracking().Where(n => ids.Contains(n.EpisodeId)).ToListAsync(),
            await db.Charts.AsNoTracking().Where(c => ids.Contains(c.EpisodeId)).ToListAsync(),
            await db.Letters.AsNoTracking().Where(l => at.Contains(l.VisitId)).ToListAsync(),
            await db.Discharges.AsNoTracking().Where(d => ids.Contains(d.EpisodeId)).ToListAsync(),
            await db.Amendments.AsNoTracking().Where(a => ids.Contains(a.EpisodeId)).ToListAsync(),
            await db.Photos.AsNoTracking().Where(p => at.Contains(p.VisitId)).ToListAsync(),
            await db.Traces.AsNoTracking().Where(t => at.Contains(t.VisitId)).ToListAsync(),
            await db
                .Policies.AsNoTracking()
                .Where(p => policies.Contains(p.PolicyId))
                .OrderBy(p => p.Version)
                .ToListAsync(),
            await AuditOf(persons, ids, at)
        );
    }

    /// <summary>As text: read into what the rules take and written again, they would take most of the time.</summary>
    private async Task<IReadOnlyList<DecidedRow>> DecidedOf(Guid[] persons)
    {
        var rows = new List<DecidedRow>();
        foreach (var person in persons)
        {
            rows.AddRange(
                await db
                    .Database.SqlQuery<DecidedRow>(
                        $"""
                        SELECT d."VisitId", d."Input", d."PlanRevisionId", d."PolicyVersion", d."LibraryVersion"
                        FROM "DecidedVisits" d
                        JOIN "Visits" v ON v."Id" = d."VisitId"
                        JOIN "Episodes" e ON e."Id" = v."EpisodeId"
                        WHERE e."ClientId" = {person}
                        """
                    )
                    .ToListAsync()
            );
        }
        return rows;
    }

    /// <summary>What was told elsewhere before, then what was told here.</summary>
    private async Task<IReadOnlyList<RecordAudit>> AuditOf(
        Guid[] persons,
        List<Guid> episodes,
        List<Guid> visits
    )
    {
        var before = await db
            .RecordImports.AsNoTracking()
            .Where(i => persons.Contains(i.ClientId))
            .OrderBy(i => i.At)
            .ToListAsync();
        var here = await db
            .Audit.AsNoTracking()
            .Where(e =>
                e.Person != null && persons.Contains(e.Person.Value)
                || e.Episode != null && episodes.Contains(e.Episode.Value)
                || e.Visit != null && visits.Contains(e.Visit.Value)
            )
            .OrderBy(e => e.Number)
            .ToListAsync();
        return
        [
            .. before.SelectMany(i => i.Audit),
            .. here.Select(e => new RecordAudit(
                e.At,
                $"{e.Kind}",
                e.By,
                e.What,
                e.Episode,
                e.Visit,
                e.Payload
            )),
        ];
    }

    private async Task AddTraces(ClientRecord record, RecordZipWriter zip)
    {
        foreach (var row in record.Traces)
        {
            // One that is damaged stays away; its row tells that there was one.
            if (await traces.Read(row) is { } trace)
            {
                using var text = new StringWriter();
                TraceCsv.Write(text, trace, traces.SetupOf(row.Instrument));
                zip.Add(ClientRecord.TraceName(row.Id), Encoding.UTF8.GetBytes(text.ToString()));
            }
        }
    }

    /// <summary>For whoever opens the file without this program: nothing is read back from them.</summary>
    private async Task AddDocuments(ClientRecord record, RecordZipWriter zip)
    {
        foreach (var episode in record.Episodes)
        {
            if (await files.OfEpisode(episode.Id) is not { } file)
            {
                continue;
            }
            if (!file.Closed && file.CurrentPlan is { Plan.Items.Count: > 0 } plan)
            {
                var sheet = await programmes.Of(file, plan, record: false);
                zip.Add(
                    $"documents/home-programme-{plan.Id}.pdf",
                    SheetPdf.Write(sheet, Paper.A4, large: false, words.Speech)
                );
            }
            foreach (var letter in record.Letters.Where(l => file.Visits.Any(v => v.Id == l.VisitId)))
            {
                var page = await composer.Page(letter.Letter, who.Name, file, letter.VisitId);
                zip.Add($"documents/letter-{letter.VisitId}.pdf", LetterPdf.Write(page, Paper.A4));
            }
        }
    }
}
