using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

public class HomeWorkTests
{
    private static readonly DateOnly Monday = new(2026, 3, 2);

    private static readonly PlanItem Item = new(
        Work.ItemId,
        "B5",
        Message.Plain(""),
        [new SideDose(Side.Left, new Dose(8, 2, 0)), new SideDose(Side.Right, new Dose(6, 2, 0))],
        [],
        [],
        ""
    );

    private static readonly TrainingDay[] Planned =
    [
        .. Enumerable.Range(0, 4).Select(i => new TrainingDay(Monday.AddDays(i), [Work.ItemId], 5)),
    ];

    private static HomeDay Day(int day, int left, int? pain = null, int? morning = null) =>
        new(Monday.AddDays(day), [new HomeReps(Work.ItemId, Side.Left, left)], pain, morning, null);

    private static HomeWork Left(params HomeDay[] log) => HomeWork.Of([Item], Planned, log)[0];

    [Fact]
    public void No_sheet_says_nothing() => Assert.Empty(HomeWork.Of([Item], Planned, []));

    [Fact]
    public void Done_over_planned_by_side()
    {
        // Four days of 16 reps: 64 planned; 16 + 8 done.
        var work = Left(Day(0, 16), Day(1, 8));
        Assert.Equal((64, 24, 2), (work.PlannedReps, work.DoneReps, work.Days));
        Assert.Equal(0.375, work.Share);
        Assert.Equal(0, HomeWork.Of([Item], Planned, [Day(0, 16)])[1].Share);
    }

    [Fact]
    public void More_on_one_day_does_not_make_up_for_another() => Assert.Equal(16, Left(Day(0, 60)).DoneReps);

    [Fact]
    public void The_worst_pain_is_of_days_on_which_it_was_done()
    {
        var work = Left(Day(0, 16, 2, 3), Day(1, 0, 9, 9), Day(2, 4, 1, 4));
        Assert.Equal((2, 4), (work.WorstPain, work.WorstMorning));
    }

    [Theory]
    [InlineData(-1, 8, 2, "log.day")]
    [InlineData(9, 8, 2, "log.day")]
    [InlineData(1, -1, 2, "log.done[0].reps")]
    [InlineData(1, 501, 2, "log.done[0].reps")]
    [InlineData(1, 8, 11, "log.pain")]
    public void What_cannot_be_is_named(int day, int reps, int pain, string field)
    {
        var errors = HomeDayCheck.Errors(
            Day(day, reps, pain),
            new HashSet<(Guid, Side)> { (Work.ItemId, Side.Left) },
            Monday,
            Monday.AddDays(8),
            "log"
        );
        Assert.Equal(field, Assert.Single(errors).Field);
    }

    private static IEnumerable<string> Wrong(HomeDay day) =>
        HomeDayCheck
            .Errors(
                day,
                new HashSet<(Guid, Side)> { (Work.ItemId, Side.Left), (Work.ItemId, Side.Right) },
                Monday,
                Monday.AddDays(8),
                "log"
            )
            .Select(error => error.Field);

    [Theory]
    [InlineData(0, 0, 0, 0, 500)]
    [InlineData(8, 500, 10, 10, 0)]
    public void What_can_just_be_is_taken(int day, int reps, int pain, int morning, int letters) =>
        Assert.Empty(Wrong(Day(day, reps, pain, morning) with { Remark = new string('a', letters) }));

    [Theory]
    [InlineData(-1)]
    [InlineData(11)]
    public void A_morning_is_from_0_to_10(int morning) =>
        Assert.Equal(["log.nextMorning"], Wrong(Day(1, 8, 2, morning)));

    [Fact]
    public void Pain_is_not_below_nothing() => Assert.Equal(["log.pain"], Wrong(Day(1, 8, -1)));

    [Fact]
    public void A_remark_is_no_letter() =>
        Assert.Equal(["log.remark"], Wrong(Day(1, 8) with { Remark = new string('a', 501) }));

    [Fact]
    public void The_same_exercise_and_side_stands_once_in_a_day()
    {
        HomeReps Reps(Side side) => new(Work.ItemId, side, 8);
        Assert.Empty(Wrong(Day(1, 8) with { Done = [Reps(Side.Left), Reps(Side.Right)] }));
        Assert.Equal(
            ["log.done[2]"],
            Wrong(Day(1, 8) with { Done = [Reps(Side.Left), Reps(Side.Right), Reps(Side.Left)] })
        );
    }

    [Fact]
    public void A_day_is_empty_only_when_nothing_at_all_stands_in_it()
    {
        var nothing = new HomeDay(Monday, [], null, null, null);
        Assert.True(nothing.Empty);
        Assert.All(
            [
                nothing with
                {
                    Done = [new(Work.ItemId, Side.Left, 0)],
                },
                nothing with
                {
                    Pain = 0,
                },
                nothing with
                {
                    NextMorning = 0,
                },
                nothing with
                {
                    Remark = "",
                },
            ],
            day => Assert.False(day.Empty)
        );
    }

    [Fact]
    public void Where_nothing_was_planned_there_is_no_share()
    {
        Assert.Null(HomeWork.Of([Item], [], [Day(0, 16)])[0].Share);
        Assert.Equal(1, Left(Day(0, 16), Day(1, 16), Day(2, 16), Day(3, 16)).Share);
    }

    [Fact]
    public void Spells_are_put_together_with_their_worst_pain()
    {
        HomeWork Spell(int planned, int done, int? pain, int? morning) =>
            new(Work.ItemId, Side.Left, planned, done, 2, pain, morning);
        var both = HomeWork.Together([
            [Spell(20, 10, 6, 1)],
            [Spell(30, 12, 2, 5)],
        ]);
        Assert.Equal(new HomeWork(Work.ItemId, Side.Left, 50, 22, 4, 6, 5), Assert.Single(both!));
        Assert.Null(
            HomeWork.Together([
                [Spell(20, 10, 6, 1)],
                [],
            ])
        );
        Assert.Null(HomeWork.Together([]));
        Assert.Null(
            HomeWork.Together([
                [Spell(20, 10, 6, 1)],
                [Spell(1, 1, 1, 1) with { PlanItemId = Guid.Empty }],
            ])
        );
    }

    [Fact]
    public void An_exercise_of_no_plan_is_refused() =>
        Assert.Equal(
            "log.done[0]",
            Assert
                .Single(
                    HomeDayCheck.Errors(
                        Day(1, 8),
                        new HashSet<(Guid, Side)>(),
                        Monday,
                        Monday.AddDays(8),
                        "log"
                    )
                )
                .Field
        );
}
