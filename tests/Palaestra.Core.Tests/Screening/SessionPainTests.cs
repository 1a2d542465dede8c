using CsCheck;
using Palaestra.Core.Capture;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

/// <summary>What the sets of a session say of pain together.</summary>
public class SessionPainTests
{
    private static readonly DateOnly Day = new(2026, 3, 2);

    private static SessionPain? Of(Tape tape, int? start = 2) =>
        SessionPain.Of(3, Day, start, tape.Events, tape.Trials());

    private static Tape Set(Tape tape, Side side = Side.Left) =>
        tape.Start("B5", side, TrialPurpose.Session).Reps(2);

    private static Tape Asked(Tape tape, Side side, bool back) =>
        tape.Wait(5)
            .Add(
                new LegAsked(
                    Guid.CreateVersion7(),
                    Guid.CreateVersion7(),
                    tape.Events[^1].At.AddSeconds(1),
                    side,
                    back
                )
            );

    [Fact]
    public void A_screen_is_no_session() => Assert.Null(Of(new Tape().Start("B5", Side.Left).Reps(5).End()));

    [Fact]
    public void The_most_is_that_of_any_set_and_the_end_that_of_the_last_that_was_told()
    {
        var tape = Set(new Tape()).Pain(PainPhase.Peak, 6).End();
        Set(tape).Pain(PainPhase.After, 3).End();
        var pain = Of(Set(tape).End())!;
        Assert.Equal((2, 6, 3), (pain.Start, pain.Peak, pain.End));
    }

    [Fact]
    public void A_leg_is_answered_for_by_what_was_asked_after_its_set()
    {
        var tape = Set(new Tape()).Worry(Worry.DownTheLeg, Side.Left).End();
        Assert.Null(Assert.Single(Of(tape)!.Legs!).Back);
        Asked(tape, Side.Left, back: true);
        Assert.True(Assert.Single(Of(tape)!.Legs!).Back);
        // It moves again: what was asked before says nothing of this time.
        Set(tape).Worry(Worry.DownTheLeg, Side.Left).End();
        Assert.Equal([true, null], Of(tape)!.Legs!.Select(leg => leg.Back));
        Asked(tape, Side.Left, back: false);
        Assert.Equal([false, false], Of(tape)!.Legs!.Select(leg => leg.Back));
    }

    /// <summary>An answer that comes while a later set runs is about the one before.</summary>
    [Fact]
    public void What_is_answered_during_a_set_is_not_about_it()
    {
        var tape = Set(new Tape()).Worry(Worry.DownTheLeg, Side.Left).End();
        Set(tape).Worry(Worry.DownTheLeg, Side.Left);
        Asked(tape, Side.Left, back: true).End();
        Assert.Equal([true, null], Of(tape)!.Legs!.Select(leg => leg.Back));
    }

    [Fact]
    public void The_other_leg_answers_for_nothing()
    {
        var tape = Set(new Tape()).Worry(Worry.DownTheLeg, Side.Left).End();
        Assert.Null(Assert.Single(Of(Asked(tape, Side.Right, back: true))!.Legs!).Back);
    }

    [Theory]
    [InlineData(true, true, true)]
    [InlineData(false, true, false)]
    [InlineData(true, false, false)]
    public void Of_both_legs_it_went_back_only_where_both_did(bool left, bool right, bool both)
    {
        var tape = new Tape().Start("S1", Side.Both, TrialPurpose.Session).Reps(2);
        tape.Worry(Worry.DownTheLeg).End();
        Asked(Asked(tape, Side.Left, left), Side.Right, right);
        Assert.Equal((Side.Both, both), (Assert.Single(Of(tape)!.Legs!).Side, Of(tape)!.Legs![0].Back));
    }

    [Fact]
    public void The_side_told_goes_before_the_side_of_the_set()
    {
        var tape = Set(new Tape(), Side.Left).Worry(Worry.DownTheLeg, Side.Right).End();
        Assert.True(Assert.Single(Of(Asked(tape, Side.Right, back: true))!.Legs!).Back);
    }

    /// <summary>Whatever else was answered, one "no" after the set is never told as gone back.</summary>
    [Fact]
    public void A_leg_that_has_not_gone_back_is_never_told_to_have()
    {
        var any = Gen.Select(Gen.Bool, Gen.Bool).Array[0, 4];
        Gen.Select(any, any, Gen.Bool)
            .Sample(
                (before, after, left) =>
                {
                    var side = left ? Side.Left : Side.Right;
                    var tape = Set(new Tape(), side);
                    tape.End();
                    foreach (var (asked, back) in before)
                    {
                        Asked(tape, asked ? Side.Left : Side.Right, back);
                    }
                    Set(tape.Wait(3600), side).Worry(Worry.DownTheLeg, side).End();
                    foreach (var (asked, back) in after)
                    {
                        Asked(tape, asked ? Side.Left : Side.Right, back);
                    }
                    var last = after.LastOrDefault(a => a.Item1 == left);
                    var told = Of(tape)!.Legs![^1].Back;
                    return after.Any(a => a.Item1 == left) ? told == last.Item2 : told is null;
                },
                iter: Soak.Cases(100)
            );
    }
}
