using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class PlanComparisonTests
{
    private static readonly Guid First = Guid.NewGuid();

    private static Plan Of(params (Guid Id, string Rung, int Reps)[] items) =>
        new(
            [
                .. items.Select(item => new PlanItem(
                    item.Id,
                    item.Rung,
                    Message.Plain(""),
                    [new(Side.Left, new Dose(item.Reps, 1, 0)), new(Side.Right, new Dose(5, 1, 0))],
                    [],
                    [],
                    ""
                )),
            ],
            SpinalStrategy.Neutral,
            Activation.Brace,
            Content.Policy.Id,
            1,
            "",
            5,
            []
        );

    [Fact]
    public void Tells_up_down_doses_what_is_new_and_what_went()
    {
        var compared = PlanComparison.Of(
            Of((First, "B5", 5), (Guid.NewGuid(), "D1", 5)),
            Of((First, "B6", 6), (Guid.NewGuid(), "J1", 5)),
            Content.Library
        );
        Assert.Equal(
            ["up: Heel tap → Leg reach, arms still", "left: 5 reps → 6 reps"],
            compared.Items.Single(pair => pair.Before is not null && pair.After is not null).Changes.En()
        );
        Assert.Equal(["new"], compared.Items.Single(pair => pair.Before is null).Changes.En());
        Assert.Equal(["removed"], compared.Items.Single(pair => pair.After is null).Changes.En());
    }

    [Fact]
    public void The_same_plan_has_no_changes_and_another_order_is_told()
    {
        var second = Guid.NewGuid();
        var plan = Of((First, "B5", 5), (second, "D1", 5));
        Assert.Empty(PlanComparison.Of(plan, plan, Content.Library).Words());
        Assert.Equal(
            ["different order"],
            PlanComparison.Of(plan, Of((second, "D1", 5), (First, "B5", 5)), Content.Library).Changes.En()
        );
    }
}
