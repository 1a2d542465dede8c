using Palaestra.Core.Intake;
using Palaestra.Core.Library;
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
    [InlineData("leg-pain", "B6", false)]
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
        Assert.Contains("wrist", both.BarWords, StringComparison.Ordinal);
    }
}
