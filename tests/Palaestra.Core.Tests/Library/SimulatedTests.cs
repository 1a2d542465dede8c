using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

public class SimulatedTests
{
    private static readonly SimulatedFigures Figures = new(0.7, 0.02, 0.2, 0.02, 0.1, 0.01);

    private static IEnumerable<string> Fields(string path, double value) =>
        new Simulated("typical", 100, 1, "mastery", Figures, [new(path, value, Figures)])
            .Errors(Content.Library.Schools)
            .Select(error => error.Field);

    [Fact]
    public void One_number_is_changed_and_nothing_else()
    {
        var policy = Content.Policy;
        var other = Simulated.With(policy, "judgement.readyVisits", 3);
        Assert.Equal(3, other.Judgement.ReadyVisits);
        Assert.Equal(policy.Judgement with { ReadyVisits = 3 }, other.Judgement);
        Assert.Equal(0.4, Simulated.With(policy, "weeklyGrowth", 0.4).WeeklyGrowth);
        Assert.Throws<ArgumentException>(() => Simulated.With(policy, "judgement.luck", 1));
        Assert.Throws<ArgumentException>(() => Simulated.With(policy, "fate.luck", 1));
    }

    [Fact]
    public void A_row_speaks_of_a_number_that_can_be_chosen()
    {
        Assert.Empty(Fields("weeklyGrowth", 0.4));
        Assert.Equal(["simulated.json changed[0].path"], Fields("breath", 1));
        Assert.Equal(["simulated.json changed[0].value"], Fields("weeklyGrowth", 7));
    }

    /// <summary>What stands in the content is of the default policy, and from enough clients to say something.</summary>
    [Fact]
    public void The_run_in_the_content_is_of_the_default_policy()
    {
        var run = Content.Library.Simulated;
        Assert.Equal(Content.Library.DefaultPolicy.Id, run.PolicyId);
        Assert.True(run.Clients >= 100, $"Only {run.Clients} clients: run ./palaestra courses.");
        Assert.True(run.Changed.Count >= 20);
        Assert.All(run.Changed, c => Assert.InRange(c.Figures.Flared, 0, 1));
    }
}
