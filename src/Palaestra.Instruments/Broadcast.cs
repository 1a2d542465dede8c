using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Sockets;
using System.Text;
using Palaestra.Exchange.Instruments;

namespace Palaestra.Instruments;

/// <summary>Sends the samples of its devices to one caller as time passes, a little late, as a radio does.</summary>
internal sealed class Broadcast(TcpClient caller, int pairs)
{
    private const double BatchSeconds = 0.05;

    private readonly ConcurrentQueue<InstrumentLine> told = new();
    private readonly Random late = new(7);

    public async Task Run(CancellationToken stop)
    {
        using var held = caller;
        caller.NoDelay = true;
        var stream = caller.GetStream();
        var devices = Enumerable
            .Range(1, pairs)
            .SelectMany(i =>
                new[]
                {
                    ($"cuff-{i}", new SimulatedDevice(DeviceKind.Cuff, 100 + i)),
                    ($"tilt-{i}", new SimulatedDevice(DeviceKind.Tilt, 200 + i)),
                }
            )
            .ToDictionary(pair => pair.Item1, pair => pair.Item2);
        try
        {
            using var writer = new StreamWriter(stream, new UTF8Encoding(false))
            {
                AutoFlush = false,
                NewLine = "\n",
            };
            _ = Listen(stream, stop);
            foreach (var (name, device) in devices)
            {
                await writer.WriteLineAsync(Hello(name, device).Write());
            }
            await writer.FlushAsync(stop);
            var clock = Stopwatch.StartNew();
            while (!stop.IsCancellationRequested)
            {
                Obey(devices);
                foreach (var (name, device) in devices)
                {
                    foreach (var line in Due(name, device, clock.Elapsed.TotalSeconds))
                    {
                        await writer.WriteLineAsync(line.Write());
                    }
                }
                await writer.FlushAsync(stop);
                await Task.Delay(TimeSpan.FromSeconds(BatchSeconds + 0.02 * late.NextDouble()), stop);
            }
        }
        catch (Exception gone) when (gone is IOException or OperationCanceledException or SocketException) { }
    }

    private static InstrumentLine Hello(string name, SimulatedDevice device) =>
        new(
            "device",
            name,
            device.Kind.Id,
            device.Kind.Rate,
            device.Kind.Channels,
            0.9,
            [.. device.Kind.Scripts.Select(s => new InstrumentScript(s.Id, s.Words))]
        );

    /// <summary>What has been measured since the last time; dropped samples are empty.</summary>
    private static IEnumerable<InstrumentLine> Due(string name, SimulatedDevice device, double now)
    {
        var first = device.Next;
        var count = (int)(now * device.Kind.Rate) - (int)first;
        if (count <= 0)
        {
            yield break;
        }
        var samples = Enumerable.Range(0, count).Select(_ => device.Sample()).ToList();
        if (samples.Any(sample => sample is not null))
        {
            yield return new InstrumentLine(
                "samples",
                name,
                First: first,
                Values: [.. samples.Select(sample => sample?.Select(v => Math.Round(v, 3)).ToArray())]
            );
        }
        // A percent every ten minutes.
        if (first / (int)device.Kind.Rate / 60 != device.Next / (int)device.Kind.Rate / 60)
        {
            yield return new InstrumentLine("battery", name, Battery: Math.Max(0, 0.9 - 0.001 * now / 60));
        }
    }

    private void Obey(Dictionary<string, SimulatedDevice> devices)
    {
        while (told.TryDequeue(out var line))
        {
            if (
                line is { Kind: "do", Script: { } script }
                && devices.TryGetValue(line.Device, out var device)
            )
            {
                device.Begin(script);
            }
        }
    }

    private async Task Listen(NetworkStream stream, CancellationToken stop)
    {
        try
        {
            using var reader = new StreamReader(stream, leaveOpen: true);
            while (await reader.ReadLineAsync(stop) is { } text)
            {
                if (InstrumentLine.Read(text) is { } line)
                {
                    told.Enqueue(line);
                }
            }
        }
        catch (Exception gone) when (gone is IOException or OperationCanceledException) { }
    }
}
