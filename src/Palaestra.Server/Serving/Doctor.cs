using System.Globalization;
using Microsoft.Extensions.Logging.Abstractions;
using Palaestra.Data;
using Palaestra.Data.Clinics;
using Palaestra.Data.Keeping;
using Palaestra.Server.Keeping;

namespace Palaestra.Server.Serving;

public enum Verdict
{
    Good,

    /// <summary>It runs, but somebody should see to it.</summary>
    Look,

    /// <summary>It will not run, or records are at risk.</summary>
    Bad,
}

/// <summary>One thing looked at. <paramref name="Words"/>: what was seen, and what to do about it where something is to be done.</summary>
public sealed record Finding(string Of, Verdict Verdict, string Words);

/// <summary>
/// <c>doctor</c>: looks at the machine a clinic runs on and says what is missing. It changes nothing and reads no record. Exit
/// codes: 0 nothing bad, 1 something is.
/// </summary>
public static class Doctor
{
    /// <summary>Room under which a backup may not fit, bytes. Our own.</summary>
    private const long LeastRoom = 1L << 30;

    /// <summary>Days before the end of a certificate from which on it is said.</summary>
    private const int Soon = 30;

    /// <returns>None where the words are no command of ours.</returns>
    public static int? Run(string[] args, Settings settings)
    {
        if (args is not ["doctor"])
        {
            return null;
        }
        var findings = Look(settings, DateTimeOffset.Now);
        foreach (var finding in findings)
        {
            Console.WriteLine($"{Mark(finding.Verdict)}  {finding.Of}: {finding.Words}");
        }
        return findings.Any(f => f.Verdict == Verdict.Bad) ? 1 : 0;
    }

    private static string Mark(Verdict verdict) =>
        verdict switch
        {
            Verdict.Good => "good",
            Verdict.Look => "look",
            _ => "BAD ",
        };

    public static IReadOnlyList<Finding> Look(Settings settings, DateTimeOffset now) =>
        [
            Folder(settings),
            .. Room(settings),
            .. Backups(settings, now),
            Tls(settings, now),
            Zone(settings),
            Clock(settings, now),
        ];

    private static Finding Folder(Settings settings)
    {
        const string of = "Data folder";
        var folder = settings.DataFolder;
        if (!Directory.Exists(folder))
        {
            return new(of, Verdict.Look, $"{folder} is not there; the first start makes it.");
        }
        if ((File.GetUnixFileMode(folder) & (UnixFileMode.GroupRead | UnixFileMode.OtherRead)) != 0)
        {
            return new(of, Verdict.Bad, $"{folder} can be read by other accounts: chmod 700 it.");
        }
        return File.Exists(Path.Combine(folder, Store.FileName)) ? new(of, Verdict.Good, folder)
            : ClinicMark.Stands(folder)
                ? new(
                    of,
                    Verdict.Bad,
                    $"A clinic lives in {folder}, but its database is gone: restore a backup."
                )
            : new(of, Verdict.Look, $"{folder} holds no database yet; the first start makes one.");
    }

    private static IEnumerable<Finding> Room(Settings settings)
    {
        foreach (
            var (of, folder) in new[]
            {
                ("Disk", settings.DataFolder),
                ("Disk for backups", settings.BackupFolder),
            }
        )
        {
            var free = Disk.Free(folder);
            var words = $"{Gigabytes(free)} GB free on {Disk.Of(folder)}.";
            yield return new(
                of,
                free < LeastRoom ? Verdict.Bad : Verdict.Good,
                free < LeastRoom ? $"{words} Make room: writes are refused when it is full." : words
            );
        }
    }

