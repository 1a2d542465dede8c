using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Findings;

public class FindingsTests
{
    private static ScreenFindings Of(Tape tape) =>
        FindingsMaker.Of(tape.Trials(), Someone.Calm, Content.Policy, Content.Library);

    private static double? Control(ScreenFindings findings, Sector sector) =>
        findings.Control.First(c => c.Sector == sector).Percent;

    /// <summary>Worked by hand in docs/findings.md.</summary>
    [Fact]
    public void Control_is_the_share_of_the_demand_that_was_held()
    {
        var findings = Of(Tape.WorkedExample());
        // The heel tap stands for the rungs below it that ask for no more; the next one above the leg reach is lost.
        double Asked(params string[] rungs) => rungs.Sum(id => Content.Library.Demands.Of(id).Front);
        var held = Asked("B1", "B2", "B3", "B4", "B5");
        var lost = Asked("B7");
        var expected = 100 * (held + Asked("B6") * 0.48) / (held + Asked("B6") + lost);
        Assert.Equal(expected, Control(findings, Sector.Front)!.Value, 6);
        Assert.Equal(2, findings.Control.First(c => c.Sector == Sector.Front).Trials.Count);
        // Neither tried rung asks for anything against turning: what the rungs below ask there stays unknown.
        Assert.Null(Control(findings, Sector.TwistLeft));
    }

    /// <summary>The counter reach asks more of the front than hands and knees do: clean there does not stand for it.</summary>
    [Fact]
    public void A_clean_rung_stands_only_for_those_that_ask_no_more_in_that_direction()
    {
        var tape = new Tape().Start("D3", Side.Left).Reps(5, hold: 3).End();
        tape.Start("B5", Side.Left).Rep(fault: "arch").Rep(fault: "arch").End(EndReason.BreakingFault);
        Assert.InRange(Control(Of(tape), Sector.Front)!.Value, 0, 1e-9);
    }

    [Fact]
    public void A_direction_nothing_demanded_is_not_known_and_says_what_would_tell()
    {
        var findings = Of(new Tape().Start("B5", Side.Left).Reps(5).End());
        var pelvis = findings.Control.First(c => c.Sector == Sector.PelvisRight);
        Assert.Null(pelvis.Percent);
        Assert.Empty(pelvis.Trials);
        Assert.Equal("Bridge, straighten one leg", pelvis.Telling);
    }

    [Fact]
    public void What_would_tell_is_never_a_barred_task()
    {
        var wrist = Someone.With("wrist");
        var trials = new Tape().Start("B5", Side.Left).Reps(5).End().Trials();
        var findings = FindingsMaker.Of(trials, wrist, Content.Policy, Content.Library);
        Assert.Equal(
            "Bridge, straighten one leg",
            findings.Control.First(c => c.Sector == Sector.SideLeft).Telling
        );
    }

    [Theory]
    [InlineData(10, 10, 0.0)]
    [InlineData(10, 8, 20.0)]
    [InlineData(6, 8, 25.0)]
    [InlineData(0, 8, 100.0)]
    public void Side_difference_is_of_the_stronger(int left, int right, double expected) =>
        Assert.Equal(expected, TaskScores.Difference(Score(left / 10.0), Score(right / 10.0))!.Value, 6);

    [Fact]
    public void Two_sides_with_nothing_clean_have_no_difference() =>
        Assert.Null(TaskScores.Difference(Score(0), Score(0)));

    private static SideScore Score(double fraction) => new(Guid.NewGuid(), 0, 0, 0, fraction, false);

    [Fact]
    public void Names_what_gave_way_in_plain_words()
    {
        var findings = Of(new Tape().Start("B5", Side.Left).Reps(5).Rep(fault: "arch").End());
        Assert.Equal("low back arches at rep 6, left", Assert.Single(findings.GaveWay).Words.En());
    }

