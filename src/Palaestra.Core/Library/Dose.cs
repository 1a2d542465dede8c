using System.Text.Json.Serialization;

namespace Palaestra.Core.Library;

/// <summary>How much of a rung, for one side: sets of reps, each held.</summary>
/// <param name="Reps">Repetitions in a set, 1 or more.</param>
/// <param name="Sets">Sets, 1 or more.</param>
/// <param name="Hold">Seconds each rep is held; 0 where the rung is not held.</param>
[method: JsonConstructor]
public readonly record struct Dose(int Reps, int Sets, double Hold)
{
    public int TotalReps => Reps * Sets;

    /// <summary>Seconds under control: sets × reps × (hold + time of the movement out and back).</summary>
    public double Seconds(double moveSeconds) => Sets * Reps * (Hold + moveSeconds);

    /// <summary>True when no part of this dose is below the same part of <paramref name="other"/>.</summary>
    public bool Covers(Dose other) => Reps >= other.Reps && Sets >= other.Sets && Hold >= other.Hold;

    /// <summary>"2 × 5, hold 3 s"; sets of one are written as reps alone.</summary>
    public string Words()
    {
        var count = Sets == 1 ? $"{Reps} {(Reps == 1 ? "rep" : "reps")}" : $"{Sets} sets of {Reps}";
        return Hold > 0 ? $"{count}, hold {Hold:0.#} s" : count;
    }
}
