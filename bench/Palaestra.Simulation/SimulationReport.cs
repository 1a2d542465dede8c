using System.Globalization;
using System.Text;
using Palaestra.Core.Library;

namespace Palaestra.Simulation;

/// <summary>docs/screening-simulation.md, written from what the simulation did.</summary>
public static class SimulationReport
{
    public const int Clients = 400;

    public static string Write(PracticeLibrary library)
    {
        var policy = library.DefaultPolicy;
        IReadOnlyList<RungMethod> methods =
        [
            new BottomUp(policy, int.MaxValue),
            new BottomUp(policy, policy.TrialsPerSide),
            new OfTheProduct(policy, library),
            new BeliefMethod(policy, library),
            new BeliefMethod(policy, library, slope: 2),
            new BeliefMethod(policy, library, sure: 0.55),
        ];
        var text = new StringBuilder();
        text.AppendLine(
            $"""
            # Screening, simulated

            Written by `./palaestra simulate`; not to be edited by hand. {Clients} simulated clients, each of the
            {library.TrainedLadders.Count()} ladders on each side afresh, trials told as taps and folded like real ones.

            A simulated client has a true ability for each direction and side (people spread evenly from below the lowest rung to
            above the highest; half of the spread is the person's, half the direction's and side's own). A rung's height is half its place on the
            ladder, half what the load model asks in the ladder's direction; how hard it is for one person differs from that. A rep gives way
            when its rung is higher than the ability left. The figures below are our own choice; no data of real people stand behind them.

            | | own difficulty of rungs, SD | from rep to rep, SD | lost with each trial | faults missed | faults imagined |
            |---|---|---|---|---|---|
            """
        );
        foreach (var (name, nature) in Natures)
        {
            text.AppendLine(
                I(
                    $"| {name} | {nature.Own} rungs | {nature.Noise} rungs | {nature.Fatigue} rungs | {nature.Missed * 100:0} % | {nature.Imagined * 100:0} % |"
                )
            );
        }
        text.AppendLine();
        text.AppendLine(
            "The true entry rung is the one below the first that this client cannot hold when rested and seen rightly."
        );
        foreach (var (name, nature) in Natures)
        {
            var results = Comparison.Of(methods, [.. library.TrainedLadders], nature, Clients, library);
            Section(text, name, results, policy);
        }
        Repeated(text, library);
        return text.ToString();
    }

    private static readonly (string Name, Nature Nature)[] Natures =
    [
        ("typical", Nature.Typical),
        ("rough", Nature.Rough),
        ("perfect", Nature.Perfect),
    ];

    private static void Section(StringBuilder text, string name, IReadOnlyList<Result> results, Policy policy)
    {
        text.AppendLine();
        text.AppendLine($"## {char.ToUpperInvariant(name[0])}{name[1..]}");
        text.AppendLine();
        text.AppendLine(
            "| method | trials a side, mean | at most 4 | rungs off, mean | root mean square | exact | within one | above the true rung |"
        );
        text.AppendLine("|---|---|---|---|---|---|---|---|");
        foreach (var r in results)
        {
            text.AppendLine(
                I(
                    $"| {r.Method} | {r.MeanTrials:0.00} | {r.WithinTrials(policy.TrialsPerSide) * 100:0} % | {r.MeanError:0.00} | {r.RootMeanSquare:0.00} | {r.Share(e => e == 0) * 100:0} % | {r.Share(e => Math.Abs(e) <= 1) * 100:0} % | {r.Share(e => e > 0) * 100:0} % |"
                )
            );
        }
        text.AppendLine();
        text.AppendLine(
            "Share of searches that had ended after so many trials, and share that was at most so many rungs off, %:"
        );
        text.AppendLine();
        text.AppendLine("| method | 1 | 2 | 3 | 4 | 5 | 6 | 8 | 11 | | 0 off | 1 | 2 | 3 | 4 |");
        text.AppendLine("|---|---|---|---|---|---|---|---|---|---|---|---|---|---|---|");
        foreach (var r in results)
        {
            var trials = new[] { 1, 2, 3, 4, 5, 6, 8, 11 }.Select(n => I($"{r.WithinTrials(n) * 100:0}"));
            var errors = Enumerable.Range(0, 5).Select(n => I($"{r.Share(e => Math.Abs(e) <= n) * 100:0}"));
            text.AppendLine(
                $"| {r.Method} | {string.Join(" | ", trials)} | | {string.Join(" | ", errors)} |"
            );
        }
    }

    private static void Repeated(StringBuilder text, PracticeLibrary library)
    {
        text.AppendLine();
        text.AppendLine("## The same screen on another day");
        text.AppendLine();
        text.AppendLine(
            "Leg lowering, bridge, opposite arm and leg, climbed on two days with nothing changed. Standard error of measurement: standard deviation of the differences ÷ √2. The typical figures stand in `content/norms.json` as the errors of \"rung\" and \"control\"."
        );
        text.AppendLine();
        text.AppendLine("| | entry rung, rungs | control, points of % | trials of the whole screen, mean |");
        text.AppendLine("|---|---|---|---|");
        foreach (var (name, nature) in Natures.Where(n => n.Name != "perfect"))
        {
            var retest = Retest.Of(nature, Clients, library);
            text.AppendLine(
                I($"| {name} | {retest.Rung:0.00} | {retest.Control:0.0} | {retest.Trials:0.0} |")
            );
        }
    }

    private static string I(FormattableString line) => line.ToString(CultureInfo.InvariantCulture);
}
