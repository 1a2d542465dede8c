using CsCheck;
using Palaestra.Core.Body;
using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Findings;

/// <summary>What tasks come to in their own unit, and how that stands beside published figures.</summary>
public class TaskScoresTests
{
    private static readonly Person Student = new(22, Sex.Male);

    private static ScreenFindings Of(Tape tape, Person? person = null) =>
        FindingsMaker.Of(tape.Trials(), Someone.Calm, Content.Policy, Content.Library, person);

    private static TaskFinding Task(Tape tape, string id, Person? person = null) =>
        Of(tape, person).Tasks.First(t => t.TaskId == id);

    private static Tape Hold(Tape tape, string task, Side side, double seconds) =>
        tape.Task(task, side).HoldStart().Wait(seconds).CountRep().End(EndReason.Fatigue);

    /// <summary>
    /// Reach over leg length times 100 (Gribble and Hertel 2003, from memory): 79.2 cm with a leg of 90 cm is 88 %.
    /// </summary>
    [Theory]
    [InlineData(79.2, 90.0, 88.0)]
    [InlineData(90.0, 90.0, 100.0)]
    [InlineData(0.0, 90.0, 0.0)]
    public void A_reach_is_told_as_a_share_of_leg_length(double reach, double leg, double percent) =>
        Assert.Equal(percent, TaskScores.PercentOfLeg(reach, leg)!.Value, 6);

    /// <summary>
    /// With one success and one failure added to each side (Agresti and Caffo 2000, from memory): 21/22 and 17/22 differ by
    /// 0.182, more than 1.645 × √(0.0434/22 + 0.1756/22) = 0.164; 18/22 by 0.136, less than 0.154.
    /// </summary>
    [Theory]
    [InlineData(16, Side.Left)]
    [InlineData(17, null)]
    [InlineData(20, null)]
    public void Reps_differ_between_sides_beyond_what_a_repeat_would_show(int left, Side? weaker)
    {
        static Tape Done(Tape tape, Side side, int clean)
        {
            tape.Start("D6", side, target: new Dose(20, 1, 0)).Reps(clean);
            for (var rep = clean; rep < 20; rep++)
            {
                tape.Rep(fault: "arch");
            }
            return tape.End();
        }
        var tape = Done(Done(new Tape(), Side.Left, left), Side.Right, 20);
        Assert.Equal(weaker, Of(tape).Tasks.Single().Weaker);
    }

    [Theory]
    [InlineData(null, 90.0)]
    [InlineData(60.0, null)]
    [InlineData(60.0, 0.0)]
    public void Without_reach_or_leg_there_is_no_share(double? reach, double? leg) =>
        Assert.Null(TaskScores.PercentOfLeg(reach, leg));

    [Fact]
    public void Reaches_stand_apart_by_direction_with_the_best_of_three_and_the_difference_in_both_units()
    {
        var tape = new Tape()
            .Task("reaches", Side.Left, "front", leg: 90)
            .Measure(60)
            .Measure(63)
            .Measure(62)
            .End()
            .Task("reaches", Side.Right, "front", leg: 90)
            .Measure(70)
            .End()
            .Task("reaches", Side.Left, "side", leg: 90)
            .Measure(55)
            .End();
        var findings = Of(tape, new Person(16, Sex.Female));
        var front = findings.Tasks.First(t => t.Variant == "front");
        Assert.Equal(63, front.Left!.Value);
        Assert.Equal(70, front.Left.PercentOfLeg!.Value, 6);
        Assert.Equal(10, front.DifferencePercent!.Value, 6);
        Assert.Equal(Side.Left, front.Weaker);
        // 7 cm; over 4 cm in front meant more injuries among players of 14 to 18 (Plisky et al. 2006, from memory).
        Assert.True(front.Difference!.Attention);
        Assert.Null(findings.Tasks.First(t => t.Variant == "side").Difference);
        Assert.Null(Of(tape, Student).Tasks.First(t => t.Variant == "front").Difference!.Attention);
    }

