using System.Net.Sockets;
using System.Runtime.CompilerServices;
using System.Text;
using Palaestra.Exchange.Instruments;

namespace Palaestra.Server.Instruments;

/// <summary>Lines over TCP. What is no line of the protocol is passed over.</summary>
public sealed class LineSource(string host, int port) : IInstrumentSource
{
    private volatile NetworkStream? open;

    public async IAsyncEnumerable<InstrumentLine> Lines([EnumeratorCancellation] CancellationToken stop)
    {
        using var client = new TcpClient { NoDelay = true };
        try
        {
            await client.ConnectAsync(host, port, stop);
        }
        catch (SocketException)
        {
            yield break;
        }
        await using var stream = client.GetStream();
        open = stream;
        try
        {
            using var reader = new StreamReader(stream, Encoding.UTF8);
            while (await Next(reader, stop) is { } text)
            {
                if (InstrumentLine.Read(text) is { } line)
                {
                    yield return line;
                }
            }
        }
        finally
        {
            open = null;
        }
    }

    private static async Task<string?> Next(StreamReader reader, CancellationToken stop)
    {
        try
        {
            return await reader.ReadLineAsync(stop);
        }
        catch (IOException)
        {
            return null;
        }
    }

    public async Task Tell(InstrumentLine line, CancellationToken stop)
    {
        if (open is { } stream)
        {
            try
            {
                await stream.WriteAsync(Encoding.UTF8.GetBytes(line.Write() + "\n"), stop);
            }
            catch (Exception gone) when (gone is IOException or ObjectDisposedException)
            {
                // The reader notices by itself and connects again.
            }
        }
    }
}
