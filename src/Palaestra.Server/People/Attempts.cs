using System.Threading.RateLimiting;

namespace Palaestra.Server.People;

/// <summary>
/// How often something secret was got wrong. For sign-ins by account and address together: tablets share one address, and
/// nobody can lock a colleague out.
/// </summary>
public sealed class Attempts : IDisposable
{
    /// <summary>Wrong ones in a window, then no more are looked at. Common practice.</summary>
    public const int Most = 5;

    /// <summary>Common practice.</summary>
    public static readonly TimeSpan Window = TimeSpan.FromMinutes(5);

    private readonly PartitionedRateLimiter<string> wrong = PartitionedRateLimiter.Create<string, string>(
        key =>
            RateLimitPartition.GetFixedWindowLimiter(
                key,
                _ => new FixedWindowRateLimiterOptions
                {
                    PermitLimit = Most,
                    Window = Window,
                    QueueLimit = 0,
                }
            )
    );

    public static string Of(string what, HttpContext context) =>
        $"{what.Trim().ToUpperInvariant()} {context.Connection.RemoteIpAddress}";

    public bool TooMany(string key) => wrong.GetStatistics(key)?.CurrentAvailablePermits == 0;

    public void Failed(string key) => wrong.AttemptAcquire(key).Dispose();

    public void Dispose() => wrong.Dispose();
}
