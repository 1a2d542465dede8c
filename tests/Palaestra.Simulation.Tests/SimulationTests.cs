using Palaestra.Core.Tests.Given;

namespace Palaestra.Simulation.Tests;

/// <summary>The search over simulated clients; the whole of it stands in docs/screening-simulation.md.</summary>
public class SimulationTests
{
    private const int Clients = 60;

    private static Result Of(RungMethod method, Nature nature) =>
        Comparison.Of([method], [.. Content.Library.TrainedLadders], nature, Clients, Content.Library)[0];

    private static OfTheProduct Product => new(Content.Policy, Content.Library);

    [Fact]
    public void Never_takes_more_than_the_policy_s_trials_a_side()
    {
        Assert.Equal(1, Of(Product, Nature.Typical).WithinTrials(Content.Policy.TrialsPerSide));
        Assert.Equal(1, Of(Product, Nature.Rough).WithinTrials(Content.Policy.TrialsPerSide));
    }

    [Fact]
    public void Comes_nearer_than_climbing_from_the_bottom_on_no_more_trials()
    {
        foreach (var nature in new[] { Nature.Typical, Nature.Rough })
        {
            var product = Of(Product, nature);
            Assert.True(product.MeanError < Of(new BottomUp(Content.Policy, int.MaxValue), nature).MeanError);
            Assert.True(product.MeanError < Of(new BottomUp(Content.Policy, 4), nature).MeanError);
        }
    }

    /// <summary>A Rasch-type search was tried beside it; it is no nearer for the trials it takes, so the simpler one is used.</summary>
    [Fact]
    public void Is_as_near_as_a_Rasch_type_search_with_fewer_trials()
    {
        var product = Of(Product, Nature.Typical);
        var belief = Of(new BeliefMethod(Content.Policy, Content.Library), Nature.Typical);
        Assert.InRange(product.MeanError - belief.MeanError, -0.1, 0.1);
        Assert.True(product.MeanTrials < belief.MeanTrials);
    }

    [Fact]
    public void Without_noise_the_climb_from_the_bottom_finds_the_true_rung() =>
        Assert.Equal(0, Of(new BottomUp(Content.Policy, int.MaxValue), Nature.Perfect).MeanError);

    /// <summary>The errors that changes are judged by are those the simulation gives.</summary>
    [Fact]
    public void Measurement_errors_of_rung_and_control_are_those_of_two_screens_of_the_same_people()
    {
        var retest = Retest.Of(Nature.Typical, SimulationReport.Clients, Content.Library);
        double Told(string of) => Content.Library.Norms.Errors.First(e => e.Of == of).Error;
        Assert.InRange(retest.Rung, Told("rung") * 0.97, Told("rung") * 1.03);
        Assert.InRange(retest.Control, Told("control") * 0.97, Told("control") * 1.03);
    }

    [Fact]
    public void The_same_person_on_the_same_day_does_the_same() =>
        Assert.Equal(
            Retest.Of(Nature.Typical, 5, Content.Library),
            Retest.Of(Nature.Typical, 5, Content.Library)
        );
}
