using Palaestra.Data.Keeping;
using Palaestra.Server.Clinics;

namespace Palaestra.Server.Keeping;

/// <summary>
/// A backup every night; where the machine was off then, soon after the next start. What fails is tried again every hour, and
/// told to administrators by its age.
/// </summary>
public sealed class NightlyBackup(
    BackupRuns backups,
    Settings settings,
    ClinicClock clinic,
    TimeProvider clock,
    ILogger<NightlyBackup> log
) : BackgroundService
{
    /// <summary>At the clinic: nobody trains.</summary>
    private static readonly TimeOnly Night = new(2, 30);

    private static readonly TimeSpan AfterStart = TimeSpan.FromMinutes(5);
    private static readonly TimeSpan Again = TimeSpan.FromHours(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        if (settings.Demo)
        {
            return;
        }
        await Task.Delay(AfterStart, clock, stoppingToken);
        while (!stoppingToken.IsCancellationRequested)
        {
            var now = clinic.Zone.Tell(clinic.Now);
            var due = Due(backups.Status().LastGood, now);
            if (due > now)
            {
                // In pieces, so that a clock that is set and a machine that slept are noticed.
                await Task.Delay(due - now < Again ? due - now : Again, clock, stoppingToken);
                continue;
            }
            if (!await Try())
            {
                await Task.Delay(Again, clock, stoppingToken);
            }
        }
    }

    /// <summary>The next night after the last good one; at once where more than a day went by.</summary>
    public static DateTimeOffset Due(DateTimeOffset? lastGood, DateTimeOffset now)
    {
        if (lastGood is not { } last || now - last >= TimeSpan.FromDays(1) || last > now)
        {
            return now;
        }
        var there = last.ToOffset(now.Offset);
        var night = new DateTimeOffset(there.Date + Night.ToTimeSpan(), now.Offset);
        return night > there ? night : night.AddDays(1);
    }

    private async Task<bool> Try()
    {
        try
        {
            await backups.Make();
            return true;
        }
        catch (BackupRefusedException problem)
        {
            log.LogError(problem, "The nightly backup failed.");
            return false;
        }
    }
}
