using System.Globalization;
using Microsoft.Data.Sqlite;
using Palaestra.Data.Clinics;

namespace Palaestra.Data;

/// <summary>
/// Functions the database asks while it is migrated: stored times of before had no zone, and the zones' rules are not known to it.
/// </summary>
public static class ZoneOfOldTimes
{
    /// <summary>Gives the zone's name.</summary>
    internal const string Name = "clinic_zone";

    /// <summary>Takes a time on the wall as stored, gives it in UTC as stored.</summary>
    internal const string Utc = "utc_of_clinic";

    /// <summary>As the database's own dates with time are written.</summary>
    private const string Format = "yyyy-MM-dd HH:mm:ss.FFFFFFF";

    /// <summary>Known to the connection through every opening.</summary>
    public static void Add(SqliteConnection connection, ClinicZone zone)
    {
        connection.CreateFunction(Name, () => zone.Id);
        connection.CreateFunction(
            Utc,
            (string local) =>
                zone.At(DateTime.Parse(local, CultureInfo.InvariantCulture))
                    .ToDateTimeUtc()
                    .ToString(Format, CultureInfo.InvariantCulture)
        );
    }
}
