using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Visits;

/// <summary>How long it took until it was as before, never more exactly than it was asked.</summary>
public enum Settling
{
    /// <summary>Nothing was raised that had to settle.</summary>
    NotRaised,

    /// <summary>Within an hour.</summary>
    WithinAnHour,

    /// <summary>Within the day.</summary>
    SameDay,

    /// <summary>By the next morning.</summary>
    NextMorning,

    /// <summary>Longer than a day.</summary>
    LongerThanADay,
}

/// <summary>Hours of the words about settling.</summary>
public static class Settlings
{
    /// <summary>Hours the rules reckon with: the longest that the word lets be.</summary>
    public static double Hours(this Settling settling) =>
        settling switch
        {
            Settling.NotRaised => 0,
            Settling.WithinAnHour => 1,
            Settling.SameDay => 12,
            Settling.NextMorning => 24,
            _ => 48,
        };
}

/// <summary>Training at home since the last visit.</summary>
public enum HomeTraining
{
    /// <summary>As planned.</summary>
    Done,

    /// <summary>Some of it.</summary>
    Partly,

    /// <summary>Not at all.</summary>
    NotDone,
}

/// <summary>
/// What is asked at the start of every later visit. What was not asked is absent, and never read as none or no.
/// </summary>
/// <param name="DangerSigns">Ids of red flags that are new.</param>
/// <param name="PainNow">0 to 10. <paramref name="NextDayPain"/>: the morning after the last work.</param>
/// <param name="UsualPain">On most days of the week.</param>
/// <param name="LastTrained">The last day the exercises were done, at home or here.</param>
/// <param name="SettledHours">Hours until it was as before, where hours were asked; <paramref name="Settled"/> where a word was.</param>
/// <param name="FlagsAsked">The red flags were asked about and there were none but those named; none: not recorded.</param>
/// <param name="LegFurther">Since the last visit pain has moved further down a leg.</param>
/// <param name="Soreness">Of muscles, 0 to 10: told apart from pain, and no rule looks at it.</param>
/// <param name="Home">Whether the home programme was done; none: not asked.</param>
public sealed record CheckIn(
    int? PainNow,
    int? UsualPain,
    int? NextDayPain,
    double? SettledHours,
    IReadOnlyList<string> DangerSigns,
    DateOnly? LastTrained = null,
    Settling? Settled = null,
    bool? WakesAtNight = null,
    LegReport? Leg = null,
    bool? LegFurther = null,
    bool? FlagsAsked = null,
    int? Soreness = null,
    HomeTraining? Home = null
)
{
    /// <summary>Hours to settle by word or number, the longer where both were told; none where it was not asked.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public double? Hours => Settled?.Hours() is { } word ? Math.Max(word, SettledHours ?? 0) : SettledHours;
}

/// <summary>What a check-in cannot hold.</summary>
public static class CheckInCheck
{
    /// <summary>What is wrong with it, by field under <paramref name="path"/>; empty where nothing is.</summary>
    public static IEnumerable<FieldError> Errors(CheckIn checkIn, PracticeLibrary library, string path)
    {
        foreach (
            var (name, value) in new[]
            {
                ("painNow", checkIn.PainNow),
                ("usualPain", checkIn.UsualPain),
                ("nextDayPain", checkIn.NextDayPain),
                ("soreness", checkIn.Soreness),
            }
        )
        {
            if (value is < 0 or > ProfileCheck.PainMax)
            {
                yield return new($"{path}.{name}", Message.Of("pain.range"));
            }
        }
        if (checkIn.SettledHours is { } hours && !(hours is >= 0 and <= ProfileCheck.SettleHoursMax))
        {
            yield return new($"{path}.settledHours", Message.Of("settling.range"));
        }
        if (
            checkIn is { Settled: { } settled, SettledHours: { } told }
            && (settled == Settling.LongerThanADay) != (told > Settling.NextMorning.Hours())
        )
        {
            yield return new($"{path}.settledHours", Message.Of("checkin.settled-two"));
        }
        if (checkIn.FlagsAsked == false && checkIn.DangerSigns.Count > 0)
        {
            yield return new($"{path}.flagsAsked", Message.Of("checkin.flags"));
        }
        for (var i = 0; i < checkIn.DangerSigns.Count; i++)
        {
            if (library.DangerSigns.All(sign => sign.Id != checkIn.DangerSigns[i]))
            {
                yield return new(
                    $"{path}.dangerSigns[{i}]",
                    Message.Of("no.red-flag", ("flag", checkIn.DangerSigns[i]))
                );
            }
        }
    }
}