    [Fact]
    public void A_load_that_hurt_was_not_lifted()
    {
        var tape = new Tape().Task("loaded-hinge", Side.Both, load: 5).Reps(5).End();
        tape.Task("loaded-hinge", Side.Both, load: 10).Reps(5).End(EndReason.Pain);
        var score = Task(tape, "loaded-hinge").Both!;
        Assert.Equal((5.0, 10.0), (score.Value!.Value, score.BrokeAt!.Value));
    }

    [Fact]
    public void A_load_is_the_heaviest_clean_one_and_the_lightest_that_broke()
    {
        var tape = new Tape()
            .Task("loaded-hinge", Side.Both, load: 0)
            .Reps(5)
            .End()
            .Task("loaded-hinge", Side.Both, load: 10)
            .Reps(5)
            .End()
            .Task("loaded-hinge", Side.Both, load: 15)
            .Reps(2)
            .Rep(fault: "round")
            .End(EndReason.BreakingFault);
        var score = Task(tape, "loaded-hinge").Both!;
        Assert.Equal((10, 15), (score.Value, score.BrokeAt));
    }

    [Fact]
    public void Not_even_the_lightest_load_clean_is_no_load()
    {
        var tape = new Tape().Task("loaded-hinge", Side.Both, load: 0).Rep(fault: "round").End();
        var score = Task(tape, "loaded-hinge").Both!;
        Assert.Null(score.Value);
        Assert.Equal(0, score.BrokeAt);
    }

    [Fact]
    public void Effort_is_told_and_not_turned_into_a_side_difference_in_percent()
    {
        var tape = new Tape()
            .Task("active-leg-raise", Side.Left)
            .Measure(4)
            .End()
            .Task("active-leg-raise", Side.Right)
            .Measure(1)
            .End();
        var finding = Task(tape, "active-leg-raise");
        Assert.Equal((4, 1), (finding.Left!.Value, finding.Right!.Value));
        Assert.Null(finding.DifferencePercent);
        // Heavy is not weak in any direction: it says nothing of control.
        Assert.All(Of(tape).Control, c => Assert.Null(c.Percent));
    }

    /// <summary>Springer et al. 2007 (from memory): mean of the best of three, eyes open, cut at 45 s.</summary>
    [Theory]
    [InlineData(18, 44.7)]
    [InlineData(39, 44.7)]
    [InlineData(40, 41.9)]
    [InlineData(55, 41.2)]
    [InlineData(69, 32.1)]
    [InlineData(70, 21.5)]
    [InlineData(99, 9.4)]
    public void Stance_is_compared_with_its_own_age_band(int age, double mean)
    {
        var tape = Hold(new Tape(), "stance", Side.Left, 20);
        var norm = Assert.Single(Task(tape, "stance", new Person(age, null)).Norms!);
        Assert.True(norm.Inside);
        Assert.Equal(mean, norm.Mean);
        Assert.StartsWith(20 < mean ? "under the mean" : "at or over", norm.Words.En());
    }

    [Fact]
    public void Stance_is_cut_at_45_seconds()
    {
        var finding = Task(Hold(new Tape(), "stance", Side.Left, 80), "stance", new Person(30, null));
        Assert.Equal(45, finding.Left!.Value);
        Assert.StartsWith("Reached the cut of 45", finding.Norms![0].Words.En());
    }

