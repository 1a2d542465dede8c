namespace Palaestra.Server.Screening;

/// <summary>
/// One tap is written after the other. The store takes one writer at a time and lets the others sleep for 150 ms before they try
/// again; here they wait their turn and no longer.
/// </summary>
public sealed class TapQueue : IDisposable
{
    private readonly SemaphoreSlim turn = new(1, 1);

    public async Task Write(Func<Task> write)
    {
        await turn.WaitAsync();
        try
        {
            await write();
        }
        finally
        {
            turn.Release();
        }
    }

    public void Dispose() => turn.Dispose();
}
