namespace Palaestra.Core.Outcomes;

/// <summary>What became of something the client wanted to do again.</summary>
/// <param name="Goal">By id.</param>
/// <param name="Why">What kept it from being reached; needed where it was not.</param>
public sealed record GoalOutcome(string Goal, bool Reached, string? Why = null);

/// <summary>The summary at the end of an episode.</summary>
/// <param name="GoOn">What the client goes on with, 1 to 2,000 characters.</param>
/// <param name="Note">Whatever else; none: nothing.</param>
public sealed record Discharge(IReadOnlyList<GoalOutcome> Goals, string GoOn, string? Note = null)
{
    private const int WhyMax = 500;
    private const int TextMax = 2000;

    /// <summary>What is missing or too long, by field under <paramref name="path"/>; empty where nothing is.</summary>
    /// <param name="wanted">What the client wanted, by id: each is answered once.</param>
    public static IEnumerable<FieldError> Errors(Discharge summary, IReadOnlyList<string> wanted, string path)
    {
        for (var i = 0; i < summary.Goals.Count; i++)
        {
            var goal = summary.Goals[i];
            if (!wanted.Contains(goal.Goal) || summary.Goals.Take(i).Any(g => g.Goal == goal.Goal))
            {
                yield return new($"{path}.goals[{i}].goal", Message.Of("discharge.goal"));
            }
            if (!goal.Reached && string.IsNullOrWhiteSpace(goal.Why))
            {
                yield return new($"{path}.goals[{i}].why", Message.Of("discharge.why"));
            }
            if (goal.Why?.Length > WhyMax)
            {
                yield return new($"{path}.goals[{i}].why", Message.Of("discharge.long", ("most", WhyMax)));
            }
        }
        if (wanted.Any(id => summary.Goals.All(g => g.Goal != id)))
        {
            yield return new($"{path}.goals", Message.Of("discharge.goals"));
        }
        if (string.IsNullOrWhiteSpace(summary.GoOn))
        {
            yield return new($"{path}.goOn", Message.Of("discharge.go-on"));
        }
        if (summary.GoOn.Length > TextMax)
        {
            yield return new($"{path}.goOn", Message.Of("discharge.long", ("most", TextMax)));
        }
        if (summary.Note?.Length > TextMax)
        {
            yield return new($"{path}.note", Message.Of("discharge.long", ("most", TextMax)));
        }
    }
}
