using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class PlanTimeTests
{
    private static readonly Guid Id = Guid.NewGuid();

    /// <summary>By hand: 20 set-up + left 2 × 5 × (3 + 6) = 90 + 60 rest + right 1 × 5 × 9 = 45 + 5 change of side = 220 s.</summary>
    [Fact]
    public void Adds_work_rests_sides_and_set_up()
    {
        var item = new PlanItem(
            Id,
            "B6",
            Message.Plain(""),
            [new(Side.Left, new Dose(5, 2, 3)), new(Side.Right, new Dose(5, 1, 3))],
            [],
            [],
            ""
        );
        Assert.Equal(220, PlanTime.Seconds(item.Doses, Content.Library.Rung("B6"), Content.Policy), 6);
    }

    /// <summary>Rests are shorter where nothing is held: 20 + 2 × 5 × 6 + 30 = 110 s for one side.</summary>
    [Fact]
    public void Rests_are_shorter_without_holds()
    {
        var item = new PlanItem(Id, "B5", Message.Plain(""), [new(Side.Left, new Dose(5, 2, 0))], [], [], "");
        Assert.Equal(110, PlanTime.Seconds(item.Doses, Content.Library.Rung("B5"), Content.Policy), 6);
    }

    [Fact]
    public void A_change_of_position_costs_its_seconds()
    {
        PlanItem One(string rung) =>
            new(Guid.NewGuid(), rung, Message.Plain(""), [new(Side.Left, new Dose(5, 1, 0))], [], [], "");
        Plan Of(params PlanItem[] items) =>
            PlanTime.WithMinutes(
                new Plan(items, SpinalStrategy.Neutral, Activation.Brace, "", 1, "", 0, []),
                Content.Library,
                Content.Policy
            );
        var same = Of(One("B5"), One("B5")).Items[1].Minutes;
        var other = Of(One("D3"), One("B5")).Items[1].Minutes;
        Assert.Equal(Content.Policy.Seconds.PositionChange / 60, other - same, 1);
    }
}
