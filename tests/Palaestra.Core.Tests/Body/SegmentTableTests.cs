using Palaestra.Core.Body;

namespace Palaestra.Core.Tests.Body;

/// <summary>de Leva 1996, J Biomech 29:1223–1230 (from memory).</summary>
public class SegmentTableTests
{
    [Fact]
    public void Masses_sum_to_the_whole_body()
    {
        Assert.Equal(100.00, SegmentTable.Men.TotalPercent, 0.005);
        Assert.Equal(99.99, SegmentTable.Women.TotalPercent, 0.005);
    }

    [Fact]
    public void An_open_sex_is_the_mean_of_both()
    {
        var mean = SegmentTable.Of(null);
        Assert.Equal((14.16 + 14.78) / 2, mean.Thigh.MassPercent, 6);
        Assert.Equal((422.2 / 1741 + 368.5 / 1735) / 2, mean.Thigh.Length, 6);
    }
}
