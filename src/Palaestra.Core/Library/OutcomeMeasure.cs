using System.Text.Json.Serialization;

namespace Palaestra.Core.Library;

/// <summary>Where the values of a measure come from.</summary>
public enum OutcomeSource
{
    /// <summary>A total of a questionnaire that the client filled in.</summary>
    Total,

    /// <summary>Pain as asked at every visit.</summary>
    Pain,

    /// <summary>The mean of the activities the client named.</summary>
    Activities,

    /// <summary>A task of the screen, both sides added.</summary>
    Task,
}

/// <summary>A self-reported measure: its scale, and the change that means something.</summary>
/// <param name="Unit">Behind a value: "of 10".</param>
/// <param name="LessIsBetter">True for pain and trouble, false for what can be done again.</param>
/// <param name="Points">The change in points that means something; none where it is a share alone.</param>
/// <param name="Share">The change as a share of the first value, 0 to 1; with points both must be reached or, where <paramref name="Either"/>, one.</param>
/// <param name="EitherFrom">First values from which one is enough; below it both must be reached. None: from 0 on.</param>
/// <param name="Target">Where it is well enough; for the expected date.</param>
/// <param name="From">What its values are. <paramref name="Task"/>: the task, where it is one of a screen.</param>
/// <param name="Memory">The figure was not looked up in the text.</param>
public sealed record OutcomeMeasure(
    string Id,
    string Name,
    string Unit,
    double Min,
    double Max,
    double Step,
    bool LessIsBetter,
    double? Points,
    double? Share,
    bool Either,
    double Target,
    string Means,
    string Source,
    bool Memory,
    double? EitherFrom = null,
    OutcomeSource From = OutcomeSource.Total,
    string? Task = null
)
{
    /// <summary>How far it must move from a first value to mean something, in points.</summary>
    public double Meaningful(double first)
    {
        var byShare = Share * first;
        return (Points, byShare) switch
        {
            ({ } points, { } share) when share > 0 => Either && !(first < EitherFrom)
                ? Math.Min(points, share)
                : Math.Max(points, share),
            ({ } points, _) => points,
            (_, { } share) => share,
            _ => 0,
        };
    }

    /// <summary>Whether the change from first to last is more than the measure's error, and to which side.</summary>
    public ChangeVerdict Verdict(double first, double last)
    {
        var gain = LessIsBetter ? first - last : last - first;
        return gain == 0 || Math.Abs(gain) < Meaningful(first) - 1e-9 ? ChangeVerdict.NoClearChange
            : gain > 0 ? ChangeVerdict.Better
            : ChangeVerdict.Worse;
    }
}

/// <summary>The content file of the outcome measures.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Measures">In the order they are shown.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record OutcomesFile(
    string Source,
    IReadOnlyList<OutcomeMeasure> Measures,
    [property: JsonPropertyName("$schema")] string? Schema = null
);