    /// <summary>Means and standard deviations of McGill, Childs and Liebenson 1999 (from memory), seconds.</summary>
    [Theory]
    [InlineData("extensor-hold", Side.Both, Sex.Male, 146, 95, 197)]
    [InlineData("extensor-hold", Side.Both, Sex.Female, 189, 129, 249)]
    [InlineData("flexor-hold", Side.Both, Sex.Male, 144, 68, 220)]
    [InlineData("flexor-hold", Side.Both, Sex.Female, 149, 50, 248)]
    [InlineData("side-hold", Side.Right, Sex.Male, 94, 60, 128)]
    [InlineData("side-hold", Side.Left, Sex.Female, 77, 42, 112)]
    public void A_hold_stands_beside_the_band_of_its_sex_and_side(
        string task,
        Side side,
        Sex sex,
        double mean,
        double low,
        double high
    )
    {
        var tape = Hold(new Tape(), task, side, low - 10);
        var norm = Assert.Single(Task(tape, task, new Person(25, sex)).Norms!);
        Assert.Equal((mean, low, high), (norm.Mean, norm.Low, norm.High));
        Assert.StartsWith("below the middle two thirds", norm.Words.En());
        Assert.True(norm.Memory);
    }

    [Theory]
    [InlineData(52)]
    [InlineData(12)]
    [InlineData(null)]
    public void Outside_the_studied_group_nothing_is_concluded_and_it_says_so(int? age)
    {
        var tape = Hold(new Tape(), "flexor-hold", Side.Both, 20);
        Hold(tape, "extensor-hold", Side.Both, 10);
        var findings = Of(tape, new Person(age, Sex.Female));
        var norm = findings.Tasks.First(t => t.TaskId == "flexor-hold").Norms![0];
        Assert.False(norm.Inside);
        Assert.EndsWith("no comparison.", norm.Words.En());
        Assert.Null(findings.Ratios!.First(r => r.Id == "flexor-extensor").Attention);
    }

    [Fact]
    public void Lines_of_a_published_follow_up_are_for_the_group_that_was_followed()
    {
        var tape = Hold(new Tape(), "extensor-hold", Side.Both, 150);
        var norm = Assert.Single(Task(tape, "extensor-hold", new Person(45, Sex.Male)).Norms!);
        Assert.Equal([176.0, 198.0], norm.Lines.Select(l => l.At));
        Assert.False(Task(tape, "extensor-hold", new Person(45, Sex.Female)).Norms![0].Inside);
    }

    /// <summary>Bounds of the ratios by McGill's textbook (from memory).</summary>
    [Theory]
    [InlineData(150, 160, 90, 92, "flexor-extensor", false)]
    [InlineData(170, 160, 90, 92, "flexor-extensor", true)]
    [InlineData(150, 160, 92, 92, "right-left", false)]
    // A hold is good to 5.9 s: 80 ÷ 92 is 0.87, from 0.70 to 1.04, and may well be even; 55 ÷ 92 may not.
    [InlineData(150, 160, 80, 92, "right-left", false)]
    [InlineData(150, 160, 110, 92, "right-left", false)]
    [InlineData(150, 160, 55, 92, "right-left", true)]
    [InlineData(150, 160, 140, 92, "right-left", true)]
    [InlineData(150, 100, 80, 74, "right-extensor", true)]
    [InlineData(150, 100, 80, 74, "left-extensor", false)]
    public void Ratios_worth_attention(
        double flexor,
        double extensor,
        double right,
        double left,
        string id,
        bool attention
    )
    {
        var tape = Hold(new Tape(), "flexor-hold", Side.Both, flexor);
        Hold(tape, "extensor-hold", Side.Both, extensor);
        Hold(tape, "side-hold", Side.Right, right);
        Hold(tape, "side-hold", Side.Left, left);
        var ratio = Of(tape, Student).Ratios!.First(r => r.Id == id);
        Assert.Equal(attention, ratio.Attention);
    }

    /// <summary>SEM 34 × √0.03 = 5.889 s: 0.8696 × 1.96 × √((5.889 ÷ 80)² + (5.889 ÷ 92)²) = 0.166.</summary>
    [Fact]
    public void A_ratio_is_shown_with_the_error_of_both_its_parts()
    {
        var tape = Hold(new Tape(), "side-hold", Side.Right, 80);
        Hold(tape, "side-hold", Side.Left, 92);
        var ratio = Of(tape, Student).Ratios!.First(r => r.Id == "right-left");
        // The tape's holds last half a second longer each than asked.
        Assert.Equal(0.166, ratio.Value - ratio.Low!.Value, 0.002);
        Assert.Equal(0.166, ratio.High!.Value - ratio.Value, 0.002);
    }

