using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>P-LOAD: a plan begins with a load that was lifted clean, 10 to 20 % under where form broke, else with the lightest.</summary>
public class StartLoadTests
{
    private static double? Of(string rung, params TaskFinding[] tasks) => With([], rung, tasks);

    private static double? With(
        IReadOnlyList<ClientPrecaution> precautions,
        string rung,
        params TaskFinding[] tasks
    ) =>
        StartLoad.Of(
            Content.Library.Rung(rung),
            Allowance.Of(Content.Library, precautions, Content.Library.Rung(rung), Side.Both),
            AnyClient.Of(
                [.. Enumerable.Repeat(1, 2 * Content.Library.Ladders.Count)],
                [.. Enumerable.Repeat(60, 8)]
            ) with
            {
                Tasks = tasks,
            },
            Content.Policy,
            Content.Library
        );

    private static TaskFinding Hinge(
        double? clean,
        double? broke,
        string task = "loaded-hinge",
        string rung = "S1",
        bool assured = true
    ) =>
        new(
            rung,
            null,
            null,
            new SideScore(Guid.NewGuid(), 5, 0, 5, 1, false, clean, BrokeAt: broke, Assured: assured),
            null,
            null,
            task,
            Measure: MeasureKind.Kilograms
        );

    [Theory]
    [InlineData("S2", 15.0, 20.0, 15.0)] // 18 would do, but 15 was the most that was clean
    [InlineData("S2", 20.0, 20.0, 15.0)] // clean and broken at 20: at most 18
    [InlineData("S2", 10.0, null, 10.0)] // never broke: what was clean
    [InlineData("S2", 1.0, 2.0, 2.0)] // less than the lightest there is
    [InlineData("S2", null, 5.0, 2.0)] // nothing was clean
    [InlineData("S8", 20.0, null, 1.0)] // overhead: a lift from below says nothing
    [InlineData("K6", 20.0, null, 1.0)] // another ladder
    public void The_load_is_under_what_broke_and_no_more_than_was_clean(
        string rung,
        double? clean,
        double? broke,
        double load
    ) => Assert.Equal(load, Of(rung, Hinge(clean, broke)));

    [Fact]
    public void Nothing_screened_the_lightest_and_none_where_nothing_is_lifted()
    {
        Assert.Equal(2, Of("S2"));
        Assert.Null(Of("S1"));
        Assert.Null(Of("B5"));
    }

    /// <summary>Fragile bone, a growing back, blood pressure: light, whatever was lifted.</summary>
    [Theory]
    [InlineData("fragile-bone")]
    [InlineData("under-16")]
    [InlineData("pressure")]
    public void Where_a_precaution_cautions_it_begins_light(string precaution) =>
        Assert.Equal(2, With([new ClientPrecaution(precaution, Side.Both)], "S2", Hinge(20, null)));

    /// <summary>Half the way, or pain that nobody asked for: it says nothing of the whole.</summary>
    [Fact]
    public void What_is_not_assured_is_not_prescribed() =>
        Assert.Equal(2, Of("S2", Hinge(20, null, assured: false)));

    /// <summary>Two screens of one ladder: the smaller of both.</summary>
    [Fact]
    public void The_smaller_of_two_counts() =>
        Assert.Equal(4, Of("Q7", Hinge(12, null, "loaded-squat", "Q3"), Hinge(4, 6, "loaded-squat", "Q3")));
}
