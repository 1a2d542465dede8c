using NodaTime;
using Palaestra.Data.Amendments;
using Palaestra.Data.Intake;
using Palaestra.Data.Outcomes;
using Palaestra.Data.Photos;
using Palaestra.Data.Planning;
using Palaestra.Data.Policies;
using Palaestra.Data.Progression;
using Palaestra.Data.Screening;
using Palaestra.Data.Traces;
using Palaestra.Data.Visits;

namespace Palaestra.Data.Records;

/// <summary>
/// All that is kept of one client, as it travels: rows as they are stored, samples and pictures in files beside. Documented in
/// docs/records.md; its schema is docs/record.schema.json.
/// </summary>
/// <param name="Format">Counts changes that an older version cannot read.</param>
/// <param name="Version">Of the program that wrote it.</param>
/// <param name="From">Name of the clinic; empty: it has none yet.</param>
/// <param name="Merged">Clients who turned out to be this one.</param>
/// <param name="Policies">The clinic's own ones that the record followed.</param>
/// <param name="Audit">Who looked at it, changed it, took it out: in order.</param>
public sealed record ClientRecord(
    int Format,
    string Version,
    Instant MadeAt,
    string From,
    Client Client,
    IReadOnlyList<Client> Merged,
    IReadOnlyList<Episode> Episodes,
    IReadOnlyList<EpisodeMove> EpisodeMoves,
    IReadOnlyList<DangerReport> DangerReports,
    IReadOnlyList<Visit> Visits,
    IReadOnlyList<LoggedEvent> Events,
    IReadOnlyList<TrialMove> TrialMoves,
    IReadOnlyList<PlanRevision> Plans,
    IReadOnlyList<DecisionRecord> Decisions,
    IReadOnlyList<DecidedRow> DecidedVisits,
    IReadOnlyList<HomeLogDay> HomeLog,
    IReadOnlyList<VisitNote> Notes,
    IReadOnlyList<VisitChart> Charts,
    IReadOnlyList<LetterDraft> Letters,
    IReadOnlyList<EpisodeDischarge> Discharges,
    IReadOnlyList<Amendment> Amendments,
    IReadOnlyList<StoredPhoto> Photos,
    IReadOnlyList<StoredTrace> Traces,
    IReadOnlyList<PolicyRevision> Policies,
    IReadOnlyList<RecordAudit> Audit
)
{
    public const int Present = 1;
    public const string FileName = "record.json";

    public static string PhotoName(Guid id, string ending) => $"photos/{id}{ending}";

    public static string TraceName(Guid id) => $"traces/{id}.csv";
}

/// <summary>A line of the audit, without what makes it a link of a chain.</summary>
/// <param name="Payload">JSON; none: there is nothing to tell beside, or it was erased.</param>
public sealed record RecordAudit(
    Instant At,
    string Kind,
    string By,
    string What,
    Guid? Episode,
    Guid? Visit,
    string? Payload
);
