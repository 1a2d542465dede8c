namespace Palaestra.Core.Visits;

/// <summary>Reps of one exercise on one side, of all sets together, done at home on one day.</summary>
public sealed record HomeReps(Guid PlanItemId, Side Side, int Reps);

/// <summary>One day of the home log, as the client wrote it down.</summary>
/// <param name="Pain">While doing it, 0 to 10; none where nothing was written.</param>
/// <param name="NextMorning">The morning after, 0 to 10; none where nothing was written.</param>
public sealed record HomeDay(
    DateOnly Day,
    IReadOnlyList<HomeReps> Done,
    int? Pain,
    int? NextMorning,
    string? Remark
)
{
    /// <summary>Everything in it was cleared again: as if nothing had been written.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool Empty => Done.Count == 0 && Pain is null && NextMorning is null && Remark is null;
}

public static class HomeDayCheck
{
    public const int RepsMax = 500;
    public const int RemarkMax = 500;

    /// <param name="items">The exercises and sides that some plan of this client asks or asked for.</param>
    public static IEnumerable<FieldError> Errors(
        HomeDay day,
        IReadOnlySet<(Guid Item, Side Side)> items,
        DateOnly opened,
        DateOnly today,
        string path
    )
    {
        if (day.Day > today)
        {
            yield return new($"{path}.day", $"{day.Day:d MMM yyyy} has not come yet.");
        }
        else if (day.Day < opened)
        {
            yield return new($"{path}.day", $"{day.Day:d MMM yyyy} is before the first visit.");
        }
        for (var i = 0; i < day.Done.Count; i++)
        {
            var done = day.Done[i];
            if (!items.Contains((done.PlanItemId, done.Side)))
            {
                yield return new(
                    $"{path}.done[{i}]",
                    "This exercise and side are in no plan of this client."
                );
            }
            if (done.Reps is < 0 or > RepsMax)
            {
                yield return new($"{path}.done[{i}].reps", $"Reps of a day are between 0 and {RepsMax}.");
            }
            if (day.Done.Take(i).Any(d => d.PlanItemId == done.PlanItemId && d.Side == done.Side))
            {
                yield return new($"{path}.done[{i}]", "This exercise and side stand twice on the day.");
            }
        }
        if (day.Pain is < 0 or > Intake.ProfileCheck.PainMax)
        {
            yield return new($"{path}.pain", "Pain is a whole number from 0 to 10.");
        }
        if (day.NextMorning is < 0 or > Intake.ProfileCheck.PainMax)
        {
            yield return new($"{path}.nextMorning", "Pain is a whole number from 0 to 10.");
        }
        if (day.Remark?.Length > RemarkMax)
        {
            yield return new($"{path}.remark", $"A remark has at most {RemarkMax} letters.");
        }
    }
}
