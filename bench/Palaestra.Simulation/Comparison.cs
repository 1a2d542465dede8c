using Palaestra.Core.Library;

namespace Palaestra.Simulation;

/// <summary>What one method did over many clients.</summary>
/// <param name="Trials">How often it needed so many trials, by number.</param>
/// <param name="Errors">How often the rung it found was so far above (plus) or below (minus) the true one.</param>
public sealed record Result(
    string Method,
    IReadOnlyDictionary<int, int> Trials,
    IReadOnlyDictionary<int, int> Errors
)
{
    public int Count => Trials.Values.Sum();
    public double MeanTrials => Trials.Sum(t => (double)t.Key * t.Value) / Count;
    public double MeanError => Errors.Sum(e => (double)Math.Abs(e.Key) * e.Value) / Count;
    public double RootMeanSquare => Math.Sqrt(Errors.Sum(e => (double)e.Key * e.Key * e.Value) / Count);

    public double Share(Func<int, bool> error) =>
        (double)Errors.Where(e => error(e.Key)).Sum(e => e.Value) / Count;

    public double WithinTrials(int most) =>
        (double)Trials.Where(t => t.Key <= most).Sum(t => t.Value) / Count;
}

/// <summary>Lets methods search the same simulated clients, every ladder and side afresh.</summary>
public static class Comparison
{
    public static IReadOnlyList<Result> Of(
        IReadOnlyList<RungMethod> methods,
        IReadOnlyList<Ladder> ladders,
        Nature nature,
        int clients,
        PracticeLibrary library
    ) =>
        [
            .. methods.Select(method =>
            {
                var trials = new SortedDictionary<int, int>();
                var errors = new SortedDictionary<int, int>();
                for (var seed = 1; seed <= clients; seed++)
                {
                    foreach (var ladder in ladders)
                    {
                        foreach (var side in new[] { Side.Left, Side.Right })
                        {
                            var client = new SimulatedClient(library, nature, seed);
                            var (entry, used) = method.Find(client, ladder, side);
                            trials[used] = trials.GetValueOrDefault(used) + 1;
                            var error = entry - client.TrueEntry(ladder, side);
                            errors[error] = errors.GetValueOrDefault(error) + 1;
                        }
                    }
                }
                return new Result(method.Name, trials, errors);
            }),
        ];
}
