using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

/// <summary>Where a ladder stands by the tasks that speak of it (../content/tasks.json, feeds).</summary>
public class TaskFeedsTests
{
    private static IReadOnlyList<RungSearch> Told(Tape tape, params string[] climbed) =>
        TaskFeeds.Of(tape.Trials(), climbed.ToHashSet(), Content.Library);

    private static (string, Side, string?, double, string?) Short(RungSearch entry) =>
        (entry.LadderId, entry.Side, entry.EntryRungId, entry.Range, entry.FromTask);

    [Theory]
    [InlineData(1, "E5")]
    [InlineData(0, "E4")]
    public void A_let_go_with_the_fists_speaks_of_the_other_side(double level, string rung) =>
        Assert.Equal(
            ("E", Side.Right, rung, 1, "fists"),
            Short(Assert.Single(Told(new Tape().Task("fists", Side.Left).Measure(level).End())))
        );

    [Fact]
    public void A_let_go_speaks_of_its_own_side() =>
        Assert.Equal(
            ("E", Side.Left, "E4", 1, "let-go"),
            Short(Assert.Single(Told(new Tape().Task("let-go", Side.Left).Measure(1).End())))
        );

    /// <summary>From the seconds the task names on, a hold is clean enough, whatever was asked.</summary>
    [Theory]
    [InlineData(9.9, "K1")]
    [InlineData(10, "K2")]
    [InlineData(45, "K2")]
    public void A_stance_counts_from_its_seconds_on(double seconds, string rung)
    {
        var tape = new Tape()
            .Task("stance", Side.Right)
            .Rep(hold: 60, fault: "stance-lean", faultAt: seconds);
        Assert.Equal(
            ("K", Side.Right, rung, 1, "stance"),
            Short(Assert.Single(Told(tape.End(EndReason.BreakingFault))))
        );
    }

    /// <summary>45 degrees are the whole roll; less than a fifth of it is not the exercise any more.</summary>
    [Theory]
    [InlineData(45, "I3", 1)]
    [InlineData(30, "I3", 0.67)]
    [InlineData(9, "I3", 0.2)]
    [InlineData(8, "I1", 1)]
    public void A_roll_that_holds_less_far_is_that_roll_less_far(double degrees, string rung, double range)
    {
        var tape = new Tape().Task("roll-range", Side.Left).Range(degrees: degrees).Rep();
        tape.Range(degrees: 45);
        if (degrees < 45)
        {
            tape.Rep(fault: "leg-drop");
        }
        else
        {
            tape.Rep();
        }
        Assert.Equal(("I", Side.Left, rung, range, "roll-range"), Short(Assert.Single(Told(tape.End()))));
    }

    [Fact]
    public void A_feed_of_one_surface_is_not_told_by_another()
    {
        // On the counter it tells of the rungs a counter stands for, never of the floor's.
        var counter = new Tape()
            .Task("shoulder-touch", Side.Left, rung: "T6")
            .Reps(Content.Library.Rung("T6").Start.Reps)
            .End();
        Assert.Equal("H2", Assert.Single(Told(counter)).EntryRungId);
        var broken = new Tape().Task("shoulder-touch", Side.Left, rung: "T6").Rep(fault: "twist").End();
        Assert.Equal("H1", Assert.Single(Told(broken)).EntryRungId);
        var floor = new Tape().Task("shoulder-touch", Side.Left, rung: "H6").Rep(fault: "twist").End();
        Assert.Equal("H2", Assert.Single(Told(floor)).EntryRungId);
    }

    [Fact]
    public void Of_several_that_tell_of_a_ladder_the_lowest_counts()
    {
        var tape = new Tape().Task("step-up", Side.Left).Reps(5).End();
        Assert.Equal("Q4", Assert.Single(Told(tape)).EntryRungId);
        tape.Task("step-down", Side.Left).Rep(fault: "knee-in").Rep(fault: "knee-in").End();
        Assert.Equal("Q2", Assert.Single(Told(tape)).EntryRungId);
        tape.Task("step-down", Side.Right).Reps(5).End();
        Assert.Equal(
            [(Side.Left, "Q2"), (Side.Right, "Q5")],
            Told(tape).Select(e => (e.Side, e.EntryRungId!))
        );
    }

    [Fact]
    public void A_ladder_that_was_climbed_is_told_by_its_own_trials()
    {
        var tape = new Tape().Task("stance", Side.Left).Rep(20).End();
        Assert.Empty(Told(tape, "K"));
        Assert.Single(Told(tape, "B"));
    }

    [Fact]
    public void A_task_that_feeds_nothing_tells_nothing() =>
        Assert.Empty(Told(new Tape().Task("reaches", Side.Left, "front").Measure(50).End()));

    [Theory]
    [InlineData(EndReason.Pain, null)]
    [InlineData(EndReason.TargetMet, 9)]
    public void What_hurt_tells_nothing_and_takes_back_what_the_same_told_before(EndReason end, int? pain)
    {
        Tape Stance(Side side) => new Tape().Task("stance", side).Rep(20).End();
        Tape Hurts(Tape tape, Side side)
        {
            tape.Task("stance", side).Rep(20);
            if (pain is { } told)
            {
                tape.Pain(PainPhase.Peak, told);
            }
            return tape.End(end);
        }
        Assert.Empty(Told(Hurts(new Tape(), Side.Left)));
        Assert.Empty(Told(Hurts(Stance(Side.Left), Side.Left)));
        // The other side says what it said.
        Assert.Equal(Side.Right, Assert.Single(Told(Hurts(Stance(Side.Right), Side.Left))).Side);
        // And what is done without pain afterwards counts.
        Assert.Single(Told(Hurts(new Tape(), Side.Left).Task("stance", Side.Left).Rep(20).End()));
    }

