using System.Text.Json;
using Palaestra.Core.Capture;
using Palaestra.Core.Photos;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

/// <summary>
/// The tapes that tablet and server must both fold the same: client/src/capture/fold.test.ts reads the same files. A tape says
/// what is right; where the fold is changed on purpose they are written anew (PALAESTRA_WRITE_TAPES=1, then run this test).
/// </summary>
public class GoldenTapeTests
{
    public static TheoryData<int> Files => [.. Enumerable.Range(0, TapeWriter.Files)];

    [Theory]
    [MemberData(nameof(Files))]
    public void Every_tape_folds_as_it_is_written(int file)
    {
        if (Environment.GetEnvironmentVariable("PALAESTRA_WRITE_TAPES") == "1")
        {
            Directory.CreateDirectory(TapeWriter.Folder);
            File.WriteAllText(TapeWriter.FileOf(file), TapeWriter.Json(file));
        }
        var kept = JsonSerializer.Deserialize<List<GoldenTape>>(
            File.ReadAllText(TapeWriter.FileOf(file)),
            TapeWriter.Options
        )!;
        Assert.Equal(TapeWriter.PerFile, kept.Count);
        foreach (var tape in kept)
        {
            var policy = Content.Library.FindPolicy(tape.PolicyId)!;
            var answer = FoldAnswer.Of(tape.Events, policy, Content.Library, tape.PainNow);
            Assert.Equal(
                JsonSerializer.Serialize(tape.Expect, TapeWriter.Options),
                JsonSerializer.Serialize(
                    new GoldenExpect(answer.Trials, answer.Stop, answer.Session),
                    TapeWriter.Options
                )
            );
        }
    }

    /// <summary>Stale: the seed would write other tapes by now.</summary>
    [Theory]
    [MemberData(nameof(Files))]
    public void The_tapes_are_those_of_their_seed(int file) =>
        Assert.Equal(TapeWriter.Json(file), File.ReadAllText(TapeWriter.FileOf(file)));

    [Fact]
    public void There_are_enough_of_them_and_they_hold_every_kind_of_event()
    {
        var events = Enumerable
            .Range(0, TapeWriter.Files)
            .SelectMany(TapeWriter.Of)
            .SelectMany(tape => tape.Events)
            .ToList();
        Assert.True(TapeWriter.Files * TapeWriter.PerFile >= 500);
        Assert.Empty(
            Enum.GetValues<CaptureKind>()
                .Except(events.Select(e => e.Kind))
                .Except([CaptureKind.PhotoMeasured])
        );
    }

    [Fact]
    public void Nothing_in_a_tape_would_be_refused_by_the_server()
    {
        foreach (var tape in TapeWriter.Of(0))
        {
            // A tablet tells what begins before what follows, whatever its clock says.
            var ordered = tape
                .Events.OrderBy(e => !e.Begins)
                .ThenBy(e => e is Undone)
                .ThenBy(e => e.At)
                .ToList();
            Assert.Empty(CaptureCheck.Errors([], ordered, Content.Library));
        }
    }
}
