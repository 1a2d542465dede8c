using System.Text.Json;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Palaestra.Data;
using Palaestra.Server.Words;

namespace Palaestra.Server.Keeping;

/// <summary>Healthy when the database can be read and written and the disk has room.</summary>
public sealed class StoreHealth(Settings settings, BackupRuns backups, TimeProvider clock, ClinicWords words)
    : IHealthCheck
{
    /// <summary>Below this a day's traces may not fit, bytes.</summary>
    private const long Room = 100_000_000;

    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    )
    {
        var free = Disk.Free(settings.DataFolder);
        var refused = await Refused(cancellationToken);
        var age = clock.GetUtcNow() - backups.Status().LastGood;
        var facts = new Dictionary<string, object> { ["writes"] = refused is null, ["diskFree"] = free };
        if (age is { } old)
        {
            facts["backupAgeHours"] = Math.Round(old.TotalHours, 1);
        }
        return refused is not null ? HealthCheckResult.Unhealthy(refused, data: facts)
            : free < Room
                ? HealthCheckResult.Unhealthy(
                    words.Say(Message.Of("store.room", ("megabytes", free / 1_000_000))),
                    data: facts
                )
            : HealthCheckResult.Healthy(backups.Warning(), facts);
    }

    /// <summary>Why nothing can be written; none where it can.</summary>
    private async Task<string?> Refused(CancellationToken stop)
    {
        try
        {
            await using var db = new SqliteConnection(Store.ConnectionString(settings.DataFolder));
            await db.OpenAsync(stop);
            // Begun for writing and taken back: only whether it could be is asked.
            await using var look = db.BeginTransaction(deferred: false);
            await look.RollbackAsync(stop);
            return null;
        }
        catch (SqliteException problem)
        {
            return words.Say(StoreFault.Words(problem) ?? Message.Of("store.silent"));
        }
    }

    /// <summary>One line of JSON: the status first, then what it rests on.</summary>
    public static Task Write(HttpContext context, HealthReport report)
    {
        var entry = report.Entries.Values.FirstOrDefault();
        var told = new Dictionary<string, object?>
        {
            ["status"] = report.Status.ToString(),
            ["version"] = Product.Version,
            ["backupAgeHours"] = null,
        };
        foreach (var (name, value) in entry.Data ?? new Dictionary<string, object>())
        {
            told[name] = value;
        }
        told["words"] = entry.Description;
        context.Response.ContentType = "application/json; charset=utf-8";
        return context.Response.WriteAsync(JsonSerializer.Serialize(told));
    }
}
