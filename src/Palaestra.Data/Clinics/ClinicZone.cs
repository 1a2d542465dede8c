using NodaTime;
using NodaTime.TimeZones;

namespace Palaestra.Data.Clinics;

/// <summary>
/// The clinic's time zone. Instants are stored in UTC and told in it; its rules come with the product (the IANA database as NodaTime
/// ships it), not from the machine.
/// </summary>
public sealed class ClinicZone
{
    private readonly DateTimeZone zone;

    private ClinicZone(DateTimeZone zone) => this.zone = zone;

    public static ClinicZone Utc { get; } = new(DateTimeZone.Utc);

    /// <summary>Name in the IANA database, as Europe/Berlin.</summary>
    public string Id => zone.Id;

    /// <summary>All that can be chosen: one name for each zone, aliases left out.</summary>
    public static IReadOnlyList<string> Ids { get; } =
    [.. TzdbDateTimeZoneSource.Default.CanonicalIdMap.Values.Distinct().Order(StringComparer.Ordinal)];

    /// <returns>None where the database has no zone of this name; aliases are known.</returns>
    public static ClinicZone? Find(string? id) =>
        id is { Length: > 0 } && DateTimeZoneProviders.Tzdb.GetZoneOrNull(id) is { } zone ? new(zone) : null;

    /// <summary>That of the machine; UTC where it has none that is known.</summary>
    public static ClinicZone OfMachine()
    {
        try
        {
            return new(DateTimeZoneProviders.Tzdb.GetSystemDefault());
        }
        catch (DateTimeZoneNotFoundException)
        {
            return Utc;
        }
    }

    /// <summary>Date and time on the clinic's wall.</summary>
    public DateTime Local(Instant at) => at.InZone(zone).ToDateTimeUnspecified();

    public DateOnly DayOf(Instant at) => DateOnly.FromDateTime(Local(at));

    /// <summary>The same instant, written as on the clinic's wall with its distance from UTC.</summary>
    /// <remarks>Distances are told in whole minutes. Before 1972 one zone had seconds in them: its wall is told up to a minute off, the instant never.</remarks>
    public DateTimeOffset Tell(Instant at) =>
        at.ToDateTimeOffset()
            .ToOffset(TimeSpan.FromMinutes(Math.Floor(zone.GetUtcOffset(at).ToTimeSpan().TotalMinutes)));

    /// <summary>
    /// The instant of a time on the wall: of one that comes twice the earlier, of one that is left out as much later as the clock is set
    /// forward.
    /// </summary>
    public Instant At(DateTime local) => LocalDateTime.FromDateTime(local).InZoneLeniently(zone).ToInstant();

    /// <summary>False in the hour that is left out where the clock is set forward.</summary>
    public bool Has(DateTime local) => zone.MapLocal(LocalDateTime.FromDateTime(local)).Count > 0;

    /// <summary>When a day begins: midnight, or where that is left out the first moment after.</summary>
    public Instant StartOf(DateOnly day) => zone.AtStartOfDay(LocalDate.FromDateOnly(day)).ToInstant();
}
