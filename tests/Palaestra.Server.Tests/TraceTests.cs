using System.Net;
using System.Text;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Data.Amendments;
using Palaestra.Data.Audit;
using Palaestra.Data.Traces;
using Palaestra.Exchange.Instruments;
using Palaestra.Server.Amendments;
using Palaestra.Server.Instruments;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>Traces of trials: kept from a live instrument, read in, looked at, taken out, damaged.</summary>
public sealed class TraceTests(WatchingServer watching) : IClassFixture<WatchingServer>
{
    private readonly RunningServer server = watching.Running;

    private sealed record Room(HttpClient Browser, Clinic Clinic, Opened Opened, Rung Rung)
    {
        public string Of(Guid trial) => $"/api/visits/{Opened.VisitId}/trials/{trial}/traces";
    }

    private async Task<Room> Opened()
    {
        var browser = await server.SignedIn();
        var clinic = new Clinic(browser);
        var library = await browser.Get<LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        return new(browser, clinic, await clinic.NewClient(), rung);
    }

    /// <summary>A trial of one side that is over, one to two hours ago.</summary>
    private static async Task<Guid> Trial(Room room, Side side)
    {
        var events = room.Clinic.Trial(room.Rung, side, room.Rung.Start, 2, 0);
        await room.Clinic.Send(room.Opened.VisitId, events).Ok<EventsTaken>();
        return events[0].TrialId;
    }

    /// <summary>A tilt sensor still for three seconds and then, from a moment on, 9 degrees forward.</summary>
    private static string Csv(double seconds, double lostAt)
    {
        var text = new StringBuilder(
            "# instrument: tilt\n# rate_hz: 100\n# neutral: pitch_deg=0 roll_deg=0 yaw_deg=0\n"
        );
        text.Append("time_s,pitch_deg,roll_deg,yaw_deg\n");
        for (var i = 0; i < seconds * 100; i++)
        {
            text.Append(
                FormattableString.Invariant($"{i / 100.0:0.00},{(i / 100.0 < lostAt ? 0 : 9)},0,0\n")
            );
        }
        return text.ToString();
    }

    private static Task<TraceEntry> ReadIn(Room room, Guid trial, string csv) =>
        room.Browser.Post(room.Of(trial) + "/file", new TraceFileForm(csv)).Ok<TraceEntry>();

    private string FileOf(TraceEntry entry) => Path.Combine(server.Folder, "traces", $"{entry.Id:N}.trace");

    [Fact]
    public async Task What_was_sent_during_a_trial_is_kept_with_its_neutral_and_by_the_tablets_clock()
    {
        var room = await Opened();
        var wire = await watching.Wire();
        await Bridge.Seen(room.Browser, d => d.Connected);
        await wire.Send(Bridge.Still(0, 300, pitch: 1));
        await Bridge.Neutral(room.Browser);

        // The tablet's clock is an hour slow.
        var slow = TimeSpan.FromHours(-1);
        var trial = Guid.CreateVersion7();
        DateTimeOffset Slow() => watching.Clock.GetUtcNow() + slow;
        TrialEnded End() => new(Guid.CreateVersion7(), trial, Slow(), EndReason.BreakingFault);
        var start = new TrialStarted(
            Guid.CreateVersion7(),
            trial,
            Slow(),
            room.Rung.Id,
            Side.Left,
            TrialPurpose.Screen,
            room.Rung.Start with
            {
                Sets = 1,
            }
        );
        for (var i = 0; i < 20; i++)
        {
            watching.Clock.Go(TimeSpan.FromSeconds(0.1));
            var charge = 0.5 + i / 100.0;
            await wire.Send(Bridge.Still(300 + 10 * i, 10, pitch: i < 10 ? 1 : 10, battery: charge));
            await Bridge.Seen(room.Browser, d => d.Battery == charge);
        }
        await room.Clinic.Send(room.Opened.VisitId, [start]).Ok<EventsTaken>();
        KeepTraceForm Form() => new("tilt-9", Slow());
        Assert.Empty(await room.Browser.Post(room.Of(trial), Form()).RefusedFields(HttpStatusCode.Conflict));
        var end = End();
        await room.Clinic.Send(room.Opened.VisitId, [end]).Ok<EventsTaken>();

        var kept = await room.Browser.Post(room.Of(trial), Form()).Ok<TraceEntry>();
        Assert.Equal((Instrument.Tilt, TraceSource.Live, 100.0), (kept.Instrument, kept.Source, kept.Rate));
        Assert.Equal(start.At, kept.StartedAt, TimeSpan.FromMilliseconds(1));
        Assert.Equal((end.At - start.At).TotalSeconds, kept.Seconds, 0.02);
        // Asked again it is the same one.
        Assert.Equal(kept.Id, (await room.Browser.Post(room.Of(trial), Form()).Ok<TraceEntry>()).Id);

        // Opened again and gone on with, it is the longer one.
        Undone Undo() => new(Guid.CreateVersion7(), trial, Slow(), end.Id);
        watching.Clock.Go(TimeSpan.FromSeconds(1.5));
        var later = End();
        await room.Clinic.Send(room.Opened.VisitId, [Undo(), later]).Ok<EventsTaken>();
        var longer = await room.Browser.Post(room.Of(trial), Form()).Ok<TraceEntry>();
        Assert.Equal((later.At - start.At).TotalSeconds, longer.Seconds, 0.02);
        Assert.False(File.Exists(FileOf(kept)));
        kept = longer;

        var view = await room.Browser.Get<TraceView>($"/api/traces/{kept.Id}");
        Assert.Equal(NeutralFrom.Taken, view.Reading.NeutralFrom);
        Assert.Equal(1, view.Reading.Neutral!.Levels[0], 6);
        var loss = Assert.Single(view.Reading.Losses);
        Assert.Equal("arch", loss.Fault);
        Assert.Equal(1, loss.Onset, 0.02);
        Assert.True(File.Exists(FileOf(kept)));
    }

