using System.ComponentModel.DataAnnotations.Schema;
using NodaTime;
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

    /// <summary>What the clinic files them under; of one client alone.</summary>
    public string Number { get; set; } = "";
    public string? Phone { get; set; }
    public string? Email { get; set; }

    /// <summary>Several lines.</summary>
    public string? Address { get; set; }

    /// <summary>Who speaks for a client who cannot; none: they speak for themselves, or it is not known.</summary>
    public Guardian? Guardian { get; set; }

    /// <summary>For whoever books and calls; nothing clinical.</summary>
    public string? DeskNotes { get; set; }

    /// <summary>Account of the practitioner in charge; none: nobody is named.</summary>
    public Guid? InChargeId { get; set; }

    /// <summary>Since when they are out of the lists; none: they are in them.</summary>
    public Instant? ArchivedAt { get; set; }

    /// <summary>The client this one turned out to be; none: they stand for themselves.</summary>
    public Guid? MergedIntoId { get; set; }

    /// <summary>Folded name, number, birth date and telephone, to be searched; empty: not folded yet.</summary>
    public string SearchText { get; set; } = "";

    /// <summary>Counts edits; an edit made on an older count is a conflict.</summary>
    public int Version { get; set; } = 1;

    /// <summary>Whole years; somebody born on 29 February is a year older on 1 March of a common year.</summary>
    public int AgeOn(DateOnly day)
    {
        var years = day.Year - BirthDate.Year;
        return (day.Month, day.Day).CompareTo((BirthDate.Month, BirthDate.Day)) < 0 ? years - 1 : years;
    }

    public BodySize Body() => new(Sex is null ? null : Enum.Parse<Sex>(Sex), Height, Mass);
}
