using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Diagnostics;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Amendments;
using Palaestra.Data.Intake;
using Palaestra.Data.Outcomes;
using Palaestra.Data.Photos;
using Palaestra.Data.Traces;
using Palaestra.Data.Visits;
using Palaestra.Server.People;

namespace Palaestra.Server.Amendments;

/// <summary>
/// Nothing of a record is written over: what stood there is kept beside what took its place, in the transaction that writes it,
/// whichever operation does.
/// </summary>
public sealed class AmendmentTrail(Amending amending, Author author) : SaveChangesInterceptor
{
    public override async ValueTask<InterceptionResult<int>> SavingChangesAsync(
        DbContextEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    )
    {
        if (eventData.Context is PalaestraDb db)
        {
            var changed = db
                .ChangeTracker.Entries()
                .Where(entry => entry.State is EntityState.Modified or EntityState.Deleted)
                .ToList();
            foreach (var entry in changed)
            {
                db.Amendments.AddRange(
                    entry.State == EntityState.Modified ? Of(entry, db) : await Gone(entry, db)
                );
            }
        }
        return result;
    }

    /// <summary>As it is kept.</summary>
    public static string Json(object? part) => JsonSerializer.Serialize(part, CoreJson.Options);

    private IEnumerable<Amendment> Of(EntityEntry entry, PalaestraDb db) =>
        entry.Entity switch
        {
            Visit visit =>
            [
                .. Written(entry, AmendedPart.Intake, nameof(Visit.Intake), visit.EpisodeId, visit.Id),
                .. Written(entry, AmendedPart.CheckIn, nameof(Visit.CheckIn), visit.EpisodeId, visit.Id),
                .. Written(
                    entry,
                    AmendedPart.Reference,
                    nameof(Visit.ReferenceSet),
                    visit.EpisodeId,
                    visit.Id
                ),
                .. Written(entry, AmendedPart.Answers, nameof(Visit.Answers), visit.EpisodeId, visit.Id),
                .. visit.FromPaperAt is null
                    ? []
                    : Whole(
                        AmendedPart.Dated,
                        visit.EpisodeId,
                        Dated((Instant)entry.OriginalValues[nameof(Visit.PlannedAt)]!),
                        Dated(visit.PlannedAt),
                        visit.Id
                    ),
            ],
            // A draft is written on without a trace; what was signed stays as it was signed.
            VisitNote note when entry.OriginalValues[nameof(VisitNote.SignedAt)] is not null => Whole(
                AmendedPart.Note,
                note.EpisodeId,
                Signed((VisitNote)entry.OriginalValues.ToObject()),
                Signed(note),
                note.VisitId
            ),
            // Stroke by stroke while the client is there; drawn anew afterwards, with a reason.
            VisitChart chart when amending.Reason is not null => Written(
                entry,
                AmendedPart.Chart,
                nameof(VisitChart.Chart),
                chart.EpisodeId,
                chart.VisitId
            ),
            // Its row stays: that it was there is known.
            StoredPhoto { RemovedAt: not null } photo
                when db.Visits.Local.FindEntry(photo.VisitId)?.Entity is { } visit => TakenAway(
                AmendedPart.Photo,
                visit
            ),
            HomeLogDay day => Written(
                entry,
                AmendedPart.HomeDay,
                nameof(HomeLogDay.Log),
                day.EpisodeId,
                day: day.Day
            ),
            LetterDraft letter when db.Visits.Local.FindEntry(letter.VisitId)?.Entity is { } visit => Written(
                entry,
                AmendedPart.Letter,
                nameof(LetterDraft.Letter),
                visit.EpisodeId,
                letter.VisitId
            ),
            Episode episode => Whole(
                AmendedPart.Neutral,
                episode.Id,
                Neutral((Episode)entry.OriginalValues.ToObject()),
                Neutral(episode)
            ),
            Client client
                when db.Episodes.Local.FirstOrDefault(e => e.ClientId == client.Id) is { } episode => Whole(
                AmendedPart.Client,
                episode.Id,
                Person((Client)entry.OriginalValues.ToObject()),
                Person(client)
            ),
            _ => [],
        };

    /// <summary>A trace goes as a whole.</summary>
    private async Task<IEnumerable<Amendment>> Gone(EntityEntry entry, PalaestraDb db) =>
        entry.Entity is StoredTrace trace && await db.Visits.FindAsync(trace.VisitId) is { } visit
            ? TakenAway(AmendedPart.Trace, visit)
            : [];

    private IEnumerable<Amendment> TakenAway(AmendedPart part, Visit visit) =>
        Whole(part, visit.EpisodeId, new { Kept = true }, new { Kept = false }, visit.Id);

    private IEnumerable<Amendment> Written(
        EntityEntry entry,
        AmendedPart part,
        string property,
        Guid episode,
        Guid? visit = null,
        DateOnly? day = null
    )
    {
        var of = entry.Property(property);
        return of.OriginalValue is null
            ? []
            : Whole(part, episode, of.OriginalValue, of.CurrentValue, visit, day);
    }

    private IEnumerable<Amendment> Whole(
        AmendedPart part,
        Guid episode,
        object? before,
        object? after,
        Guid? visit = null,
        DateOnly? day = null
    )
    {
        var (was, @is) = (Json(before), Json(after));
        if (was == @is || before is null)
        {
            yield break;
        }
        yield return new()
        {
            EpisodeId = episode,
            VisitId = visit,
            Day = day,
            Part = part,
            Before = was,
            After = @is,
            Reason = amending.Reason,
            At = author.Now,
            By = author.Name,
            AccountId = author.AccountId,
        };
    }

    private static object? Neutral(Episode episode) =>
        // None before the station was done.
        episode.RestingShape
            is null
            ? null
            : new
            {
                episode.RestingShape,
                episode.Strategy,
                episode.Activation,
            };

    private static object Dated(Instant at) => new { PlannedAt = at.ToDateTimeUtc() };

    private static object Signed(VisitNote note) => new { note.Text, note.SignedBy };

    private static object Person(Client client) =>
        new
        {
            client.Name,
            client.BirthDate,
            client.Sex,
            client.HeightCm,
            MassKg = client.Mass,
            client.Number,
            client.Phone,
            client.Email,
            client.Address,
            client.Guardian,
        };
}
