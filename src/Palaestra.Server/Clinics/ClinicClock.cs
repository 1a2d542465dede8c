using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Data;
using Palaestra.Data.Clinics;

namespace Palaestra.Server.Clinics;

/// <summary>What time it is at the clinic, and how it writes its dates and measures; as the store says since the start or the last change.</summary>
/// <param name="zone">None: the machine's, until the store has been read.</param>
public sealed class ClinicClock(TimeProvider time, ClinicZone? zone = null)
{
    private volatile Keeping kept = new(
        zone ?? ClinicZone.OfMachine(),
        DateOrder.DayMonthYear,
        DayOfWeek.Monday,
        PersonUnits.KgCm
    );

    public ClinicZone Zone => kept.Zone;
    public DateOrder Order => kept.Order;
    public ClinicTime Time => new(kept.Zone.Id, kept.Order, kept.WeekStart, kept.Units);
    public Instant Now => Instant.FromDateTimeOffset(time.GetUtcNow());
    public DateOnly Today => Zone.DayOf(Now);

    /// <exception cref="Data.Keeping.StartRefusedException">The store names a zone that is not known.</exception>
    public async Task Read(PalaestraDb db) => Keep(await db.Clinics.AsNoTracking().SingleAsync());

    /// <inheritdoc cref="Read"/>
    public void Keep(Clinic clinic) =>
        kept = new(
            ClinicZone.Find(clinic.TimeZone)
                ?? throw new Data.Keeping.StartRefusedException(
                    Data.Keeping.StartFault.DatabaseNewer,
                    $"The clinic's time zone, {clinic.TimeZone}, is not known to this version. Start the version it was chosen with, or a newer one; nothing was changed."
                ),
            clinic.DateOrder,
            clinic.WeekStart,
            clinic.Units
        );

    private sealed record Keeping(ClinicZone Zone, DateOrder Order, DayOfWeek WeekStart, PersonUnits Units);
}