    [Fact]
    public void Every_direction_opens_to_the_rungs_and_trials_behind_it()
    {
        var tape = Tape.WorkedExample()
            .Task("shoulder-touch", Side.Left)
            .Reps(3)
            .Rep(fault: "sag")
            .Rep(fault: "sag")
            .End();
        foreach (var control in Of(tape).Control.Where(c => c.Percent is not null))
        {
            var parts = control.Parts!;
            Assert.Equal(
                control.Percent!.Value,
                100 * parts.Sum(p => p.Weight * p.Value) / parts.Sum(p => p.Weight),
                6
            );
            Assert.Equal(control.Trials, parts.Select(p => p.TrialId).OfType<Guid>().Distinct());
        }
    }

    [Fact]
    public void A_task_looked_at_for_itself_counts_once_for_what_it_asks()
    {
        var tape = new Tape()
            .Task("shoulder-touch", Side.Left)
            .Reps(3)
            .Rep(fault: "sag")
            .Rep(fault: "sag")
            .End();
        var front = Of(tape).Control.First(c => c.Sector == Sector.Front);
        var part = Assert.Single(front.Parts!);
        Assert.Equal(0.6, part.Value, 6);
        Assert.Equal(60, front.Percent!.Value, 6);
    }

    [Fact]
    public void Two_ways_of_a_task_are_two_findings_and_both_count()
    {
        var tape = new Tape()
            .Task("leg-circles", Side.Left, "outward")
            .Reps(3)
            .End()
            .Task("leg-circles", Side.Left, "inward")
            .Rep(fault: "twist")
            .Rep(fault: "twist")
            .Rep(fault: "twist")
            .End();
        var findings = Of(tape);
        Assert.Equal(
            ["Leg circles, straight, small, outward", "Leg circles, straight, small, inward"],
            findings.Tasks.Select(t => t.Name.En())
        );
        Assert.Equal(50, findings.Control.First(c => c.Sector == Sector.TwistLeft).Percent!.Value, 6);
    }

    [Theory]
    [InlineData(5, WeakType.Capacity)]
    [InlineData(17, WeakType.Endurance)]
    public void A_single_hold_fades_when_it_breaks_in_its_second_half(double second, WeakType type)
    {
        var tape = new Tape().Task("bridge-hold", Side.Left).HoldStart().Fault("drop", second).End();
        Assert.Equal(type, Of(tape).WeakLink!.Type);
    }

    [Fact]
    public void Loads_that_were_all_clean_have_none_that_broke()
    {
        var tape = new Tape().Task("loaded-hinge", Side.Both, load: 10).Reps(5).End();
        var score = Task(tape, "loaded-hinge").Both!;
        Assert.Equal((10.0, (double?)null), (score.Value, score.BrokeAt));
    }

    /// <summary>A load is assured, and may be prescribed, only where it went all the way and somebody asked how much it hurt.</summary>
    [Theory]
    [InlineData(null, 1.0, false)]
    [InlineData(0, 1.0, true)]
    [InlineData(0, 0.5, false)]
    [InlineData(9, 1.0, false)]
    public void A_load_is_assured_by_the_whole_way_and_pain_that_was_told(
        int? pain,
        double share,
        bool assured
    )
    {
        var tape = new Tape().Task("loaded-hinge", Side.Both, load: 10);
        for (var rep = 0; rep < 5; rep++)
        {
            tape = tape.Range(share: share).Rep();
        }
        if (pain is { } told)
        {
            tape = tape.Pain(PainPhase.Peak, told);
        }
        Assert.Equal(assured, Task(tape.End(), "loaded-hinge").Both!.Assured);
    }

