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

    private static TrialStarted Begun(string rung = "B5", Side side = Side.Left) =>
        (TrialStarted)new Tape().Start(rung, side).Events[0];

    private static Dose Asked(int reps = 5, double hold = 3) => new(reps, 1, hold);

    /// <summary>Ends of what may be sent: the first is taken, the second is one past it and names its field.</summary>
    public static TheoryData<CaptureEvent, CaptureEvent, string> Ends
    {
        get
        {
            var start = Begun();
            T Of<T>(T e)
                where T : CaptureEvent =>
                e with
                {
                    Id = Guid.CreateVersion7(),
                    TrialId = start.TrialId,
                    At = start.At.AddSeconds(1),
                };
            PainMarked Pain(int value) =>
                Of(new PainMarked(default, default, default, PainPhase.Peak, value));
            EffortMarked Effort(int value) => Of(new EffortMarked(default, default, default, value));
            MeasureTaken Measure(double amount) => Of(new MeasureTaken(default, default, default, amount));
            RangeReached Range(double? share, double? degrees = null) =>
                Of(new RangeReached(default, default, default, share, degrees));
            CueGiven Cue(string text) => Of(new CueGiven(default, default, default, Cue: text));
            TrialAmended Amended(string why) => Of(new TrialAmended(default, default, default, why));
            SessionPainAsked Session(int value, double minutes) =>
                Of(new SessionPainAsked(default, default, default, value, minutes));
            ExerciseAdded Added(string rung, int reps = 5, int sets = 2, double hold = 3) =>
                Of(
                    new ExerciseAdded(
                        default,
                        default,
                        default,
                        Guid.NewGuid(),
                        rung,
                        new Dose(reps, sets, hold)
                    )
                );
            return new()
            {
                { start with { Target = Asked(1) }, start with { Target = Asked(0) }, "target" },
                { start with { Target = Asked(100) }, start with { Target = Asked(101) }, "target" },
                {
                    start with
                    {
                        Target = Asked(hold: 600),
                    },
                    start with
                    {
                        Target = Asked(hold: 601),
                    },
                    "target"
                },
                { start with { Load = 0 }, start with { Load = -0.1 }, "load" },
                { start with { Load = 300 }, start with { Load = 300.1 }, "load" },
                { start with { LegLength = 40 }, start with { LegLength = 39.9 }, "legLength" },
                { start with { LegLength = 140 }, start with { LegLength = 140.1 }, "legLength" },
                { start with { Share = 0 }, start with { Share = -0.01 }, "share" },
                { start with { Share = 1 }, start with { Share = 1.01 }, "share" },
                {
                    start with
                    {
                        Eased = [OneChange.Cue],
                    },
                    start with
                    {
                        Eased = [OneChange.Cue, OneChange.Cue],
                    },
                    "eased"
                },
                { start with { By = new('a', 200) }, start with { By = new('a', 201) }, "by" },
                { start, start with { Variant = "sideways" }, "variant" },
                { start, start with { Id = Guid.Empty }, "id" },
                { Pain(0), Pain(-1), "value" },
                { Pain(10), Pain(11), "value" },
                { Effort(0), Effort(-1), "value" },
                { Effort(10), Effort(11), "value" },
                { Measure(0), Measure(-0.1), "amount" },
                { Measure(1000), Measure(1000.1), "amount" },
                { Range(0), Range(-0.01), "share" },
                { Range(1), Range(1.01), "share" },
                { Range(null, 0), Range(null, -1), "degrees" },
                { Range(null, 180), Range(null, 181), "degrees" },
                { Cue(new('a', 200)), Cue(new('a', 201)), "cue" },
                { Cue("a"), Cue(""), "cue" },
                { Amended(new('a', 500)), Amended(new('a', 501)), "reason" },
                { Amended("a"), Amended(" "), "reason" },
                { Session(0, 0), Session(-1, 0), "value" },
                { Session(10, 240), Session(10, 241), "minutes" },
                { Session(10, 0), Session(10, -1), "minutes" },
                { Added("B5"), Added("Z9"), "rungId" },
                { Added("B5", 1, 1, 0), Added("B5", 0, 1, 0), "target" },
                { Added("B5", 100, 10, 600), Added("B5", 101, 10, 600), "target" },
                { Added("B5", 100, 10, 600), Added("B5", 100, 11, 600), "target" },
                { Added("B5", 100, 10, 600), Added("B5", 100, 10, 601), "target" },
                { Added("B5", 5, 1), Added("B5", 5, 0), "target" },
                { Added("B5", hold: 0), Added("B5", hold: -1), "target" },
            };
        }
    }

    [Theory]
    [MemberData(nameof(Ends), DisableDiscoveryEnumeration = true)]
    public void Takes_what_is_at_the_end_of_a_range_and_refuses_what_is_past_it(
        CaptureEvent last,
        CaptureEvent past,
        string field
    )
    {
        List<CaptureEvent> Whole(CaptureEvent e) =>
            e is TrialStarted or ExerciseAdded or SessionPainAsked
                ? [e]
                : [Begun() with { TrialId = e.TrialId }, e];
        Assert.Empty(CaptureCheck.Errors([], Whole(last), Content.Library));
        var whole = Whole(past);
        Assert.Equal($"events[{whole.Count - 1}].{field}", Field(whole));
    }

    [Fact]
    public void What_is_wrong_with_the_side_is_said_by_what_the_rung_is_done_with()
    {
        string Why(CaptureEvent e) => Assert.Single(CaptureCheck.Errors([], [e], Content.Library)).Message.Id;
        Assert.Equal("capture.sided", Why(Begun() with { Side = Side.Both }));
        Assert.Equal("capture.no-side", Why(Begun("S1", Side.Both) with { Side = Side.Left }));
    }

    [Fact]
    public void An_empty_place_in_the_list_is_named_and_the_others_are_looked_at()
    {
        var events = Good();
        events[1] = null!;
        events[3] = (PainMarked)events[3] with { Value = 12 };
        Assert.Equal(
            ["events[1]", "events[3].value"],
            CaptureCheck.Errors([], events, Content.Library).Select(e => e.Field)
        );
    }
}
