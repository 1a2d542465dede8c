using Palaestra.Core.Intake;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

/// <summary>Which precaution bars or changes which rung: facts of the trade (common practice).</summary>
public class AllowanceTests
{
    private static Allowance Of(string rung, Side side, params ClientPrecaution[] precautions) =>
        Allowance.Of(Content.Library, precautions, Content.Library.Rung(rung), side);

    [Theory]
    [InlineData("wrist", "D1", true)]
    [InlineData("wrist", "D6", true)]
    [InlineData("wrist", "A3", true)]
    [InlineData("wrist", "B8", false)]
    [InlineData("wrist", "E7", false)]
    [InlineData("extension", "D6", true)]
    [InlineData("extension", "D4", false)]
    [InlineData("flexion", "D6", false)]
    [InlineData("flexion", "E1", false)]
    [InlineData("fragile-bone", "E1", false)]
    [InlineData("flexion", "E-r1", true)]
    [InlineData("flexion", "L1", true)]
    [InlineData("flexion", "F2", true)]
    [InlineData("flexion", "F1", false)]
    [InlineData("extension", "H7", true)]
    [InlineData("extension", "K3", true)]
    [InlineData("fragile-bone", "L3", true)]
    [InlineData("fragile-bone", "F3", true)]
    [InlineData("fragile-bone", "I3", true)]
    [InlineData("fragile-bone", "I1", false)]
    [InlineData("leg-pain", "B6", false)]
    [InlineData("wrist", "H0", true)]
    [InlineData("wrist", "H4", true)]
    [InlineData("wrist", "H3", false)]
    [InlineData("wrist", "D-f2", false)]
    [InlineData("shoulder", "G2", false)]
    [InlineData("shoulder", "G3", true)]
    [InlineData("shoulder", "G7", true)]
    [InlineData("shoulder", "H3", false)]
    [InlineData("shoulder", "H4", true)]
    [InlineData("shoulder", "H7", true)]
    [InlineData("shoulder", "B10", true)]
    [InlineData("shoulder", "B11", false)]
    [InlineData("knee", "D1", true)]
    [InlineData("knee", "D0", false)]
    [InlineData("knee", "L1", true)]
    [InlineData("scoliosis", "G3", false)]
    [InlineData("hypermobile", "I3", true)]
    [InlineData("hypermobile", "I2", false)]
    [InlineData("hypermobile", "J4", true)]
    [InlineData("hypermobile", "J3", false)]
    [InlineData("pregnancy", "F1", true)]
    [InlineData("pregnancy", "H1", false)]
    [InlineData("pregnancy", "H3", true)]
    [InlineData("pregnancy", "E1", false)]
    [InlineData("doming", "B9", true)]
    [InlineData("surgery", "F2", true)]
    [InlineData("surgery", "K2", true)]
    [InlineData("surgery", "B5", false)]
    [InlineData("balance", "K1", false)]
    [InlineData("balance", "K2", true)]
    [InlineData("balance", "K6", true)]
    [InlineData("floor", "B1", true)]
    [InlineData("floor", "G1", true)]
    [InlineData("floor", "H2", true)]
    [InlineData("floor", "D0", false)]
    [InlineData("floor", "H1", false)]
    [InlineData("floor", "K1", false)]
    [InlineData("pressure", "H1", false)]
    public void Bars_what_the_condition_forbids(string precaution, string rung, bool barred) =>
        Assert.Equal(barred, Of(rung, Side.Left, new ClientPrecaution(precaution)).Barred);

    [Fact]
    public void Leg_pain_changes_the_long_lever_on_its_own_side_only()
    {
        var right = new ClientPrecaution("leg-pain", Side.Right);
        Assert.NotEmpty(Of("B6", Side.Right, right).Cautions);
        Assert.Empty(Of("B6", Side.Left, right).Cautions);
        Assert.Empty(Of("B5", Side.Right, right).Cautions);
    }

