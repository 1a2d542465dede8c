using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Progression;

/// <summary>
/// Where a stalled exercise could go, found once for each rung of a visit: it does not depend on what was done there, and
/// what would change a decision is sought by deciding many times.
/// </summary>
internal sealed class OtherLadders(DecideInput input, PracticeLibrary library)
{
    private readonly Dictionary<(string, Side), Rung?> found = [];

    /// <summary>
    /// A rung of another ladder that asks about as much in the same direction: of one that was climbed, or the lowest of one
    /// that was not. None of a ladder in the plan.
    /// </summary>
    public Rung? For(DecisionCase c)
    {
        if (!found.TryGetValue((c.Rung.Id, c.Side), out var rung))
        {
            rung = Seek(c);
            found[(c.Rung.Id, c.Side)] = rung;
        }
        return rung;
    }

    private Rung? Seek(DecisionCase c)
    {
        var inPlan = input.Items.Select(item => library.LadderOf(item.RungId).Id).ToHashSet();
        var swaps = Swaps.For(c.Rung, input.Profile, input.Entries ?? [], input.Equipment, library);
        if (!swaps.Near)
        {
            return null;
        }
        return swaps
            .Swaps.OrderByDescending(swap => swap.Screened)
            .Select(swap => (swap.Screened, Rung: library.Rung(swap.RungId)))
            .Where(swap => c.Open(swap.Rung))
            .Select(swap => (swap.Screened, swap.Rung, Ladder: library.LadderOf(swap.Rung.Id)))
            .Where(swap => !inPlan.Contains(swap.Ladder.Id))
            .Where(swap => swap.Screened || swap.Ladder.IndexOf(swap.Rung.Id) == 0)
            .Select(swap => swap.Rung)
            .FirstOrDefault();
    }
}
