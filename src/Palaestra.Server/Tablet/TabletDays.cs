using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Data;
using Palaestra.Data.Audit;
using Palaestra.Server.Audit;
using Palaestra.Server.Clinics;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.People;
using Palaestra.Server.Progression;
using Palaestra.Server.Screening;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tablet;

/// <summary>A visit as a tablet takes it along: what its views ask the server for, in the same words.</summary>
/// <param name="Session">None at a visit that has no plan to run.</param>
/// <param name="Unasked">What is to be minded before the first set whatever is answered today; none where the check-in was asked, or there is nothing to run.</param>
public sealed record TabletVisit(
    Guid EpisodeId,
    Guid VisitId,
    EpisodeView Episode,
    ScreenView Screen,
    SessionView? Session,
    SessionAdvice? Unasked,
    IReadOnlyList<CaptureEvent> Events
);

/// <param name="Until">When it is to be gone from the tablet: with the day, or with the sign-in.</param>
public sealed record TabletDay(Instant Until, IReadOnlyList<TabletVisit> Visits);

/// <summary>Puts together what goes along: today's visits with whoever asks, and those with nobody in particular.</summary>
public sealed class TabletDays(
    PalaestraDb db,
    DayVisits visits,
    CaseFiles files,
    PracticeLibrary library,
    Batteries batteries,
    ClinicClock clock,
    TakenAlong taken,
    AuditWriter audit
)
{
    public async Task<TabletDay> Of(OpenSignIn who)
    {
        List<TabletVisit> along = [];
        foreach (var visit in await visits.On(clock.Today))
        {
            if (
                visit.CalledOff is null
                && visit.State != VisitState.Done
                && (visit.WithId is null || visit.WithId == who.AccountId)
                && await files.OfEpisode(visit.EpisodeId) is { } file
            )
            {
                along.Add(await Along(file, visit.VisitId));
                Note(who, visit);
            }
        }
        var tomorrow = clock.Zone.StartOf(clock.Today.AddDays(1));
        return new(Instant.Min(tomorrow, who.BegunAt + OpenSignIns.Longest), along);
    }

    private async Task<TabletVisit> Along(CaseFile file, Guid visitId) =>
        new(
            file.Episode.Id,
            visitId,
            EpisodeView.Of(file, library, clock.Today),
            ScreeningEndpoints.ViewOf(file, visitId, library, batteries),
            file.PlanFor(visitId) is null ? null : VisitEndpoints.ViewOf(file, visitId, library),
            file.Visit(visitId).CheckIn is null && DecisionInputs.Unasked(file, visitId, library) is { } input
                ? SessionAdvice.Of(input, library)
                : null,
            await ScreeningEndpoints.EventsOf(visitId, db, library)
        );

    private void Note(OpenSignIn who, DayVisit visit)
    {
        if (taken.First(clock.Today, who.Id, visit.VisitId))
        {
            audit.Tell(
                new AuditNote
                {
                    At = clock.Now,
                    Kind = AuditKind.View,
                    AccountId = who.AccountId,
                    By = who.Name,
                    What = "GetTabletDay",
                    Episode = visit.EpisodeId,
                    Visit = visit.VisitId,
                }
            );
        }
    }
}
