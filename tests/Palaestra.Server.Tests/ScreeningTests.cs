using System.Net;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Server.Findings;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Planning a screen, leading through it, repeating it, and what may go wrong on the way.</summary>
public sealed class ScreeningTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    private RunningServer Server => one.Running;
    private HttpClient browser = null!;
    private Clinic clinic = null!;
    private Opened opened = null!;
    private LibraryView library = null!;

    public async ValueTask InitializeAsync()
    {
        browser = await Server.SignedIn();
        clinic = new Clinic(browser);
        opened = await clinic.NewClient();
        library = await browser.Get<LibraryView>("/api/library");
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Guid VisitId => opened.VisitId;

    private Task<ScreenView> Screen(Guid? visit = null) =>
        browser.Get<ScreenView>($"/api/visits/{visit ?? VisitId}/screen");

    private Task<HttpResponseMessage> Store(int version, params string[] tasks) =>
        browser.Put($"/api/visits/{VisitId}/battery", new BatteryForm(tasks, 15, [], version));

    private Rung Rung(string id) => library.Ladders.SelectMany(l => l.Rungs).First(r => r.Id == id);

    private List<CaptureEvent> Look(string taskId, Side side, int clean = 5, int broken = 0)
    {
        var task = library.Tasks.First(t => t.Id == taskId);
        var rung = Rung(task.Rung!);
        var events = clinic.Trial(rung, side, task.Target ?? rung.Start, clean, broken);
        events[0] = (TrialStarted)events[0] with { TaskId = taskId };
        return events;
    }

    [Fact]
    public async Task Proposes_a_battery_until_one_is_stored_and_then_keeps_that()
    {
        var proposed = await Screen();
        Assert.Equal(0, proposed.Battery.Version);
        Assert.InRange(proposed.Battery.Battery.Minutes, 10, 15);
        Assert.Equal(
            proposed.Battery.Battery.Items.Select(i => i.TaskId),
            proposed.States.Select(s => s.TaskId)
        );
        var stored = await Store(0, "stance", "rung-L2", "fists").Ok<BatteryView>();
        Assert.Equal(1, stored.Version);
        var kept = await Screen();
        Assert.Equal(["stance", "rung-L2", "fists"], kept.Battery.Battery.Items.Select(i => i.TaskId));
        Assert.All(kept.States, s => Assert.NotNull(s.Next));
    }

    [Fact]
    public async Task Two_tablets_that_change_the_battery_at_once_do_not_overwrite_each_other()
    {
        await Store(0, "stance").Ok<BatteryView>();
        var late = await Store(0, "fists");
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        Assert.Contains("\"taskId\":\"stance\"", await late.Content.ReadAsStringAsync());
        Assert.Equal(["stance"], (await Screen()).Battery.Battery.Items.Select(i => i.TaskId));
    }

    [Theory]
    [InlineData("moon-walk", 15, "taskIds[0]")]
    [InlineData("stance", 300, "minutes")]
    public async Task Refuses_a_battery_that_cannot_be(string task, double minutes, string field)
    {
        var answer = await browser.Put(
            $"/api/visits/{VisitId}/battery",
            new BatteryForm([task], minutes, [], 0)
        );
        Assert.Contains(
            field,
            await Task.FromResult(answer).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Equal(0, (await Screen()).Battery.Version);
    }

    [Fact]
    public async Task Leads_through_the_sides_and_on_to_the_next_task()
    {
        await Store(0, "kick-back", "fists").Ok<BatteryView>();
        await clinic.Send(VisitId, Look("kick-back", Side.Left)).Ok<EventsTaken>();
        Assert.Equal(Side.Right, (await Screen()).States[0].Next!.Side);
        await clinic.Send(VisitId, Look("kick-back", Side.Right, 2, 3)).Ok<EventsTaken>();
        var states = (await Screen()).States;
        Assert.True(states[0].Done);
        // The right side turned out the weaker one, so it goes first from here on.
        Assert.Equal(("fists", Side.Right), (states[1].TaskId, states[1].Next!.Side));
    }

    [Fact]
    public async Task An_earlier_screen_can_be_repeated_and_compared()
    {
        await Store(0, "fists", "kick-back").Ok<BatteryView>();
        await clinic.Send(VisitId, Look("kick-back", Side.Left, 1, 4)).Ok<EventsTaken>();
        var visit = await clinic.Book(opened.EpisodeId);
        Assert.Equal(VisitId, (await Screen(visit.Id)).Earlier!.VisitId);
        var again = await browser
            .Post(
                $"/api/visits/{visit.Id}/battery/proposal",
                new ProposalForm(15, [], RepeatVisitId: VisitId)
            )
            .Ok<Battery>();
        Assert.Equal(["kick-back"], again.Items.Select(i => i.TaskId));
        await clinic.Send(visit.Id, Look("kick-back", Side.Left)).Ok<EventsTaken>();
        var findings = await browser.Get<FindingsView>($"/api/visits/{visit.Id}/findings");
        Assert.Equal(VisitId, findings.EarlierVisitId);
        Assert.Equal([1, 2], findings.Screens.Select(s => s.Number));
        var change = findings.Changes.First(c => c.Of == "kick-back");
        Assert.Equal((1, 5, Core.Terms.ChangeVerdict.Better), (change.Before, change.Now, change.Verdict));
        Assert.Equal(
            DateOnly.FromDateTime(findings.ScreenedAt!.Value.ToDateTimeOffset().LocalDateTime).AddDays(42),
            findings.RescreenDue
        );
        var none = await browser.GetAsync($"/api/visits/{VisitId}/findings?against={visit.Id}");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, none.StatusCode);
    }

    [Fact]
    public async Task Nothing_can_be_repeated_from_a_visit_without_a_screen() =>
        Assert.Contains(
            "repeatVisitId",
            await browser
                .Post($"/api/visits/{VisitId}/battery/proposal", new ProposalForm(15, [], VisitId))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );

    /// <summary>Who wrote is who was signed in: a tablet cannot say otherwise (AccountTests: whom it named is kept beside).</summary>
    [Fact]
    public async Task Marks_stand_under_the_name_of_who_was_signed_in()
    {
        var events = Look("kick-back", Side.Left);
        events[0] = events[0] with { By = "Pell Ashdown" };
        await clinic.Send(VisitId, events).Ok<EventsTaken>();
        Assert.Equal("Edda Marl", (await Screen()).Trials[0].By);
    }

    [Fact]
    public async Task Two_tablets_with_a_trial_each_both_count()
    {
        var (left, right) = (Look("kick-back", Side.Left), Look("kick-back", Side.Right));
        for (var i = 0; i < left.Count; i++)
        {
            await clinic.Send(VisitId, [left[i]]).Ok<EventsTaken>();
            await clinic.Send(VisitId, [right[i]]).Ok<EventsTaken>();
        }
        var trials = (await Screen()).Trials;
        Assert.Equal([5, 5], trials.Select(t => t.Clean.Reps));
    }

    [Fact]
    public async Task Marks_that_arrive_an_hour_late_change_the_trial_they_belong_to()
    {
        var events = Look("kick-back", Side.Left);
        var late = new FaultMarked(
            Guid.CreateVersion7(),
            events[0].TrialId,
            events[1].At.AddSeconds(0.5),
            "arch"
        );
        await clinic.Send(VisitId, events).Ok<EventsTaken>();
        Assert.Equal(5, (await Screen()).Trials[0].Clean.Reps);
        await clinic.Send(VisitId, [late]).Ok<EventsTaken>();
        await clinic.Send(VisitId, [late, .. events]).Ok<EventsTaken>();
        var trial = Assert.Single((await Screen()).Trials);
        Assert.Equal(4, trial.Clean.Reps);
        Assert.Equal(1, trial.FirstBreak!.Rep);
    }

    [Fact]
    public async Task A_trial_left_open_holds_nothing_up()
    {
        await Store(0, "kick-back").Ok<BatteryView>();
        var events = Look("kick-back", Side.Left);
        await clinic.Send(VisitId, events[..^1]).Ok<EventsTaken>();
        var open = await Screen();
        Assert.Equal(Side.Left, open.States[0].Next!.Side);
        Assert.Empty(open.States[0].Trials);
        Assert.True(open.Trials[0].Open);
        await clinic
            .Send(VisitId, [new TrialDiscarded(Guid.CreateVersion7(), events[0].TrialId, events[^1].At)])
            .Ok<EventsTaken>();
        Assert.Empty((await Screen()).Trials);
    }

    [Fact]
    public async Task A_side_put_right_afterwards_moves_to_the_other_side()
    {
        await Store(0, "kick-back").Ok<BatteryView>();
        var events = Look("kick-back", Side.Left);
        await clinic.Send(VisitId, events).Ok<EventsTaken>();
        await clinic
            .Send(
                VisitId,
                [
                    new SideCorrected(
                        Guid.CreateVersion7(),
                        events[0].TrialId,
                        events[^1].At.AddMinutes(5),
                        Side.Right
                    ),
                ]
            )
            .Ok<EventsTaken>();
        var screen = await Screen();
        Assert.Equal(Side.Right, screen.Trials[0].Side);
        Assert.Equal(Side.Left, screen.States[0].Next!.Side);
    }
}
