using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Findings;

/// <summary>What was seen is what is found and prescribed, no more.</summary>
public class SeenTests
{
    private static readonly PracticeLibrary Library = Content.Library;
    private static readonly Ladder LegLowering = Library.Ladders.First(l => l.Id == "B");

    private static ScreenFindings Found(Tape tape) =>
        FindingsMaker.Of(tape.Trials(), Someone.Calm, Content.Policy, Library);

    private static Plan Planned(ScreenFindings findings) =>
        Planner
            .Propose(
                new PlanInput(
                    Someone.Calm,
                    findings,
                    Content.Policy.Id,
                    SpinalStrategy.Neutral,
                    Activation.Brace,
                    30
                ),
                Library,
                Guid.NewGuid
            )
            .Plan;

    /// <summary>As many clean reps as the start dose asks, to a share of the way, on both sides.</summary>
    private static Tape Clean(string rungId, double share)
    {
        var rung = Library.Rung(rungId);
        var tape = new Tape();
        foreach (var side in rung.TaskSides)
        {
            tape.Start(rungId, side).Range(share: share).Reps(rung.Start.Reps, rung.Start.Hold).End();
        }
        return tape;
    }

    [Theory]
    [InlineData(0.5)]
    [InlineData(0.75)]
    public void Clean_to_half_the_way_is_prescribed_to_half_the_way(double share)
    {
        var lowest = LegLowering.Rungs[0].Id;
        var tape = Clean(lowest, share);
        var findings = Found(tape);
        var entry = findings.Entries.First(e => e.LadderId == "B" && e.Side == Side.Left);
        Assert.Equal((lowest, share), (entry.EntryRungId, entry.Range));
        var item = Planned(findings).Items.FirstOrDefault(i => i.RungId == lowest);
        Assert.NotNull(item);
        Assert.All(item.Doses, d => Assert.Equal(share, d.Dose.Range));
    }

    [Fact]
    public void A_failed_side_plank_is_never_everything_held_clean()
    {
        var plank = Library.Ladders.First(l => l.Direction == Direction.Side).Rungs[^1];
        var tape = new Tape();
        foreach (var side in plank.TaskSides)
        {
            tape.Start(plank.Id, side).HoldStart().Fault(plank.Faults[0], 2).End(EndReason.Stopped);
        }
        var findings = Found(tape);
        Assert.DoesNotContain("verything", findings.Sentence.En(), StringComparison.Ordinal);
        Assert.Contains(
            "side of the trunk loses control first",
            findings.Sentence.En(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Pain_that_ended_a_trial_without_a_fault_says_nothing_of_control()
    {
        var tape = new Tape().Start("B5", Side.Left).Reps(1).Pain(PainPhase.Peak, 6).End(EndReason.Pain);
        var findings = Found(tape);
        Assert.True(
            findings.WeakLink is null or { Type: WeakType.PainLimited },
            findings.WeakLink?.ToString()
        );
        Assert.DoesNotContain("verything", findings.Sentence.En(), StringComparison.Ordinal);
    }

    public static TheoryData<string> Rungs => [.. Library.Ladders.SelectMany(l => l.Rungs).Select(r => r.Id)];

    [Theory]
    [MemberData(nameof(Rungs))]
    public void A_fault_points_only_to_a_direction_that_the_rung_asks_for(string rungId)
    {
        var rung = Library.Rung(rungId);
        var asked = Library.DemandsOf(rung).Select(d => d.Direction).ToHashSet();
        foreach (var fault in Library.Faults)
        {
            var (direction, on) = FaultPointing.Of(fault, rung, Library);
            Assert.True(
                direction == Direction.None || asked.Contains(direction),
                $"{fault.Code} in {rungId}: {direction}"
            );
            Assert.True(
                direction == Direction.None
                    || Library.DemandsOf(rung).Any(d => d.Direction == direction && d.On == on),
                $"{fault.Code} in {rungId}: {direction} on {on}"
            );
        }
    }

    [Theory]
    [InlineData("H1", "sag", Direction.Front)]
    [InlineData("G3", "sag", Direction.Side)]
    public void Sinking_hips_are_the_front_in_a_plank_and_the_side_in_a_side_plank(
        string rung,
        string fault,
        Direction direction
    ) =>
        Assert.Equal(
            direction,
            FaultPointing
                .Of(Library.Faults.First(f => f.Code == fault), Library.Rung(rung), Library)
                .Direction
        );

    /// <summary>Adding clean reps to the last trial of a screen never lowers the entry.</summary>
    [Fact]
    public void The_entry_never_falls_with_a_better_trial() =>
        Gen.Int[0, int.MaxValue - 1]
            .Sample(
                seed =>
                {
                    var dice = new Random(seed);
                    var ladder = Library.TrainedLadders.ElementAt(dice.Next(Library.TrainedLadders.Count()));
                    var rungs = ladder.Rungs.OrderBy(_ => dice.Next()).Take(dice.Next(1, 4)).ToList();
                    var outcomes = rungs.ConvertAll(_ => dice.Next(0, 3));
                    var better = dice.Next(rungs.Count);
                    int Height(int raised)
                    {
                        var tape = new Tape();
                        for (var i = 0; i < rungs.Count; i++)
                        {
                            var rung = rungs[i];
                            var side = rung.Sides == RungSides.Each ? Side.Left : Side.Both;
                            var how = Math.Min(2, outcomes[i] + (i == better ? raised : 0));
                            tape.Start(rung.Id, side);
                            tape = how switch
                            {
                                0 => tape.Rep(rung.Start.Hold, rung.Faults[0], 0.5)
                                    .Rep(rung.Start.Hold, rung.Faults[0], 0.5),
                                1 => tape.Range(share: 0.5).Reps(rung.Start.Reps, rung.Start.Hold),
                                _ => tape.Reps(rung.Start.Reps, rung.Start.Hold),
                            };
                            tape.End();
                        }
                        var found = RungFinder.Search(
                            ladder,
                            Side.Left,
                            tape.Trials(),
                            Someone.Calm,
                            Content.Policy,
                            Library
                        );
                        return found.EntryRungId is { } id
                            ? 100 * ladder.IndexOf(id) + (int)(found.Range * 50)
                            : -1;
                    }
                    Assert.True(
                        Height(1) >= Height(0),
                        $"{ladder.Id}: {string.Join(' ', rungs.Select((r, i) => $"{r.Id}:{outcomes[i]}"))}, {rungs[better].Id} better: {Height(0)} to {Height(1)}"
                    );
                },
                iter: Soak.Histories
            );
}
