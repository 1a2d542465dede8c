using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Intake;

/// <summary>Fetches case files from the store.</summary>
public sealed class CaseFiles(
    PalaestraDb db,
    PracticeLibrary library,
    ClinicClock clock,
    TapShelf taps,
    PlanShelf plans
)
{
    public async Task<CaseFile?> OfEpisode(Guid id)
    {
        var episode = await db
            .Episodes.Include(e => e.Client)
            .Include(e => e.DangerReports)
            .Include(e => e.Visits)
            .AsSplitQuery()
            .FirstOrDefaultAsync(e => e.Id == id);
        if (episode is null)
        {
            return null;
        }
        var visitIds = episode.Visits.Select(v => v.Id).ToList();
        var tapped = await taps.Of(visitIds, db, library);
        var accepted = await plans.Of(id, db, library);
        var home = await db
            .HomeLog.AsNoTracking()
            .Where(d => d.EpisodeId == id)
            .OrderBy(d => d.Day)
            .Select(d => d.Log)
            .ToListAsync();
        return new CaseFile(
            episode,
            tapped,
            accepted,
            library,
            clock.Zone,
            clock.Today,
            [.. home.Where(day => !day.Empty)],
            await db
                .Charts.AsNoTracking()
                .Where(c => c.EpisodeId == id)
                .ToDictionaryAsync(c => c.VisitId, c => c.Chart),
            await db.Notes.Where(n => n.EpisodeId == id).Select(n => n.VisitId).ToHashSetAsync()
        );
    }

    public async Task<CaseFile?> OfVisit(Guid visitId)
    {
        var episodeId = await db
            .Visits.Where(v => v.Id == visitId)
            .Select(v => (Guid?)v.EpisodeId)
            .FirstOrDefaultAsync();
        return episodeId is null ? null : await OfEpisode(episodeId.Value);
    }
}
