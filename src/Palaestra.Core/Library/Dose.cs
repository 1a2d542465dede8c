using System.Text.Json.Serialization;

namespace Palaestra.Core.Library;

/// <summary>How much of a rung, for one side: sets of reps, each held.</summary>
/// <param name="Reps">Repetitions in the first set, 1 or more.</param>
/// <param name="Sets">Sets, 1 or more.</param>
/// <param name="Hold">Seconds each rep is held; 0 where the rung is not held.</param>
/// <param name="Fewer">Reps by which each set is shorter than the one before, 0 or more: 8 reps, 3 sets, 2 fewer is 8-6-4.</param>
[method: JsonConstructor]
public readonly record struct Dose(int Reps, int Sets, double Hold, int Fewer = 0)
{
    /// <summary>Sum over the sets; a set never has fewer than one rep.</summary>
    public int TotalReps
    {
        get
        {
            var total = 0;
            for (var set = 0; set < Sets; set++)
            {
                total += RepsOf(set);
            }
            return total;
        }
    }

    /// <param name="set">0 for the first.</param>
    public int RepsOf(int set) => Math.Max(1, Reps - set * Fewer);

    /// <summary>Seconds under control: reps of all sets × (hold + time of the movement out and back).</summary>
    public double Seconds(double moveSeconds) => TotalReps * (Hold + moveSeconds);

    /// <summary>
    /// True when no part of this dose is below the same part of <paramref name="other"/>. Where either has shrinking sets, the
    /// reps of all sets are compared instead of the number of sets.
    /// </summary>
    public bool Covers(Dose other) =>
        Reps >= other.Reps
        && Hold >= other.Hold
        && (Fewer == 0 && other.Fewer == 0 ? Sets >= other.Sets : TotalReps >= other.TotalReps);

    /// <summary>"2 sets of 5, hold 3 s"; sets of one are written as reps alone, shrinking ones by their reps: "8-6-4 reps".</summary>
    public string Words()
    {
        var dose = this;
        var count =
            Sets == 1 ? $"{Reps} {(Reps == 1 ? "rep" : "reps")}"
            : Fewer > 0 ? $"{string.Join('-', Enumerable.Range(0, Sets).Select(dose.RepsOf))} reps"
            : $"{Sets} sets of {Reps}";
        return Hold > 0 ? $"{count}, hold {Hold:0.#} s" : count;
    }
}
