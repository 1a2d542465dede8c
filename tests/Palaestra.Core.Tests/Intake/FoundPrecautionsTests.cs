using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Intake;

/// <summary>A precaution that was forgotten at an earlier visit holds at those since; none that stands is ever weakened by it.</summary>
public class FoundPrecautionsTests
{
    private static readonly ClientPrecaution Bending = new("surgery", Options: ["bending"]);
    private static readonly ClientPrecaution Left = new("leg-pain", Side.Left);
    private static readonly ClientPrecaution Right = new("leg-pain", Side.Right);

    private static IReadOnlyList<ClientPrecaution> In(
        ClientPrecaution[] standing,
        ClientPrecaution[] had,
        ClientPrecaution[] told
    ) => FoundPrecautions.In(standing, had, told);

    [Fact]
    public void What_was_forgotten_is_added_and_what_was_known_is_not_again()
    {
        Assert.Equal([Left], In([], [], [Left]));
        Assert.Equal([Bending, Left], In([Bending], [Bending], [Bending, Left]));
        // Known then and taken back since: the same told once more brings nothing back.
        Assert.Empty(In([], [Left], [Left]));
        Assert.Empty(In([], [Left], [Right]));
        // Taken out of the earlier visit, it stays where it was told later.
        Assert.Equal([Left], In([Left], [Left], []));
    }

    /// <summary>The same list of options is the same, whoever wrote it down.</summary>
    [Fact]
    public void What_did_not_change_at_the_earlier_visit_widens_nothing()
    {
        var then = Bending with { Options = ["bending", "arching"] };
        var again = Bending with { Options = ["arching", "bending"] };
        Assert.Equal([Bending], In([Bending], [then], [again]));
    }

    [Fact]
    public void What_stands_holds_for_both_findings_together()
    {
        Assert.Equal(Side.Both, Assert.Single(In([Left], [], [Right])).Side);
        var both = Assert.Single(In([Bending], [], [Bending with { Options = ["lifting"] }]));
        Assert.Equal(["bending", "lifting"], both.Options!);
        // Nothing ticked is everything.
        Assert.Null(Assert.Single(In([Bending], [], [new("surgery")])).Options);
        Assert.Null(Assert.Single(In([new("surgery")], [], [Bending])).Options);
        var (soon, later) = (new DateOnly(2026, 5, 1), new DateOnly(2026, 9, 1));
        Assert.Equal(later, In([Left with { Until = soon }], [], [Left with { Until = later }])[0].Until);
        Assert.Null(In([Left with { Until = soon }], [], [Left])[0].Until);
    }

    /// <summary>Whatever was known and is told: what was barred by what stands stays barred, and what is found bars too.</summary>
    [Fact]
    public void Nothing_that_was_barred_is_let_through_by_an_amendment()
    {
        var random = new Random(7);
        var rungs = Content.Library.Ladders.SelectMany(l => l.Rungs).ToArray();
        ClientPrecaution[] Some() =>
            [
                .. random
                    .GetItems([.. Content.Library.Precautions], random.Next(4))
                    .DistinctBy(p => p.Id)
                    .Select(p => new ClientPrecaution(
                        p.Id,
                        p.Sided ? random.GetItems([Side.Left, Side.Right, Side.Both], 1)[0] : Side.Both,
                        p.Options is { } options && random.Next(2) == 0
                            ? [random.GetItems([.. options], 1)[0].Id]
                            : null
                    )),
            ];
        var widened = 0;
        for (var i = 0; i < Soak.Cases(300); i++)
        {
            var (standing, had, told) = (Some(), Some(), Some());
            var now = In(standing, had, told);
            var found = told.Where(t => had.All(h => h.Id != t.Id)).ToArray();
            foreach (var rung in random.GetItems(rungs, 12))
            {
                foreach (var side in rung.TaskSides)
                {
                    bool Bars(IReadOnlyList<ClientPrecaution> precautions) =>
                        Allowance.Of(Content.Library, precautions, rung, side).Barred;
                    if (Bars(standing) || Bars(found))
                    {
                        Assert.True(Bars(now));
                        widened += Bars(standing) ? 0 : 1;
                    }
                }
            }
        }
        Assert.True(widened > 0);
    }
}
