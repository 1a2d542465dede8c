using System.Collections.Concurrent;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Exchange.Instruments;

namespace Palaestra.Server.Instruments;

/// <summary>The devices that have been heard of, each with its last minutes.</summary>
public sealed class LiveDevices(PracticeLibrary library, TimeProvider time)
{
    private readonly ConcurrentDictionary<string, LiveDevice> devices = new();

    public IReadOnlyList<LiveDevice> Devices =>
        [.. devices.Values.OrderBy(d => d.Name, StringComparer.Ordinal)];

    public LiveDevice? Find(string name) => devices.GetValueOrDefault(name);

    /// <summary>A line of a device nobody has announced, or of a kind the content does not know, is passed over.</summary>
    public void Take(InstrumentLine line)
    {
        var now = time.GetUtcNow();
        if (line.Kind == "device")
        {
            Announce(line, now);
        }
        else if (Find(line.Device) is { } device)
        {
            if (line.Kind == "gone")
            {
                device.Be(connected: false, now);
            }
            else
            {
                device.Take(line, now);
            }
        }
    }

    private void Announce(InstrumentLine line, DateTimeOffset now)
    {
        var setup = library.Instruments.FirstOrDefault(kind =>
            kind.Id == line.Is
            && kind.Channels.Select(c => c.Channel.ToString())
                .SequenceEqual(line.Channels ?? [], StringComparer.OrdinalIgnoreCase)
        );
        var rate = line.Rate ?? setup?.Rate;
        if (setup is null || rate is not (>= Trace.LeastRate and <= Trace.MostRate))
        {
            return;
        }
        var device = devices.GetOrAdd(
            line.Device,
            name => new LiveDevice(name, setup with { Rate = rate.Value }, line.Scripts ?? [])
        );
        device.Be(connected: true, now);
        device.Take(line, now);
    }

    public void ConnectionLost()
    {
        foreach (var device in devices.Values.Where(d => d.Connected))
        {
            device.Be(connected: false, time.GetUtcNow());
        }
    }
}
