using CsCheck;
using Palaestra.Core.Abilities;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Abilities;

public class AbilityFindingsTests
{
    private static readonly PracticeLibrary Library = Content.Library;

    private static AbilityFindings Of(Tape tape) => AbilityFindings.Of(tape.Trials(), [], Library);

    private static List<Ability> Front(AbilityFindings found) =>
        [.. found.All.Where(a => a.Direction == Direction.Front)];

    public static TheoryData<string> Ladders =>
        [.. Library.TrainedLadders.Where(l => l.Direction != Direction.None).Select(l => l.Id)];

    [Theory]
    [MemberData(nameof(Ladders))]
    public void Every_rung_stands_a_quarter_above_the_one_below_at_least(string id)
    {
        var ladder = Library.Ladders.Single(l => l.Id == id);
        foreach (var (low, high) in ladder.Rungs.Zip(ladder.Rungs.Skip(1)))
        {
            Assert.True(Library.Heights.Of(high.Id) - Library.Heights.Of(low.Id) >= 0.25 - 1e-9, high.Id);
        }
    }

    /// <summary>Clean on every rung up to the entry, all broken on the next: the ring's number rises with every entry rung.</summary>
    [Theory]
    [MemberData(nameof(Ladders))]
    public void The_ring_rises_with_every_entry_rung(string id)
    {
        var ladder = Library.Ladders.Single(l => l.Id == id);
        var before = double.NegativeInfinity;
        for (var entry = -1; entry < ladder.Rungs.Count; entry++)
        {
            var all = ladder
                .Rungs.Take(entry + 2)
                .SelectMany((rung, i) => EvidenceOf(rung, ladder, clean: i <= entry))
                .ToList();
            var ring = AbilityFindings.BeliefOf(all, Library).Mean;
            Assert.True(ring > before, $"{id} {entry}: {ring:0.000} after {before:0.000}");
            before = ring;
        }
    }

    private static IEnumerable<AbilityEvidence> EvidenceOf(Rung rung, Ladder ladder, bool clean) =>
        [
            new(
                new DateOnly(2026, 3, 2),
                ladder.Direction,
                Side.Left,
                Library.Heights.Of(rung.Id)!.Value,
                clean ? 5 : 0,
                clean ? 0 : 5,
                Guid.Empty
            ),
        ];

    [Fact]
    public void A_limb_moves_one_side_and_a_task_without_sides_both()
    {
        var one = Front(Of(new Tape().Start("B5", Side.Left).Reps(5).End()));
        Assert.Equal([Side.Left], one.Select(a => a.Side));
        var both = Front(Of(new Tape().Start("H1", Side.Both).Reps(1, 10).End()));
        Assert.Equal([Side.Left, Side.Right], both.Select(a => a.Side));
        Assert.Equal(5, one[0].Reps);
    }

    [Fact]
    public void What_broke_elsewhere_or_was_cued_tells_nothing_of_it()
    {
        var (id, fault) = (
            from ladder in Library.TrainedLadders
            where ladder.Direction == Direction.Pelvis
            from rung in ladder.Rungs
            where rung.Sides == RungSides.Each && rung.Start is { Hold: 0, Reps: > 1 }
            from code in rung.Faults
            let at = FaultPointing.SectorsOf(Library.FindFault(code)!, rung, Side.Left, Library)
            where Library.FindFault(code)!.Kind == FaultKind.Breaking
            where at.Count > 0 && !at.Contains(Sector.PelvisLeft)
            select (rung.Id, code)
        ).First();
        int Told(Tape tape) => Of(tape).All.Where(a => a.Sector == Sector.PelvisLeft).Sum(a => a.Reps);
        Assert.Equal(0, Told(new Tape().Start(id, Side.Left).Rep(fault: fault).End()));
        Assert.Equal(1, Told(new Tape().Start(id, Side.Left).Rep().Rep(fault: fault).End()));
        Assert.Equal(1, Front(Of(new Tape().Start("B5", Side.Left).Rep(fault: "arch").End()))[0].Reps);
        Assert.Empty(Of(new Tape().Start("B5", Side.Left).Cue().Reps(5).End()).All);
    }

    [Fact]
    public void Half_the_way_is_worth_less_than_all_of_it()
    {
        var full = Of(new Tape().Start("B6", Side.Left).Reps(5, 3).End()).All[0];
        var half = Of(new Tape().Start("B6", Side.Left).Range(share: 0.5).Reps(5, 3).End()).All[0];
        Assert.True(half.Theta < full.Theta);
    }

    [Fact]
    public void The_chance_of_the_next_rung_is_lower_than_of_this_one_and_said_in_reps()
    {
        var tape = new Tape()
            .Start("B5", Side.Left)
            .Reps(5)
            .End()
            .Start("B8", Side.Left)
            .Rep(fault: "arch")
            .Rep(fault: "arch")
            .End();
        var entry = RungFinder.Search(
            Library.Ladders.Single(l => l.Id == "B"),
            Side.Left,
            tape.Trials(),
            Someone.Calm,
            Content.Policy,
            Library
        );
        var found = AbilityFindings.Of(tape.Trials(), [entry], Library);
        var next = Assert.Single(found.Next);
        Assert.Equal("B6", next.RungId);
        var belief = AbilityFindings.BeliefOf(
            AbilityEvidence.Of(tape.Trials(), Library).Where(e => e.Direction == Direction.Front),
            Library
        );
        Assert.True(next.Chance < belief.ChanceClean(Library.Heights.Of("B5")!.Value));
        Assert.Matches(@"^\d+ of 10 reps would be clean$", next.Words.En());
    }

    [Fact]
    public void Overlapping_intervals_are_not_clearly_different_and_clear_ones_are()
    {
        Tape Both(string left, string right, string? faultLeft, string? faultRight)
        {
            var tape = new Tape();
            foreach (
                var (rung, side, fault) in new[]
                {
                    (left, Side.Left, faultLeft),
                    (right, Side.Right, faultRight),
                }
            )
            {
                tape.Start(rung, side);
                for (var i = 0; i < 5; i++)
                {
                    tape.Rep(fault: fault);
                }
                tape.End();
            }
            return tape;
        }
        var same = Front(Of(Both("B5", "B5", null, null)));
        Assert.True(same.All(a => a.Lowest || a.Unclear));
        var apart = Front(Of(Both("B1", "B11", "arch", null)));
        Assert.Equal([true, false], apart.Select(a => a.Lowest || a.Unclear));
    }

    [Fact]
    public void The_order_of_trials_does_not_matter_and_day_by_day_is_the_whole()
    {
        var tape = new Tape()
            .Start("B5", Side.Left)
            .Reps(5)
            .End()
            .Start("B6", Side.Left)
            .Rep(3)
            .Rep(3, "arch")
            .End()
            .Start("D3", Side.Left)
            .Reps(5)
            .End();
        var trials = tape.Trials();
        var forward = AbilityFindings.Of(trials, [], Library);
        var back = AbilityFindings.Of(trials.Reverse(), [], Library);
        Assert.Equal(
            forward.All.Select(a => (a.Theta, a.Low, a.High)),
            back.All.Select(a => (a.Theta, a.Low, a.High))
        );
    }

    [Fact]
    public void Twenty_reps_narrow_it_to_about_the_error_the_change_is_told_with()
    {
        var at = Library.Heights.Of("B5")!.Value;
        var belief = AbilityFindings.BeliefOf(
            [new(new DateOnly(2026, 3, 2), Direction.Front, Side.Left, at, 14, 6, Guid.Empty)],
            Library
        );
        Assert.InRange(belief.Sd, 0.2, 0.7);
    }
}