    [Fact]
    public void Effort_is_the_client_s_last_word_whatever_was_seen()
    {
        var tape = new Tape().Task("active-leg-raise", Side.Left).Measure(5).Measure(3, "twist").End();
        Assert.Equal(3, Task(tape, "active-leg-raise").Left!.Value);
    }

    [Fact]
    public void A_yes_or_no_told_again_replaces_the_first()
    {
        var tape = new Tape().Task("fists", Side.Left).Measure(1).Measure(0).End();
        Assert.Equal(0, Task(tape, "fists").Left!.Value);
        Assert.Equal(
            1,
            Task(new Tape().Task("fists", Side.Left).Measure(0).Measure(1).End(), "fists").Left!.Value
        );
    }

    /// <summary>Whatever is tapped in whatever task: the findings stand, and every share is a share.</summary>
    [Fact]
    public void Any_trials_of_any_tasks_have_findings_within_their_bounds()
    {
        var looks = Content.Library.Tasks.Where(t => !t.Climbs).ToList();
        var trial =
            from task in Gen.Int[0, looks.Count - 1]
            from side in Gen.Int[0, 1]
            from way in Gen.Int[0, 4]
            from reps in Gen.Int[0, 4]
            from amount in Gen.Double[0, 5]
            from faulty in Gen.Bool
            from cued in Gen.Bool
            select (looks[task], side, way, reps, amount, faulty, cued);
        Gen.Select(trial.List[0, 12], Gen.Int[5, 99])
            .Sample(
                (trials, age) =>
                {
                    var findings = Of(Played(trials), new Person(age, Sex.Female));
                    return findings.Control.All(c => c.Percent is null or (>= 0 and <= 100))
                        && findings.Tasks.All(t => t.DifferencePercent is null or (>= 0 and <= 100))
                        && findings.Ratios!.All(r => r.Value >= 0 && double.IsFinite(r.Value))
                        && Changes
                            .Between(findings, findings, Content.Library)
                            .All(c => c.Verdict == ChangeVerdict.NoClearChange);
                },
                iter: Soak.Cases(300)
            );
    }

    private static Tape Played(
        List<(ScreenTask Task, int Side, int Way, int Reps, double Amount, bool Faulty, bool Cued)> trials
    )
    {
        var tape = new Tape();
        foreach (var (task, side, way, reps, amount, faulty, cued) in trials)
        {
            var rung = Content.Library.Rung(task.Surfaces?[0].Rung ?? task.Rung!);
            tape.Task(
                task.Id,
                rung.TaskSides[side % rung.TaskSides.Count],
                task.Ways[way % task.Ways.Count],
                load: task.Loads?[way % task.Loads.Count],
                leg: 90
            );
            if (cued)
            {
                tape.Cue();
            }
            for (var rep = 0; rep < reps; rep++)
            {
                tape.Range(degrees: amount * 9);
                if (faulty && rep > 0)
                {
                    tape.Fault(rung.Faults[0]);
                }
                tape = task.Most is null
                    ? tape.Rep(task.Target?.Hold ?? 0)
                    : tape.Measure(Math.Min(amount, task.Most.Value));
            }
            tape.End(EndReason.Fatigue);
        }
        return tape;
    }

