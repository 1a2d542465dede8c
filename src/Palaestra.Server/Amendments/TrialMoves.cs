using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Data;
using Palaestra.Data.Amendments;
using Palaestra.Server.People;

namespace Palaestra.Server.Amendments;

/// <summary>Files trials that were taken under the wrong client, or at the wrong visit, where they belong.</summary>
public sealed class TrialMoves(PalaestraDb db, Author author)
{
    /// <summary>Moves a trial with its log and traces. The caller saves.</summary>
    /// <returns>False where the visit has no such trial.</returns>
    public async Task<bool> Move(Guid visitId, Guid trialId, Guid toVisitId, string reason)
    {
        var events = await db.Events.Where(e => e.VisitId == visitId && e.TrialId == trialId).ToListAsync();
        if (!events.Exists(e => e.Kind == CaptureKind.TrialStarted))
        {
            return false;
        }
        foreach (var logged in events)
        {
            db.Entry(logged).Property(e => e.VisitId).CurrentValue = toVisitId;
        }
        foreach (
            var trace in await db
                .Traces.Where(t => t.VisitId == visitId && t.TrialId == trialId)
                .ToListAsync()
        )
        {
            db.Entry(trace).Property(t => t.VisitId).CurrentValue = toVisitId;
        }
        foreach (
            var photo in await db
                .Photos.Where(p => p.VisitId == visitId && p.TrialId == trialId)
                .ToListAsync()
        )
        {
            db.Entry(photo).Property(p => p.VisitId).CurrentValue = toVisitId;
        }
        db.TrialMoves.Add(
            new()
            {
                TrialId = trialId,
                VisitId = visitId,
                ToVisitId = toVisitId,
                Reason = reason,
                At = author.Now,
                By = author.Name,
                AccountId = author.AccountId,
            }
        );
        return true;
    }

    /// <summary>Trials that stood at a visit once and were filed elsewhere, of those asked for.</summary>
    public Task<List<Guid>> MovedFrom(Guid visitId, IReadOnlyCollection<Guid> trials) =>
        db
            .TrialMoves.AsNoTracking()
            .Where(move => move.VisitId == visitId && trials.Contains(move.TrialId))
            .Select(move => move.TrialId)
            .Distinct()
            .ToListAsync();

    /// <summary>Moves from or to visits, with what was begun.</summary>
    public async Task<IReadOnlyList<(TrialMove Move, TrialStarted? Start)>> At(
        IReadOnlyCollection<Guid> visits
    )
    {
        var moves = await db
            .TrialMoves.AsNoTracking()
            .Where(move => visits.Contains(move.VisitId) || visits.Contains(move.ToVisitId))
            .ToListAsync();
        var trials = moves.Select(move => move.TrialId).ToList();
        var starts = await db
            .Events.AsNoTracking()
            .Where(e => e.Kind == CaptureKind.TrialStarted && trials.Contains(e.TrialId))
            .Select(e => e.Event)
            .ToListAsync();
        return
        [
            .. moves.Select(move =>
                (move, starts.OfType<TrialStarted>().FirstOrDefault(s => s.TrialId == move.TrialId))
            ),
        ];
    }
}
