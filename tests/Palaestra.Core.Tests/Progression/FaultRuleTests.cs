using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Trembling, and work felt in the wrong place, with their boundaries. All common practice.</summary>
public class FaultRuleTests
{
    private static readonly PracticeLibrary Library = Content.Library;

    private static Decision Of(DecideInput input) => DecisionEngine.Bare(input, Library)[0];

    private static DecideInput Each(DecideInput input, Func<int, SetDone, SetDone> change) =>
        input with
        {
            Visits =
            [
                .. input.Visits.Select(p =>
                    p with
                    {
                        Sets = [.. p.Sets.Select(set => change(p.Visit, set))],
                    }
                ),
            ],
        };

    /// <summary>Clean at every visit up to the last, and trembling at the last.</summary>
    private static DecideInput Trembling(int visits, double share = 0.6, int effort = 5)
    {
        var work = Enumerable
            .Range(1, visits)
            .Aggregate(Work.AtTarget("B5"), (w, visit) => w.BothSides(visit, effort: effort));
        return Each(work.Input(visits), (visit, set) => visit == visits ? set with { Tremor = share } : set);
    }

    [Theory]
    [InlineData(0.5, false)] // half of the set is not most of it
    [InlineData(0.51, true)]
    public void D_TREMOR_through_more_than_half_of_a_set_adds_nothing(double share, bool fires)
    {
        var decision = Of(Trembling(2, share));
        Assert.Equal(fires, decision.Rules.Contains("D-TREMOR"));
        Assert.Equal(fires, decision.Outcome == Outcome.Stay);
    }

    [Theory]
    [InlineData(2, 5, true)]
    [InlineData(3, 5, false)] // three visits clean, with ease: it may grow
    [InlineData(3, 7, false)]
    [InlineData(3, 8, true)] // not with ease
    public void D_TREMOR_lets_go_after_three_clean_visits_at_effort_seven(
        int visits,
        int effort,
        bool fires
    ) => Assert.Equal(fires, Of(Trembling(visits, effort: effort)).Rules.Contains("D-TREMOR"));

    [Fact]
    public void D_TREMOR_says_nothing_of_a_client_who_trembles_by_themselves()
    {
        Assert.Equal(Outcome.StepUp, Of(Trembling(2) with { KnownTremor = true }).Outcome);
        Assert.Equal(Outcome.StepUp, Of(Trembling(2) with { Profile = Someone.With("own-tremor") }).Outcome);
    }

    private static DecideInput FeltIn(string place, params int[] visits)
    {
        var last = visits.Max();
        var work = Enumerable.Range(1, last).Aggregate(Work.AtTarget("B5"), (w, visit) => w.BothSides(visit));
        return Each(
            work.Input(last),
            (visit, set) => visits.Contains(visit) ? set with { Felt = place } : set
        );
    }

    [Theory]
    [InlineData(new[] { 2 }, false)] // once
    [InlineData(new[] { 1, 3 }, false)] // not running
    [InlineData(new[] { 1, 2 }, true)]
    public void D_SETUP_two_visits_running_in_the_wrong_place_changes_the_set_up_and_not_the_rung(
        int[] visits,
        bool fires
    )
    {
        var decision = Of(FeltIn("low-back", visits));
        Assert.Equal(fires, decision.Rules.Contains("D-SETUP"));
        if (fires)
        {
            Assert.Equal((Outcome.Stay, "B5"), (decision.Outcome, decision.RungId));
            Assert.StartsWith("Change the set-up", decision.Todo!.En(), StringComparison.Ordinal);
        }
    }

    [Fact]
    public void D_SETUP_says_nothing_where_it_was_felt_as_it_should_be() =>
        Assert.Equal(
            Outcome.StepUp,
            Of(FeltIn(Library.FeltPlaces.First(p => p.AsIntended).Id, 1, 2)).Outcome
        );

    [Theory]
    [InlineData(1, false)]
    [InlineData(2, true)]
    public void D_SETUP_seeks_another_way_after_two_changes_of_the_set_up(int tries, bool another)
    {
        var input = FeltIn("low-back", 1, 2) with
        {
            SetUps =
            [
                .. Enumerable.Range(0, tries).Select(i => new SetUpTry(Work.ItemId, 1 + i, "low-back")),
            ],
        };
        var decision = Of(input);
        Assert.Equal(
            another,
            decision.Outcome == Outcome.Change
                || decision.Evidence.Any(w => w.En().Contains("screen again", StringComparison.Ordinal))
        );
        Assert.Contains("D-SETUP", decision.Rules);
    }

    [Fact]
    public void D_SETUP_counts_only_changes_for_the_same_place()
    {
        var input = FeltIn("low-back", 1, 2) with
        {
            SetUps = [new(Work.ItemId, 1, "neck"), new(Work.ItemId, 2, "neck")],
        };
        Assert.StartsWith("Change the set-up", Of(input).Todo!.En(), StringComparison.Ordinal);
    }
}
