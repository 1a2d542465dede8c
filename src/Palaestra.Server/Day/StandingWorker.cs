namespace Palaestra.Server.Day;

/// <summary>
/// Works out where episodes stand, beside the requests that ask for it: reading the day writes nothing. It sleeps until somebody
/// asks; at the start it asks itself, for what was left.
/// </summary>
public sealed class StandingWorker(
    IServiceScopeFactory scopes,
    TimeProvider time,
    ILogger<StandingWorker> log
) : BackgroundService
{
    /// <summary>So long the day waits for what was written just before it was asked for; then it tells how many are left.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(2);

    private readonly SemaphoreSlim asked = new(0);
    private readonly Lock turning = new();
    private TaskCompletionSource next = NewRound();

    /// <summary>Ends when everything that was marked before has been worked out, or after two seconds.</summary>
    public async Task CaughtUp(CancellationToken cancel)
    {
        Task round;
        lock (turning)
        {
            round = next.Task;
        }
        asked.Release();
        try
        {
            await round.WaitAsync(Patience, time, cancel);
        }
        catch (TimeoutException)
        {
            // The day is told as far as it is known.
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        asked.Release();
        while (!stoppingToken.IsCancellationRequested)
        {
            await asked.WaitAsync(stoppingToken);
            while (asked.Wait(0, CancellationToken.None)) { }
            TaskCompletionSource round;
            lock (turning)
            {
                (round, next) = (next, NewRound());
            }
            await Round(stoppingToken);
            round.SetResult();
        }
    }

    private async Task Round(CancellationToken stopping)
    {
        try
        {
            Guid? after = Guid.Empty;
            while (after is { } last && !stopping.IsCancellationRequested)
            {
                await using var scope = scopes.CreateAsyncScope();
                after = await scope.ServiceProvider.GetRequiredService<StandingReview>().Refresh(last);
            }
        }
        // Whatever it was: the server goes on, and the next who asks tries again.
        catch (Exception problem) when (problem is not OperationCanceledException)
        {
            log.LogError(problem, "The day is told as it was known last.");
        }
    }

    private static TaskCompletionSource NewRound() => new(TaskCreationOptions.RunContinuationsAsynchronously);

    public override void Dispose()
    {
        asked.Dispose();
        base.Dispose();
    }
}
