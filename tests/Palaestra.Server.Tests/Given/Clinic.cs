using Palaestra.Core.Body;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;
using Palaestra.Server.Screening;
using Palaestra.Server.Visits;

namespace Palaestra.Server.Tests.Given;

/// <summary>What a practitioner does, over HTTP.</summary>
public sealed class Clinic(HttpClient browser)
{
    private DateTimeOffset now = DateTimeOffset.UtcNow.AddHours(-2);

    public static IntakeForm Form(params string[] dangerSigns) =>
        new(
            "Wenna Sorrel",
            new DateOnly(1984, 5, 17),
            "Aches after hauling nets.",
            new Pain(2, 4, 2),
            1,
            false,
            [],
            dangerSigns,
            20,
            "mastery-no-rise",
            Sex.Female,
            170,
            68
        );

    public Task<Opened> NewClient(IntakeForm? form = null) =>
        browser.Post("/api/clients", form ?? Form()).Ok<Opened>();

    public Task<EpisodeView> Episode(Guid id) => browser.Get<EpisodeView>($"/api/episodes/{id}");

    /// <summary>One trial as events: clean reps, then broken ones.</summary>
    public List<CaptureEvent> Trial(
        Rung rung,
        Side side,
        Dose target,
        int clean,
        int broken,
        Guid? planItem = null,
        int set = 1
    )
    {
        var taps = new Taps(Guid.CreateVersion7(), after => now = now.AddSeconds(after), Guid.CreateVersion7);
        var events = new List<CaptureEvent>
        {
            taps.Start(
                1,
                new(
                    Guid.Empty,
                    Guid.Empty,
                    default,
                    rung.Id,
                    side,
                    planItem is null ? TrialPurpose.Screen : TrialPurpose.Session,
                    target with
                    {
                        Sets = 1,
                    },
                    planItem,
                    set
                )
            ),
        };
        for (var i = 0; i < clean + broken; i++)
        {
            if (target.Hold > 0)
            {
                events.Add(taps.Hold(1));
            }
            if (i >= clean)
            {
                events.Add(taps.Fault(0.5, rung.Faults[0]));
            }
            events.Add(taps.Rep(Math.Max(1, target.Hold)));
        }
        events.Add(taps.End(1, broken > 0 ? EndReason.BreakingFault : EndReason.TargetMet));
        return events;
    }

    public Task<HttpResponseMessage> Send(Guid visitId, IReadOnlyList<CaptureEvent> events) =>
        browser.Post($"/api/visits/{visitId}/events", new EventBatch(events));

    /// <summary>Climbs every ladder; each side holds the given number of rungs.</summary>
    public async Task Screen(Guid visitId, int left, int right)
    {
        var library = await browser.Get<Server.Library.LibraryView>("/api/library");
        while (true)
        {
            var screen = await browser.Get<ScreenView>($"/api/visits/{visitId}/screen");
            if (screen.Searches.FirstOrDefault(s => s.NextRungId is not null) is not { } next)
            {
                return;
            }
            var ladder = library.Ladders.First(l => l.Id == next.LadderId);
            var rung = ladder.Rungs.First(r => r.Id == next.NextRungId);
            var side = rung.Sides == RungSides.Each ? next.Side : Side.Both;
            var holds = ladder.IndexOf(rung.Id) < (next.Side == Side.Left ? left : right);
            var events = Trial(rung, side, rung.Start, holds ? rung.Start.Reps : 1, holds ? 0 : 2);
            await Send(visitId, events).Ok<EventsTaken>();
        }
    }

    public async Task<PlanRevisionView> AcceptProposal(Opened opened)
    {
        var plan = await browser.Get<PlanView>($"/api/episodes/{opened.EpisodeId}/plan");
        var proposal = plan.Proposal!.Plan;
        var form = new AcceptPlanForm(
            new PlanForm(proposal.Items, proposal.Strategy, proposal.Activation),
            opened.VisitId,
            plan.Revisions.Count
        );
        return await browser.Post($"/api/episodes/{opened.EpisodeId}/plans", form).Ok<PlanRevisionView>();
    }

    public Task<VisitView> Book(Guid episodeId, int days = 7) =>
        browser
            .Post($"/api/episodes/{episodeId}/visits", new BookVisitForm(DateTime.Now.AddDays(days)))
            .Ok<VisitView>();

    public Task<HttpResponseMessage> CheckIn(VisitView visit, params string[] dangerSigns) =>
        browser.Put(
            $"/api/visits/{visit.Id}/check-in",
            new CheckInForm(
                new CheckIn(2, 2, 2, 1, dangerSigns, DateOnly.FromDateTime(DateTime.Now)),
                visit.Version
            )
        );
}
