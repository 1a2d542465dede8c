using Palaestra.Core.Capture;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

public class CaptureCheckTests
{
    private static List<CaptureEvent> Good() =>
        new Tape().Start("B5", Side.Left).Rep(fault: "arch").Pain(PainPhase.Peak, 3).End().Events;

    private static string Field(IReadOnlyList<CaptureEvent> events) =>
        Assert.Single(CaptureCheck.Errors([], events, Content.Library)).Field;

    [Fact]
    public void Lets_a_proper_trial_through() =>
        Assert.Empty(CaptureCheck.Errors([], Good(), Content.Library));

    public static TheoryData<int, string, Func<CaptureEvent, CaptureEvent>> Wrongs =>
        new()
        {
            { 0, "events[0].rungId", e => (TrialStarted)e with { RungId = "Z9" } },
            { 0, "events[0].side", e => (TrialStarted)e with { Side = Side.Both } },
            { 0, "events[0].target", e => (TrialStarted)e with { Target = new Dose(5, 1, -3) } },
            {
                0,
                "events[0].target.range",
                e => (TrialStarted)e with { Target = new Dose(5, 1, 3, Range: 1.2) }
            },
            {
                0,
                "events[0].target.load",
                e => (TrialStarted)e with { Target = new Dose(5, 1, 3, Load: -2) }
            },
            { 0, "events[0].planItemId", e => (TrialStarted)e with { Purpose = TrialPurpose.Session } },
            { 1, "events[1].fault", e => (FaultMarked)e with { Fault = "yawn" } },
            { 1, "events[1].at", e => e with { At = e.At.AddHours(-1) } },
            { 1, "events[1].trialId", e => e with { TrialId = Guid.NewGuid() } },
            { 3, "events[3].value", e => (PainMarked)e with { Value = 12 } },
            { 3, "events[3].value", e => (PainMarked)e with { Value = -1 } },
        };

    [Theory]
    [MemberData(nameof(Wrongs), DisableDiscoveryEnumeration = true)]
    public void Refuses_what_cannot_be_true_and_names_it(
        int index,
        string field,
        Func<CaptureEvent, CaptureEvent> spoil
    )
    {
        var events = Good();
        events[index] = spoil(events[index]);
        Assert.Equal(field, Field(events));
    }

    private static List<CaptureEvent> Reach() =>
        new Tape()
            .Task("reaches", Side.Left, "front", leg: 90)
            .Measure(61)
            .Range(degrees: 30, share: 0.5)
            .Uses(Instrument.Dowel)
            .OtherSide(Side.Right)
            .End()
            .Events;

    public static TheoryData<int, string, Func<CaptureEvent, CaptureEvent>> WrongReadings =>
        new()
        {
            { 0, "events[0].taskId", e => (TrialStarted)e with { TaskId = "moon-walk" } },
            { 0, "events[0].rungId", e => (TrialStarted)e with { TaskId = "fists", Variant = null } },
            { 0, "events[0].variant", e => (TrialStarted)e with { Variant = "upward" } },
            { 0, "events[0].variant", e => (TrialStarted)e with { Variant = null } },
            { 0, "events[0].load", e => (TrialStarted)e with { Load = -5 } },
            { 0, "events[0].legLength", e => (TrialStarted)e with { LegLength = 9 } },
            { 1, "events[1].amount", e => (MeasureTaken)e with { Amount = -1 } },
            { 1, "events[1].amount", e => (MeasureTaken)e with { Amount = double.NaN } },
            { 1, "events[1].amount", e => (MeasureTaken)e with { Amount = 400 } },
            { 2, "events[2].share", e => (RangeReached)e with { Share = 1.2 } },
            { 2, "events[2].share", e => (RangeReached)e with { Share = null, Degrees = null } },
            { 2, "events[2].degrees", e => (RangeReached)e with { Degrees = 200 } },
            { 4, "events[4].side", e => (SideCorrected)e with { Side = Side.Both } },
            { 4, "events[4].by", e => e with { By = "" } },
        };

    [Theory]
    [MemberData(nameof(WrongReadings), DisableDiscoveryEnumeration = true)]
    public void Refuses_readings_that_cannot_be_and_names_them(
        int index,
        string field,
        Func<CaptureEvent, CaptureEvent> spoil
    )
    {
        var events = Reach();
        Assert.Empty(CaptureCheck.Errors([], events, Content.Library));
        events[index] = spoil(events[index]);
        Assert.Contains(CaptureCheck.Errors([], events, Content.Library), e => e.Field == field);
    }

    [Theory]
    [InlineData("active-leg-raise", 6)]
    [InlineData("let-go", 2)]
    public void A_reading_has_the_bounds_of_its_task(string task, double amount) =>
        Assert.Equal(
            "events[1].amount",
            Field(new Tape().Task(task, Side.Left).Measure(amount).End().Events)
        );

    [Fact]
    public void Refuses_to_take_back_what_is_not_there_or_belongs_to_another_trial()
    {
        var tape = new Tape().Start("B5", Side.Left).Undo(Guid.NewGuid());
        Assert.Equal("events[1].undoes", Field(tape.Events));
        var two = new Tape().Start("B5", Side.Left).Rep();
        var first = two.Events[^1].Id;
        two.Start("B5", Side.Right).Undo(first);
        Assert.Equal("events[3].undoes", Field(two.Events));
    }

    [Fact]
    public void An_event_already_known_is_passed_over()
    {
        var events = Good();
        Assert.Empty(CaptureCheck.Errors(events, events, Content.Library));
    }

    [Fact]
    public void A_trial_is_started_once()
    {
        var events = Good();
        var again = events[0] with { Id = Guid.NewGuid() };
        Assert.Equal(
            "events[0].trialId",
            Assert.Single(CaptureCheck.Errors(events, [again], Content.Library)).Field
        );
    }
}