    [Fact]
    public async Task A_trial_in_which_the_instrument_was_not_heard_has_no_trace()
    {
        var room = await Opened();
        var wire = await watching.Wire();
        await Bridge.Seen(room.Browser, d => d.Connected);
        var trial = await Trial(room, Side.Left);
        var now = DateTimeOffset.UtcNow;
        Task<HttpResponseMessage> Keep(string device, Guid of) =>
            room.Browser.Post(room.Of(of), new KeepTraceForm(device, now));
        Assert.Empty(await Keep("tilt-9", trial).RefusedFields(HttpStatusCode.Conflict));
        Assert.Empty(await Keep("nobody", trial).RefusedFields(HttpStatusCode.NotFound));
        Assert.Empty(await Keep("tilt-9", Guid.NewGuid()).RefusedFields(HttpStatusCode.NotFound));
    }

    [Fact]
    public async Task Whose_trace_was_looked_at_and_taken_out_stands_in_the_audit()
    {
        var room = await Opened();
        var entry = await ReadIn(room, await Trial(room, Side.Left), Csv(12, 8));
        await room.Browser.Get<TraceView>($"/api/traces/{entry.Id}");
        await room.Browser.GetStringAsync($"/api/traces/{entry.Id}/file.csv");
        var page = await room.Browser.Get<Server.Audit.AuditPage>(
            $"/api/audit?episode={room.Opened.EpisodeId}"
        );
        Assert.Contains(page.Lines, l => l is { Kind: AuditKind.View, What: "GetTrace" });
        Assert.Contains(page.Lines, l => l is { Kind: AuditKind.Export, What: "GetTraceFile" });
    }

    [Fact]
    public async Task A_file_is_read_in_taken_out_and_read_in_again_the_same()
    {
        var room = await Opened();
        var entry = await ReadIn(room, await Trial(room, Side.Left), Csv(12, 8));
        var first = await room.Browser.GetStringAsync($"/api/traces/{entry.Id}/file.csv");
        var again = await ReadIn(room, await Trial(room, Side.Right), first);
        var second = await room.Browser.GetStringAsync($"/api/traces/{again.Id}/file.csv");
        string Rows(string csv) => csv[csv.IndexOf("time_s", StringComparison.Ordinal)..];
        Assert.Equal(Rows(first), Rows(second));
        Assert.Equal(1204, first.Split("\r\n").Length - 2);
        var view = await room.Browser.Get<TraceView>($"/api/traces/{entry.Id}?from=7&seconds=2&pieces=100");
        Assert.Equal((7, 2, 100), (view.From, view.Shown, view.Shapes[0].High.Count));
        Assert.Equal((0, 9), (view.Shapes[0].High[0], view.Shapes[0].High[^1]));
        Assert.Equal(
            2,
            (
                await room.Browser.Get<IReadOnlyList<TraceEntry>>($"/api/visits/{room.Opened.VisitId}/traces")
            ).Count
        );
    }

    [Fact]
    public async Task Both_sides_of_a_task_are_set_beside_each_other()
    {
        var room = await Opened();
        var left = await ReadIn(room, await Trial(room, Side.Left), Csv(12, 8));
        Assert.Empty((await room.Browser.Get<TraceView>($"/api/traces/{left.Id}")).Sides);
        var right = await ReadIn(room, await Trial(room, Side.Right), Csv(12, 4));
        var view = await room.Browser.Get<TraceView>($"/api/traces/{left.Id}");
        Assert.Equal(right.Id, view.OtherSide);
        Assert.Equal((8, 4), (Math.Round(view.Sides[0].Left), Math.Round(view.Sides[0].Right)));
        Assert.Equal(Side.Right, view.Sides[0].Less);
    }

