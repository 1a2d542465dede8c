using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Simulation;

/// <summary>
/// A Rasch-type search: each rung has a difficulty from the load model, the client an ability between two rungs; after each
/// trial the belief over abilities is updated, and the next rung is the one expected to tell most.
/// </summary>
/// <param name="slope">How steeply the chance of a clean trial falls with difficulty, per rung.</param>
/// <param name="lapse">Chance that a trial says nothing of ability: a slip, an eye elsewhere.</param>
/// <param name="sure">Enough belief in one rung to stop.</param>
public sealed class BeliefMethod(
    Policy policy,
    PracticeLibrary library,
    double slope = 3,
    double lapse = 0.06,
    double sure = 0.8
) : RungMethod
{
    public override string Name => FormattableString.Invariant($"Rasch-type, slope {slope}, sure at {sure}");

    public override (int Entry, int Trials) Find(SimulatedClient client, Ladder ladder, Side side)
    {
        var n = ladder.Rungs.Count;
        var difficulty = Heights.Of(ladder, library);
        var ability = Enumerable.Range(-1, n + 1).Select(k => Ability(k, difficulty)).ToArray();
        var belief = Enumerable.Repeat(1.0 / (n + 1), n + 1).ToArray();
        var tried = new HashSet<int>();
        var clean = -1;
        var next = (n - 1) / 2;
        while (true)
        {
            var rung = ladder.Rungs[next];
            var verdict = RungFinder.VerdictOf(client.Do(rung, side, policy), rung);
            tried.Add(next);
            Update(belief, ability, difficulty[next], verdict == Verdict.Clean);
            clean = verdict == Verdict.Clean ? Math.Max(clean, next) : clean;
            var open = Enumerable
                .Range(0, n)
                .Where(i => !tried.Contains(i) && i <= clean + policy.RungsUpAtOnce)
                .ToList();
            if (open.Count == 0 || tried.Count >= policy.TrialsPerSide || belief.Max() >= sure)
            {
                var likely = Array.IndexOf(belief, belief.Max()) - 1;
                return (Math.Min(likely, clean), tried.Count);
            }
            next = open.MinBy(i => Expected(belief, ability, difficulty[i]));
        }
    }

    private static double Ability(int entry, double[] difficulty) =>
        entry < 0 ? difficulty[0] - 0.5
        : entry == difficulty.Length - 1 ? difficulty[^1] + 0.5
        : (difficulty[entry] + difficulty[entry + 1]) / 2;

    private double Clean(double ability, double difficulty) =>
        lapse / 2 + (1 - lapse) / (1 + Math.Exp(-slope * (ability - difficulty)));

    private void Update(double[] belief, double[] ability, double difficulty, bool clean)
    {
        for (var k = 0; k < belief.Length; k++)
        {
            var p = Clean(ability[k], difficulty);
            belief[k] *= clean ? p : 1 - p;
        }
        var sum = belief.Sum();
        for (var k = 0; k < belief.Length; k++)
        {
            belief[k] /= sum;
        }
    }

    /// <summary>Entropy of the belief expected after a trial of this difficulty.</summary>
    private double Expected(double[] belief, double[] ability, double difficulty)
    {
        var chance = belief.Select((b, k) => b * Clean(ability[k], difficulty)).Sum();
        return new[] { true, false }.Sum(clean =>
        {
            var after = (double[])belief.Clone();
            Update(after, ability, difficulty, clean);
            return (clean ? chance : 1 - chance) * -after.Where(b => b > 0).Sum(b => b * Math.Log(b));
        });
    }
}
