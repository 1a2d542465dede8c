using System.ComponentModel.DataAnnotations.Schema;
using Palaestra.Core.Body;

namespace Palaestra.Data.Intake;

public sealed class Client
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required string Name { get; set; }
    public DateOnly BirthDate { get; set; }

    /// <summary>For the body tables: "female", "male", or left open.</summary>
    public string? Sex { get; set; }

    /// <summary>Metres.</summary>
    public double? Height { get; set; }

    /// <summary>The same in centimetres, to the millimetre: it comes back as it went in.</summary>
    [NotMapped]
    public double? HeightCm
    {
        get => Height is { } metres ? Math.Round(metres * 100, 1) : null;
        set => Height = value is { } centimetres ? Math.Round(centimetres * 10) / 1000 : null;
    }

    /// <summary>Kilograms.</summary>
    public double? Mass { get; set; }

    /// <summary>Whole years; somebody born on 29 February is a year older on 1 March of a common year.</summary>
    public int AgeOn(DateOnly day)
    {
        var years = day.Year - BirthDate.Year;
        return (day.Month, day.Day).CompareTo((BirthDate.Month, BirthDate.Day)) < 0 ? years - 1 : years;
    }

    public BodySize Body() => new(Sex is null ? null : Enum.Parse<Sex>(Sex), Height, Mass);
}
