using CsCheck;
using Palaestra.Core.Charts;
using Palaestra.Core.Intake;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Charts;

/// <summary>The body that pain is drawn on: where a drawing lies, how much of the body it is, and what it asks for.</summary>
public class ChartReadingTests
{
    private static PainArea Of(ChartView view, ChartZone zone, Side side, PainKind kind = PainKind.Ache) =>
        new(view, kind, 5, ChartFigure.Of(view).Parts.First(p => p.Zone == zone && p.Side == side).Outline);

    /// <summary>A square of so many millimetres round a place.</summary>
    private static PainArea Square(ChartView view, int x, int y, int half, PainKind kind = PainKind.Ache) =>
        new(view, kind, 5, [x - half, y - half, x + half, y - half, x + half, y + half, x - half, y + half]);

    private static (int X, int Y) Middle(ChartView view, ChartZone zone, Side side)
    {
        var outline = ChartFigure.Of(view).Parts.First(p => p.Zone == zone && p.Side == side).Outline;
        return (
            (int)outline.Where((_, i) => i % 2 == 0).Average(),
            (int)outline.Where((_, i) => i % 2 == 1).Average()
        );
    }

    public static TheoryData<ChartView, ChartZone, Side> Zones =>
        [
            .. ChartFigure
                .All.SelectMany(f => f.Parts.Select(p => (f.View, p.Zone, p.Side)))
                .Distinct()
                .Select(z => new TheoryDataRow<ChartView, ChartZone, Side>(z.View, z.Zone, z.Side)),
        ];

    /// <summary>From the side an arm lies over the chest: drawn by name there, both are touched.</summary>
    [Theory]
    [MemberData(nameof(Zones))]
    public void What_is_drawn_by_name_lies_in_that_zone(ChartView view, ChartZone zone, Side side)
    {
        var zones = ChartReading.ZonesOf(Of(view, zone, side));
        Assert.Contains(new ZoneSide(zone, side), zones);
        if (view is ChartView.Front or ChartView.Back)
        {
            Assert.Equal(new ZoneSide(zone, side), zones[0]);
        }
    }

    [Theory]
    [InlineData(ChartView.Back, ChartZone.LowBack, Side.Left)]
    [InlineData(ChartView.Back, ChartZone.Buttock, Side.Right)]
    [InlineData(ChartView.Front, ChartZone.Abdomen, Side.Right)]
    [InlineData(ChartView.Front, ChartZone.Thigh, Side.Left)]
    [InlineData(ChartView.Left, ChartZone.LowerLeg, Side.Left)]
    public void A_tap_in_the_middle_of_a_zone_is_in_that_zone_alone(ChartView view, ChartZone zone, Side side)
    {
        var (x, y) = Middle(view, zone, side);
        Assert.Equal([new ZoneSide(zone, side)], ChartReading.ZonesOf(Square(view, x, y, 15)));
    }

    /// <summary>A person's own left is on the right of a picture from in front, and on the left of one from behind.</summary>
    [Fact]
    public void Left_is_the_clients_own()
    {
        Assert.True(Middle(ChartView.Front, ChartZone.Thigh, Side.Left).X > 0);
        Assert.True(Middle(ChartView.Back, ChartZone.Thigh, Side.Left).X < 0);
        Assert.All(ChartFigure.Of(ChartView.Left).Parts, p => Assert.NotEqual(Side.Right, p.Side));
        Assert.All(ChartFigure.Of(ChartView.Right).Parts, p => Assert.NotEqual(Side.Left, p.Side));
    }

    /// <summary>Left and right are mirror images: what is drawn on one side is as large as its mirror on the other.</summary>
    [Fact]
    public void Mirrored_drawings_are_as_large_and_lie_in_mirrored_zones() =>
        Gen.Select(Gen.Int[-400, 400], Gen.Int[-1750, 0], Gen.Int[20, 120])
            .Sample(
                (x, y, half) =>
                {
                    var one = Square(ChartView.Back, x, y, half);
                    var other = Square(ChartView.Back, -x, y, half);
                    var (a, b) = (ChartReading.CellsOf(one).Count, ChartReading.CellsOf(other).Count);
                    var mirrored = ChartReading
                        .ZonesOf(one)
                        .Select(z => z with { Side = z.Side.Other() })
                        .ToHashSet();
                    // The rims of the cells may fall to either side.
                    return Math.Abs(a - b) <= 2 * (half / 10 + 2)
                        && (a < 40 || mirrored.Overlaps(ChartReading.ZonesOf(other)));
                }
            );

