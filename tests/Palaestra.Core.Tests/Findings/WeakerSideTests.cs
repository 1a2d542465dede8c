using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Findings;

public class WeakerSideTests
{
    private static readonly ScreenTask Touch = Content.Library.FindTask("shoulder-touch")!;
    private static readonly ScreenTask Lowering = Content.Library.FindTask("leg-lowering")!;

    private static ScreenFindings Of(Tape tape) =>
        FindingsMaker.Of(tape.Trials(), Someone.Calm, Content.Policy, Content.Library);

    /// <summary>A task with five clean reps on one side and as many as said on the other.</summary>
    private static ScreenFindings Uneven(string task, Side weaker, int clean = 2)
    {
        var tape = new Tape().Task(task, weaker.Other()).Reps(5).End().Task(task, weaker).Reps(clean);
        for (var rep = clean; rep < 5; rep++)
        {
            tape.Rep(fault: "twist");
        }
        return Of(tape.End());
    }

    private static Side? Weaker(
        ScreenTask task,
        ScreenFindings? before,
        ScreenFindings? now,
        ClientProfile? profile = null
    ) => WeakerSide.Of(task, before, now, profile ?? Someone.Calm, Content.Library);

    [Fact]
    public void Nothing_known_is_no_side() => Assert.Null(Weaker(Touch, null, null));

    [Fact]
    public void What_this_task_showed_today_comes_before_what_it_showed_last_time()
    {
        var (before, now) = (Uneven("shoulder-touch", Side.Left), Uneven("shoulder-touch", Side.Right));
        Assert.Equal(Side.Left, Weaker(Touch, before, null));
        Assert.Equal(Side.Right, Weaker(Touch, before, now));
    }

    [Fact]
    public void Another_task_tells_when_this_one_has_not()
    {
        Assert.Equal(Side.Right, Weaker(Touch, null, Uneven("plank-leg-lift", Side.Right)));
        Assert.Equal(
            Side.Left,
            Weaker(Touch, Uneven("shoulder-touch", Side.Left), Uneven("plank-leg-lift", Side.Right))
        );
    }

    [Fact]
    public void Even_sides_tell_nothing() =>
        Assert.Null(Weaker(Touch, null, Uneven("plank-leg-lift", Side.Right, clean: 5)));

    [Fact]
    public void A_climb_is_weaker_where_it_ended_lower()
    {
        var tape = new Tape();
        foreach (var (side, clean) in new[] { (Side.Left, "B7"), (Side.Right, "B5") })
        {
            var rungs = Content.Library.LadderOf(clean).Rungs;
            var at = Content.Library.LadderOf(clean).IndexOf(clean);
            tape.Start(clean, side).Reps(rungs[at].Start.Reps, rungs[at].Start.Hold).End();
            var above = rungs[at + 1];
            tape.Start(above.Id, above.Sides == RungSides.Each ? side : Side.Both).Rep(fault: "arch").End();
        }
        Assert.Equal(Side.Right, Weaker(Lowering, Of(tape), null));
    }

    [Fact]
    public void The_side_of_a_precaution_is_the_last_resort()
    {
        var leg = Someone.With("leg-pain", Side.Right);
        Assert.Equal(Side.Right, Weaker(Touch, null, null, leg));
        Assert.Equal(Side.Left, Weaker(Touch, null, Uneven("plank-leg-lift", Side.Left), leg));
    }

    /// <summary>Of a climb that ended at the same rung, or on one side alone, nothing follows.</summary>
    [Fact]
    public void A_climb_tells_nothing_where_both_sides_ended_alike_or_one_was_not_climbed()
    {
        static Tape Climbed(Tape tape, Side side, string clean)
        {
            var ladder = Content.Library.LadderOf(clean);
            var rung = Content.Library.Rung(clean);
            var above = ladder.Rungs[ladder.IndexOf(clean) + 1];
            tape.Start(clean, side).Reps(rung.Start.Reps, rung.Start.Hold).End();
            return tape.Start(above.Id, above.Sides == RungSides.Each ? side : Side.Both)
                .Rep(fault: "arch")
                .End();
        }
        var alike = Climbed(Climbed(new Tape(), Side.Left, "B5"), Side.Right, "B5");
        Assert.Null(Weaker(Lowering, null, Of(alike)));
        Assert.Null(Weaker(Lowering, null, Of(Climbed(new Tape(), Side.Left, "B5"))));
        var left = Climbed(Climbed(new Tape(), Side.Left, "B4"), Side.Right, "B6");
        Assert.Equal(Side.Left, Weaker(Lowering, null, Of(left)));
    }

    [Fact]
    public void What_most_tasks_showed_today_tells_and_a_draw_does_not()
    {
        var three = Uneven("plank-leg-lift", Side.Right);
        three = three with
        {
            Tasks =
            [
                .. three.Tasks,
                .. Uneven("plank-leg-lift", Side.Right).Tasks,
                .. Uneven("plank-leg-lift", Side.Left).Tasks,
            ],
        };
        Assert.Equal(Side.Right, Weaker(Touch, null, three));
        var draw = three with { Tasks = [.. three.Tasks.Skip(1)] };
        Assert.Null(Weaker(Touch, null, draw));
    }
}
