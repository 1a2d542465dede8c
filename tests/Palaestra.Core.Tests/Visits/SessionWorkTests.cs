using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

public class SessionWorkTests
{
    private static readonly DateTimeOffset Nine = new(2026, 3, 2, 9, 0, 0, TimeSpan.Zero);

    private static PlanItem Item(string rung, int sets = 2) =>
        new(
            Guid.CreateVersion7(),
            rung,
            Message.Plain(""),
            [.. Content.Library.Rung(rung).TaskSides.Select(s => new SideDose(s, new Dose(5, sets, 0)))],
            [],
            [],
            "cue"
        );

    private static Plan PlanOf(params PlanItem[] items) =>
        new(items, SpinalStrategy.Neutral, Activation.Brace, Content.Policy.Id, 1, "", 0, []);

    private static ExerciseSkipped Skip(PlanItem item) =>
        new(Guid.CreateVersion7(), Guid.CreateVersion7(), Nine.AddMinutes(1), item.Id);

    private static ExerciseAdded Add(string rung, Guid? inPlaceOf = null) =>
        new(
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            Nine.AddMinutes(2),
            Guid.CreateVersion7(),
            rung,
            new Dose(5, 1, 0),
            inPlaceOf
        );

    private static IReadOnlyList<SessionItem> Items(Plan plan, params CaptureEvent[] log) =>
        SessionWork.Items(plan, log, Someone.Calm, Content.Policy, Content.Library);

    [Fact]
    public void One_side_to_the_end_and_then_the_other_in_the_order_of_the_plan()
    {
        var item = Item("B5") with { };
        var sets = SessionWork.Sets([item], Content.Policy, Content.Library);
        Assert.Equal(
            [(Side.Left, 1), (Side.Left, 2), (Side.Right, 1), (Side.Right, 2)],
            sets.Select(s => (s.Side, s.Set))
        );
    }

    [Fact]
    public void A_policy_that_alternates_goes_turn_about()
    {
        var sets = SessionWork.Sets(
            [Item("B5")],
            Content.Policy with
            {
                SideOrder = SideOrder.Alternate,
            },
            Content.Library
        );
        Assert.Equal(
            [(Side.Left, 1), (Side.Right, 1), (Side.Left, 2), (Side.Right, 2)],
            sets.Select(s => (s.Side, s.Set))
        );
    }

    [Fact]
    public void What_is_skipped_stays_in_the_list_and_an_undo_brings_it_back()
    {
        var (a, b) = (Item("B5"), Item("E1"));
        var skip = Skip(a);
        Assert.Equal([true, false], Items(PlanOf(a, b), skip).Select(i => i.Skipped));
        var undo = new Undone(Guid.CreateVersion7(), skip.TrialId, Nine.AddMinutes(3), skip.Id);
        Assert.Equal([false, false], Items(PlanOf(a, b), skip, undo).Select(i => i.Skipped));
    }

    [Fact]
    public void What_stands_in_follows_what_it_stands_in_for_and_what_is_added_comes_last()
    {
        var (a, b) = (Item("B5"), Item("E1"));
        var items = Items(PlanOf(a, b), Skip(a), Add("D3", a.Id), Add("K2"));
        Assert.Equal(["B5", "D3", "E1", "K2"], items.Select(i => i.Item.RungId));
        Assert.Equal([false, true, false, true], items.Select(i => i.Added));
    }

    [Fact]
    public void The_tempo_is_the_policys_in_proportion_to_the_rung()
    {
        var rep = Items(PlanOf(Item("B5")))[0].Sides[0].Rep;
        // The last second of the way back is the look at the back: is it where it was?
        Assert.Equal((3, 0, 2, 1), (rep.Out, rep.Hold, rep.Back, rep.Check));
        // Small slides go slower: four seconds each way.
        var slide = Items(PlanOf(Item("D1")))[0].Sides[0].Rep;
        Assert.Equal((4, 3, 1), (slide.Out, slide.Back, slide.Check));
    }

    [Theory]
    [InlineData("G3")] // only held
    [InlineData("K3")] // standing
    [InlineData("H6")] // plank
    public void Where_nothing_comes_back_to_the_floor_there_is_no_beat(string rung) =>
        Assert.Equal(0, Items(PlanOf(Item(rung)))[0].Sides[0].Rep.Check);

    [Fact]
    public void The_ways_of_a_rung_follow_each_other_within_a_set_and_share_its_time()
    {
        var item = Item("J2");
        var sets = SessionWork.Sets([item], Content.Policy, Content.Library);
        Assert.Equal(
            [(1, "outward"), (1, "inward")],
            sets.Where(s => s.Side == Side.Left).Take(2).Select(s => (s.Set, s.Way))
        );
        var rep = Items(PlanOf(item))[0].Sides[0].Rep;
        Assert.Equal(6, rep.Out + rep.Back + rep.Check, 6);
        var mixed = Content.Policy with { Ways = WayOrder.Mixed };
        Assert.All(SessionWork.Sets([item], mixed, Content.Library), s => Assert.Null(s.Way));
        Assert.Equal(12, RepTempo.MoveSeconds(Content.Library.Rung("J2"), mixed), 6);
    }
}
