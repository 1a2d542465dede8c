using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

public class LoadReportTests
{
    [Fact]
    public void Names_every_rung_and_gives_the_reason_for_each_that_asks_for_less_than_the_one_below()
    {
        var text = LoadReport.Text(Content.Library);
        foreach (var ladder in Content.Library.Ladders)
        {
            Assert.All(
                ladder.Rungs,
                rung => Assert.Contains($"| {rung.Id} | {rung.Name}", text, StringComparison.Ordinal)
            );
            foreach (var step in LadderOrder.Of(ladder, Content.Library).Where(step => step.Falls))
            {
                Assert.Contains(
                    $"- {step.Rung.Id} {step.Rung.Name}: {step.Reason}",
                    text,
                    StringComparison.Ordinal
                );
            }
        }
    }

    /// <summary>What was kept from an earlier start is used for the very same content and code, and for no other.</summary>
    [Fact]
    public void Kept_loads_are_used_only_for_the_library_they_belong_to()
    {
        var kept = KnownLoads.Of(Content.Library);
        var again = ContentFiles.Read(Content.Texts, known: kept).Value!;
        Assert.Same(kept.Demands, again.KnownDemands);
        Assert.Equal(Content.Library.DemandsOf(again.Rung("B6")), again.DemandsOf(again.Rung("B6")));
        var changed = new Dictionary<string, string>(Content.Texts);
        changed["ladders/e-bridge.json"] = changed["ladders/e-bridge.json"]
            .Replace("Single-leg bridge", "Bridge on one leg", StringComparison.Ordinal);
        Assert.Null(ContentFiles.Read(changed, known: kept).Value!.KnownDemands);
        Assert.False((kept with { Model = Guid.NewGuid() }).Fits(Content.Library));
    }
}
