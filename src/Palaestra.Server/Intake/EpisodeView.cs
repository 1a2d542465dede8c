using System.Text.Json.Serialization;
using NodaTime;
using Palaestra.Core.Body;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Server.Intake;

public enum VisitState
{
    Planned,
    Open,
    Done,
}

/// <param name="Pain">0 to 10 at the start of the visit; none if not asked yet.</param>
/// <param name="FromPaper">Typed in from paper after it had been.</param>
/// <param name="WithId">Account of whom it is booked with; none: whoever is in charge, or anybody.</param>
public sealed record VisitView(
    Guid Id,
    int Number,
    Instant PlannedAt,
    VisitState State,
    int? Pain,
    bool HasScreen,
    bool HasSession,
    CheckIn? CheckIn,
    int Version,
    FlagsAsked? Flags,
    VisitIntake? Intake,
    bool FromPaper,
    Guid? WithId,
    int Minutes
);

public sealed record DangerReportView(
    Guid Id,
    string SignId,
    string Words,
    bool SameDay,
    Instant NotedAt,
    string NotedBy,
    Instant? ClearedAt,
    string? ClearedBy,
    string? Found,
    string? Done
);

/// <param name="Lapsed">Its date has passed: it holds until somebody has looked.</param>
public sealed record PrecautionTag(string Id, Message Words, bool Lapsed);

public sealed record NeutralView(
    RestingShape? RestingShape,
    SpinalStrategy? Strategy,
    [property: JsonPropertyName("switchOn")] Activation? Activation,
    NeutralProposal Proposal
);

/// <summary>The open client: what the frame and every station need.</summary>
/// <param name="PhotoConsent">Whether the client agreed that pictures are kept; none: not asked yet.</param>
/// <param name="PracticeConsent">Whether the client agreed that colleagues rate their traces and kept pictures, without a name; none: not asked yet.</param>
/// <param name="Closed">A red flag is open: nothing after Ask may go on.</param>
/// <param name="Asked">False: it was opened at the desk, and nobody has asked the client yet.</param>
/// <param name="DischargedOn">None: it is open.</param>
/// <param name="OpenDrawingId">The visit at which something was drawn that asks a red flag nobody has answered; none: there is none.</param>
/// <param name="Held">Why nothing may be planned or decided now, beside a red flag; none: it may.</param>
public sealed record EpisodeView(
    Guid Id,
    int Version,
    DateOnly OpenedOn,
    int Age,
    IntakeForm Intake,
    IReadOnlyList<PrecautionTag> Tags,
    IReadOnlyList<DangerReportView> DangerReports,
    bool Closed,
    [property: JsonPropertyName("stirredUp")] Irritability Irritability,
    string PolicyName,
    NeutralView Neutral,
    IReadOnlyList<VisitView> Visits,
    int? PlanRevision,
    bool? PhotoConsent,
    bool? PracticeConsent,
    Guid ClientId,
    string ClientNumber,
    bool Asked,
    DateOnly? DischargedOn,
    Message? Held,
    Guid? OpenDrawingId
)
{
    public static EpisodeView Of(CaseFile file, PracticeLibrary library, DateOnly today)
    {
        var episode = file.Episode;
        var client = episode.Client!;
        return new EpisodeView(
            episode.Id,
            episode.Version,
            episode.OpenedOn,
            client.AgeOn(today),
            FormOf(file),
            [.. episode.Precautions.Select(p => TagOf(p, file, library))],
            [.. episode.DangerReports.OrderBy(r => r.NotedAt).Select(r => ReportOf(r, library))],
            file.Closed,
            IrritabilityLevel.Of(file.Profile, file.Policy),
            file.Policy.Name,
            new NeutralView(
                episode.RestingShape,
                episode.Strategy,
                episode.Activation,
                NeutralChoice.Propose(file.Profile, file.Policy, library)
            ),
            [.. file.Visits.Select(v => VisitOf(v, file))],
            file.CurrentPlan?.Revision,
            episode.PhotoConsent?.Given,
            episode.PracticeConsent?.Given,
            client.Id,
            client.Number,
            episode.Asked,
            episode.DischargedOn,
            file.Held,
            file.OpenDrawing?.Visit.Id
        );
    }

    public static VisitView VisitOf(Data.Visits.Visit visit, CaseFile file)
    {
        var state =
            visit.DecidedAt is not null ? VisitState.Done
            : file.HasBegun(visit) ? VisitState.Open
            : VisitState.Planned;
        return new VisitView(
            visit.Id,
            file.NumberOf(visit.Id),
            visit.PlannedAt,
            state,
            file.PainAt(visit),
            file.Has(visit.Id, TrialPurpose.Screen),
            file.Has(visit.Id, TrialPurpose.Session),
            visit.CheckIn,
            visit.Version,
            visit.Flags,
            visit.Intake,
            visit.FromPaperAt is not null,
            visit.WithId,
            visit.Minutes
        );
    }

    private static IntakeForm FormOf(CaseFile file)
    {
        var episode = file.Episode;
        var client = episode.Client!;
        return new IntakeForm(
            client.Name,
            client.BirthDate,
            episode.Complaint,
            new Pain(episode.PainNow, episode.PainWorst, episode.PainUsual),
            episode.SettleHours,
            episode.WakesAtNight,
            episode.Precautions,
            [.. episode.DangerReports.Where(r => r.Open).Select(r => r.SignId)],
            episode.MinutesPerDay,
            file.Policy.Id,
            client.Sex is null ? null : Enum.Parse<Sex>(client.Sex),
            client.HeightCm,
            client.Mass,
            episode.Version,
            episode.Goals,
            episode.Equipment,
            episode.DaysPerWeek,
            episode.Away
        );
    }

    private static PrecautionTag TagOf(ClientPrecaution mine, CaseFile file, PracticeLibrary library)
    {
        var precaution = library.Precautions.FirstOrDefault(p => p.Id == mine.Id);
        var ticked = precaution?.Options?.Where(option => mine.Options?.Contains(option.Id) == true);
        var lapsed = file.Lapsed.Contains(mine);
        var words = Message.Of(
            "precaution.tag",
            ("tag", precaution?.Tag ?? mine.Id),
            ("side", mine.Side),
            ("option", precaution?.Many == false ? ticked?.FirstOrDefault()?.Words : null),
            ("until", mine.Until),
            ("lapsed", lapsed)
        );
        return new PrecautionTag(mine.Id, words, lapsed);
    }

    public static DangerReportView ReportOf(Data.Intake.DangerReport report, PracticeLibrary library)
    {
        var sign = library.DangerSigns.FirstOrDefault(s => s.Id == report.SignId);
        return new DangerReportView(
            report.Id,
            report.SignId,
            sign?.Words ?? report.SignId,
            sign?.SameDay ?? false,
            report.NotedAt,
            report.NotedBy,
            report.ClearedAt,
            report.ClearedBy,
            report.Found,
            report.Done
        );
    }
}
