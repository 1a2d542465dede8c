using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Audit;
using Palaestra.Data.Keeping;
using Palaestra.Server.Description;
using Palaestra.Server.Intake;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Audit;

/// <param name="What">Name of the operation or of what was changed.</param>
/// <param name="Client">Whose record it was; none: nobody's, or erased.</param>
/// <param name="Payload">JSON: what was before and after, by field; none where there is nothing, or it was erased.</param>
public sealed record AuditLine(
    long Number,
    Instant At,
    AuditKind Kind,
    string By,
    string What,
    Guid? Episode,
    Guid? Visit,
    string? Client,
    string? Payload
);

/// <param name="More">There are older ones.</param>
public sealed record AuditPage(IReadOnlyList<AuditLine> Lines, bool More);

/// <param name="Faults">Empty: the chain is whole.</param>
public sealed record AuditState(long Entries, IReadOnlyList<AuditFault> Faults);

/// <param name="Times">So often, counted once in ten minutes.</param>
public sealed record SeenBy(string By, Instant First, Instant Last, int Times, int Changes, int Exports);

/// <summary>Who looked at what, changed it, took it out; for administrators, and of one record for whoever works with it.</summary>
public static class AuditEndpoints
{
    private const int PageSize = 100;
    private const int FaultsMost = 20;

    public static void MapAudit(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api").WithTags("Audit");
        group
            .MapGet("/audit", Search)
            .Described(
                "GetAudit",
                "The audit, the youngest first, by words, kind, client's episode, and before a number."
            );
        group
            .MapGet("/audit/state", State)
            .Described("GetAuditState", "Whether the chain of the audit is whole.");
        group
            .MapGet("/episodes/{id:guid}/seen", Seen)
            .Described("GetSeenBy", "Who has seen this record.", 404);
    }

    private static async Task<Results<Ok<AuditPage>, ProblemHttpResult>> Search(
        string? words,
        string? kind,
        Guid? episode,
        long? before,
        PalaestraDb db,
        AuditWriter writer,
        CancellationToken gone
    )
    {
        await writer.CaughtUp(gone);
        var sought = (words ?? "").Trim();
        var found = db.Audit.AsNoTracking();
        if (kind is { Length: > 0 })
        {
            // As it is written elsewhere in the API: "sign-in".
            if (!Enum.TryParse<AuditKind>(kind.Replace("-", "", StringComparison.Ordinal), true, out var of))
            {
                return Problem.Field("kind", Message.Of("audit.no-kind", ("kind", kind)));
            }
            found = found.Where(e => e.Kind == of);
        }
        if (episode is { } mine)
        {
            found = found.Where(e => e.Episode == mine);
        }
        if (before is { } number)
        {
            found = found.Where(e => e.Number < number);
        }
        if (sought.Length > 0)
        {
            var like = $"%{sought.Replace(@"\", @"\\").Replace("%", @"\%").Replace("_", @"\_")}%";
            found = found.Where(e =>
                EF.Functions.Like(e.By, like, @"\")
                || EF.Functions.Like(e.What, like, @"\")
                || db.Episodes.Any(x => x.Id == e.Episode && EF.Functions.Like(x.Client!.Name, like, @"\"))
            );
        }
        var rows = await (
            from entry in found.OrderByDescending(e => e.Number).Take(PageSize + 1)
            join known in db.Episodes on entry.Episode equals known.Id into episodes
            from known in episodes.DefaultIfEmpty()
            orderby entry.Number descending
            select new AuditLine(
                entry.Number,
                entry.At,
                entry.Kind,
                entry.By,
                entry.What,
                entry.Episode,
                entry.Visit,
                known == null ? null : known.Client!.Name,
                entry.Payload
            )
        ).ToListAsync(gone);
        return TypedResults.Ok(new AuditPage([.. rows.Take(PageSize)], rows.Count > PageSize));
    }

    private static async Task<Ok<AuditState>> State(
        PalaestraDb db,
        AuditWriter writer,
        Settings settings,
        CancellationToken gone
    )
    {
        await writer.CaughtUp(gone);
        var heads = AuditHeads.Known(settings.DataFolder, settings.BackupFolder);
        var entries = db.Audit.AsNoTracking().OrderBy(e => e.Number).AsEnumerable();
        return TypedResults.Ok(
            new AuditState(
                await db.Audit.LongCountAsync(gone),
                [.. AuditChain.Faults(entries, heads).Take(FaultsMost)]
            )
        );
    }

    private static async Task<Ok<IReadOnlyList<SeenBy>>> Seen(
        Guid id,
        OpenCase open,
        PalaestraDb db,
        AuditWriter writer,
        CancellationToken gone
    )
    {
        await writer.CaughtUp(gone);
        var entries = await db
            .Audit.AsNoTracking()
            .Where(e => e.Episode == open.File.Episode.Id && e.By.Length > 0 && e.Kind != AuditKind.Refusal)
            .Select(e => new
            {
                e.By,
                e.At,
                e.Kind,
            })
            .ToListAsync(gone);
        return TypedResults.Ok<IReadOnlyList<SeenBy>>([
            .. entries
                .GroupBy(e => e.By)
                .Select(mine => new SeenBy(
                    mine.Key,
                    mine.Min(e => e.At),
                    mine.Max(e => e.At),
                    mine.Count(e => e.Kind == AuditKind.View),
                    mine.Count(e => e.Kind == AuditKind.Change),
                    mine.Count(e => e.Kind == AuditKind.Export)
                ))
                .OrderByDescending(line => line.Last),
        ]);
    }
}
