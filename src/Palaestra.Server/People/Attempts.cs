using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Server.Problems;

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

    /// <summary>One after the other: many at once get no more looks than many in a row.</summary>
    private readonly PartitionedRateLimiter<string> turns = PartitionedRateLimiter.Create<string, string>(
        key =>
            RateLimitPartition.GetConcurrencyLimiter(
                key,
                _ => new ConcurrencyLimiterOptions { PermitLimit = 1, QueueLimit = WaitingMost }
            )
    );

    /// <summary>As many as may wait for their turn; a clinic's tablets in the morning are fewer.</summary>
    private const int WaitingMost = 100;

    public static string Of(string what, HttpContext context) =>
        $"{what.Trim().ToUpperInvariant()} {context.Connection.RemoteIpAddress}";

    public Task<Tried> Try(string key, Func<bool> right, CancellationToken gone) =>
        Try(key, () => Task.FromResult(right()), gone);

    /// <inheritdoc cref="Try(string, Func{bool}, CancellationToken)"/>
    public async Task<Tried> Try(string key, Func<Task<bool>> right, CancellationToken gone)
    {
        using var turn = await turns.AcquireAsync(key, 1, gone);
        if (!turn.IsAcquired || Spent(key))
        {
            return Tried.TooOften;
        }
        if (await right())
        {
            return Tried.Right;
        }
        wrong.AttemptAcquire(key).Dispose();
        return Tried.Wrong;
    }

    /// <summary>Answers for an address that is guessed as passwords are: some times as it is, then not at all.</summary>
    public async Task<ProblemHttpResult> NotThere(
        string what,
        HttpContext context,
        ProblemHttpResult answer
    ) =>
        await Try(Of(what, context), () => false, context.RequestAborted) == Tried.TooOften
            ? Problem.TooOften()
            : answer;

    /// <summary>No more are looked at in this window.</summary>
    public bool Spent(string key) => wrong.GetStatistics(key)?.CurrentAvailablePermits == 0;

    public void Dispose()
    {
        wrong.Dispose();
        turns.Dispose();
    }
}

public enum Tried
{
    Right,
    Wrong,

    /// <summary>Not looked at.</summary>
    TooOften,
}
