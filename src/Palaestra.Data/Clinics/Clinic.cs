using Palaestra.Core.Practice;

namespace Palaestra.Data.Clinics;

/// <summary>The clinic itself: one row.</summary>
public sealed class Clinic
{
    public const int OnlyId = 1;

    public int Id { get; init; } = OnlyId;

    /// <summary>As it stands on the sheet; empty until somebody wrote it.</summary>
    public string Name { get; set; } = "";

    /// <summary>Whom to call, on one line of the sheet.</summary>
    public string Contact { get; set; } = "";

    /// <summary>At the head of letters, several lines.</summary>
    public string Address { get; set; } = "";

    /// <summary>A picture at the head of letters and sheets, JPEG or PNG; none: none.</summary>
    public byte[]? Mark { get; set; }

    /// <summary>Name of a zone in the IANA database.</summary>
    public string TimeZone { get; set; } = ClinicZone.Utc.Id;
    public DateOrder DateOrder { get; set; }

    /// <summary>The day calendars begin their weeks with.</summary>
    public DayOfWeek WeekStart { get; set; } = DayOfWeek.Monday;

    /// <summary>Of height and mass on its screens.</summary>
    public PersonUnits Units { get; set; }

    /// <summary>Home programmes may have an address of this server, where an episode was given one.</summary>
    public bool HomeAddresses { get; set; }

    /// <summary>Minutes without a touch after which a tablet locks itself.</summary>
    public int LockMinutes { get; set; } = UsualLockMinutes;

    /// <summary>Years after the last visit for which a record is kept at least.</summary>
    public int RetentionYears { get; set; } = UsualRetentionYears;

    /// <summary>What home programmes are signed with, 32 random bytes; none until the first was made.</summary>
    public byte[]? HomeSecret { get; set; }

    /// <summary>How well the clinic sees, as it was when it was taken on in the place of the built-in figures; none: those hold.</summary>
    public ClinicEye? OwnEye { get; set; }
    public int Version { get; set; }

    /// <summary>§ 630f (3) BGB: ten years after the end of treatment (from memory); where the clinic is decides.</summary>
    public const int UsualRetentionYears = 10;

    /// <summary>Common practice.</summary>
    public const int UsualLockMinutes = 10;
}
