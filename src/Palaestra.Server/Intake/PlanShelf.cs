using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Planning;

namespace Palaestra.Server.Intake;

/// <summary>Plans that were read lately, as of today's library. An accepted plan is never changed.</summary>
public sealed class PlanShelf : IDisposable
{
    /// <summary>As many plans, some 40 MB.</summary>
    private const int Room = 2000;

    private readonly Shelf<Plan> shelf = new(Room);

    /// <summary>Oldest first.</summary>
    public async Task<List<PlanRevision>> Of(Guid episode, PalaestraDb db, PracticeLibrary library)
    {
        var accepted = await db
            .Plans.Where(p => p.EpisodeId == episode)
            .OrderBy(p => p.Revision)
            .Select(p => new
            {
                p.Id,
                p.VisitId,
                p.Revision,
                p.PreviousId,
                p.AcceptedAt,
                p.AcceptedBy,
            })
            .ToListAsync();
        var plans = await Plans([.. accepted.Select(p => p.Id)], db, library);
        return accepted.ConvertAll(p => new PlanRevision
        {
            Id = p.Id,
            EpisodeId = episode,
            VisitId = p.VisitId,
            Revision = p.Revision,
            PreviousId = p.PreviousId,
            Plan = plans[p.Id],
            AcceptedAt = p.AcceptedAt,
            AcceptedBy = p.AcceptedBy,
        });
    }

    private async Task<Dictionary<Guid, Plan>> Plans(
        IReadOnlyCollection<Guid> ids,
        PalaestraDb db,
        PracticeLibrary library
    )
    {
        var found = new Dictionary<Guid, Plan>();
        foreach (var id in ids)
        {
            if (shelf.Of(id, library) is { } plan)
            {
                found[id] = plan;
            }
        }
        var others = ids.Where(id => !found.ContainsKey(id)).ToList();
        var read =
            others.Count == 0
                ? []
                : await db.Plans.AsNoTracking().Where(p => others.Contains(p.Id)).ToListAsync();
        foreach (var revision in read)
        {
            var plan = Renewal.Of(revision.Plan, library);
            found[revision.Id] = plan;
            shelf.Keep(revision.Id, plan, size: 1, library, db);
        }
        return found;
    }

    /// <summary>Plans that stand there.</summary>
    public int Count => shelf.Count;

    /// <summary>Somebody was erased: nothing of them stays in memory either.</summary>
    public void Clear() => shelf.Clear();

    public void Dispose() => shelf.Dispose();
}