    [Fact]
    public async Task A_second_trace_of_the_same_instrument_is_refused_until_the_first_is_taken_away()
    {
        var room = await Opened();
        var trial = await Trial(room, Side.Left);
        var entry = await ReadIn(room, trial, Csv(5, 9));
        Assert.Empty(
            await room
                .Browser.Post(room.Of(trial) + "/file", new TraceFileForm(Csv(6, 9)))
                .RefusedFields(HttpStatusCode.Conflict)
        );
        Assert.Equal(
            ["reason"],
            await room
                .Browser.DeleteAsync($"/api/traces/{entry.Id}")
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.True(File.Exists(FileOf(entry)));
        (
            await room.Browser.DeleteAsync($"/api/traces/{entry.Id}?reason=the%20strap%20slipped")
        ).EnsureSuccessStatusCode();
        Assert.False(File.Exists(FileOf(entry)));
        var change = Assert.Single(
            await room.Browser.Get<IReadOnlyList<RecordChange>>(
                $"/api/episodes/{room.Opened.EpisodeId}/amendments"
            )
        );
        Assert.Equal((AmendedPart.Trace, "the strap slipped"), (change.Entry, change.Reason));
        Assert.Equal(6, (await ReadIn(room, trial, Csv(6, 9))).Seconds);
    }

    [Fact]
    public async Task Wrong_rows_are_told_and_nothing_is_kept()
    {
        var room = await Opened();
        var trial = await Trial(room, Side.Left);
        var csv = Csv(5, 9).Replace("0.50,0,0,0", "0.50,zero,0,0", StringComparison.Ordinal);
        Assert.Equal(
            ["line 55, pitch_deg"],
            await room
                .Browser.Post(room.Of(trial) + "/file", new TraceFileForm(csv))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.Empty(
            await room.Browser.Get<IReadOnlyList<TraceEntry>>($"/api/visits/{room.Opened.VisitId}/traces")
        );
    }

    [Fact]
    public async Task The_columns_of_a_file_are_shown_with_a_guess()
    {
        var room = await Opened();
        var columns = await room
            .Browser.Post("/api/traces/columns", new TraceHeadForm("t;Pressure kPa\n0;5,3\n"))
            .Ok<TraceColumns>();
        Assert.Equal("cuff", columns.Guess.Instrument);
        Assert.Equal(TraceUnit.Kilopascal, columns.Guess.Channels[0].Unit);
        Assert.Equal(["0", "5,3"], columns.Examples[0]);
        Assert.Equal(
            ["csv"],
            await room
                .Browser.Post("/api/traces/columns", new TraceHeadForm(""))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task An_hour_is_taken_in_and_looked_at()
    {
        var room = await Opened();
        var entry = await ReadIn(room, await Trial(room, Side.Left), Csv(3600, 3000));
        var view = await room.Browser.Get<TraceView>($"/api/traces/{entry.Id}");
        Assert.Equal(3600, view.Trace.Seconds);
        Assert.Equal(3000, Assert.Single(view.Reading.Losses).Onset, 0.05);
        Assert.Equal(1000, view.Shapes[0].High.Count);
    }

    /// <summary>Half of a file, other bytes in it, or no file at all.</summary>
    [Theory]
    [InlineData("half")]
    [InlineData("other")]
    [InlineData("gone")]
    public async Task A_damaged_file_is_told_and_leaves_the_trial_as_it_is(string harm)
    {
        var room = await Opened();
        var trial = await Trial(room, Side.Left);
        var entry = await ReadIn(room, trial, Csv(5, 3));
        var path = FileOf(entry);
        var bytes = await File.ReadAllBytesAsync(path);
        switch (harm)
        {
            case "half":
                await File.WriteAllBytesAsync(path, bytes[..(bytes.Length / 2)]);
                break;
            case "other":
                bytes[bytes.Length / 2] ^= 0x40;
                await File.WriteAllBytesAsync(path, bytes);
                break;
            default:
                File.Delete(path);
                break;
        }
        Assert.Empty(
            await room.Browser.GetAsync($"/api/traces/{entry.Id}").RefusedFields(HttpStatusCode.Conflict)
        );
        Assert.Empty(
            await room
                .Browser.GetAsync($"/api/traces/{entry.Id}/file.csv")
                .RefusedFields(HttpStatusCode.Conflict)
        );
        var screen = await room.Browser.Get<ScreenView>($"/api/visits/{room.Opened.VisitId}/screen");
        Assert.Contains(screen.Trials, t => t.Id == trial);
        (
            await room.Browser.DeleteAsync($"/api/traces/{entry.Id}?reason=the%20strap%20slipped")
        ).EnsureSuccessStatusCode();
    }
}
