using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class SwapsTests
{
    private static SwapList For(string rung, ClientProfile who, IReadOnlyList<string>? equipment = null) =>
        Swaps.For(Content.Library.Rung(rung), who, [], equipment, Content.Library);

    [Fact]
    public void Equals_ask_for_the_same_direction_within_a_quarter_nearest_first()
    {
        var list = For("B5", Someone.Calm);
        Assert.True(list.Near);
        Assert.NotEmpty(list.Swaps);
        Assert.All(list.Swaps, swap => Assert.InRange(Math.Abs(swap.PercentMore), 0, 25));
        Assert.Equal(
            list.Swaps.OrderBy(s => Math.Abs(s.PercentMore)).Select(s => s.RungId),
            list.Swaps.Select(s => s.RungId)
        );
    }

    [Fact]
    public void Nothing_barred_nothing_that_is_not_there_and_nothing_above_what_was_clean() =>
        Gen.Select(AnyClient.Profile, Gen.Int[0, 60], AnyClient.Findings)
            .Sample(
                (who, at, findings) =>
                {
                    var rungs = Content.Library.TrainedLadders.SelectMany(l => l.Rungs).ToList();
                    var list = Swaps.For(
                        rungs[at % rungs.Count],
                        who,
                        findings.Entries,
                        ["mat"],
                        Content.Library
                    );
                    foreach (var swap in list.Swaps)
                    {
                        var rung = Content.Library.Rung(swap.RungId);
                        var ladder = Content.Library.LadderOf(swap.RungId);
                        Assert.False(Allowance.Of(Content.Library, who.Precautions, rung, Side.Both).Barred);
                        Assert.All(rung.Equipment, piece => Assert.Equal("mat", piece));
                        Assert.All(
                            findings.Entries.Where(e => e.LadderId == ladder.Id && e.TrialIds.Count > 0),
                            e => Assert.True(ladder.IndexOf(rung.Id) <= ladder.IndexOf(e.EntryRungId ?? ""))
                        );
                    }
                },
                iter: Soak.Cases(300)
            );
}
