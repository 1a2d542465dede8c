using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Day;
using Palaestra.Data.Visits;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Keeping;
using Palaestra.Server.Progression;
using Palaestra.Server.Screening;

namespace Palaestra.Server.Day;

/// <summary>Works out from its whole record where an episode stands, and keeps that for the day.</summary>
public sealed class StandingReview(
    PalaestraDb db,
    PracticeLibrary library,
    CaseFiles files,
    ClinicClock clock,
    TapQueue taps,
    ILogger<StandingReview> log
)
{
    /// <summary>So many are worked out with one library and one connection.</summary>
    public const int AtOnce = 40;

    /// <summary>
    /// Works out some of those that are marked, in the order of their ids. One that cannot be worked out stays marked, and the
    /// others go on; where nothing can be written now, all stay as they are.
    /// </summary>
    /// <returns>The last one that was looked at, to go on from; none where there are no more.</returns>
    public async Task<Guid?> Refresh(Guid after)
    {
        var stale = await db
            .Standings.Where(s => s.Stale && s.EpisodeId > after)
            .OrderBy(s => s.EpisodeId)
            .Select(s => s.EpisodeId)
            .Take(AtOnce)
            .ToListAsync();
        foreach (var id in stale)
        {
            try
            {
                await taps.Write(() => Refresh(id, clock.Today));
            }
            // Whatever is wrong with one record, the others are worked out.
            catch (Exception problem) when (!StoreFault.Is(problem))
            {
                log.LogError(problem, "Where episode {Episode} stands could not be worked out.", id);
            }
            db.ChangeTracker.Clear();
        }
        return stale.Count == AtOnce ? stale[^1] : null;
    }

    /// <summary>
    /// The mark is taken away first and in the same transaction: what changes meanwhile waits for it and marks anew, and of
    /// two requests that come at once the second finds nothing to do.
    /// </summary>
    private async Task Refresh(Guid episodeId, DateOnly today)
    {
        await using var whole = await db.Database.BeginTransactionAsync();
        var mine = await db
            .Standings.Where(s => s.EpisodeId == episodeId && s.Stale)
            .ExecuteUpdateAsync(set => set.SetProperty(s => s.Stale, false));
        if (mine == 0 || await files.OfEpisode(episodeId) is not { } file)
        {
            return;
        }
        var standing = await db
            .Standings.Include(s => s.Visits)
            .Include(s => s.Pile)
            .AsSplitQuery()
            .FirstAsync(s => s.EpisodeId == episodeId);
        if (file.Visits.Count == 0)
        {
            // All of them were called off.
            (standing.LibraryVersion, standing.LatestVisitId) = (library.Version, Guid.Empty);
            db.StandingVisits.RemoveRange(standing.Visits);
            db.Pile.RemoveRange(standing.Pile);
            await db.SaveChangesAsync();
            await whole.CommitAsync();
            return;
        }
        var latest = file.Visits.LastOrDefault(v => file.DayOf(v) <= today) ?? file.Visits[0];
        var pains = file.Visits.Select(v => EpisodeView.VisitOf(v, file).Pain).OfType<int>().ToList();
        standing.LibraryVersion = library.Version;
        standing.Closed = file.Closed;
        standing.PainFirst = pains.Count > 1 ? pains[0] : null;
        standing.PainLast = pains.Count > 0 ? pains[^1] : null;
        standing.RungId = file
            .CurrentPlan?.Plan.Items.Select(i => i.RungId)
            .FirstOrDefault(id => library.LadderOf(id).Direction != Direction.None);
        Told(standing, file);
        standing.LatestVisitId = latest.Id;
        standing.LatestOn = file.DayOf(latest);
        db.StandingVisits.RemoveRange(standing.Visits);
        db.Pile.RemoveRange(standing.Pile);
        db.StandingVisits.AddRange(
            file.Visits.Where(v => file.DayOf(v) >= today).Select(v => VisitOf(v, file, standing))
        );
        db.Pile.AddRange(PileOf(file, latest));
        await db.SaveChangesAsync();
        await whole.CommitAsync();
    }

    /// <summary>What all episodes together are counted by.</summary>
    private void Told(Standing standing, CaseFile file)
    {
        standing.VisitsDone = file.Visits.Count(file.HasBegun);
        var disability = file.Visits.Select(v => v.Answers?.Disability).OfType<DisabilityTotal>().ToList();
        var last = disability.LastOrDefault();
        var same = disability.Where(d => d.MeasureId == last?.MeasureId).ToList();
        standing.DisabilityMeasure = last?.MeasureId;
        standing.DisabilityFirst = same.FirstOrDefault()?.Total;
        standing.DisabilityLast = same.Count > 1 ? last?.Total : null;
        var home = DecisionInputs.LastAtHome(file, library);
        standing.HomePlanned = home?.Sum(work => work.PlannedReps);
        standing.HomeDone = home?.Sum(work => work.DoneReps);
    }

    private static StandingVisit VisitOf(Visit visit, CaseFile file, Standing standing)
    {
        var view = EpisodeView.VisitOf(visit, file);
        var says =
            file.Closed ? Message.Of("visit.closed")
            : !file.Episode.Asked ? Message.Of("visit.first")
            : Message.Of(
                "visit.says",
                ("number", view.Number),
                ("screened", view.HasScreen),
                ("rung", standing.RungId)
            );
        return new StandingVisit
        {
            VisitId = visit.Id,
            EpisodeId = file.Episode.Id,
            Number = view.Number,
            State = view.State.ToString(),
            Says = says,
        };
    }

    private IEnumerable<WorklistRow> PileOf(CaseFile file, Visit latest)
    {
        if (file.Closed)
        {
            var report = file.Episode.DangerReports.First(r => r.Open);
            yield return Row(
                file,
                WorklistKind.DangerSign,
                latest.Id,
                DateOnly.MinValue,
                Message.Of("pile.flag", ("flag", EpisodeView.ReportOf(report, library).Words)),
                Message.Of("pile.flag-step"),
                "ask"
            );
            yield break;
        }
        if (file.Episode.DischargedOn is not null)
        {
            // Nothing of a discharged episode waits, but for a red flag.
            yield break;
        }
        if (Undecided(file) is { } undecided)
        {
            yield return undecided;
        }
        if (Sore(file) is { } sore)
        {
            yield return sore;
        }
        if (Away(file, latest) is { } away)
        {
            yield return away;
        }
        foreach (var mine in file.Episode.Precautions.Where(p => p.Until is not null))
        {
            yield return Row(
                file,
                WorklistKind.PrecautionLapsed,
                latest.Id,
                mine.Until!.Value.AddDays(1),
                Message.Of("pile.lapsed", ("precaution", mine.Id), ("until", mine.Until)),
                Message.Of("pile.lapsed-step"),
                "ask"
            );
        }
        if (file.ScreenVisit() is { } screen)
        {
            yield return Row(
                file,
                WorklistKind.RescreenDue,
                latest.Id,
                file.RescreenDue(screen),
                Message.Of("pile.rescreen"),
                Message.Of("screen.again"),
                "screen",
                file.DayOf(screen)
            );
        }
    }

    /// <summary>A session without decisions: as what its most pressing proposal says.</summary>
    private WorklistRow? Undecided(CaseFile file)
    {
        var visit = file.Visits.LastOrDefault(v =>
            v.DecidedAt is null && file.Has(v.Id, TrialPurpose.Session)
        );
        if (visit is null)
        {
            return null;
        }
        var proposals = DecisionInputs.Of(file, visit.Id, library) is { } input
            ? DecisionEngine.Bare(input, library)
            : [];
        var stalled = proposals.FirstOrDefault(d => d.RuleId == "D-PLATEAU");
        return stalled is null
            ? Row(
                file,
                WorklistKind.NotDecided,
                visit.Id,
                DateOnly.MinValue,
                Message.Of("pile.undecided"),
                Message.Of("pile.undecided-step"),
                "decide"
            )
            : Row(
                file,
                WorklistKind.Stalled,
                visit.Id,
                DateOnly.MinValue,
                Message.Of(
                    "pile.stalled",
                    ("rung", RungOf(file, stalled)),
                    ("standstill", stalled.Standstill)
                ),
                stalled.Todo ?? Message.Of("screen.again"),
                "decide"
            );
    }

    private static string RungOf(CaseFile file, Decision decision) =>
        file.Plans.SelectMany(p => p.Plan.Items).Last(item => item.Id == decision.PlanItemId).RungId;

    private WorklistRow? Sore(CaseFile file)
    {
        var asked = file.Visits.LastOrDefault(v => v is { CheckIn: not null, DecidedAt: null });
        if (asked is null || DecisionInputs.Of(file, asked.Id, library) is not { } input)
        {
            return null;
        }
        var flares = new DayFacts(input, library).Flares;
        var what = Message.Of("evidence", ("parts", flares.Select(flare => flare.Words)));
        return flares.Count > 0
            ? Row(
                file,
                WorklistKind.Soreness,
                asked.Id,
                DateOnly.MinValue,
                what,
                Message.Of("pile.sore-step"),
                file.Has(asked.Id, TrialPurpose.Session) ? "decide" : "session"
            )
            : null;
    }

    /// <summary>Nothing known of training for the policy's days, and a plan that would be trained.</summary>
    private static WorklistRow? Away(CaseFile file, Visit latest)
    {
        if (file.CurrentPlan is not { Plan.Items.Count: > 0 })
        {
            return null;
        }
        var here = file.Visits.Where(v => file.Events(v.Id).Count > 0).Select(v => (DateOnly?)file.DayOf(v));
        var home = file.HomeLog.Where(d => d.Done.Any(r => r.Reps > 0)).Select(d => (DateOnly?)d.Day);
        var told = file.Visits.Select(v => v.CheckIn?.LastTrained);
        if (here.Concat(home).Concat(told).Max() is not { } last)
        {
            return null;
        }
        // A visit that is booked is the call already.
        var booked = file.DayOf(file.Visits[^1]).AddDays(1);
        var due = last.AddDays(file.Policy.AwayDays);
        return Row(
            file,
            WorklistKind.Away,
            latest.Id,
            due > booked ? due : booked,
            Message.Of("pile.away"),
            Message.Of("pile.away-step"),
            "session",
            last
        );
    }

    private static WorklistRow Row(
        CaseFile file,
        WorklistKind kind,
        Guid visit,
        DateOnly from,
        Message what,
        Message step,
        string station,
        DateOnly? countFrom = null
    ) =>
        new()
        {
            EpisodeId = file.Episode.Id,
            VisitId = visit,
            Kind = kind,
            From = from,
            What = what,
            CountFrom = countFrom,
            Step = step,
            Station = station,
        };
}
