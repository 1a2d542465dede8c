using Palaestra.Core.Library;

namespace Palaestra.Core.Outcomes;

/// <summary>An activity the client named: 0 cannot do it, 10 as before.</summary>
public sealed record ActivityScore(string Name, int Value);

/// <param name="MeasureId">Which total it is: disability-24 or disability-percent.</param>
public sealed record DisabilityTotal(string MeasureId, double Total);

/// <summary>What the client told of themselves at one visit, beside pain.</summary>
/// <param name="Activities">Three to five, the same at every visit; empty where they were not asked.</param>
public sealed record OutcomeAnswers(IReadOnlyList<ActivityScore> Activities, DisabilityTotal? Disability)
{
    /// <summary>Activities a client may name.</summary>
    public const int ActivitiesMax = 5;

    /// <summary>Answers no measure takes, by field under <paramref name="path"/>; empty where all can be.</summary>
    public static IEnumerable<FieldError> Errors(OutcomeAnswers answers, PracticeLibrary library, string path)
    {
        if (answers.Activities.Count > ActivitiesMax)
        {
            yield return new($"{path}.activities", Message.Of("outcome.activities", ("most", ActivitiesMax)));
        }
        for (var i = 0; i < answers.Activities.Count; i++)
        {
            var activity = answers.Activities[i];
            if (string.IsNullOrWhiteSpace(activity.Name) || activity.Name.Length > 100)
            {
                yield return new($"{path}.activities[{i}].name", Message.Of("outcome.activity"));
            }
            if (answers.Activities.Take(i).Any(a => a.Name == activity.Name))
            {
                yield return new($"{path}.activities[{i}].name", Message.Of("outcome.activity-twice"));
            }
            if (activity.Value is < 0 or > 10)
            {
                yield return new($"{path}.activities[{i}].value", Message.Of("outcome.activity-range"));
            }
        }
        if (answers.Disability is { } total)
        {
            var measure = library.Outcomes.FirstOrDefault(m =>
                m.Id == total.MeasureId && m.From == OutcomeSource.Total
            );
            if (measure is null)
            {
                yield return new(
                    $"{path}.disability.measureId",
                    Message.Of("outcome.no-total", ("measure", total.MeasureId))
                );
            }
            else if (!(total.Total >= measure.Min && total.Total <= measure.Max))
            {
                yield return new(
                    $"{path}.disability.total",
                    Message.Of(
                        "outcome.total-range",
                        ("measure", measure.Id),
                        ("least", measure.Min),
                        ("most", measure.Max)
                    )
                );
            }
        }
    }
}
