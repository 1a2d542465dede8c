using Palaestra.Core.Findings;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Findings;

public class ChangesTests
{
    private static ScreenFindings Of(Tape tape) =>
        FindingsMaker.Of(tape.Trials(), Someone.Calm, Content.Policy, Content.Library);

    private static Tape Raise(double left) =>
        new Tape().Task("active-leg-raise", Side.Left).Measure(left).End();

    private static Tape Roll(double degrees) =>
        new Tape().Task("roll-range", Side.Left).Range(degrees: degrees).Reps(2).End();

    private static Change Only(Tape before, Tape now, string of) =>
        Changes.Between(Of(before), Of(now), Content.Library).First(c => c.Of == of);

    /// <summary>SEM = SD·√(1 − ICC): 51 × √0.03 = 8.83; smallest change 1.96 × √2 × 8.83 = 24.5 (Weir 2005, from memory).</summary>
    [Fact]
    public void The_smallest_change_follows_from_spread_and_reliability()
    {
        var error = new MeasurementError("extensor-hold", "", true, Sd: 51, Icc: 0.97);
        Assert.Equal(8.83, error.Error, 2);
        Assert.Equal(24.5, error.SmallestChange, 1);
    }

    /// <summary>5° of error: 13.9° is the smallest change beyond chance.</summary>
    [Theory]
    [InlineData(20, 30, ChangeVerdict.NoClearChange)]
    [InlineData(20, 45, ChangeVerdict.Better)]
    [InlineData(45, 20, ChangeVerdict.Worse)]
    [InlineData(30, 30, ChangeVerdict.NoClearChange)]
    public void A_change_within_the_error_is_no_clear_change(
        double before,
        double now,
        ChangeVerdict verdict
    ) => Assert.Equal(verdict, Only(Roll(before), Roll(now), "roll-range").Verdict);

    /// <summary>The smallest change itself is one.</summary>
    [Fact]
    public void The_smallest_change_to_the_digit_is_a_change()
    {
        var smallest = Only(Raise(4), Raise(1), "active-leg-raise").Smallest;
        Assert.Equal(ChangeVerdict.Better, Only(Raise(smallest), Raise(0), "active-leg-raise").Verdict);
        Assert.Equal(ChangeVerdict.Worse, Only(Raise(0), Raise(smallest), "active-leg-raise").Verdict);
        Assert.Equal(
            ChangeVerdict.NoClearChange,
            Only(Raise(smallest - 0.001), Raise(0), "active-leg-raise").Verdict
        );
    }

    [Theory]
    [InlineData(4, 1, ChangeVerdict.Better)]
    [InlineData(1, 4, ChangeVerdict.Worse)]
    [InlineData(3, 2, ChangeVerdict.NoClearChange)]
    public void Less_effort_is_better(double before, double now, ChangeVerdict verdict) =>
        Assert.Equal(verdict, Only(Raise(before), Raise(now), "active-leg-raise").Verdict);

    [Fact]
    public void A_higher_entry_rung_is_a_change_only_beyond_the_error_of_the_search()
    {
        static Tape Climb(params string[] clean)
        {
            var tape = new Tape();
            foreach (var id in clean)
            {
                var rung = Content.Library.Rung(id);
                tape.Start(id, rung.Sides == RungSides.Each ? Side.Left : Side.Both)
                    .Reps(rung.Start.Reps, rung.Start.Hold)
                    .End();
            }
            var ladder = Content.Library.LadderOf(clean[0]);
            var broken = ladder.Rungs[ladder.IndexOf(clean[^1]) + 1];
            tape.Start(broken.Id, broken.Sides == RungSides.Each ? Side.Left : Side.Both)
                .Rep(fault: "arch")
                .End();
            return tape;
        }
        var change = Changes
            .Between(Of(Climb("B2")), Of(Climb("B5", "B7")), Content.Library)
            .First(c => c.Of == "B" && c.Side == Side.Left);
        Assert.Equal((2, 7, ChangeVerdict.Better), (change.Before, change.Now, change.Verdict));
        var small = Changes
            .Between(Of(Climb("B5")), Of(Climb("B5", "B6")), Content.Library)
            .First(c => c.Of == "B" && c.Side == Side.Left);
        Assert.Equal(ChangeVerdict.NoClearChange, small.Verdict);
    }

    [Fact]
    public void What_was_not_seen_in_both_screens_is_not_compared() =>
        Assert.DoesNotContain(
            Changes.Between(Of(Raise(2)), Of(Roll(30)), Content.Library),
            c => c.Of is "active-leg-raise" or "roll-range"
        );

    [Fact]
    public void A_change_is_told_in_its_unit_and_a_yes_or_no_in_none()
    {
        static Tape Said(string task, double amount) =>
            new Tape().Task(task, Side.Left).Measure(amount).End();
        var yesNo = Content.Library.Tasks.First(t => t.Measure == MeasureKind.YesNo).Id;
        Assert.False(Only(Said(yesNo, 0), Said(yesNo, 1), yesNo).Words.Values.ContainsKey("unit"));
        Assert.True(Only(Roll(20), Roll(45), "roll-range").Words.Values.ContainsKey("unit"));
    }

    [Fact]
    public void Sides_and_directions_are_compared_with_themselves()
    {
        var before = Of(Raise(2).Task("active-leg-raise", Side.Right).Measure(5).End());
        var now = Of(Raise(5).Task("active-leg-raise", Side.Right).Measure(2).End());
        var changes = Changes.Between(before, now, Content.Library);
        Assert.Equal(
            [(Side.Left, ChangeVerdict.Worse), (Side.Right, ChangeVerdict.Better)],
            changes.Where(c => c.Of == "active-leg-raise").Select(c => (c.Side, c.Verdict))
        );
        // Nothing is listed twice.
        Assert.Equal(changes.Count, changes.Select(c => (c.Of, c.Side)).Distinct().Count());
    }

    [Fact]
    public void Abilities_are_compared_direction_by_direction_and_side_by_side()
    {
        ScreenFindings Seen(Tape tape) =>
            FindingsMaker.Of(tape.Trials(), Someone.Calm, Content.Policy, Content.Library, others: []);
        Tape Done(int reps) =>
            new Tape()
                .Start("B5", Side.Left)
                .Reps(reps)
                .End()
                .Start("D3", Side.Right)
                .Reps(reps, hold: 3)
                .End();
        var (before, now) = (Seen(Done(1)), Seen(Done(5)));
        var changes = Changes
            .Between(before, now, Content.Library)
            .Where(c => c.Of.StartsWith("ability-", StringComparison.Ordinal))
            .ToList();
        Assert.Equal(
            now.Abilities!.All.Select(a => ($"ability-{a.Sector}", a.Side, a.Theta)),
            changes.Select(c => (c.Of, c.Side, c.Now))
        );
        Assert.Equal(before.Abilities!.All.Select(a => a.Theta), changes.Select(c => c.Before));
        // Where they were not asked for in one of the two, nothing is compared.
        Assert.DoesNotContain(
            Changes.Between(Of(Done(1)), now, Content.Library),
            c => c.Of.StartsWith("ability-", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_change_counts_from_the_smallest_on()
    {
        var smallest = Content.Library.Norms.Errors.First(e => e.Of == "degrees").SmallestChange;
        Assert.Equal(ChangeVerdict.Better, Only(Roll(20), Roll(20 + smallest + 0.01), "roll-range").Verdict);
        Assert.Equal(
            ChangeVerdict.NoClearChange,
            Only(Roll(20), Roll(20 + smallest - 0.01), "roll-range").Verdict
        );
    }
}
