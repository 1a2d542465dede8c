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

    /// <summary>
    /// Two reports of one day as one: of each exercise and side the more reps, of pain the higher. The same in whatever order reports
    /// arrive, and however often; what hurt in one of them is never less for the other.
    /// </summary>
    /// <param name="other">Of the same day.</param>
    public HomeDay Joined(HomeDay other) =>
        this with
        {
            Done =
            [
                .. Done.Concat(other.Done)
                    .GroupBy(done => (done.PlanItemId, done.Side))
                    .Select(same => same.MaxBy(done => done.Reps)!),
            ],
            Pain = Higher(Pain, other.Pain),
            NextMorning = Higher(NextMorning, other.NextMorning),
            // Of two remarks always the same one.
            Remark = string.CompareOrdinal(Remark, other.Remark) >= 0 ? Remark : other.Remark,
        };

    private static int? Higher(int? one, int? other) => one is null || other > one ? other : one;

    /// <summary>True where the other says the same, in whatever order.</summary>
    public bool Says(HomeDay other) =>
        (Day, Pain, NextMorning, Remark) == (other.Day, other.Pain, other.NextMorning, other.Remark)
        && Done.ToHashSet().SetEquals(other.Done);
}

/// <summary>What a day of the home log cannot hold.</summary>
public static class HomeDayCheck
{
    /// <summary>Reps of one exercise and side on one day at most.</summary>
    public const int RepsMax = 500;

    /// <summary>Letters of a remark at most.</summary>
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
            yield return new($"{path}.day", Message.Of("home.future", ("day", day.Day)));
        }
        else if (day.Day < opened)
        {
            yield return new($"{path}.day", Message.Of("home.before", ("day", day.Day)));
        }
        for (var i = 0; i < day.Done.Count; i++)
        {
            var done = day.Done[i];
            if (!items.Contains((done.PlanItemId, done.Side)))
            {
                yield return new($"{path}.done[{i}]", Message.Of("home.no-item"));
            }
            if (done.Reps is < 0 or > RepsMax)
            {
                yield return new($"{path}.done[{i}].reps", Message.Of("home.reps", ("most", RepsMax)));
            }
            if (day.Done.Take(i).Any(d => d.PlanItemId == done.PlanItemId && d.Side == done.Side))
            {
                yield return new($"{path}.done[{i}]", Message.Of("home.twice"));
            }
        }
        if (day.Pain is < 0 or > Intake.ProfileCheck.PainMax)
        {
            yield return new($"{path}.pain", Message.Of("pain.range"));
        }
        if (day.NextMorning is < 0 or > Intake.ProfileCheck.PainMax)
        {
            yield return new($"{path}.nextMorning", Message.Of("pain.range"));
        }
        if (day.Remark?.Length > RemarkMax)
        {
            yield return new($"{path}.remark", Message.Of("home.remark", ("most", RemarkMax)));
        }
    }
}
