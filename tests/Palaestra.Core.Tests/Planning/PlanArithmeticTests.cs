using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>Minutes, weeks and growth against sums done by hand.</summary>
public class PlanArithmeticTests
{
    private static PlanItem Item(string rung, params SideDose[] doses) =>
        new(Guid.NewGuid(), rung, Message.Plain(""), doses, [], [], "");

    private static SideDose Left(int reps, int sets, double hold = 0, int fewer = 0) =>
        new(Side.Left, new Dose(reps, sets, hold, fewer));

    private static SideDose Right(int reps, int sets, double hold = 0) =>
        new(Side.Right, new Dose(reps, sets, hold));

    private static SideDose Both(int reps, int sets, double hold = 0) =>
        new(Side.Both, new Dose(reps, sets, hold));

    private static Plan Of(params PlanItem[] items) =>
        PlanTime.WithMinutes(
            new Plan(items, SpinalStrategy.Neutral, Activation.Brace, Content.Policy.Id, 1, "", 0, []),
            Content.Library,
            Content.Policy
        );

    /// <summary>
    /// Sore, ten minutes. Switch-on: 20 + 3 × (5 + 2) = 41 s. Foot float: 20 + left 3 × 6 + right 3 × 6 + 5 = 61 s.
    /// Bridge: 20 + 3 × (3 + 6) = 47 s. All on the back: 149 s = 2.48 min.
    /// </summary>
    [Fact]
    public void A_sore_clients_plan_by_hand() =>
        Assert.Equal(
            2.48,
            Of(
                Item("A5", Both(3, 1, 5)),
                Item("B1", Left(3, 1), Right(3, 1)),
                Item("E1", Both(3, 1, 3))
            ).TotalMinutes,
            2
        );

    /// <summary>
    /// Heel tap: 20 + left 3 sets of 5 × 6 = 90 + 2 rests of 30 = 60, right 2 sets of 5 × 6 = 60 + 30, + 5 = 265 s.
    /// Leg reach on hands and knees, 5 × 2 held 3: 20 + 2 sides × (10 × 9 + 60) + 5 = 325 s, and 20 to turn over = 345 s.
    /// Together 610 s = 10.17 min.
    /// </summary>
    [Fact]
    public void A_plan_with_a_weaker_side_and_two_positions_by_hand() =>
        Assert.Equal(
            10.17,
            Of(Item("B5", Left(5, 3), Right(5, 2)), Item("D3", Left(5, 2, 3), Right(5, 2, 3))).TotalMinutes,
            2
        );

    /// <summary>
    /// Side plank in shrinking sets 8-6-4 held 10 s: 18 reps × (10 + 5) = 270 + 2 rests of 60 = 390 s for the left alone, + 20.
    /// One-leg stance 1 × 30 s a side: 20 + 2 × (30 + 4) + 5 = 93 s, + 20 to stand up. Together 523 s = 8.72 min.
    /// </summary>
    [Fact]
    public void A_plan_with_shrinking_sets_by_hand() =>
        Assert.Equal(
            8.72,
            Of(
                Item("G2", Left(8, 3, 10, fewer: 2)),
                Item("K1", Left(1, 1, 30), Right(1, 1, 30))
            ).TotalMinutes,
            2
        );

    /// <summary>Heel tap 2 × 5 a side: 60 s a side under control; 5 days: 300 s a side, 600 s in all.</summary>
    [Fact]
    public void A_week_is_the_days_times_the_session_and_loaded_work_has_fewer_days()
    {
        var light = PlanWork.Of(Of(Item("B5", Left(5, 2), Right(5, 2))), 5, Content.Policy, Content.Library);
        Assert.Equal(120, light.Seconds, 6);
        Assert.Equal(600, light.WeekSeconds, 6);
        Assert.Equal([300, 300], light.Items[0].Sides.Select(side => side.WeekSeconds));
        var loaded = PlanWork.Of(Of(Item("H3", Both(5, 1, 10))), 7, Content.Policy, Content.Library);
        Assert.Equal((3, true), (loaded.Items[0].Days, loaded.Items[0].Loaded));
        Assert.Equal(6, PlanWork.DaysOf(Content.Library.Rung("B5"), 7, Content.Policy));
    }

    [Fact]
    public void Work_counts_for_the_direction_of_its_side_by_how_much_it_asks()
    {
        var left = PlanWork.Of(Of(Item("D3", Left(5, 1, 3))), 5, Content.Policy, Content.Library);
        double Minutes(Sector sector) => left.Directions.Single(d => d.Sector == sector).Minutes;
        Assert.True(Minutes(Sector.TwistLeft) > 0);
        Assert.Equal(0, Minutes(Sector.TwistRight));
        // 45 s × 5 days = 3.75 min; no direction can get more than that.
        Assert.All(left.Directions, d => Assert.InRange(d.Minutes, 0, 3.8));
    }