    [Fact]
    public void What_is_drawn_twice_counts_once_and_what_lies_beside_the_body_not_at_all()
    {
        var thigh = Of(ChartView.Front, ChartZone.Thigh, Side.Left);
        var once = ChartReading.SizeOf(new([thigh]));
        Assert.Equal(once, ChartReading.SizeOf(new([thigh, thigh with { Kind = PainKind.Numb }])));
        // The front of a thigh, 5 by 4 hands: hundreds of square centimetres, not thousands.
        Assert.InRange(once, 200, 900);
        Assert.Empty(ChartReading.CellsOf(Square(ChartView.Front, 5000, 5000, 100)));
        // However far an outline runs, only the body is looked at.
        var all = new PainArea(
            ChartView.Front,
            PainKind.Ache,
            5,
            [-1_000_000, -1_000_000, 1_000_000, -1_000_000, 1_000_000, 1_000_000, -1_000_000, 1_000_000]
        );
        Assert.InRange(ChartReading.CellsOf(all).Count, 3000, 9000);
    }

    /// <summary>More drawn is never less body, fewer zones, fewer questions, or pain less far down a leg.</summary>
    [Fact]
    public void Whatever_is_drawn_beside_takes_nothing_away() =>
        Gen.Select(AnyArea.Array[0, 4], AnyArea)
            .Sample(
                (areas, more) =>
                {
                    var (before, after) = (new BodyChart([.. areas]), new BodyChart([.. areas, more]));
                    return ChartReading.SizeOf(before) <= ChartReading.SizeOf(after)
                        && ChartReading.ZonesOf(before).All(ChartReading.ZonesOf(after).Contains)
                        && ChartQuestion
                            .Of(before, Content.Library)
                            .All(ChartQuestion.Of(after, Content.Library).Contains)
                        && new[] { Side.Left, Side.Right }.All(side =>
                            Reach(before, side) <= Reach(after, side)
                        );
                },
                iter: Soak.Cases(300)
            );

    /// <summary>How far down a leg, or -1 where nothing is said.</summary>
    private static int Reach(BodyChart chart, Side side) =>
        (int?)ChartQuestion.LegOf(chart, Content.Library)?.Of(side) ?? -1;

    private static readonly Gen<PainArea> AnyArea = Gen.Select(
        Gen.Enum<ChartView>(),
        Gen.Enum<PainKind>(),
        Gen.Int[-350, 350],
        Gen.Int[-1750, 0],
        Gen.Int[10, 150],
        (view, kind, x, y, half) => Square(view, x, y, half, kind)
    );

    private static IReadOnlyList<(string, Side)> Asked(params PainArea[] areas) =>
        [.. ChartQuestion.Of(new(areas), Content.Library).Select(q => (q.Id, q.Side))];

    [Fact]
    public void The_right_question_is_asked_at_once()
    {
        Assert.Empty(Asked(Of(ChartView.Back, ChartZone.LowBack, Side.Left)));
        Assert.Empty(Asked(Of(ChartView.Back, ChartZone.Thigh, Side.Left)));
        Assert.Equal(
            [("saddle-numbness", Side.Both)],
            Asked(Of(ChartView.Front, ChartZone.Saddle, Side.Both))
        );
        Assert.Equal([("below-knee", Side.Right)], Asked(Of(ChartView.Right, ChartZone.Foot, Side.Right)));
        Assert.Equal(
            [("numb-patch", Side.Both)],
            Asked(Of(ChartView.Back, ChartZone.Thigh, Side.Left, PainKind.Numb))
        );
        Assert.Equal(
            [("both-legs", Side.Both), ("below-knee", Side.Left)],
            Asked(
                Of(ChartView.Back, ChartZone.LowerLeg, Side.Left),
                Of(ChartView.Back, ChartZone.Thigh, Side.Right)
            )
        );
        // The smallest touch between the legs asks, where two are needed elsewhere.
        var (x, y) = Middle(ChartView.Back, ChartZone.Saddle, Side.Both);
        var barely = Enumerable
            .Range(0, 100 * 100)
            .Select(d => Square(ChartView.Back, x + d / 100, y - d % 100, 20))
            .First(area =>
                ChartReading
                    .CellsOf(area)
                    .Count(c =>
                        ChartFigure.Of(c.View).At(10 * (c.X + 0.5), 10 * (c.Y + 0.5))?.Zone
                        == ChartZone.Saddle
                    ) == 1
            );
        Assert.True(ChartReading.CellsOf(barely).Count > 4);
        Assert.Contains(("saddle-numbness", Side.Both), Asked(barely));
    }

