using Palaestra.Core.Body;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class PlanRangeTests
{
    private static readonly Dose Five = new(5, 1, 3);

    private static SideDose Cautious(string rung, Side side, params (string Id, Side Side)[] precautions) =>
        PlanRange.Cautious(
            new SideDose(side, Five),
            Content.Library.Rung(rung),
            Someone.Calm with
            {
                Precautions = [.. precautions.Select(p => new Core.Intake.ClientPrecaution(p.Id, p.Side))],
            },
            BodySize.Typical,
            Content.Library
        );

    [Fact]
    public void Very_flexible_joints_stop_short_of_the_end()
    {
        var flexible = Cautious("B6", Side.Right, ("hypermobile", Side.Both));
        Assert.Equal(0.8, flexible.Range, 6);
        Assert.StartsWith("80 % of the range, heel ", flexible.RangeEnds.En(), StringComparison.Ordinal);
        Assert.InRange(flexible.RangeLoadPercent!.Value, 50, 99);
    }

    /// <summary>A shorter range does not make a straight leg shorter at the hip: it is barred, or straightened lower.</summary>
    [Fact]
    public void A_leg_that_aches_is_not_helped_by_a_shorter_range()
    {
        var aching = Cautious("B6", Side.Right, ("leg-pain", Side.Right));
        Assert.Equal((1.0, null, null), (aching.Range, aching.RangeEnds, aching.RangeLoadPercent));
    }

    [Fact]
    public void A_short_leg_is_not_shortened() =>
        Assert.Equal(1, Cautious("B5", Side.Right, ("hypermobile", Side.Both)).Range);

    [Theory]
    [InlineData(0.3)]
    [InlineData(0.5)]
    [InlineData(0.9)]
    public void The_percent_is_the_models_own(double range)
    {
        var rung = Content.Library.Rung("B9");
        var dose = PlanRange.Worded(new(Side.Both, Five, range), rung, BodySize.Typical, Content.Library);
        double Front(double share) =>
            LoadModel
                .Of(Content.Library.PathOf(rung), Side.Left, BodySize.Typical, new LoadChanges(Range: share))
                .Load!.Demands.Front;
        Assert.Equal(100 * Front(range) / Front(1), dose.RangeLoadPercent!.Value, 6);
        Assert.Equal(
            $"{dose.RangeEnds.En()}: {dose.RangeLoadPercent:0} % of the full load",
            PlanRange.Words(dose).En()
        );
    }

    [Theory]
    [InlineData(0.0)]
    [InlineData(0.1)]
    [InlineData(1.2)]
    [InlineData(double.NaN)]
    public void A_range_that_is_none_is_refused_by_field(double range)
    {
        var item = new PlanItem(
            Guid.NewGuid(),
            "B6",
            Message.Plain(""),
            [new(Side.Left, Five), new(Side.Right, Five, range)],
            [],
            [],
            ""
        );
        Assert.Equal(
            "items[0].doses[1].range",
            Assert.Single(PlanCheck.Errors([item], Content.Library, "items")).Field
        );
    }

    [Fact]
    public void A_dose_that_says_140_percent_itself_is_not_hidden_by_the_sides_own_range()
    {
        var item = new PlanItem(
            Guid.NewGuid(),
            "B6",
            Message.Plain(""),
            [new(Side.Left, Five with { Range = 1.4 }), new(Side.Right, Five)],
            [],
            [],
            ""
        );
        Assert.Equal(
            "items[0].doses[0].range",
            Assert.Single(PlanCheck.Errors([item], Content.Library, "items")).Field
        );
    }

    [Fact]
    public void A_decision_that_stays_on_the_rung_keeps_the_range_and_a_new_rung_begins_with_its_own()
    {
        var id = Guid.NewGuid();
        var item = new PlanItem(
            id,
            "B5",
            Message.Plain(""),
            [
                new(Side.Left, new Dose(8, 2, 0), 0.8, Message.Plain("80 % of the way")),
                new(Side.Right, new Dose(8, 2, 0)),
            ],
            [],
            [],
            ""
        );
        Plan Next(string rungId, Outcome outcome, double left = 1)
        {
            var decisions = new[] { Side.Left, Side.Right }
                .Select(side => new Decision(
                    id,
                    side,
                    outcome,
                    "D-TEST",
                    rungId,
                    Content.Library.Rung(rungId).Start with
                    {
                        Range = side == Side.Left ? left : 1,
                    },
                    [],
                    null
                ))
                .ToList();
            return NextPlan.Apply(
                new Plan([item], default, default, Content.Policy.Id, 1, "", 0, []),
                decisions,
                Content.Library,
                Content.Policy,
                Someone.With("hypermobile")
            );
        }
        Assert.Equal([0.8, 1], Next("B5", Outcome.Stay, 0.8).Items[0].Doses.Select(d => d.Range));
        Assert.Equal([0.8, 0.8], Next("B6", Outcome.StepUp).Items[0].Doses.Select(d => d.Range));
    }
}
