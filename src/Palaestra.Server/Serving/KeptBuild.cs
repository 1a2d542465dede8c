namespace Palaestra.Server.Serving;

/// <summary>Keeps the build that is served, once the server runs.</summary>
public sealed partial class KeptBuild(Settings settings, ClientBuild client, ILogger<KeptBuild> log)
    : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        // Nothing of the start waits for it.
        await Task.Yield();
        try
        {
            if (client.Now is { } page)
            {
                new KeptFiles(settings).Keep(page.Build);
            }
        }
        catch (Exception problem) when (problem is IOException or UnauthorizedAccessException)
        {
            NotKept(problem);
        }
    }

    [LoggerMessage(
        LogLevel.Warning,
        "The client's files could not be kept for pages that stay open over an update."
    )]
    private partial void NotKept(Exception problem);
}
