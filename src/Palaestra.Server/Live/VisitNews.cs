using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace Palaestra.Server.Live;

/// <param name="VisitId">A visit that has new events; none: what was missed is not known any more, everything is to be asked again.</param>
public sealed record News(Guid? VisitId);

/// <param name="Id">By which a browser takes up again where it was; none for a sign of life.</param>
/// <param name="News">None for a sign of life.</param>
public sealed record NewsItem(string? Id, News? News);

/// <summary>Tells browsers which visits have new events, as they are stored. The last are kept, so that a gap is made up for.</summary>
public sealed class VisitNews
{
    private const int KeptMost = 512;

    /// <summary>Waiting for one browser; one that does not read is told to ask for everything.</summary>
    private const int WaitingMost = 256;

    // Numbers of a server that was started again say nothing.
    private readonly string start = Guid.NewGuid().ToString("N")[..8];
    private readonly Lock gate = new();
    private readonly Queue<(long Number, Guid VisitId)> kept = [];
    private ImmutableList<Channel<(long Number, Guid? VisitId)>> listening = [];
    private long last;

    public void Tell(Guid visitId)
    {
        lock (gate)
        {
            last++;
            kept.Enqueue((last, visitId));
            if (kept.Count > KeptMost)
            {
                kept.Dequeue();
            }
            foreach (var channel in listening)
            {
                channel.Writer.TryWrite((last, visitId));
            }
        }
    }

    /// <summary>Everything is to be asked again.</summary>
    public void TellAll()
    {
        lock (gate)
        {
            foreach (var channel in listening)
            {
                channel.Writer.TryWrite((last, null));
            }
        }
    }

    /// <param name="lastId">What the browser heard last; none: it begins.</param>
    /// <param name="beat">A sign of life after each such silence.</param>
    /// <param name="still">Asked at each sign of life: false ends the stream.</param>
    public async IAsyncEnumerable<NewsItem> Listen(
        string? lastId,
        TimeSpan beat,
        Func<Task<bool>> still,
        [EnumeratorCancellation] CancellationToken gone
    )
    {
        var channel = Channel.CreateBounded<(long Number, Guid? VisitId)>(
            new BoundedChannelOptions(WaitingMost) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        var heard = Begin(channel, lastId);
        try
        {
            // At once, so that the browser knows the stream is there.
            yield return new(null, null);
            while (!gone.IsCancellationRequested)
            {
                if (!await Arrived(channel, beat, gone))
                {
                    if (!await still())
                    {
                        yield break;
                    }
                    yield return new(null, null);
                    continue;
                }
                while (channel.Reader.TryRead(out var told))
                {
                    // Dropped for a browser that did not read: what it missed is not known.
                    var missed = told.VisitId is not null && told.Number > heard + 1;
                    heard = told.Number;
                    yield return new(Id(told.Number), new News(missed ? null : told.VisitId));
                }
            }
        }
        finally
        {
            lock (gate)
            {
                listening = listening.Remove(channel);
            }
        }
    }

    /// <returns>The number from which on the browser is told.</returns>
    private long Begin(Channel<(long Number, Guid? VisitId)> channel, string? lastId)
    {
        lock (gate)
        {
            listening = listening.Add(channel);
            if (lastId is null)
            {
                return last;
            }
            if (
                Number(lastId) is not { } number
                || number > last
                || kept.FirstOrDefault().Number > number + 1
            )
            {
                channel.Writer.TryWrite((last, null));
                return last;
            }
            foreach (var told in kept.Where(one => one.Number > number))
            {
                channel.Writer.TryWrite((told.Number, told.VisitId));
            }
            return number;
        }
    }

    private static async Task<bool> Arrived(
        Channel<(long Number, Guid? VisitId)> channel,
        TimeSpan beat,
        CancellationToken gone
    )
    {
        using var pause = CancellationTokenSource.CreateLinkedTokenSource(gone);
        pause.CancelAfter(beat);
        try
        {
            return await channel.Reader.WaitToReadAsync(pause.Token);
        }
        catch (OperationCanceledException)
        {
            return false;
        }
    }

    private string Id(long number) => string.Create(CultureInfo.InvariantCulture, $"{start}-{number}");

    /// <summary>None for an id of another start.</summary>
    private long? Number(string id) =>
        id.StartsWith($"{start}-", StringComparison.Ordinal)
        && long.TryParse(id.AsSpan(start.Length + 1), CultureInfo.InvariantCulture, out var number)
            ? number
            : null;
}