    /// <summary>4 of 5 against 5 of 5 is inside the binomial error of five reps; 2 of 5 is not.</summary>
    [Theory]
    [InlineData(4, null)]
    [InlineData(3, null)]
    [InlineData(2, Side.Right)]
    public void The_weaker_side_is_named_beyond_the_error(int clean, Side? weaker)
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(5).End().Start("B5", Side.Right).Reps(clean);
        for (var i = clean; i < 5; i++)
        {
            tape.Rep(fault: "arch");
        }
        var task = Assert.Single(Of(tape.End()).Tasks);
        Assert.Equal(weaker, task.Weaker);
        Assert.Equal(20 * (5 - clean), task.DifferencePercent!.Value, 6);
    }

    [Theory]
    [InlineData(0, null, WeakType.Capacity)]
    [InlineData(4, null, WeakType.Endurance)]
    [InlineData(0, true, WeakType.Awareness)]
    [InlineData(0, false, WeakType.Capacity)]
    public void Tells_awareness_endurance_and_capacity_apart(
        int cleanFirst,
        bool? cueWorked,
        WeakType expected
    )
    {
        var tape = new Tape()
            .Start("B5", Side.Left, target: new Dose(5, 1, 0))
            .Reps(cleanFirst)
            .Rep(fault: "arch");
        if (cueWorked is { } worked)
        {
            tape.Cue().CueAnswered(worked);
        }
        var weak = Of(tape.End(EndReason.BreakingFault)).WeakLink!;
        Assert.Equal((Sector.Front, expected), (weak.Sector, weak.Type));
    }

    /// <summary>The half itself is neither fading nor pain: the break is looked for past it.</summary>
    [Theory]
    [InlineData(1, WeakType.Capacity)]
    [InlineData(2, WeakType.Endurance)]
    public void Fading_begins_past_the_middle_of_the_reps(int cleanFirst, WeakType expected)
    {
        var tape = new Tape()
            .Start("B5", Side.Left, target: new Dose(4, 1, 0))
            .Reps(cleanFirst)
            .Rep(fault: "arch");
        Assert.Equal(expected, Of(tape.End(EndReason.BreakingFault)).WeakLink!.Type);
    }

    [Theory]
    [InlineData(5, WeakType.Capacity)]
    [InlineData(5.1, WeakType.Endurance)]
    public void Of_one_long_hold_it_is_the_seconds_that_tell(double second, WeakType expected)
    {
        var tape = new Tape()
            .Start("H2", Side.Both, target: new Dose(1, 1, 10))
            .HoldStart()
            .Fault("arch", second);
        Assert.Equal(expected, Of(tape.End(EndReason.BreakingFault)).WeakLink!.Type);
    }

    [Fact]
    public void What_gives_way_in_pain_is_pain_limited_cue_or_not()
    {
        Tape Broke(Tape tape) => tape.Start("B5", Side.Left).Rep(fault: "arch").Cue().CueAnswered(true);
        Assert.Equal(WeakType.Awareness, Of(Broke(new Tape()).End(EndReason.BreakingFault)).WeakLink!.Type);
        Assert.Equal(WeakType.PainLimited, Of(Broke(new Tape()).End(EndReason.Pain)).WeakLink!.Type);
        Assert.Equal(
            WeakType.PainLimited,
            Of(Broke(new Tape()).Pain(PainPhase.Peak, 9).End()).WeakLink!.Type
        );
        // One of two is not most of them.
        var half = Broke(new Tape())
            .End(EndReason.Pain)
            .Start("B6", Side.Left)
            .Rep(3, "arch")
            .End(EndReason.BreakingFault);
        Assert.NotEqual(WeakType.PainLimited, Of(half).WeakLink!.Type);
    }

    [Fact]
    public void The_sentence_names_what_was_not_held_what_was_less_far_and_what_hurt()
    {
        string Says(Tape tape) => Of(tape).Sentence.En();
        var all = new Tape().Start("B5", Side.Left).Reps(5).End();
        Assert.Equal("Everything asked was held clean.", Says(all));
        var less = new Tape().Start("B5", Side.Left).Range(share: 0.5).Reps(5).End();
        Assert.Contains("heel tap (left)", Says(less), StringComparison.Ordinal);
        Assert.DoesNotContain("Not held", Says(less), StringComparison.Ordinal);
        // A reach is a reading: that it is no share of a target does not mean that it was not held.
        var reach = new Tape().Task("reaches", Side.Left, "front", leg: 90).Measure(55).End();
        Assert.Equal("Everything asked was held clean.", Says(reach));
        var hurt = new Tape().Start("B5", Side.Left).Reps(1).End(EndReason.Pain);
        Assert.Contains("Pain ended heel tap (left)", Says(hurt), StringComparison.Ordinal);
        // With a weak direction both sides and the pain stand beside it.
        var weak = new Tape().Start("B5", Side.Left).Rep(fault: "arch").Rep(fault: "arch").End();
        weak.Start("B5", Side.Right).Reps(5).End().Start("E5", Side.Left).Rep(3).End(EndReason.Pain);
        Assert.Contains(
            "Left: 0 of 2 clean, right: 5 of 5 clean (heel tap)",
            Says(weak),
            StringComparison.Ordinal
        );
        Assert.Contains("Pain ended", Says(weak), StringComparison.Ordinal);
    }

    [Fact]
    public void The_sentence_holds_only_what_there_is_to_say()
    {
        static IEnumerable<string> Holds(Tape tape) => Of(tape).Sentence.Values.Keys.Order();
        var less = new Tape().Start("B5", Side.Left).Range(share: 0.5).Reps(5).End();
        Assert.Equal(["less"], Holds(less));
        var roll = new Tape().Task("roll-range", Side.Left).Range(degrees: 20).Reps(2).End();
        Assert.Equal(["not_held"], Holds(roll));
        Assert.Equal(["hurt"], Holds(new Tape().Start("B5", Side.Left).Reps(1).End(EndReason.Pain)));
        Assert.Equal(["weak"], Holds(new Tape().Start("B5", Side.Left).Rep(fault: "arch").End()));
        Assert.Empty(Holds(new Tape().Start("B5", Side.Left).Reps(5).End()));
    }

    /// <summary>One of two that faded is not most of them.</summary>
    [Fact]
    public void Endurance_is_most_of_what_broke()
    {
        static Tape Late(Tape tape, string rung) =>
            tape.Start(rung, Side.Left, target: new Dose(5, 1, 0)).Reps(4).Rep(fault: "arch").End();
        static Tape Early(Tape tape, string rung) =>
            tape.Start(rung, Side.Left, target: new Dose(5, 1, 0)).Rep(fault: "arch").End();
        Assert.Equal(WeakType.Capacity, Of(Early(Late(new Tape(), "B5"), "B6")).WeakLink!.Type);
        Assert.Equal(WeakType.Endurance, Of(Late(Late(new Tape(), "B5"), "B6")).WeakLink!.Type);
    }

    /// <summary>Some rungs of some ladders, clean or broken on either side.</summary>
    private static Tape AnyScreen(int seed)
    {
        var random = new Random(seed);
        var tape = new Tape();
        var rungs = Content.Library.Ladders.Where(l => l.Screened).SelectMany(l => l.Rungs).ToArray();
        foreach (var rung in random.GetItems(rungs, 6).Distinct())
        {
            foreach (var side in rung.TaskSides)
            {
                tape.Start(rung.Id, side).Reps(random.Next(rung.Start.Reps + 1), rung.Start.Hold);
                var fault = random.GetItems([.. rung.Faults], 1)[0];
                (random.Next(3) == 0 ? tape : tape.Rep(rung.Start.Hold, fault)).End();
            }
        }
        return tape;
    }

    [Fact]
    public void Of_directions_within_five_points_the_one_with_the_larger_side_difference_is_the_weak_link()
    {
        var found = Enumerable
            .Range(0, 200)
            .Select(AnyScreen)
            .Select(Of)
            .Where(f => f.WeakLink is not null)
            .ToList();
        Assert.NotEmpty(found);
        foreach (var findings in found)
        {
            var seen = findings.Control.Where(c => c is { Percent: < 100, Trials.Count: > 0 }).ToList();
            var lowest = seen.Min(c => c.Percent)!.Value;
            double Gap(SectorControl c) =>
                findings.Control.First(o => o.Sector == c.Sector.Mirror()).Percent is { } other
                    ? Math.Abs(c.Percent!.Value - other)
                    : 0;
            var weak = seen.First(c => c.Sector == findings.WeakLink!.Sector);
            Assert.True(weak.Percent <= lowest + 5);
            Assert.Equal(seen.Where(c => c.Percent <= lowest + 5).Max(Gap), Gap(weak), 9);
        }
    }

    [Fact]
    public void Pain_that_ends_it_is_told_as_pain()
    {
        var tape = new Tape()
            .Start("B5", Side.Left)
            .Pain(PainPhase.Before, 1)
            .Reps(1)
            .Pain(PainPhase.Peak, 5)
            .End(EndReason.Pain);
        var findings = Of(tape);
        Assert.Null(findings.WeakLink);
        Assert.True(findings.Tasks[0].Left!.PainLimited);
        Assert.Equal("Pain ended heel tap (left) before control could be seen.", findings.Sentence.En());
    }

    [Fact]
    public void Open_trials_and_sessions_are_no_findings()
    {
        var tape = new Tape()
            .Start("B5", Side.Left, TrialPurpose.Session)
            .Reps(5)
            .End()
            .Start("B6", Side.Left)
            .Reps(1, hold: 3);
        Assert.Equal(0, Of(tape).TrialCount);
        Assert.Equal("Nothing screened yet.", Of(tape).Sentence.En());
    }

    [Fact]
    public void Mirrored_trials_give_mirrored_findings()
    {
        Tape One(Side side) =>
            new Tape()
                .Start("D3", side)
                .Reps(3, hold: 3)
                .Rep(3, "twist")
                .End()
                .Start("E5", side)
                .Reps(2, hold: 3)
                .Rep(3, "drop")
                .End();
        var left = Of(One(Side.Left));
        var right = Of(One(Side.Right));
        foreach (var sector in Enum.GetValues<Sector>())
        {
            Assert.Equal(Control(left, sector), Control(right, sector.Mirror()));
        }
    }
}
