using System.Net;
using System.Net.Sockets;
using System.Text.Json;
using Palaestra.Core;
using Palaestra.Core.Signals;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Instruments;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>A bridge of our own at the other end of the wire, that sends what a test wants to be sent.</summary>
public sealed class InstrumentTests : IDisposable
{
    private readonly TcpListener bridge = new(IPAddress.Loopback, 0);
    private readonly RunningServer server;

    public InstrumentTests()
    {
        bridge.Start();
        server = new RunningServer(instruments: bridge.LocalEndpoint.ToString());
    }

    public void Dispose()
    {
        bridge.Dispose();
        server.Dispose();
    }

    private async Task<Wire> Connected()
    {
        var wire = new Wire(await bridge.AcceptTcpClientAsync());
        await wire.Send(
            new(
                "device",
                "tilt-9",
                "tilt",
                100,
                ["pitch", "roll", "yaw"],
                0.5,
                [new("clean", "five clean reps")]
            )
        );
        return wire;
    }

    private static async Task<DeviceView> Seen(HttpClient browser, Func<DeviceView, bool> wanted)
    {
        for (var i = 0; i < 200; i++)
        {
            var all = await browser.Get<IReadOnlyList<DeviceView>>("/api/instruments");
            if (all.FirstOrDefault(d => d.Device == "tilt-9") is { } device && wanted(device))
            {
                return device;
            }
            await Task.Delay(50);
        }
        throw new TimeoutException("The instrument did not come to that.");
    }

    private static InstrumentLine Still(long first, int count, double pitch = 0) =>
        new(
            "samples",
            "tilt-9",
            First: first,
            Values: [.. Enumerable.Repeat<double[]?>([pitch, 0, 0], count)]
        );

    [Fact]
    public async Task A_device_is_told_of_with_what_the_content_says_of_its_kind_and_is_lost_and_found_again()
    {
        var browser = await server.SignedIn();
        var wire = await Connected();
        var device = await Seen(browser, d => d.Connected);
        Assert.Equal((100.0, 0.5, 3), (device.Setup.Rate, device.Battery, device.Setup.Channels.Count));
        wire.Dispose();
        await Seen(browser, d => !d.Connected);
        Assert.Empty(
            await browser
                .Post("/api/instruments/tilt-9/neutral", new { })
                .RefusedFields(HttpStatusCode.Conflict)
        );
        using var again = await Connected();
        await Seen(browser, d => d.Connected);
    }

    [Fact]
    public async Task Neutral_is_refused_until_three_seconds_are_there_and_quiet()
    {
        var browser = await server.SignedIn();
        using var wire = await Connected();
        await Seen(browser, d => d.Connected);
        Task<HttpResponseMessage> Take() => browser.Post("/api/instruments/tilt-9/neutral", new { });
        await wire.Send(Still(0, 100));
        Assert.Equal(["device"], await Take().RefusedFields(HttpStatusCode.UnprocessableEntity));
        await wire.Send(
            new(
                "samples",
                "tilt-9",
                First: 100,
                Values: [.. Enumerable.Range(0, 300).Select(i => new[] { 3 * Math.Sin(i / 20.0), 0, 0 })]
            )
        );
        await Task.Delay(200);
        Assert.Equal(["Pitch"], await Take().RefusedFields(HttpStatusCode.UnprocessableEntity));
        await wire.Send(Still(400, 300, pitch: 4));
        await Task.Delay(200);
        Assert.Equal([4, 0, 0], (await Take().Ok<DeviceView>()).Neutral!.Select(v => Math.Round(v, 6)));
    }

    [Fact]
    public async Task A_loss_is_told_with_its_moment_and_its_fault_within_the_second()
    {
        var browser = await server.SignedIn();
        using var wire = await Connected();
        await Seen(browser, d => d.Connected);
        await wire.Send(Still(0, 300));
        await Task.Delay(200);
        await browser.Post("/api/instruments/tilt-9/neutral", new { }).Ok<DeviceView>();
        using var stream = new StreamReader(await browser.GetStreamAsync("/api/instruments/tilt-9/stream"));
        // Two seconds inside, then 8 degrees forward.
        await wire.Send(Still(300, 200));
        await wire.Send(Still(500, 100, pitch: 8));
        var part = await Next(stream, p => p.Losses is [_, ..]);
        var loss = Assert.Single(part.Losses!);
        Assert.Equal((SignalChannel.Pitch, "arch"), (loss.Channel, loss.Fault));
        // The onset is the moment of sample 500; the batch that told it begins there.
        Assert.Equal(0, (loss.Onset - part.At).TotalSeconds, 0.05);
        Assert.True(part.Lost);
    }

    [Fact]
    public async Task What_is_no_line_or_of_a_kind_nobody_knows_is_passed_over()
    {
        var browser = await server.SignedIn();
        using var wire = await Connected();
        await wire.Write(
            "nonsense\n{\"kind\":\"device\",\"device\":\"x\",\"is\":\"scale\",\"rate\":10,\"channels\":[\"kg\"]}\n"
        );
        await wire.Send(Still(0, 10) with { Device = "nobody" });
        await wire.Send(new("battery", "tilt-9", Battery: 0.25));
        await Seen(browser, d => d.Battery == 0.25);
        Assert.Single(await browser.Get<IReadOnlyList<DeviceView>>("/api/instruments"));
    }

    [Fact]
    public async Task A_script_goes_to_the_device_and_one_it_has_not_is_refused()
    {
        var browser = await server.SignedIn();
        using var wire = await Connected();
        await Seen(browser, d => d.Connected);
        Task<HttpResponseMessage> Begin(string script) =>
            browser.Post("/api/instruments/tilt-9/script", new ScriptForm(script));
        Assert.Equal(["script"], await Begin("dance").RefusedFields(HttpStatusCode.UnprocessableEntity));
        (await Begin("clean")).EnsureSuccessStatusCode();
        Assert.Equal(("do", "clean"), (await wire.Read() is { } line ? (line.Kind, line.Script) : default));
    }

    private static async Task<LivePart> Next(StreamReader stream, Func<LivePart, bool> wanted)
    {
        using var soon = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        while (await stream.ReadLineAsync(soon.Token) is { } text)
        {
            if (
                text.StartsWith("data: ", StringComparison.Ordinal)
                && JsonSerializer.Deserialize<LivePart>(text[6..], CoreJson.Options) is { } part
                && wanted(part)
            )
            {
                return part;
            }
        }
        throw new TimeoutException("It was not told.");
    }

    private sealed class Wire(TcpClient client) : IDisposable
    {
        private readonly StreamReader reader = new(client.GetStream());

        public void Dispose() => client.Dispose();

        public Task Send(InstrumentLine line) => Write(line.Write() + "\n");

        public async Task Write(string text) =>
            await client.GetStream().WriteAsync(System.Text.Encoding.UTF8.GetBytes(text));

        public async Task<InstrumentLine?> Read() =>
            await reader.ReadLineAsync() is { } text ? InstrumentLine.Read(text) : null;
    }
}
