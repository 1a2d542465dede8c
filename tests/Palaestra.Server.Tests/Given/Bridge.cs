using System.Net;
using System.Net.Sockets;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Instruments;

namespace Palaestra.Server.Tests.Given;

/// <summary>A bridge of our own at the other end of the wire, that sends what a test wants to be sent.</summary>
public sealed class Bridge : IDisposable
{
    public const string Device = "tilt-9";

    private readonly TcpListener listener = new(IPAddress.Loopback, 0);

    public Bridge()
    {
        listener.Start();
    }

    public string Address => listener.LocalEndpoint.ToString()!;

    public void Dispose() => listener.Dispose();

    /// <summary>The server's connection, with a tilt sensor announced on it.</summary>
    public async Task<Wire> Connected()
    {
        var wire = new Wire(await listener.AcceptTcpClientAsync());
        await wire.Send(
            new(
                "device",
                Device,
                "tilt",
                100,
                ["pitch", "roll", "yaw"],
                0.5,
                [new("clean", "five clean reps")]
            )
        );
        return wire;
    }

    public static async Task<DeviceView> Seen(HttpClient browser, Func<DeviceView, bool> wanted)
    {
        for (var i = 0; i < 200; i++)
        {
            var all = await browser.Get<IReadOnlyList<DeviceView>>("/api/instruments");
            if (all.FirstOrDefault(d => d.Device == Device) is { } device && wanted(device))
            {
                return device;
            }
            await Task.Delay(50);
        }
        throw new TimeoutException("The instrument did not come to that.");
    }

    /// <summary>Takes neutral as soon as the samples that were sent have arrived.</summary>
    public static Task Neutral(HttpClient browser) =>
        Until(async () =>
            (await browser.Post($"/api/instruments/{Device}/neutral", new { })).IsSuccessStatusCode
        );

    /// <summary>Asks again until it is so; ten seconds at most.</summary>
    public static async Task Until(Func<Task<bool>> so)
    {
        for (var i = 0; i < 500; i++)
        {
            if (await so())
            {
                return;
            }
            await Task.Delay(20);
        }
        throw new TimeoutException("It did not come to that.");
    }

    /// <summary>Its battery is what it can be known by when it has arrived.</summary>
    public static InstrumentLine Still(long first, int count, double pitch = 0, double? battery = null) =>
        new(
            "samples",
            Device,
            Battery: battery,
            First: first,
            Values: [.. Enumerable.Repeat<double[]?>([pitch, 0, 0], count)]
        );
}

/// <summary>One connection as the bridge sees it.</summary>
public sealed class Wire(TcpClient client) : IDisposable
{
    private readonly StreamReader reader = new(client.GetStream());

    public void Dispose() => client.Dispose();

    public Task Send(InstrumentLine line) => Write(line.Write() + "\n");

    public async Task Write(string text) =>
        await client.GetStream().WriteAsync(System.Text.Encoding.UTF8.GetBytes(text));

    public async Task<InstrumentLine?> Read() =>
        await reader.ReadLineAsync() is { } text ? InstrumentLine.Read(text) : null;
}
