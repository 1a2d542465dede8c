using CsCheck;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Progression;

/// <summary>D-HOME after two weeks: the plan shrinks to what is done.</summary>
public class LeanPlanTests
{
    private static readonly string[] Rungs = ["B5", "D2", "E1", "F1", "G2", "K2"];

    /// <summary>A plan of as many exercises as there are shares, each done at home to that share over two weeks.</summary>
    private static DecideInput Input(params double?[] shares)
    {
        var work = new Work("B5", Content.Library.Rung("B5").Start).BothSides(1).Input();
        PlanItem[] items =
        [
            .. shares.Select(
                (_, i) =>
                    work.Items[0] with
                    {
                        Id = new Guid(i + 1, 0, 0, new byte[8]),
                        RungId = Rungs[i],
                        Doses = [new(Side.Left, new Dose(5, 1, 0)), new(Side.Right, new Dose(5, 1, 0))],
                    }
            ),
        ];
        return work with
        {
            Items = items,
            Visits = [],
            HomeLong =
            [
                .. shares.SelectMany(
                    (share, i) =>
                        new[] { Side.Left, Side.Right }.Select(side => new HomeWork(
                            items[i].Id,
                            side,
                            share is null ? 0 : 100,
                            (int)(100 * share ?? 0),
                            5,
                            null,
                            null
                        ))
                ),
            ],
        };
    }

    private static string Gone(DecideInput input) =>
        string.Join(
            ' ',
            DecisionEngine
                .Bare(input, Content.Library)
                .Where(d => d is { Outcome: Outcome.Stop, RuleId: "D-HOME" })
                .Select(d => d.RungId)
                .Distinct()
        );

    [Theory]
    [InlineData("", 0.6, 0.5, 0.4, 0.5)] // half in all: nothing goes
    [InlineData("E1 F1", 0.8, 0.7, 0.1, 0.0)] // 40 % of four: two stay
    [InlineData("D2 F1 G2", 0.9, 0.0, 0.6, 0.1, 0.2, 0.6)] // 40 % of six: three stay, the ones that are done
    [InlineData("E1 F1", 0.0, 0.0, 0.0, 0.0)] // nothing at all: the first two stay
    [InlineData("", 0.1, 0.2)] // two are few enough
    public void What_is_done_least_goes(string gone, params double[] shares) =>
        Assert.Equal(gone, Gone(Input([.. shares.Select(s => (double?)s)])));

    [Fact]
    public void What_is_only_done_at_the_visit_stays_and_counts_for_the_two()
    {
        Assert.Equal("E1", Gone(Input(null, 0.3, 0.1)));
    }

    [Fact]
    public void Without_a_log_of_two_weeks_nothing_goes()
    {
        Assert.Equal("", Gone(Input(0.1, 0.1, 0.1, 0.1) with { HomeLong = null }));
        Assert.Equal("", Gone(Input(0.1, 0.1, 0.1, 0.1) with { HomeLong = [] }));
    }

    /// <summary>A week without a word, or with other exercises, makes no two weeks.</summary>
    [Fact]
    public void Spells_add_up_only_where_each_was_written_down_and_the_exercises_are_the_same()
    {
        HomeWork Of(int id, int done) =>
            new(new Guid(id, 0, 0, new byte[8]), Side.Both, 20, done, 2, 3, null);
        var both = HomeWork.Together([
            [Of(1, 4), Of(2, 10)],
            [Of(1, 20), Of(2, 0)],
        ])!;
        Assert.Equal([24, 10], both.Select(h => h.DoneReps));
        Assert.All(both, h => Assert.Equal(40, h.PlannedReps));
        Assert.Null(
            HomeWork.Together([
                [Of(1, 4)],
                [],
            ])
        );
        Assert.Null(
            HomeWork.Together([
                [Of(1, 4)],
                [Of(1, 4), Of(2, 4)],
            ])
        );
        Assert.Null(HomeWork.Together([]));
    }

    /// <summary>Never under two, never what is done more than what stays, never where half is done; and then it is a plan.</summary>
    [Fact]
    public void Two_stay_and_what_stays_was_done_no_less()
    {
        Gen.Int[0, 20]
            .Array[2, 6]
            .Sample(twentieths =>
            {
                var shares = twentieths.Select(t => (double?)(t / 20.0)).ToArray();
                var input = Input(shares);
                var gone = LeanPlan.LetGo(input, Content.Policy);
                var kept = input.Items.Select(i => i.Id).Except(gone).ToList();
                double Of(Guid id) => input.HomeLong!.First(h => h.PlanItemId == id).Share!.Value;
                Assert.True(kept.Count >= 2);
                Assert.True(gone.Count == 0 || shares.Average() < 0.5);
                Assert.True(gone.Count == 0 || kept.Min(Of) >= gone.Max(Of));
                Assert.True(
                    kept.Count <= Math.Max(2, Math.Ceiling(shares.Average()!.Value * shares.Length))
                        || gone.Count == 0
                );
            });
    }
}
