using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Steps against the body model: down is less, a steep step up is tried first.</summary>
public class StepsTests
{
    private static readonly PracticeLibrary Library = Content.Library;
    private static readonly Judgement Judgement = Content.Policy.Judgement;
    private static readonly Direction[] Directions =
    [
        Direction.Front,
        Direction.Back,
        Direction.Side,
        Direction.Twist,
        Direction.Pelvis,
    ];

    private static IEnumerable<Rung> Rungs => Library.TrainedLadders.SelectMany(ladder => ladder.Rungs);

    private static double Asks(string rung, Dose dose, Direction direction)
    {
        var load = Library.Settings.Of(Library.Rung(rung), Side.Left, dose);
        return Math.Max(
            load.In(direction, OnSide.Task, Side.Left),
            load.In(direction, OnSide.Other, Side.Left)
        );
    }

    private static double Greatest(string rung, Dose dose) => Directions.Max(d => Asks(rung, dose, d));

    private static double Tolerance(double now) =>
        Math.Max(Judgement.NoMoreShare * now, Judgement.NoMoreNewtonMetres);

    private static Decision Of(Work work) => DecisionEngine.Bare(work.Input(), Library)[0];

    /// <summary>Every exercise after a session in which most of it broke.</summary>
    [Fact]
    public void A_step_that_hardly_lowers_the_load_takes_a_fifth_of_the_work_away()
    {
        var hardly = 0;
        foreach (var rung in Rungs)
        {
            var dose = rung.Target with { Height = rung.Heights?[^1], Load = rung.Loads?[^1], Range = 0.25 };
            var decision = Of(new Work(rung.Id, dose).BothSides(1, 0.2).BothSides(2, 0.2));
            var other = decision.RungId != rung.Id || !decision.Dose.SettingCovers(dose);
            var now = Greatest(rung.Id, dose);
            if (
                !other
                || decision.RuleId != "D-FAULT-CAP"
                || Greatest(decision.RungId, decision.Dose) < now - Tolerance(now)
            )
            {
                continue;
            }
            hardly++;
            var next = Library.Rung(decision.RungId);
            var least = next.MoveSeconds + 1;
            Assert.True(
                decision.Dose.Seconds(next.MoveSeconds)
                    <= Math.Max(least, 0.8 * dose.Seconds(rung.MoveSeconds)) + 1e-6,
                $"{rung.Id} {dose.Said().En()} to {decision.RungId} {decision.Dose.Said().En()}"
            );
        }
        Assert.True(hardly > 2, $"Only {hardly} such steps: this says little.");
    }

    /// <summary>Another height of the surface is taken only where that asks no more; over a short range a higher counter can ask more.</summary>
    [Fact]
    public void Another_surface_is_no_step_down_where_it_asks_more()
    {
        var asksMore = 0;
        foreach (var rung in Rungs.Where(rung => rung.Heights is not null))
        {
            foreach (var height in rung.Heights!.Skip(1))
            {
                var dose = rung.Target with { Height = height, Range = rung.HasRange ? 0.25 : 1 };
                var higher = dose with { Height = rung.EasierHeights(height)[0] };
                if (More(rung, dose, higher))
                {
                    asksMore++;
                }
                var work = new Work(rung.Id, dose).BothSides(1, 0.2).BothSides(2, 0.2);
                var input = work.Input();
                var hurt = input with
                {
                    Visits =
                    [
                        .. input.Visits.Select(p =>
                            p with
                            {
                                Sets = [.. p.Sets.Select(s => s with { PainBefore = 1, PainPeak = 6 })],
                            }
                        ),
                    ],
                };
                var decision = DecisionEngine.Bare(hurt, Library)[0];
                Assert.False(
                    decision.RungId == rung.Id
                        && decision.Dose.Height != height
                        && More(rung, dose, decision.Dose),
                    $"{rung.Id} from {dose.Said().En()} to {decision.Dose.Said().En()}"
                );
            }
        }
        Assert.True(asksMore > 0, "No easier surface asks more anywhere: this says nothing.");
    }

    private static bool More(Rung rung, Dose now, Dose then) =>
        Directions.Any(d =>
        {
            var (before, after) = (Asks(rung.Id, now, d), Asks(rung.Id, then, d));
            return after >= Judgement.AsideNewtonMetres && after > before + Tolerance(before);
        });

    [Fact]
    public void A_step_up_that_raises_the_load_by_over_three_fifths_is_one_set_and_watched()
    {
        var (steep, gentle) = (0, 0);
        foreach (var rung in Rungs)
        {
            var decision = Of(Work.AtTarget(rung.Id).BothSides(1).BothSides(2));
            if (decision.Outcome != Outcome.StepUp || decision.LoadMore is not { } more)
            {
                continue;
            }
            var watched = decision.Todo.En().StartsWith("Much more load", StringComparison.Ordinal) == true;
            Assert.Equal(more > Judgement.ProbeGrowth, watched);
            Assert.True(!watched || decision.Dose.Sets == 1, rung.Id);
            (steep, gentle) = (steep + (watched ? 1 : 0), gentle + (watched ? 0 : 1));
        }
        Assert.True(steep > 0 && gentle > 0, $"{steep} steep, {gentle} gentle");
    }

    /// <summary>It is done at the end of its way: over less of it there would be a hold of another exercise.</summary>
    [Theory]
    [InlineData("K2")]
    [InlineData("H2")]
    [InlineData("G0")]
    public void One_long_hold_is_eased_in_time_and_never_in_range(string id)
    {
        var target = Content.Library.Rung(id).Target;
        var work = new Work(id, target with { Reps = 1, Sets = 1, Hold = 30 });
        foreach (var side in Content.Library.Rung(id).TaskSides)
        {
            work = work.Visit(2, side, painSets: 1);
        }
        Assert.All(
            work.Decisions(),
            d =>
            {
                Assert.True(d.Outcome is Outcome.Ease or Outcome.StepDown, d.ToString());
                Assert.Equal(1, d.Dose.Range);
            }
        );
    }
}