    [Fact]
    public void Below_a_knee_counts_until_it_was_asked_and_denied()
    {
        var foot = Of(ChartView.Front, ChartZone.Foot, Side.Left);
        LegReport? Leg(params ChartAnswer[] answers) =>
            ChartQuestion.LegOf(new([foot], answers), Content.Library);
        Assert.Equal(new LegReport(LegReach.BelowKnee, null), Leg());
        Assert.Equal(
            new LegReport(LegReach.BelowKnee, null),
            Leg(new ChartAnswer("below-knee", Side.Left, true))
        );
        Assert.Null(Leg(new ChartAnswer("below-knee", Side.Left, false)));
        // The last answer stands; one about the other leg is none.
        Assert.NotNull(
            Leg(new("below-knee", Side.Left, false), new ChartAnswer("below-knee", Side.Left, true))
        );
        Assert.NotNull(Leg(new ChartAnswer("below-knee", Side.Right, false)));
        // An answer to what is not drawn any more says nothing.
        Assert.Null(ChartQuestion.LegOf(new([], [new("below-knee", Side.Left, true)]), Content.Library));
    }

    [Fact]
    public void Of_two_reports_the_further_holds_on_each_leg()
    {
        var asked = new LegReport(LegReach.None, LegReach.Thigh);
        var drawn = new LegReport(LegReach.BelowKnee, null);
        Assert.Equal(new LegReport(LegReach.BelowKnee, LegReach.Thigh), LegReport.Further(asked, drawn));
        Assert.Equal(LegReport.Further(asked, drawn), LegReport.Further(drawn, asked));
        Assert.Equal(asked, LegReport.Further(asked, null));
        Assert.Null(LegReport.Further(null, null));
    }

    [Fact]
    public void Two_charts_are_compared_by_zones_and_size()
    {
        var back = Of(ChartView.Back, ChartZone.LowBack, Side.Left);
        var change = ChartReading.Between(
            new([back, Of(ChartView.Back, ChartZone.Thigh, Side.Left)]),
            new([back, Of(ChartView.Back, ChartZone.Buttock, Side.Right)])
        );
        Assert.Equal([new(ChartZone.Buttock, Side.Right)], change.Come);
        Assert.Equal([new(ChartZone.Thigh, Side.Left)], change.Gone);
        Assert.Equal((0, 0), (ChartReading.Between(BodyChart.Empty, BodyChart.Empty).Before, 0));
    }

    [Theory]
    [InlineData(11, new[] { 0, -1000, 50, -1000, 0, -900 }, "strength")]
    [InlineData(-1, new[] { 0, -1000, 50, -1000, 0, -900 }, "strength")]
    [InlineData(5, new[] { 0, -1000, 50, -1000 }, "outline")]
    [InlineData(5, new[] { 0, -1000, 50, -1000, 0 }, "outline")]
    [InlineData(5, new[] { 4000, 0, 4100, 0, 4000, 90 }, "outline")]
    public void What_cannot_be_kept_is_told_by_its_field(int strength, int[] outline, string field) =>
        Assert.Equal(
            [$"chart.areas[0].{field}"],
            BodyChart
                .Errors(new([new(ChartView.Front, PainKind.Ache, strength, outline)]), "chart")
                .Select(e => e.Field)
        );
}
