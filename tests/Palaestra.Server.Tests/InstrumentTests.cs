using System.Net;
using System.Text.Json;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Server.Instruments;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

public sealed class InstrumentTests : IDisposable
{
    private readonly Bridge bridge = new();
    private readonly RunningServer server;

    public InstrumentTests()
    {
        server = new RunningServer(instruments: bridge.Address);
    }

    public void Dispose()
    {
        bridge.Dispose();
        server.Dispose();
    }

    [Fact]
    public async Task A_device_is_told_of_with_what_the_content_says_of_its_kind_and_is_lost_and_found_again()
    {
        var browser = await server.SignedIn();
        var wire = await bridge.Connected();
        var device = await Bridge.Seen(browser, d => d.Connected);
        Assert.Equal((100.0, 0.5, 3), (device.Setup.Rate, device.Battery, device.Setup.Channels.Count));
        wire.Dispose();
        await Bridge.Seen(browser, d => !d.Connected);
        Assert.Empty(
            await browser
                .Post("/api/instruments/tilt-9/neutral", new { })
                .RefusedFields(HttpStatusCode.Conflict)
        );
        using var again = await bridge.Connected();
        await Bridge.Seen(browser, d => d.Connected);
    }

    [Fact]
    public async Task Neutral_is_refused_until_three_seconds_are_there_and_quiet()
    {
        var browser = await server.SignedIn();
        using var wire = await bridge.Connected();
        await Bridge.Seen(browser, d => d.Connected);
        Task<HttpResponseMessage> Take() => browser.Post("/api/instruments/tilt-9/neutral", new { });
        await wire.Send(Bridge.Still(0, 100));
        Assert.Equal(["device"], await Take().RefusedFields(HttpStatusCode.UnprocessableEntity));
        await wire.Send(
            new(
                "samples",
                "tilt-9",
                First: 100,
                Values: [.. Enumerable.Range(0, 300).Select(i => new[] { 3 * Math.Sin(i / 20.0), 0, 0 })]
            )
        );
        await Bridge.Until(async () =>
            (await Take().RefusedFields(HttpStatusCode.UnprocessableEntity)) is ["Pitch"]
        );
        await wire.Send(Bridge.Still(400, 300, pitch: 4));
        await Bridge.Until(async () => (await Take()).IsSuccessStatusCode);
        Assert.Equal([4, 0, 0], (await Take().Ok<DeviceView>()).Neutral!.Select(v => Math.Round(v, 6)));
    }

    [Fact]
    public async Task A_loss_is_told_with_its_moment_and_its_fault_within_the_second()
    {
        var browser = await server.SignedIn();
        using var wire = await bridge.Connected();
        await Bridge.Seen(browser, d => d.Connected);
        await wire.Send(Bridge.Still(0, 300));
        await Bridge.Neutral(browser);
        using var stream = new StreamReader(await browser.GetStreamAsync("/api/instruments/tilt-9/stream"));
        // Two seconds inside, then 8 degrees forward.
        await wire.Send(Bridge.Still(300, 200));
        await wire.Send(Bridge.Still(500, 100, pitch: 8));
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
        using var wire = await bridge.Connected();
        await wire.Write(
            "nonsense\n{\"kind\":\"device\",\"device\":\"x\",\"is\":\"scale\",\"rate\":10,\"channels\":[\"kg\"]}\n"
        );
        await wire.Send(Bridge.Still(0, 10) with { Device = "nobody" });
        await wire.Send(new("battery", "tilt-9", Battery: 0.25));
        await Bridge.Seen(browser, d => d.Battery == 0.25);
        Assert.Single(await browser.Get<IReadOnlyList<DeviceView>>("/api/instruments"));
    }

    [Fact]
    public async Task A_script_goes_to_the_device_and_one_it_has_not_is_refused()
    {
        var browser = await server.SignedIn();
        using var wire = await bridge.Connected();
        await Bridge.Seen(browser, d => d.Connected);
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
}
