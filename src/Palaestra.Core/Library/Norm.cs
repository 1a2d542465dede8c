using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>A line in a published range: below or above it people fared differently.</summary>
public sealed record NormLine(double At, string Words);

/// <summary>What a studied group reached in a task.</summary>
/// <param name="Task">Id of the task. <paramref name="Variant"/>: none means all ways.</param>
/// <param name="Side">The side it holds for; both: either.</param>
/// <param name="Sex">None: both together. Ages in whole years, both ends included.</param>
/// <param name="Mean">In the task's unit. <paramref name="Sd"/>: standard deviation; none where only a mean is known.</param>
/// <param name="CutAt">Trials were cut at this reading; the mean is of cut trials.</param>
/// <param name="Memory">The source was not before us when the figures were written down.</param>
public sealed record Norm(
    string Task,
    string Population,
    int AgeFrom,
    int AgeTo,
    string Source,
    bool Memory,
    double? Mean = null,
    double? Sd = null,
    Sex? Sex = null,
    Side Side = Side.Both,
    string? Variant = null,
    double? CutAt = null,
    IReadOnlyList<NormLine>? Lines = null
);

/// <summary>A ratio of two tasks, and where it is worth attention.</summary>
/// <param name="Over">Task and side above the line. <paramref name="Under"/>: below it.</param>
/// <param name="From">Worth attention below this. <paramref name="To"/>: worth attention above this.</param>
public sealed record NormRatio(
    string Id,
    string Name,
    RatioPart Over,
    RatioPart Under,
    string Population,
    int AgeFrom,
    int AgeTo,
    string Source,
    bool Memory,
    double? From = null,
    double? To = null
);

/// <summary>One side of a task, as half of a ratio.</summary>
/// <param name="Task">The task's id.</param>
/// <param name="Side">The side; both: the mean of left and right.</param>
public sealed record RatioPart(string Task, Side Side = Side.Both);

/// <summary>A difference between the sides that was found to matter.</summary>
/// <param name="Over">In the task's unit; a larger difference is worth attention.</param>
public sealed record NormDifference(
    string Task,
    string Variant,
    double Over,
    string Means,
    string Population,
    int AgeFrom,
    int AgeTo,
    string Source,
    bool Memory
);

/// <summary>How far two measurements of the same thing differ by chance.</summary>
/// <param name="Of">Id of a task, or "control" (points of %), "rung" (rungs), or the word of a measure kind.</param>
/// <param name="Sem">Standard error of measurement in the unit measured; none where it follows from the next two.</param>
/// <param name="Icc">Reliability, 0 to 1, of a group with standard deviation <paramref name="Sd"/>: SEM = SD·√(1 − ICC).</param>
public sealed record MeasurementError(
    string Of,
    string Source,
    bool Memory,
    double? Sem = null,
    double? Sd = null,
    double? Icc = null
)
{
    /// <remarks>Weir 2005, J Strength Cond Res 19:231–240 (from memory).</remarks>
    public double Error => Sem ?? Sd!.Value * Math.Sqrt(1 - Icc!.Value);

    /// <summary>The smallest change beyond chance, 19 times of 20: 1.96 × √2 × SEM.</summary>
    /// <remarks>Weir 2005, J Strength Cond Res 19:231–240 (from memory).</remarks>
    public double SmallestChange => 1.96 * Math.Sqrt(2) * Error;
}
