using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>Days of training: common practice for loaded work is two or three days that do not follow each other.</summary>
public class PlanCalendarTests
{
    private static readonly DateOnly Monday = new(2026, 11, 30);

    private static Plan Plan =>
        new(
            [
                new PlanItem(
                    Guid.NewGuid(),
                    "B5",
                    Message.Plain(""),
                    [new(Side.Left, new Dose(5, 1, 0))],
                    [],
                    [],
                    "",
                    3
                ),
                new PlanItem(
                    Guid.NewGuid(),
                    "H3",
                    Message.Plain(""),
                    [new(Side.Both, new Dose(5, 1, 10))],
                    [],
                    [],
                    "",
                    4
                ),
            ],
            SpinalStrategy.Neutral,
            Activation.Brace,
            Content.Policy.Id,
            1,
            "",
            7,
            []
        );

    [Fact]
    public void Keeps_days_rest_holidays_and_the_days_between_loads() =>
        Gen.Select(Gen.Int[1, 7], Gen.Int[0, 20], Gen.Int[0, 10])
            .Sample(
                (perWeek, awayFrom, awayDays) =>
                {
                    var plan = Plan;
                    var away = new DaysAway(Monday.AddDays(awayFrom), Monday.AddDays(awayFrom + awayDays));
                    var days = PlanCalendar.Of(
                        plan,
                        Monday,
                        Monday.AddDays(27),
                        perWeek,
                        [away],
                        Content.Policy,
                        Content.Library
                    );
                    Assert.DoesNotContain(days, day => away.Holds(day.Day));
                    foreach (var week in days.GroupBy(day => (day.Day.DayNumber - Monday.DayNumber) / 7))
                    {
                        Assert.InRange(week.Count(), 1, perWeek);
                        Assert.InRange(
                            week.Count(day => day.ItemIds.Contains(plan.Items[0].Id)),
                            0,
                            Content.Policy.LowLoadDays
                        );
                        Assert.InRange(
                            week.Count(day => day.ItemIds.Contains(plan.Items[1].Id)),
                            0,
                            Content.Policy.Loaded.DaysPerWeek
                        );
                    }
                    var loaded = days.Where(day => day.ItemIds.Contains(plan.Items[1].Id)).ToList();
                    Assert.All(
                        loaded.Zip(loaded.Skip(1)),
                        pair =>
                            Assert.True(
                                pair.Second.Day.DayNumber - pair.First.Day.DayNumber
                                    > Content.Policy.Loaded.DaysBetween
                            )
                    );
                },
                iter: Soak.Cases(300)
            );

    [Theory]
    [InlineData(1)]
    [InlineData(3)]
    [InlineData(5)]
    [InlineData(7)]
    public void As_many_days_a_week_as_the_client_can(int perWeek)
    {
        var days = PlanCalendar.Of(
            Plan,
            Monday,
            Monday.AddDays(6),
            perWeek,
            [],
            Content.Policy,
            Content.Library
        );
        // Seven days a week are six of control work; the seventh is a rest where no load falls on it.
        Assert.Equal(Math.Min(perWeek, 6), days.Count(day => day.Minutes >= 3));
        Assert.Equal(Monday, days[0].Day);
    }

    [Fact]
    public void The_map_proposes_and_the_earned_rung_stands_beside()
    {
        var entries = AnyClient.Of([.. Enumerable.Repeat(0, 60)], [.. Enumerable.Repeat(50, 8)]).Entries;
        var map = TwelveWeeks.On(Monday, Monday.AddDays(36), entries, Content.Library)!;
        Assert.Equal(6, map.Week);
        var limb = map.Lines.Single(line => line.LadderName == "Limb lowering");
        Assert.Equal(("Leg reach, arms still", "Foot float", true), (limb.Proposed, limb.Earned, limb.Ahead));
        Assert.Equal(12, TwelveWeeks.On(Monday, Monday.AddDays(400), entries, Content.Library)!.Week);
        Assert.Equal(1, TwelveWeeks.On(Monday, Monday.AddDays(-3), entries, Content.Library)!.Week);
    }

    [Fact]
    public void What_rests_is_on_no_day_and_takes_no_minutes()
    {
        var plan = Plan;
        var rests = plan with
        {
            Items =
            [
                plan.Items[0] with
                {
                    Spell = new(SpellKind.Rest, null, null, plan.Items[0].RungId, plan.Items[0].Doses),
                },
                plan.Items[1],
            ],
        };

        var days = PlanCalendar.Of(rests, Monday, Monday.AddDays(13), 7, [], Content.Policy, Content.Library);

        Assert.NotEmpty(days);
        Assert.All(days, day => Assert.Equal([plan.Items[1].Id], day.ItemIds));
        Assert.All(days, day => Assert.Equal(plan.Items[1].Minutes, day.Minutes));
    }
}
