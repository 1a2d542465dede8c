namespace Palaestra.Server.Instruments;

/// <summary>Listens to the source as long as the server runs, and connects again when the connection is lost.</summary>
public sealed class InstrumentListener(IInstrumentSource source, LiveDevices devices) : BackgroundService
{
    private static readonly TimeSpan Again = TimeSpan.FromSeconds(1);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            while (!stoppingToken.IsCancellationRequested)
            {
                await foreach (var line in source.Lines(stoppingToken))
                {
                    devices.Take(line);
                }
                devices.ConnectionLost();
                await Task.Delay(Again, stoppingToken);
            }
        }
        catch (OperationCanceledException) { }
    }
}