    /// <summary>Front lacks 40 of 100, back 20, the others nothing; front is the weak link and counts twice: 80 to 20 of the minutes.</summary>
    [Fact]
    public void What_is_lacking_shares_the_same_minutes_and_the_weak_link_counts_twice()
    {
        var findings = AnyClient.Of(
            [.. Enumerable.Repeat(-2, 2 * Content.Library.Ladders.Count)],
            [60, 80, 100, 100, 100, 100, 100, 100]
        );
        var plan = Of(Item("B5", Left(5, 4), Right(5, 4)));
        var work = PlanWork.Of(plan, 5, Content.Policy, Content.Library, findings: findings);
        var all = work.Directions.Sum(d => d.Minutes);
        Assert.Equal(0.8 * all, Wanted(Sector.Front), 0.06);
        Assert.Equal(0.2 * all, Wanted(Sector.Back), 0.06);
        Assert.All(
            work.Directions.Where(d => d.Sector is not (Sector.Front or Sector.Back)),
            d => Assert.Equal(0, d.Wanted)
        );
        double Wanted(Sector sector) => work.Directions.Single(d => d.Sector == sector).Wanted!.Value;
    }

    [Fact]
    public void Where_nothing_lacks_or_nothing_was_screened_nothing_is_said_to_be_wanted()
    {
        var plan = Of(Item("B5", Left(5, 4), Right(5, 4)));
        var full = AnyClient.Of(
            [.. Enumerable.Repeat(-2, 2 * Content.Library.Ladders.Count)],
            [.. Enumerable.Repeat(100, 8)]
        );
        foreach (var findings in new[] { null, full })
        {
            var work = PlanWork.Of(plan, 5, Content.Policy, Content.Library, findings: findings);
            Assert.All(work.Directions, d => Assert.Null(d.Wanted));
        }
    }

    [Theory]
    [InlineData(5, 6, false)]
    [InlineData(5, 7, true)]
    public void Growth_beyond_the_policys_fifth_warns(int before, int now, bool warns)
    {
        var work = PlanWork.Of(
            Of(Item("B5", Left(now, 1), Right(now, 1))),
            5,
            Content.Policy,
            Content.Library,
            Of(Item("B5", Left(before, 1), Right(before, 1)))
        );
        Assert.Equal(now / (double)before - 1, work.Growth!.Value, 6);
        Assert.Equal(warns, work.Warnings(Content.Policy).Any(w => w.RuleId == "P-GROWTH"));
    }

    [Fact]
    public void A_slower_tempo_takes_longer_in_proportion()
    {
        var slow = Content.Policy with { Tempo = new Tempo(6, 3) };
        Assert.Equal(9, slow.Tempo.Seconds(6), 6);
        var item = Item("B5", Left(5, 1));
        Assert.Equal(20 + 45, PlanTime.Seconds(item.Doses, Content.Library.Rung("B5"), slow), 6);
    }

    [Theory]
    [InlineData(8, 3, 2, 18, "8-6-4 reps, hold 10 s")]
    [InlineData(5, 3, 1, 12, "5-4-3 reps, hold 10 s")]
    [InlineData(5, 2, 0, 10, "2 sets of 5, hold 10 s")]
    public void Shrinking_sets_add_up_and_are_told_set_by_set(
        int reps,
        int sets,
        int fewer,
        int total,
        string words
    )
    {
        var dose = new Dose(reps, sets, 10, fewer);
        Assert.Equal(total, dose.TotalReps);
        Assert.Equal(words, dose.Said().En());
    }

    [Fact]
    public void The_endurance_school_shrinks_sets_of_a_calm_back_only()
    {
        var school = Content.Library.FindPolicy("endurance")!;
        var rung = Content.Library.Rung("G2");
        Assert.Equal(new Dose(3, 3, 5, 1), DosePlanner.Start(rung, Irritability.Low, school));
        Assert.Equal(0, DosePlanner.Start(rung, Irritability.Moderate, school).Fewer);
        // Start 3 × 5 s is 15 s in one hold; the school's target is 45.
        var one = school with
        {
            Endurance = HoldEndurance.OneLong,
        };
        Assert.Equal(new Dose(1, 1, 15), DosePlanner.Start(rung, Irritability.Low, one));
    }

    [Fact]
    public void A_dose_is_written_out_with_tempo_breath_and_rest()
    {
        var rung = Content.Library.Rung("B6");
        Assert.Equal(
            "Two sets of five: 3 s out, hold 3 s, 3 s back; 60 s rest between sets.",
            DoseText.Written(new Dose(5, 2, 3), rung, Content.Policy).En()
        );
        Assert.Equal(
            "Three sets, eight, then six, then four: 3 s out, hold 10 s, 3 s back; 60 s rest between sets.",
            DoseText.Written(new Dose(8, 3, 10, 2), rung, Content.Policy).En()
        );
        Assert.Equal(rung.Breath, DoseText.Breath(rung, Content.Policy).En());
        Assert.StartsWith(
            "breathe out with the effort",
            DoseText.Breath(rung, Content.Policy with { Breath = BreathRule.WithEffort }).En(),
            StringComparison.Ordinal
        );
    }
}
