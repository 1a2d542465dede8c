using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;
using Palaestra.Data.Intake;
using Palaestra.Data.Planning;
using Palaestra.Data.Screening;
using Palaestra.Data.Visits;

namespace Palaestra.Data.Day;

/// <summary>Whatever changes in an episode's record marks its standing as out of date, in the same transaction.</summary>
public sealed class StandingMarks : SaveChangesInterceptor
{
    public override async ValueTask<InterceptionResult<int>> SavingChangesAsync(
        DbContextEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    )
    {
        if (eventData.Context is PalaestraDb db)
        {
            foreach (var id in await Touched(db, cancellationToken))
            {
                await Mark(db, id, cancellationToken);
            }
        }
        return result;
    }

    private static async Task<IReadOnlySet<Guid>> Touched(PalaestraDb db, CancellationToken cancel)
    {
        var episodes = new HashSet<Guid>();
        var visits = new HashSet<Guid>();
        foreach (
            var entry in db
                .ChangeTracker.Entries()
                .Where(e => e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted)
        )
        {
            switch (entry.Entity)
            {
                case Episode episode:
                    episodes.Add(episode.Id);
                    break;
                case Visit visit:
                    episodes.Add(visit.EpisodeId);
                    break;
                case DangerReport report:
                    episodes.Add(report.EpisodeId);
                    break;
                case PlanRevision plan:
                    episodes.Add(plan.EpisodeId);
                    break;
                case HomeLogDay day:
                    episodes.Add(day.EpisodeId);
                    break;
                case VisitChart chart:
                    episodes.Add(chart.EpisodeId);
                    break;
                case VisitNote note:
                    episodes.Add(note.EpisodeId);
                    break;
                case LoggedEvent logged:
                    visits.Add(logged.VisitId);
                    visits.Add((Guid)entry.OriginalValues[nameof(LoggedEvent.VisitId)]!);
                    break;
            }
        }
        foreach (var id in visits)
        {
            if (await db.Visits.FindAsync([id], cancel) is { } visit)
            {
                episodes.Add(visit.EpisodeId);
            }
        }
        return episodes;
    }

    private static async Task Mark(PalaestraDb db, Guid episode, CancellationToken cancel)
    {
        if (await db.Standings.FindAsync([episode], cancel) is { } standing)
        {
            // Written even where it was read as marked: whoever worked it out meanwhile may have taken the mark away.
            standing.Stale = true;
            db.Entry(standing).Property(s => s.Stale).IsModified = true;
        }
        else
        {
            db.Standings.Add(new Standing { EpisodeId = episode });
        }
    }
}
