using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>Bounds of what can be true of a client. Outside them the input is refused, with the field named.</summary>
public static class ProfileCheck
{
    public const int PainMax = 10;

    /// <summary>Two weeks; longer is not settling.</summary>
    public const double SettleHoursMax = 336;

    public static IEnumerable<FieldError> Errors(ClientProfile profile, PracticeLibrary library, string path)
    {
        foreach (
            var (name, value) in new[]
            {
                ("now", profile.Pain.Now),
                ("worst", profile.Pain.Worst),
                ("usual", profile.Pain.Usual),
            }
        )
        {
            if (value is < 0 or > PainMax)
            {
                yield return new($"{path}.pain.{name}", "Pain is a whole number from 0 to 10.");
            }
        }
        if (profile.SettleHours is < 0 or > SettleHoursMax || double.IsNaN(profile.SettleHours))
        {
            yield return new($"{path}.settleHours", "Settling time is between 0 and 336 hours.");
        }
        for (var i = 0; i < profile.Precautions.Count; i++)
        {
            if (library.Precautions.All(p => p.Id != profile.Precautions[i].Id))
            {
                yield return new(
                    $"{path}.precautions[{i}].id",
                    $"There is no precaution “{profile.Precautions[i].Id}”."
                );
            }
        }
    }
}
