using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Screening;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Intake;

/// <summary>Fetches case files from the store.</summary>
public sealed class CaseFiles(PalaestraDb db, PracticeLibrary library, ClinicClock clock)
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
        var logged = await db.Events.AsNoTracking().Where(e => visitIds.Contains(e.VisitId)).ToListAsync();
        var plans = await db
            .Plans.AsNoTracking()
            .Where(p => p.EpisodeId == id)
            .OrderBy(p => p.Revision)
            .ToListAsync();
        var events = logged
            .GroupBy(e => e.VisitId)
            .ToDictionary(g => g.Key, g => g.Select(e => Renewal.Of(e.Event, library)).ToList());
        var home = await db
            .HomeLog.AsNoTracking()
            .Where(d => d.EpisodeId == id)
            .OrderBy(d => d.Day)
            .Select(d => d.Log)
            .ToListAsync();
        return new CaseFile(
            episode,
            events,
            [.. plans.Select(p => p with { Plan = Renewal.Of(p.Plan, library) })],
            library,
            clock.Zone,
            clock.Today,
            [.. home.Where(day => !day.Empty)],
            logged.Where(IsOff).Select(e => e.TrialId).ToHashSet(),
            await db
                .Charts.AsNoTracking()
                .Where(c => c.EpisodeId == id)
                .ToDictionaryAsync(c => c.VisitId, c => c.Chart),
            await db.Notes.Where(n => n.EpisodeId == id).Select(n => n.VisitId).ToHashSetAsync()
        );
    }

    private static bool IsOff(LoggedEvent e) =>
        (e.ReceivedAt.ToDateTimeOffset() - e.Event.At).Duration() > CaptureCheck.ClockSlack;

    public async Task<CaseFile?> OfVisit(Guid visitId)
    {
        var episodeId = await db
            .Visits.Where(v => v.Id == visitId)
            .Select(v => (Guid?)v.EpisodeId)
            .FirstOrDefaultAsync();
        return episodeId is null ? null : await OfEpisode(episodeId.Value);
    }
}