    [Fact]
    public void What_gave_way_before_it_hurt_is_told_as_given_way() =>
        Assert.Equal(
            "K1",
            Assert
                .Single(
                    Told(
                        new Tape()
                            .Task("stance", Side.Left)
                            .Rep(hold: 5, fault: "stance-lean", faultAt: 3)
                            .End(EndReason.Pain)
                    )
                )
                .EntryRungId
        );

    [Fact]
    public void What_was_not_held_stays_when_it_hurts_afterwards()
    {
        var tape = new Tape().Task("stance", Side.Left).Rep(hold: 5, fault: "stance-lean", faultAt: 3).End();
        tape.Task("stance", Side.Left).Rep(20).End(EndReason.Pain);
        Assert.Equal("K1", Assert.Single(Told(tape)).EntryRungId);
    }

    /// <summary>Q: a step up held gives Q4, a step down Q5; let-go (E4) and bridge hold (E7) speak of one ladder too.</summary>
    [Fact]
    public void What_hurt_later_lets_nothing_harder_take_its_place()
    {
        Tape Both() =>
            new Tape().Task("step-up", Side.Left).Reps(5).End().Task("step-down", Side.Left).Reps(5).End();
        Assert.Equal("Q4", Assert.Single(Told(Both())).EntryRungId);
        // The lower one hurts: the higher one, which was held, is not told in its place.
        Assert.Empty(Told(Both().Task("step-up", Side.Left).Reps(5).End(EndReason.Pain)));
        // The higher one hurts: the lower one stands.
        Assert.Equal(
            "Q4",
            Assert.Single(Told(Both().Task("step-down", Side.Left).Reps(5).End(EndReason.Pain))).EntryRungId
        );
        // What gave way lower down stays whatever hurts.
        var gave = Both().Task("step-down", Side.Left).Rep(fault: "knee-in", faultAt: 1).End();
        Assert.Equal(
            "Q2",
            Assert.Single(Told(gave.Task("step-up", Side.Left).Reps(5).End(EndReason.Pain))).EntryRungId
        );
    }

    private static readonly ScreenTask[] Feeding =
    [
        .. Content.Library.Tasks.Where(t =>
            t is { Feeds: not null, Retired: false, Measure: MeasureKind.Reps }
        ),
    ];

    /// <summary>Some tasks, clean or broken, done once or again.</summary>
    private static Tape AnyScreen(int[] picks)
    {
        var tape = new Tape();
        foreach (var pick in picks)
        {
            var task = Feeding[pick / 4 % Feeding.Length];
            var rung = Content.Library.Rung(task.Surfaces?[0].Rung ?? task.Rung!);
            var side =
                rung.Sides != RungSides.Each ? Side.Both
                : pick % 2 == 0 ? Side.Left
                : Side.Right;
            tape.Task(task.Id, side, task.Ways[0]).Reps(pick % 4 < 2 ? rung.Start.Reps : 1, rung.Start.Hold);
            (pick % 4 < 2 ? tape : tape.Rep(rung.Start.Hold, rung.Faults[0])).End();
        }
        return tape;
    }

    private static Dictionary<(string, Side), int> Heights(Tape tape) =>
        Told(tape)
            .ToDictionary(
                e => (e.LadderId, e.Side),
                e => Content.Library.Ladders.First(l => l.Id == e.LadderId).IndexOf(e.EntryRungId!)
            );

    /// <summary>More pain, and more faults, never give a harder rung; nor does pain take a lower one away.</summary>
    [Fact]
    public void More_pain_or_more_faults_never_give_a_harder_rung() =>
        Gen.Select(Gen.Int[0, 4 * 40].Array[1, 5], Gen.Int[0, 4 * 40], Gen.Bool)
            .Sample(
                (picks, more, pain) =>
                {
                    var before = Heights(AnyScreen(picks));
                    var worse = AnyScreen(picks);
                    var task = Feeding[more / 4 % Feeding.Length];
                    var rung = Content.Library.Rung(task.Surfaces?[0].Rung ?? task.Rung!);
                    var side =
                        rung.Sides != RungSides.Each ? Side.Both
                        : more % 2 == 0 ? Side.Left
                        : Side.Right;
                    worse.Task(task.Id, side, task.Ways[0]);
                    if (pain)
                    {
                        worse.Reps(rung.Start.Reps, rung.Start.Hold).End(EndReason.Pain);
                    }
                    else
                    {
                        worse.Rep(rung.Start.Hold, rung.Faults[0]).End(EndReason.BreakingFault);
                    }
                    var after = Heights(worse);
                    return before.All(was =>
                        after.TryGetValue(was.Key, out var now)
                            ? now <= was.Value
                            : pain && !FailedBefore(AnyScreen(picks), was.Key)
                    );
                },
                iter: Soak.Cases(400)
            );

    private static bool FailedBefore(Tape tape, (string Ladder, Side Side) key) =>
        Told(tape).Any(e => (e.LadderId, e.Side) == key && e.Why.Id == "feed.gave-way");
}