    [Fact]
    public void Leg_pain_with_its_side_left_open_holds_for_both() =>
        Assert.NotEmpty(Of("B6", Side.Left, new ClientPrecaution("leg-pain")).Cautions);

    [Fact]
    public void Where_two_precautions_disagree_the_stricter_holds()
    {
        // Fragile bone prefers hands and knees; a sore wrist bars them.
        var both = Of("D3", Side.Left, new("fragile-bone"), new("wrist"));
        Assert.True(both.Barred);
        Assert.False(both.Preferred);
        Assert.Contains("wrist", both.BarWords.En(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("flexion", "E1")]
    [InlineData("flexion", "G2")]
    [InlineData("flexion", "S1")]
    [InlineData("extension", "B1")]
    [InlineData("extension", "F1")]
    [InlineData("extension", "H1")]
    [InlineData("fragile-bone", "K1")]
    [InlineData("wrist", "D-f1")]
    [InlineData("shoulder", "B5")]
    [InlineData("knee", "E1")]
    [InlineData("hypermobile", "J1")]
    [InlineData("pregnancy", "D1")]
    [InlineData("balance", "K1")]
    [InlineData("floor", "G0")]
    public void Prefers_what_suits_the_condition(string precaution, string rung) =>
        Assert.True(Of(rung, Side.Left, new ClientPrecaution(precaution)).Preferred);

    [Fact]
    public void A_bar_beyond_some_dose_is_no_bar_of_the_rung_but_limits_it()
    {
        var pressure = Of("H1", Side.Both, new ClientPrecaution("pressure"));
        Assert.Equal(10, pressure.Limit.Hold);
        Assert.True(pressure.Limit.LetsThrough(new Dose(1, 1, 10), 4));
        Assert.False(pressure.Limit.LetsThrough(new Dose(1, 1, 11), 4));
        // Pressure lets a hold of 10 s through, the bridge in pregnancy one of 5: the tighter holds.
        var both = Of("E1", Side.Both, new("pressure"), new("pregnancy"));
        Assert.Equal(5, both.Limit.Hold);
    }

    [Fact]
    public void Late_pregnancy_lets_short_spells_on_the_back_through_and_no_more()
    {
        var late = new ClientPrecaution("pregnancy", Options: ["third"]);
        Assert.Equal(120, Of("B5", Side.Left, late).Limit.Seconds);
        Assert.Null(Of("B5", Side.Left, new ClientPrecaution("pregnancy", Options: ["first"])).Limit.Seconds);
        // Nothing ticked: the stricter holds.
        Assert.Equal(120, Of("B5", Side.Left, new ClientPrecaution("pregnancy")).Limit.Seconds);
    }

    [Fact]
    public void The_surgeons_note_bars_what_is_ticked_and_everything_when_nothing_is()
    {
        var noBending = new ClientPrecaution("surgery", Options: ["bending"]);
        Assert.True(Of("F2", Side.Both, noBending).Barred);
        Assert.False(Of("K2", Side.Left, noBending).Barred);
        Assert.True(Of("K2", Side.Left, new ClientPrecaution("surgery")).Barred);
    }

    [Fact]
    public void A_date_asks_for_a_look_and_the_bars_hold_until_somebody_takes_them_away()
    {
        var until = new DateOnly(2026, 11, 25);
        var note = new ClientPrecaution("surgery", Options: ["bending"], Until: until);
        Assert.False(note.LapsedOn(until));
        Assert.True(note.LapsedOn(until.AddDays(1)));
        Assert.True(Of("F2", Side.Both, note).Barred);
    }

    [Fact]
    public void Two_curves_that_want_different_sides_want_none()
    {
        Assert.Equal(
            Side.Left,
            Of("G2", Side.Both, new ClientPrecaution("scoliosis", Side.Left)).WorkingSide
        );
        Assert.Null(Of("G2", Side.Both, new ClientPrecaution("scoliosis")).WorkingSide);
    }
}
