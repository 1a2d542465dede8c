using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Instruments;

namespace Palaestra.Simulation.Instruments;

/// <summary>How well losses of control are found in simulated signals whose truth is known.</summary>
/// <param name="Faults">Times the noiseless signal left its band. <paramref name="Found"/>: of those, with a loss within a second.</param>
/// <param name="Late">Seconds between a loss's onset and the true one, without sign, in order.</param>
/// <param name="FalseLosses">Losses while nothing was lost. <paramref name="CleanMinutes"/>: in so many minutes.</param>
public sealed record Detection(
    int Faults,
    int Found,
    IReadOnlyList<double> Late,
    int FalseLosses,
    double CleanMinutes
)
{
    public double FoundShare => Faults == 0 ? 0 : (double)Found / Faults;

    /// <summary>Median, seconds; none where nothing was found.</summary>
    public double? MedianLate => Late.Count == 0 ? null : Late[Late.Count / 2];

    public double FalsePerFiveMinutes => CleanMinutes == 0 ? 0 : 5 * FalseLosses / CleanMinutes;

    private const double NeutralSeconds = 4;
    private const double Near = 1;

    /// <summary>Clients who give way twice in five reps, and as many who do not.</summary>
    /// <param name="noise">Times the device's usual noise, once neutral was taken.</param>
    public static Detection Of(DeviceKind kind, InstrumentSetup setup, double noise, int clients)
    {
        var found = 0;
        var faults = 0;
        var wrong = 0;
        var minutes = 0.0;
        var late = new List<double>();
        var clean = kind.Scripts.First(script => script.Id == "clean");
        for (var seed = 1; seed <= clients; seed++)
        {
            var script = GivesWayTwice(clean, kind, setup, new Random(seed));
            var seen = Watch(new(kind, seed), setup, script, noise);
            foreach (var moment in Leaves(new(kind, seed), setup, script))
            {
                faults++;
                if (seen.Losses.FirstOrDefault(l => Math.Abs(l.Onset - moment) < Near) is { } loss)
                {
                    found++;
                    late.Add(Math.Abs(loss.Onset - moment));
                }
            }
            var held = Watch(new(kind, 1000 + seed), setup, clean, noise);
            wrong += held.Losses.Count;
            minutes += held.SeenSeconds / 60;
        }
        late.Sort();
        return new(faults, found, late, wrong, minutes);
    }

    /// <summary>
    /// In the second and the fourth rep: from a fifth beyond the band to two and a half times as far, slowly or fast, for half a
    /// second to two and a half.
    /// </summary>
    private static Script GivesWayTwice(Script clean, DeviceKind kind, InstrumentSetup setup, Random random)
    {
        GivesWay In(ScriptRep rep)
        {
            var size = setup.Channels[0].Band * (1.2 + 1.3 * random.NextDouble()) / Math.Abs(kind.Gives[0]);
            var rise = 0.2 + 1.8 * random.NextDouble();
            return new(
                rep.At + 2 * random.NextDouble(),
                rise + 0.5 + 2 * random.NextDouble(),
                [.. kind.Gives.Select(give => give * size)],
                rise
            );
        }
        return clean with { Faults = [In(clean.Reps[1]), In(clean.Reps[3])] };
    }

    /// <summary>Neutral from quiet seconds, then one round of a script, as in the room.</summary>
    /// <exception cref="InvalidOperationException">Neutral was refused.</exception>
    public static SignalAnalysis Watch(
        SimulatedDevice device,
        InstrumentSetup setup,
        Script script,
        double noise = 1
    )
    {
        var missing = setup.Channels.Select(_ => double.NaN).ToArray();
        List<double[]> Next(double seconds) =>
            [.. Enumerable.Range(0, (int)(seconds * setup.Rate)).Select(_ => device.Sample() ?? missing)];
        var neutral =
            Neutral.From(Next(NeutralSeconds), setup).Value
            ?? throw new InvalidOperationException("Neutral was refused.");
        device.Noise = noise;
        device.Begin(script);
        return SignalAnalyser.Of(Next(script.Seconds), setup, neutral);
    }

    /// <summary>The moments at which the noiseless signal leaves the band around its rest, seconds.</summary>
    public static IReadOnlyList<double> Leaves(SimulatedDevice device, InstrumentSetup setup, Script script)
    {
        var moments = new List<double>();
        var was = false;
        for (var n = 0; n < script.Seconds * setup.Rate; n++)
        {
            var at = n / setup.Rate;
            var beyond = Enumerable
                .Range(0, setup.Channels.Count)
                .Any(i =>
                    Math.Abs(device.Truth(script, at, i) - device.Kind.Rest[i]) > setup.Channels[i].Band
                );
            if (beyond && !was)
            {
                moments.Add(at);
            }
            was = beyond;
        }
        return moments;
    }
}
