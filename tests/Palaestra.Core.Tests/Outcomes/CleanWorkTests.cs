using Palaestra.Core.Outcomes;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Outcomes;

public class CleanWorkTests
{
    private static readonly DateOnly Opened = new(2026, 3, 2);

    [Fact]
    public void Only_clean_seconds_and_clean_reps_count()
    {
        // 10 reps of 3 s, 6 clean: 6 × 3 s held and 6 × 6 s moved.
        var work = new Work("D3", new Dose(10, 1, 3)).Visit(1, Side.Left, 0.6);
        var week = CleanWork.ByWeek(Opened, work.Done, Content.Library);
        Assert.Equal(6 * 3 + 6 * Content.Library.Rung("D3").MoveSeconds, week[^1].Seconds, 6);
    }

    [Fact]
    public void Weeks_without_a_visit_stand_with_nothing()
    {
        var work = new Work("B6", new Dose(5, 1, 3)).BothSides(1).BothSides(4);
        var weeks = CleanWork.ByWeek(Opened, work.Done, Content.Library);
        Assert.Equal([1, 2, 3, 4, 5], weeks.Select(w => w.Week));
        Assert.Equal([0, 0, 0], new[] { weeks[0], weeks[2], weeks[3] }.Select(w => w.Seconds));
    }

    [Fact]
    public void A_one_sided_task_works_its_own_side_of_a_direction()
    {
        var work = new Work("G2", new Dose(5, 1, 5)).Visit(1, Side.Left);
        var week = CleanWork.ByWeek(Opened, work.Done, Content.Library)[^1];
        Assert.True(week.Directions[Sector.SideLeft] > week.Directions[Sector.SideRight]);
    }

    [Fact]
    public void The_difference_of_the_sides_is_of_the_stronger()
    {
        var work = new Work("B6", new Dose(10, 1, 3)).Visit(1, Side.Left, 0.6).Visit(1, Side.Right, 0.8);
        var share = Assert.Single(CleanWork.BySide(work.Done));
        Assert.Equal((0.6, 0.8), (share.Left, share.Right));
        Assert.Equal(25, share.DifferencePercent, 6);
    }

    [Fact]
    public void A_visit_with_one_side_only_says_nothing_of_the_difference() =>
        Assert.Empty(CleanWork.BySide(new Work("B6", new Dose(10, 1, 3)).Visit(1, Side.Left).Done));
}
