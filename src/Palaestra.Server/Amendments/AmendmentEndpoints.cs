using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Live;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Amendments;

/// <param name="TrialIds">Trials of the visit of the address.</param>
/// <param name="ToVisitId">The visit they belong to, of this client or another.</param>
/// <param name="Reason">1 to 500 characters.</param>
public sealed record MoveTrialsForm(IReadOnlyList<Guid> TrialIds, Guid ToVisitId, string? Reason);

/// <param name="EpisodeId">Where they stand now.</param>
public sealed record TrialsMoved(Guid EpisodeId, Guid VisitId, int Trials);

public static class AmendmentEndpoints
{
    /// <summary>Trials moved at once at most.</summary>
    private const int TrialsMost = 200;

    public static void MapAmendments(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Amendments");
        group
            .MapGet("/episodes/{id:guid}/amendments", Get)
            .Described(
                "GetAmendments",
                "What was amended in a record, the latest first: before, after, who, when, why."
            );
        group
            .MapPost("/visits/{visitId:guid}/moved-trials", Move)
            .Described(
                "MoveTrials",
                "Files trials that were taken under the wrong client, or at the wrong visit, where they belong."
            );
    }

    private static async Task<Ok<IReadOnlyList<RecordChange>>> Get(
        Guid id,
        OpenCase open,
        PalaestraDb db,
        TrialMoves moves,
        PracticeLibrary library
    )
    {
        var file = open.File;
        var written = await db.Amendments.AsNoTracking().Where(a => a.EpisodeId == id).ToListAsync();
        var moved = await moves.At([.. file.Visits.Select(v => v.Id)]);
        var filed = await db.EpisodeMoves.AsNoTracking().Where(m => m.EpisodeId == id).ToListAsync();
        var clients = filed.SelectMany(m => new[] { m.FromClientId, m.ToClientId }).ToList();
        var numbers = await db
            .Clients.AsNoTracking()
            .Where(c => clients.Contains(c.Id))
            .ToDictionaryAsync(c => c.Id, c => c.Number);
        return TypedResults.Ok<IReadOnlyList<RecordChange>>([
            .. written
                .Select(a => RecordChanges.Of(a, file))
                .Concat(file.Visits.SelectMany(v => RecordChanges.OfTrials(file, v.Id, library)))
                .Concat(moved.Select(m => RecordChanges.Of(m.Move, m.Start, file)))
                .Concat(filed.Select(m => RecordChanges.Of(m, numbers)))
                .OrderByDescending(change => change.At),
        ]);
    }

    private static async Task<Results<Ok<TrialsMoved>, ProblemHttpResult>> Move(
        Guid visitId,
        MoveTrialsForm form,
        OpenCase open,
        PalaestraDb db,
        TrialMoves moves,
        Amending amending,
        VisitNews news
    )
    {
        if (amending.Always(form.Reason) is { } unreasoned)
        {
            return Problem.Fields([unreasoned]);
        }
        if (form.TrialIds.Count is 0 or > TrialsMost)
        {
            return Problem.Field("trialIds", Message.Of("amend.trials", ("most", TrialsMost)));
        }
        var to = await db.Visits.FirstOrDefaultAsync(v => v.Id == form.ToVisitId);
        if (to is null || to.Id == visitId)
        {
            return Problem.Field("toVisitId", Message.Of("amend.to-visit"));
        }
        var trials = form.TrialIds.Distinct().ToList();
        for (var i = 0; i < trials.Count; i++)
        {
            if (!await moves.Move(visitId, trials[i], to.Id, amending.Reason!))
            {
                return Problem.Field($"trialIds[{i}]", Message.Of("amend.no-trial"));
            }
        }
        if (to.CalledOff is not null)
        {
            // What was done at it shows that it took place.
            to.PutBack();
        }
        await db.SaveChangesAsync();
        news.Tell(visitId);
        news.Tell(to.Id);
        return TypedResults.Ok(new TrialsMoved(to.EpisodeId, to.Id, trials.Count));
    }
}
