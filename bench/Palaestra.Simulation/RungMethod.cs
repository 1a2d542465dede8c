using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Simulation;

/// <summary>A way to find the entry rung of one side of one ladder.</summary>
public abstract class RungMethod
{
    public abstract string Name { get; }

    /// <returns>Index of the entry rung, −1 for none; trials used.</returns>
    public abstract (int Entry, int Trials) Find(SimulatedClient client, Ladder ladder, Side side);
}

/// <summary>Rung by rung from the bottom until one is not clean: what is done where nobody plans.</summary>
public sealed class BottomUp(Policy policy, int most) : RungMethod
{
    public override string Name => most < int.MaxValue ? $"bottom up, at most {most}" : "bottom up";

    public override (int Entry, int Trials) Find(SimulatedClient client, Ladder ladder, Side side)
    {
        var trials = 0;
        foreach (var (rung, i) in ladder.Rungs.Select((rung, i) => (rung, i)).Take(most))
        {
            trials++;
            if (RungFinder.VerdictOf(client.Do(rung, side, policy), rung) != Verdict.Clean)
            {
                return (i - 1, trials);
            }
        }
        return (trials - 1, trials);
    }
}

/// <summary>The product's own search.</summary>
public sealed class OfTheProduct(Policy policy, PracticeLibrary library) : RungMethod
{
    private static readonly ClientProfile Calm = new(new Pain(1, 2, 1), 1, false, []);

    public override string Name => "staircase (used)";

    public override (int Entry, int Trials) Find(SimulatedClient client, Ladder ladder, Side side)
    {
        var trials = new List<Trial>();
        while (true)
        {
            var search = RungFinder.Search(ladder, side, trials, Calm, policy, library);
            if (search.NextRungId is not { } next)
            {
                return (search.EntryRungId is { } entry ? ladder.IndexOf(entry) : -1, trials.Count);
            }
            trials.Add(client.Do(library.Rung(next), side, policy));
        }
    }
}
