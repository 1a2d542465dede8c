using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;
using Palaestra.Data;

namespace Palaestra.Server;

/// <summary>Healthy when the database answers a question.</summary>
public sealed class DatabaseHealth(PalaestraDb db) : IHealthCheck
{
    public async Task<HealthCheckResult> CheckHealthAsync(
        HealthCheckContext context,
        CancellationToken cancellationToken = default
    )
    {
        try
        {
            await db.Database.ExecuteSqlRawAsync("SELECT 1 FROM Visits LIMIT 1", cancellationToken);
            return HealthCheckResult.Healthy();
        }
        catch (System.Data.Common.DbException problem)
        {
            return HealthCheckResult.Unhealthy("The database does not answer.", problem);
        }
    }
}
