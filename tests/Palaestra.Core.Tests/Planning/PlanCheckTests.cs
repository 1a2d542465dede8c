using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class PlanCheckTests
{
    private static PlanItem Item(string rung, params SideDose[] doses) =>
        new(Guid.NewGuid(), rung, Message.Plain(""), doses, [], [], "");

    private static SideDose On(Side side, int reps = 5, int sets = 1, double hold = 3) =>
        new(side, new Dose(reps, sets, hold));

    [Theory]
    [InlineData(0, 1, 3, "items[0].doses[0].dose.reps")]
    [InlineData(51, 1, 3, "items[0].doses[0].dose.reps")]
    [InlineData(5, 0, 3, "items[0].doses[0].dose.sets")]
    [InlineData(5, 1, -1, "items[0].doses[0].dose.hold")]
    [InlineData(5, 1, 121, "items[0].doses[0].dose.hold")]
    public void Refuses_doses_that_are_none(int reps, int sets, double hold, string field) =>
        Assert.Equal(
            field,
            Assert
                .Single(
                    PlanCheck.Errors([Item("B6", On(Side.Left, reps, sets, hold))], Content.Library, "items")
                )
                .Field
        );

    [Fact]
    public void Refuses_unknown_rungs_and_sides_that_do_not_belong()
    {
        Assert.Equal(
            "items[0].rungId",
            Assert.Single(PlanCheck.Errors([Item("ZZ1", On(Side.Left))], Content.Library, "items")).Field
        );
        Assert.Equal(
            "items[0].doses[0].side",
            Assert.Single(PlanCheck.Errors([Item("B6", On(Side.Both))], Content.Library, "items")).Field
        );
    }

    private static IReadOnlyList<PlanWarning> Warn(PlanItem item, ClientProfile who, double minutes = 20)
    {
        var plan = PlanTime.WithMinutes(
            new Plan([item], SpinalStrategy.Neutral, Activation.Brace, "", 1, "", 0, []),
            Content.Library,
            Content.Policy
        );
        return PlanCheck.Warnings(plan, who, null, minutes, Content.Library);
    }

    [Fact]
    public void A_barred_rung_blocks_until_a_reason_is_written_and_stays_marked()
    {
        var barred = Item("D3", On(Side.Left), On(Side.Right));
        Assert.True(Warn(barred, Someone.With("wrist")).Single(w => w.RuleId == "P-BARRED").Blocks);
        var reasoned = Warn(barred with { BarOverride = "on fists, pain free" }, Someone.With("wrist"))
            .Single(w => w.RuleId == "P-BARRED");
        Assert.False(reasoned.Blocks);
        Assert.Contains("on fists", reasoned.Words.En(), StringComparison.Ordinal);
        Assert.True(
            Warn(barred with { BarOverride = "  " }, Someone.With("wrist"))
                .Single(w => w.RuleId == "P-BARRED")
                .Blocks
        );
    }

    [Fact]
    public void Warns_over_the_cap_over_the_minutes_and_of_one_side_only()
    {
        var warnings = Warn(Item("B6", On(Side.Left, reps: 11)), Someone.Calm, minutes: 1);
        Assert.Equal(["P-CAP", "P-ONE-SIDED", "P-MINUTES"], warnings.Select(w => w.RuleId));
    }
}
