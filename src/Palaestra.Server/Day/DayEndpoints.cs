using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Data;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Day;

/// <summary>A visit on the rail of the day.</summary>
/// <param name="RungId">A rung to draw beside the name: the first loaded exercise of the plan; none before a plan.</param>
public sealed record DayVisit(
    Guid EpisodeId,
    Guid VisitId,
    string Name,
    DateTime PlannedAt,
    int Number,
    VisitState State,
    bool Closed,
    string Says,
    int? PainFirst,
    int? PainLast,
    string? RungId
);

public enum PileKind
{
    DangerSign,
    NotDecided,
    Soreness,
    PrecautionLapsed,
    RescreenDue,
}

/// <summary>Something that wants a decision, and where to take it.</summary>
public sealed record PileEntry(
    PileKind Kind,
    Guid EpisodeId,
    Guid VisitId,
    string Name,
    string What,
    string Step,
    string Station
);

public sealed record ClientLine(Guid EpisodeId, Guid VisitId, string Name, string Complaint);

public sealed record DayView(
    DateOnly Date,
    DateTime Now,
    IReadOnlyList<DayVisit> Visits,
    IReadOnlyList<PileEntry> Pile,
    IReadOnlyList<ClientLine> Others
);

public static class DayEndpoints
{
    public static void MapDay(this IEndpointRouteBuilder routes) =>
        routes.MapGet("/api/day", Today).WithTags("Day").WithName("GetDay");

    private static async Task<Ok<DayView>> Today(
        CaseFiles files,
        PalaestraDb db,
        PracticeLibrary library,
        TimeProvider time
    )
    {
        var now = time.GetLocalNow().DateTime;
        var today = DateOnly.FromDateTime(now);
        var cases = new List<CaseFile>();
        foreach (var id in await db.Episodes.Select(e => e.Id).ToListAsync())
        {
            cases.Add((await files.OfEpisode(id))!);
        }
        var visits = cases
            .SelectMany(file => VisitsOn(today, file, library))
            .OrderBy(v => v.PlannedAt)
            .ToList();
        var others = cases
            .Where(file => visits.All(v => v.EpisodeId != file.Episode.Id))
            .Select(file => new ClientLine(
                file.Episode.Id,
                LatestVisit(file, now),
                file.Episode.Client!.Name,
                file.Episode.Complaint
            ))
            .OrderBy(line => line.Name, StringComparer.Ordinal);
        return TypedResults.Ok(
            new DayView(
                today,
                now,
                visits,
                [.. cases.SelectMany(file => PileOf(file, library, now)).OrderBy(entry => entry.Kind)],
                [.. others]
            )
        );
    }

    private static IEnumerable<DayVisit> VisitsOn(DateOnly day, CaseFile file, PracticeLibrary library) =>
        from visit in file.Visits
        where DateOnly.FromDateTime(visit.PlannedAt) == day
        let view = EpisodeView.VisitOf(visit, file)
        let pains = file.Visits.Select(v => EpisodeView.VisitOf(v, file).Pain).OfType<int>().ToList()
        let rung = file
            .CurrentPlan?.Plan.Items.Select(i => i.RungId)
            .FirstOrDefault(id => library.LadderOf(id).Direction != Direction.None)
        select new DayVisit(
            file.Episode.Id,
            visit.Id,
            file.Episode.Client!.Name,
            visit.PlannedAt,
            view.Number,
            view.State,
            file.Closed,
            Says(file, view, rung, library),
            pains.Count > 1 ? pains[0] : null,
            pains.Count > 0 ? pains[^1] : null,
            rung
        );

    private static string Says(CaseFile file, VisitView visit, string? rung, PracticeLibrary library)
    {
        if (file.Closed)
        {
            return "closed until a danger sign is dealt with";
        }
        if (visit.Number == 1)
        {
            return visit.HasScreen ? "first visit · screened" : "first visit";
        }
        return rung is null
            ? $"visit {visit.Number} · no plan yet"
            : $"visit {visit.Number} · {library.Rung(rung).Name.ToLowerInvariant()}";
    }

    /// <summary>At most one entry a client: the most pressing.</summary>
    private static IEnumerable<PileEntry> PileOf(CaseFile file, PracticeLibrary library, DateTime now)
    {
        var name = file.Episode.Client!.Name;
        var latest = LatestVisit(file, now);
        PileEntry Entry(PileKind kind, Guid visit, string what, string step, string station) =>
            new(kind, file.Episode.Id, visit, name, what, step, station);
        if (file.Closed)
        {
            var report = file.Episode.DangerReports.First(r => r.Open);
            var words = EpisodeView.ReportOf(report, library).Words;
            yield return Entry(
                PileKind.DangerSign,
                latest,
                $"{words}.",
                "Record what was done before anything else.",
                "ask"
            );
            yield break;
        }
        var undecided = file.Visits.LastOrDefault(v =>
            v.DecidedAt is null && file.Has(v.Id, TrialPurpose.Session)
        );
        if (undecided is not null)
        {
            yield return Entry(
                PileKind.NotDecided,
                undecided.Id,
                "A session is done and nothing is decided.",
                "See Decide.",
                "decide"
            );
            yield break;
        }
        var asked = file.Visits.LastOrDefault(v => v is { CheckIn: not null, DecidedAt: null });
        if (asked?.CheckIn is { } check && check.NextDayPain - check.UsualPain >= file.Policy.NextDayRise)
        {
            yield return Entry(
                PileKind.Soreness,
                asked.Id,
                $"Sore the morning after: {check.NextDayPain}, usual {check.UsualPain}.",
                "Ease one step; see Decide.",
                "session"
            );
            yield break;
        }
        if (file.Lapsed is [var lapsed, ..])
        {
            yield return Entry(
                PileKind.PrecautionLapsed,
                latest,
                $"{library.Precaution(lapsed.Id).Name}: its date, {lapsed.Until:d MMM}, has passed; it no longer holds.",
                "Look again, and take it away or set a new date.",
                "ask"
            );
            yield break;
        }
        if (file.ScreenVisit() is { } screen && now >= file.RescreenDue(screen))
        {
            var weeks = (int)((now - screen.PlannedAt).TotalDays / 7);
            yield return Entry(
                PileKind.RescreenDue,
                latest,
                $"{weeks} weeks since the last screen.",
                "Screen again.",
                "screen"
            );
        }
    }

    private static Guid LatestVisit(CaseFile file, DateTime now) =>
        (file.Visits.LastOrDefault(v => v.PlannedAt.Date <= now.Date) ?? file.Visits[0]).Id;
}
