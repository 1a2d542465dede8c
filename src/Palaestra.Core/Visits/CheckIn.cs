using Palaestra.Core.Intake;

namespace Palaestra.Core.Visits;

/// <summary>What is asked at the start of every later visit.</summary>
/// <param name="DangerSigns">Ids of danger signs that are new.</param>
/// <param name="PainNow">0 to 10. <paramref name="NextDayPain"/>: the morning after the last work; none if not known.</param>
/// <param name="UsualPain">On most days of the week.</param>
/// <param name="LastTrained">The last day the exercises were done, at home or here; none if not known.</param>
/// <param name="SettledHours">Hours until it was as before; none if it was not stirred up.</param>
public sealed record CheckIn(
    int PainNow,
    int UsualPain,
    int? NextDayPain,
    double? SettledHours,
    IReadOnlyList<string> DangerSigns,
    DateOnly? LastTrained = null
);

public static class CheckInCheck
{
    public static IEnumerable<FieldError> Errors(
        CheckIn checkIn,
        Library.PracticeLibrary library,
        string path
    )
    {
        foreach (
            var (name, value) in new[]
            {
                ("painNow", checkIn.PainNow),
                ("usualPain", checkIn.UsualPain),
                ("nextDayPain", checkIn.NextDayPain ?? 0),
            }
        )
        {
            if (value is < 0 or > ProfileCheck.PainMax)
            {
                yield return new($"{path}.{name}", "Pain is a whole number from 0 to 10.");
            }
        }
        if (checkIn.SettledHours is < 0 or > ProfileCheck.SettleHoursMax)
        {
            yield return new($"{path}.settledHours", "Settling time is between 0 and 336 hours.");
        }
        for (var i = 0; i < checkIn.DangerSigns.Count; i++)
        {
            if (library.DangerSigns.All(sign => sign.Id != checkIn.DangerSigns[i]))
            {
                yield return new(
                    $"{path}.dangerSigns[{i}]",
                    $"There is no danger sign “{checkIn.DangerSigns[i]}”."
                );
            }
        }
    }
}
