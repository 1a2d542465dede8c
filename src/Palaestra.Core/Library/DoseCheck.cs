namespace Palaestra.Core.Library;

/// <summary>Bounds of what a dose can be. Outside them the input is refused, with the field named.</summary>
public static class DoseCheck
{
    /// <summary>Metres of the lowest height a dose may name.</summary>
    public const double HeightMin = 0.1;

    /// <summary>Metres of the highest height a dose may name.</summary>
    public const double HeightMax = 1.5;

    /// <summary>Kilograms of the most a dose may name.</summary>
    public const double LoadMax = 300;

    /// <summary>Errors of range, height and load; reps, sets and holds are bounded where they are used.</summary>
    public static IEnumerable<FieldError> SettingErrors(Dose dose, string at)
    {
        if (!(dose.Range is > 0 and <= 1))
        {
            yield return new($"{at}.range", Message.Of("dose.range"));
        }
        if (dose.Height is { } height && !(height is >= HeightMin and <= HeightMax))
        {
            yield return new(
                $"{at}.height",
                Message.Of("dose.height", ("least", HeightMin), ("most", HeightMax))
            );
        }
        if (dose.Load is { } load && !(load is >= 0 and <= LoadMax))
        {
            yield return new($"{at}.load", Message.Of("dose.load", ("most", LoadMax)));
        }
    }
}
