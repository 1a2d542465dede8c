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
