namespace Palaestra.Core.Body;

/// <summary>Which of the two segment tables fits the client's build. Left open, the mean of both is used.</summary>
public enum Sex
{
    /// <summary>Female.</summary>
    Female,

    /// <summary>Male.</summary>
    Male,
}

/// <summary>What the body model needs to know of a person.</summary>
/// <param name="Sex">None: the mean of both tables.</param>
/// <param name="Height">Stature in metres, 1.00 to 2.30; none: <see cref="TypicalHeight"/>.</param>
/// <param name="Mass">Body mass in kilograms, 25 to 250; none: <see cref="TypicalMass"/>.</param>
public sealed record BodySize(Sex? Sex = null, double? Height = null, double? Mass = null)
{
    /// <summary>Metres and kilograms of a typical adult, where the client's are not known. Common practice.</summary>
    public const double TypicalHeight = 1.70;

    /// <summary>Kilograms of a client whose weight is not known. Common practice in body models.</summary>
    public const double TypicalMass = 70;

    /// <summary>A body of which nothing is known.</summary>
    public static readonly BodySize Typical = new();

    /// <summary>True when a figure made with this size is for a typical body, not for this one.</summary>
    public bool IsTypical => Height is null || Mass is null;

    /// <summary>Stature in metres; the typical one where it is not known.</summary>
    public double Metres => Height ?? TypicalHeight;

    /// <summary>Mass in kilograms; the typical one where it is not known.</summary>
    public double Kilograms => Mass ?? TypicalMass;

    /// <summary>Body weight in newtons.</summary>
    public double Weight => Kilograms * Statics.Gravity;

    /// <summary>What no body has, by field under <paramref name="at"/>; empty where all can be.</summary>
    public IEnumerable<FieldError> Errors(string at)
    {
        if (Height is { } height && !(height is >= 1.00 and <= 2.30))
        {
            yield return new($"{at}.height", Message.Of("body.height", ("height", height)));
        }
        if (Mass is { } mass && !(mass is >= 25 and <= 250))
        {
            yield return new($"{at}.mass", Message.Of("body.mass", ("mass", mass)));
        }
    }
}
