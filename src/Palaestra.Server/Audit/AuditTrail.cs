using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Diagnostics;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Amendments;
using Palaestra.Data.Audit;
using Palaestra.Data.Clinics;
using Palaestra.Data.Intake;
using Palaestra.Data.Outcomes;
using Palaestra.Data.Photos;
using Palaestra.Data.Planning;
using Palaestra.Data.Policies;
using Palaestra.Data.Progression;
using Palaestra.Data.Records;
using Palaestra.Data.Staff;
using Palaestra.Data.Traces;
using Palaestra.Data.Visits;
using Palaestra.Server.People;

namespace Palaestra.Server.Audit;

/// <summary>
/// Every change of the record is noted with what was before and after, in the transaction that makes it. What is tapped is a log
/// of its own (events), appended once with author and time.
/// </summary>
public sealed class AuditTrail(Author author) : SaveChangesInterceptor
{
    /// <summary>Never told: what a password or a code is kept as.</summary>
    private static readonly HashSet<string> Secret =
    [
        nameof(Practitioner.PasswordHash),
        nameof(Practitioner.PinHash),
        nameof(Practitioner.SecurityStamp),
        nameof(Practitioner.ConcurrencyStamp),
        nameof(Invitation.CodeHash),
        nameof(Episode.FeedKey),
        nameof(Episode.HomeKey),
        nameof(RecordImport.Audit),
    ];

    private static readonly JsonSerializerOptions Json = new(CoreJson.Options);

    public override ValueTask<InterceptionResult<int>> SavingChangesAsync(
        DbContextEventData eventData,
        InterceptionResult<int> result,
        CancellationToken cancellationToken = default
    )
    {
        if (eventData.Context is PalaestraDb db)
        {
            var notes = db.ChangeTracker.Entries().Select(NoteOf).OfType<AuditNote>().ToList();
            db.AuditNotes.AddRange(notes);
        }
        return ValueTask.FromResult(result);
    }

    private AuditNote? NoteOf(EntityEntry entry)
    {
        if (
            entry.State is not (EntityState.Added or EntityState.Modified or EntityState.Deleted)
            || PlaceOf(entry.Entity) is not { } place
        )
        {
            return null;
        }
        var touched = entry
            .Properties.Where(p => !Secret.Contains(p.Metadata.Name) && Touched(entry, p))
            .ToDictionary(p => p.Metadata.Name, p => Told(entry, p));
        return touched.Count == 0
            ? null
            : new AuditNote
            {
                At = author.Now,
                Kind = AuditKind.Change,
                AccountId = author.AccountId,
                By = author.Name,
                What = entry.Metadata.ClrType.Name,
                Person = place.Person,
                Episode = place.Episode,
                Visit = place.Visit,
                Payload = JsonSerializer.Serialize(touched, Json),
            };
    }

    private static bool Touched(EntityEntry entry, PropertyEntry property) =>
        entry.State switch
        {
            EntityState.Modified => property.IsModified
                && !Equals(property.OriginalValue, property.CurrentValue),
            _ => (entry.State == EntityState.Added ? property.CurrentValue : property.OriginalValue)
                is not null,
        };

    /// <summary>{"before": …, "after": …}; one of them alone where something came or went.</summary>
    private static Dictionary<string, object?> Told(EntityEntry entry, PropertyEntry property)
    {
        var told = new Dictionary<string, object?>();
        if (entry.State != EntityState.Added)
        {
            told["before"] = property.OriginalValue;
        }
        if (entry.State != EntityState.Deleted)
        {
            told["after"] = property.CurrentValue;
        }
        return told;
    }

    private sealed record Place(Guid? Person = null, Guid? Episode = null, Guid? Visit = null);

    /// <summary>None: it is not a part of the record, or a log of its own.</summary>
    private static Place? PlaceOf(object entity) =>
        entity switch
        {
            Client client => new(Person: client.Id),
            Episode episode => new(episode.ClientId, episode.Id),
            DangerReport report => new(Episode: report.EpisodeId),
            Visit visit => new(Episode: visit.EpisodeId, Visit: visit.Id),
            PlanRevision plan => new(Episode: plan.EpisodeId),
            HomeLogDay day => new(Episode: day.EpisodeId),
            DecisionRecord decision => new(Visit: decision.VisitId),
            LetterDraft letter => new(Visit: letter.VisitId),
            StoredTrace trace => new(Visit: trace.VisitId),
            StoredPhoto photo => new(Visit: photo.VisitId),
            TrialMove move => new(Visit: move.VisitId),
            EpisodeMove move => new(Episode: move.EpisodeId),
            EpisodeDischarge discharge => new(Episode: discharge.EpisodeId),
            VisitNote note => new(Episode: note.EpisodeId, Visit: note.VisitId),
            // What was told elsewhere is not told again.
            RecordImport import => new(Person: import.ClientId),
            VisitChart chart => new(Episode: chart.EpisodeId, Visit: chart.VisitId),
            PolicyRevision or Clinic or ClinicSentence or Practitioner or Invitation => new(),
            _ => null,
        };
}
