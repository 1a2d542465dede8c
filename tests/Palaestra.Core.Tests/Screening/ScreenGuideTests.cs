using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

public class ScreenGuideTests
{
    private static ScreenStep? Next(
        string task,
        Tape tape,
        SideOrder order = SideOrder.WeakerFirst,
        Side? weaker = null
    )
    {
        var battery = BatteryPlanner.ByHand(
            [task],
            Someone.Calm,
            Content.Policy,
            new BatteryQuestion(15, []),
            Content.Library
        );
        var policy = Content.Policy with { SideOrder = order };
        return ScreenGuide
            .States(battery, tape.Trials(), Someone.Calm, policy, Content.Library, _ => weaker)[0]
            .Next;
    }

    [Fact]
    public void The_weaker_side_goes_first_where_one_is_known()
    {
        Assert.Equal(Side.Right, Next("fists", new Tape(), weaker: Side.Right)!.Side);
        Assert.Equal(Side.Left, Next("fists", new Tape())!.Side);
    }

    [Fact]
    public void Turn_about_when_the_policy_alternates()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(5).End();
        Assert.Equal(Side.Right, Next("leg-lowering", tape, SideOrder.Alternate)!.Side);
        tape.Start("B5", Side.Right).Reps(5).End();
        Assert.Equal(Side.Left, Next("leg-lowering", tape, SideOrder.Alternate)!.Side);
    }

    [Fact]
    public void One_side_to_the_end_otherwise()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(5).End();
        Assert.Equal(Side.Left, Next("leg-lowering", tape, SideOrder.OneThenOther)!.Side);
        tape.Start("B6", Side.Left).Rep(3, "arch").Rep(3, "arch").End(EndReason.BreakingFault);
        Assert.Equal(Side.Right, Next("leg-lowering", tape, SideOrder.OneThenOther)!.Side);
    }

    [Fact]
    public void Both_sides_of_one_way_before_the_next_way()
    {
        var tape = new Tape();
        var seen = new List<(string?, Side)>();
        while (Next("leg-circles", tape) is { } step)
        {
            seen.Add((step.Variant, step.Side));
            tape.Task("leg-circles", step.Side, step.Variant, step.RungId).Reps(3).End();
        }
        Assert.Equal(
            [("outward", Side.Left), ("outward", Side.Right), ("inward", Side.Right), ("inward", Side.Left)],
            seen
        );
    }

    [Fact]
    public void The_load_rises_after_a_clean_set_and_ends_at_the_first_that_breaks()
    {
        var tape = new Tape();
        Assert.Equal(0, Next("loaded-hinge", tape)!.Load);
        tape.Task("loaded-hinge", Side.Both, load: 0).Reps(5).End();
        Assert.Equal(2.5, Next("loaded-hinge", tape)!.Load);
        tape.Task("loaded-hinge", Side.Both, load: 10).Reps(5).End();
        Assert.Equal(15, Next("loaded-hinge", tape)!.Load);
        tape.Task("loaded-hinge", Side.Both, load: 15).Rep(fault: "round").End(EndReason.BreakingFault);
        Assert.Null(Next("loaded-hinge", tape));
    }

    [Fact]
    public void No_heavier_load_after_one_that_hurt_clean_or_not()
    {
        Tape At(double load) => new Tape().Task("loaded-hinge", Side.Both, load: load);
        Assert.Null(Next("loaded-hinge", At(5).Reps(5).End(EndReason.Pain)));
        Assert.Null(Next("loaded-hinge", At(5).Reps(5).Pain(PainPhase.Peak, 9).End()));
        Assert.Equal(10, Next("loaded-hinge", At(5).Reps(5).End())!.Load);
        // Clean again with less, it does not go up to what hurt.
        var again = At(10)
            .Reps(5)
            .End(EndReason.Pain)
            .Task("loaded-hinge", Side.Both, load: 2.5)
            .Reps(5)
            .End();
        Assert.Equal(5, Next("loaded-hinge", again)!.Load);
        Assert.Null(Next("loaded-hinge", again.Task("loaded-hinge", Side.Both, load: 5).Reps(5).End()));
        // Nor after the heaviest.
        var most = Content.Library.FindTask("loaded-hinge")!.Loads![^1];
        Assert.Null(Next("loaded-hinge", At(most).Reps(5).End()));
    }

    /// <summary>Of several loads that broke, the lightest is the end.</summary>
    [Fact]
    public void Nothing_goes_up_to_the_lightest_load_that_broke()
    {
        var tape = new Tape().Task("loaded-hinge", Side.Both, load: 20).Rep(fault: "round").End();
        tape.Task("loaded-hinge", Side.Both, load: 10).Rep(fault: "round").End();
        tape.Task("loaded-hinge", Side.Both, load: 5).Reps(5).End();
        Assert.Null(Next("loaded-hinge", tape));
    }

    [Fact]
    public void A_task_is_looked_at_where_and_as_it_is_asked()
    {
        // For its own seconds, not for the exercise's reps.
        Assert.Equal(20, Next("bridge-hold", new Tape())!.Target.Hold);
        Assert.Equal(
            Content.Library.FindTask("bridge-hold")!.Tells,
            Next("bridge-hold", new Tape())!.Why.Text
        );
        // With a way, its name; with a load, the one before.
        Assert.Equal("to the front", Next("reaches", new Tape())!.Why.Text, ignoreCase: true);
        var lifted = new Tape().Task("loaded-hinge", Side.Both, load: 5).Reps(5).End();
        Assert.Equal("screen.heavier", Next("loaded-hinge", lifted)!.Why.Id);
    }

    [Fact]
    public void Without_a_mat_the_rung_of_the_counter_is_looked_at()
    {
        var battery = BatteryPlanner.ByHand(
            ["shoulder-touch"],
            Someone.Calm,
            Content.Policy,
            new BatteryQuestion(15, ["mat"]),
            Content.Library
        );
        var state = ScreenGuide.States(battery, [], Someone.Calm, Content.Policy, Content.Library, _ => null)[
            0
        ];
        Assert.Equal(("T6", false), (state.Next!.RungId, state.Done));
    }

    [Fact]
    public void No_heavier_load_after_one_that_went_less_far()
    {
        Tape At(double share) =>
            new Tape().Task("loaded-hinge", Side.Both, load: 5).Range(share: share).Reps(5).End();
        Assert.Null(Next("loaded-hinge", At(0.5)));
        Assert.Equal(10, Next("loaded-hinge", At(1))!.Load);
    }

    /// <summary>More pain or more faults in any of the sets never make the next load heavier.</summary>
    [Fact]
    public void More_pain_or_more_faults_never_give_a_heavier_load()
    {
        var loads = Content.Library.FindTask("loaded-hinge")!.Loads!;
        // Each set: its load, and whether it was clean (0), broke (1), ended in pain (2), hurt too much (3), or went less far (4).
        Tape Done(IEnumerable<(int Load, int How)> sets)
        {
            var tape = new Tape();
            foreach (var (load, how) in sets)
            {
                tape.Task("loaded-hinge", Side.Both, load: loads[load]);
                _ = how switch
                {
                    1 => tape.Rep(fault: "round").End(EndReason.BreakingFault),
                    2 => tape.Reps(5).End(EndReason.Pain),
                    3 => tape.Reps(5).Pain(PainPhase.Peak, 9).End(),
                    4 => tape.Range(share: 0.5).Reps(5).End(),
                    _ => tape.Reps(5).End(),
                };
            }
            return tape;
        }
        double Heaviest(IEnumerable<(int, int)> sets) => Next("loaded-hinge", Done(sets))?.Load ?? -1;
        Gen.Select(
                Gen.Select(Gen.Int[0, loads.Count - 1], Gen.Int[0, 4]).Array[1, 5],
                Gen.Int[0, 4],
                Gen.Int[1, 4]
            )
            .Sample(
                (sets, at, worse) =>
                {
                    var (load, _) = sets[at % sets.Length];
                    var after = sets.ToArray();
                    after[at % sets.Length] = (load, worse);
                    return Heaviest(after) <= Heaviest(sets) || sets[at % sets.Length].Item2 != 0;
                },
                iter: Soak.Cases(200)
            );
    }

    /// <summary>A hold of the same rung for its seconds is another question than whether the rung is clean.</summary>
    [Fact]
    public void Another_measure_on_a_rung_does_not_decide_the_climb()
    {
        var tape = new Tape().Task("bridge-hold", Side.Left).HoldStart().Fault("drop", 2).End();
        var search = RungFinder.Search(
            Content.Library.LadderOf("E7"),
            Side.Left,
            tape.Trials(),
            Someone.Calm,
            Content.Policy,
            Content.Library
        );
        Assert.Empty(search.TrialIds);
    }

    public static TheoryData<string> Climbs =>
        [.. Content.Library.Tasks.Where(t => t.Climbs).Select(t => t.Id)];

    [Theory]
    [MemberData(nameof(Climbs))]
    public void Every_ladder_is_climbed_to_its_end_in_at_most_four_trials_a_side(string task)
    {
        var tape = new Tape();
        var steps = 0;
        while (Next(task, tape) is { } step)
        {
            Assert.True(++steps <= 8, "more than four a side");
            tape.Start(step.RungId, step.Side);
            var rung = Content.Library.Rung(step.RungId);
            Assert.Equal(rung.Sides == RungSides.Each, step.Side != Side.Both);
            tape.Reps(rung.Start.Reps, rung.Start.Hold).End();
        }
        Assert.True(steps > 0);
    }

    [Fact]
    public void A_rung_that_needs_what_is_not_at_hand_is_passed_over_but_counts_when_it_was_done()
    {
        var ladder = Content.Library.LadderOf("E2");
        RungSearch Search(Tape tape) =>
            RungFinder.Search(
                ladder,
                Side.Left,
                tape.Trials(),
                Someone.Calm,
                Content.Policy,
                Content.Library,
                ["small ball", "loop band"]
            );
        var tape = new Tape();
        while (Search(tape).NextRungId is { } next)
        {
            var rung = Content.Library.Rung(next);
            Assert.DoesNotContain("small ball", rung.Equipment);
            Assert.DoesNotContain("loop band", rung.Equipment);
            tape.Start(next, rung.Sides == RungSides.Each ? Side.Left : Side.Both)
                .Reps(rung.Start.Reps, rung.Start.Hold)
                .End();
        }
        Assert.Equal("E7", Search(tape).EntryRungId);
        Assert.Equal("E8", Search(tape.Start("E8", Side.Left).Reps(8).End()).EntryRungId);
    }

    [Fact]
    public void A_ladder_that_needs_what_is_not_at_hand_says_so()
    {
        var search = RungFinder.Search(
            Content.Library.LadderOf("C1"),
            Side.Left,
            [],
            Someone.Calm,
            Content.Policy,
            Content.Library,
            ["small ball"]
        );
        Assert.True(search.Done);
        Assert.Equal(
            "Every level needs what is not at hand, or waits until the back is calm.",
            search.Why.En()
        );
    }
}
