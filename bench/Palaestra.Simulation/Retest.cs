using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Simulation;

/// <summary>
/// The same people screened on two days with nothing changed: how far two screens differ by chance. The standard error of
/// measurement is the standard deviation of the differences ÷ √2.
/// </summary>
/// <param name="Rung">Rungs. <paramref name="Control"/>: points of %, over the directions seen on both days.</param>
/// <param name="Trials">Trials of a whole screen on the mean.</param>
public sealed record Retest(double Rung, double Control, double Trials)
{
    private static readonly ClientProfile Calm = new(new Pain(1, 2, 1), 1, false, []);

    public static Retest Of(Nature nature, int clients, PracticeLibrary library)
    {
        var policy = library.DefaultPolicy;
        var battery = BatteryPlanner.ByHand(
            [.. library.Tasks.Where(t => Screened(t, library)).Select(t => t.Id)],
            Calm,
            policy,
            new BatteryQuestion(15, []),
            library
        );
        var rungs = new List<double>();
        var control = new List<double>();
        var trials = 0;
        for (var seed = 1; seed <= clients; seed++)
        {
            var (first, second) = (Screen(seed, 1), Screen(seed, 2));
            trials += first.TrialCount;
            rungs.AddRange(
                first.Entries.Zip(second.Entries, (a, b) => Height(a, library) - Height(b, library))
            );
            control.AddRange(
                first
                    .Control.Zip(second.Control)
                    .Where(pair => pair.First.Percent is not null && pair.Second.Percent is not null)
                    .Select(pair => pair.First.Percent!.Value - pair.Second.Percent!.Value)
            );
        }
        return new(Sem(rungs), Sem(control), (double)trials / clients);

        ScreenFindings Screen(int seed, int day)
        {
            var client = new SimulatedClient(library, nature, seed, day);
            var done = new List<Trial>();
            while (
                ScreenGuide
                    .States(battery, done, Calm, policy, library)
                    .Select(s => s.Next)
                    .FirstOrDefault(next => next is not null)
                    is { } step
            )
            {
                done.Add(client.Do(library.Rung(step.RungId), step.Side, policy));
            }
            return FindingsMaker.Of(done, Calm, policy, library);
        }
    }

    private static bool Screened(ScreenTask task, PracticeLibrary library) =>
        library.Ladders.Any(ladder => ladder.Screened && ladder.Id == task.Ladder);

    private static double Height(RungSearch search, PracticeLibrary library) =>
        search.EntryRungId is { } id ? library.LadderOf(id).IndexOf(id) : -1;

    private static double Sem(List<double> differences) =>
        Math.Sqrt(differences.Sum(d => d * d) / differences.Count) / Math.Sqrt(2);
}