    private static IEnumerable<Finding> Backups(Settings settings, DateTimeOffset now)
    {
        var same = Disk.Of(settings.DataFolder) == Disk.Of(settings.BackupFolder);
        yield return new(
            "Place of backups",
            same ? Verdict.Look : Verdict.Good,
            same
                ? $"{settings.BackupFolder} is on the same disk as the records: name a folder on another one in PALAESTRA_BACKUPS."
                : $"{settings.BackupFolder}, on another disk than the records."
        );
        yield return settings.BackupKey is { } key
            ? File.Exists(key)
                ? new("Key of backups", Verdict.Good, $"Sealed for {key}.")
                : new("Key of backups", Verdict.Bad, $"{key} is not there: no nightly backup can be made.")
            : new(
                "Key of backups",
                Verdict.Look,
                "Nightly backups are not sealed: name an OpenPGP public key in PALAESTRA_BACKUP_KEY."
            );
        using var runs = new BackupRuns(settings, TimeProvider.System, NullLogger<BackupRuns>.Instance);
        yield return runs.Status() switch
        {
            { LastGood: { } last } status when now - last > BackupRuns.Old => new(
                "Last backup",
                Verdict.Bad,
                $"The last good one is {(now - last).Days} days old. {status.Words}".TrimEnd()
            ),
            { LastGood: { } last } => new(
                "Last backup",
                Verdict.Good,
                last.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture)
            ),
            _ => new("Last backup", Verdict.Look, "There is none yet: ./palaestra backup makes one."),
        };
    }

    private static Finding Tls(Settings settings, DateTimeOffset now)
    {
        const string of = "https";
        try
        {
            if (TlsFiles.Of(settings) is not { } tls)
            {
                return new(
                    of,
                    settings.Proxy is null ? Verdict.Look : Verdict.Good,
                    settings.Proxy is { } proxy
                        ? $"By the proxy at {proxy}."
                        : "There is no certificate: tablets cannot reach it safely, only this machine can. ./palaestra certificate NAME makes one."
                );
            }
            var left = (tls.Certificate.NotAfter - now.LocalDateTime).Days;
            var words = $"For {string.Join(", ", tls.Names)}, {left} days left.";
            return left < 0
                    ? new(
                        of,
                        Verdict.Bad,
                        $"The certificate ended on {tls.Certificate.NotAfter:yyyy-MM-dd}: ./palaestra certificate NAME renews it."
                    )
                : left < Soon ? new(of, Verdict.Look, $"{words} ./palaestra certificate NAME renews it.")
                : new(of, Verdict.Good, words);
        }
        catch (InvalidOperationException problem)
        {
            return new(of, Verdict.Bad, problem.Message);
        }
    }

    private static Finding Zone(Settings settings)
    {
        const string of = "Time zone";
        if (Store.ZoneOf(settings.DataFolder) is { } kept)
        {
            return ClinicZone.Find(kept) is null
                    ? new(of, Verdict.Bad, $"{kept}, which this version does not know.")
                : kept is "UTC" or "Etc/UTC"
                    ? new(of, Verdict.Look, $"{kept}: if the clinic is elsewhere, say so in Settings.")
                : new(of, Verdict.Good, kept);
        }
        var zone = (settings.TimeZone ?? ClinicZone.OfMachine()).Id;
        return zone is "UTC" or "Etc/UTC"
            ? new(of, Verdict.Look, $"{zone}: set PALAESTRA_TIME_ZONE to where the clinic is.")
            : new(of, Verdict.Good, zone);
    }

    /// <summary>Files of tomorrow tell of a clock that was set back.</summary>
    private static Finding Clock(Settings settings, DateTimeOffset now)
    {
        const string of = "Clock";
        var file = Path.Combine(settings.DataFolder, Store.FileName);
        return File.Exists(file) && File.GetLastWriteTimeUtc(file) > now.UtcDateTime.AddMinutes(5)
            ? new(
                of,
                Verdict.Bad,
                $"It shows {now:yyyy-MM-dd HH:mm}, but the database was written later: the clock was set back."
            )
            : new(of, Verdict.Good, now.ToString("yyyy-MM-dd HH:mm zzz", CultureInfo.InvariantCulture));
    }

    private static string Gigabytes(long bytes) =>
        ((double)bytes / (1L << 30)).ToString("0.0", CultureInfo.InvariantCulture);
}