    [Fact]
    public void Of_readings_the_best_of_a_side_stands_of_answers_and_reps_the_last()
    {
        var seconds = Hold(Hold(new Tape(), "stance", Side.Left, 20), "stance", Side.Left, 12);
        Assert.InRange(Task(seconds, "stance").Left!.Value!.Value, 20, 22);
        var roll = new Tape().Task("roll-range", Side.Left).Range(degrees: 40).Reps(2).End();
        roll.Task("roll-range", Side.Left).Range(degrees: 25).Reps(2).End();
        Assert.Equal(40, Task(roll, "roll-range").Left!.Value);
        var reach = new Tape().Task("reaches", Side.Left, "front", leg: 90).Measure(60).End();
        reach.Task("reaches", Side.Left, "front", leg: 90).Measure(52).End();
        Assert.Equal(60, Task(reach, "reaches").Left!.Value);
        var answer = new Tape()
            .Task("let-go", Side.Left)
            .Measure(1)
            .End()
            .Task("let-go", Side.Left)
            .Measure(0)
            .End();
        Assert.Equal(0, Task(answer, "let-go").Left!.Value);
    }

    [Fact]
    public void Seconds_are_cut_at_what_was_asked()
    {
        var asked = Content.Library.FindTask("stance")!.Target!.Value.Hold;
        Assert.Equal(
            asked,
            Task(Hold(new Tape(), "stance", Side.Left, asked + 15), "stance").Left!.Value!.Value,
            3
        );
    }

    [Fact]
    public void The_lightest_load_that_broke_is_told_beside_the_heaviest_that_was_lifted()
    {
        var tape = new Tape().Task("loaded-hinge", Side.Both, load: 15).Rep(fault: "round").End();
        tape.Task("loaded-hinge", Side.Both, load: 10).Rep(fault: "round").End();
        tape.Task("loaded-hinge", Side.Both, load: 5).Reps(5).End();
        var score = Task(tape, "loaded-hinge").Both!;
        Assert.Equal((5.0, 10.0), (score.Value!.Value, score.BrokeAt!.Value));
        Assert.Null(Task(new Tape().Task("stance", Side.Left).Rep(9).End(), "stance").Left!.BrokeAt);
    }

    /// <summary>Assured only where pain was asked about and the whole way was gone.</summary>
    [Fact]
    public void A_load_is_assured_where_pain_was_told_and_the_movement_was_whole()
    {
        Tape At(double share) =>
            new Tape().Task("loaded-hinge", Side.Both, load: 5).Range(share: share).Reps(5);
        Assert.True(Task(At(1).Pain(PainPhase.After, 0).End(), "loaded-hinge").Both!.Assured);
        Assert.True(Task(At(1).Pain(PainPhase.Peak, 1).End(), "loaded-hinge").Both!.Assured);
        Assert.False(Task(At(1).End(), "loaded-hinge").Both!.Assured);
        Assert.False(Task(At(0.9).Pain(PainPhase.After, 0).End(), "loaded-hinge").Both!.Assured);
        // Nor is anything but a load.
        Assert.False(
            Task(
                new Tape().Task("stance", Side.Left).Rep(9).Pain(PainPhase.After, 0).End(),
                "stance"
            ).Left!.Assured
        );
    }

    /// <summary>Of a reading, the smallest change between two measurements is what a difference must reach.</summary>
    [Fact]
    public void A_side_is_weaker_in_a_reading_from_the_smallest_change_on()
    {
        var smallest = Content.Library.Norms.Errors.First(e => e.Of == "degrees").SmallestChange;
        Side? Weaker(double right)
        {
            var tape = new Tape().Task("roll-range", Side.Left).Range(degrees: 45).Reps(2).End();
            return Task(
                tape.Task("roll-range", Side.Right).Range(degrees: right).Reps(2).End(),
                "roll-range"
            ).Weaker;
        }
        Assert.Null(Weaker(45 - smallest + 0.1));
        Assert.Equal(Side.Right, Weaker(45 - smallest - 0.1));
        Assert.Null(Weaker(45));
    }

    [Fact]
    public void Where_pain_ended_one_side_no_side_is_the_weaker()
    {
        var tape = new Tape().Task("shoulder-touch", Side.Left).Reps(1).End(EndReason.Pain);
        tape.Task("shoulder-touch", Side.Right).Reps(8).End();
        Assert.Null(Task(tape, "shoulder-touch").Weaker);
    }
}
