using CsCheck;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>What was worked out for one visit is taken for a like one only where it still holds.</summary>
public class DayPastTests
{
    [Fact]
    public void A_visit_says_the_same_whether_its_past_was_worked_out_before_or_not() =>
        Gen.Select(AnyDay.Input, Gen.Int[0, 10])
            .Sample(
                (input, pain) =>
                {
                    var past = new DayFacts(input, Content.Library).Past;
                    foreach (var other in Others(input, pain))
                    {
                        Assert.Equal(
                            Told(new DayFacts(other, Content.Library)),
                            Told(new DayFacts(other, Content.Library, past))
                        );
                    }
                },
                iter: Soak.Histories,
                threads: 2
            );

    private static IEnumerable<DecideInput> Others(DecideInput input, int pain) =>
        [
            input with
            {
                CheckIn = input.CheckIn with { PainNow = pain, NextDayPain = pain, SettledHours = pain },
            },
            input with
            {
                CheckIn = input.CheckIn with { UsualPain = pain },
            },
            input with
            {
                CheckIn = input.CheckIn with { Leg = new(LegReach.BelowKnee, null) },
            },
            input with
            {
                Visit = input.Visit + 1,
            },
            input with
            {
                Date = input.Date.AddDays(28),
            },
            input with
            {
                Sessions = [],
            },
            input with
            {
                Profile = input.Profile with { Pain = input.Profile.Pain with { Usual = pain } },
            },
            input with
            {
                Pain = new([new(1, input.Date.AddDays(-3), pain)]),
            },
            input with
            {
                PolicyId = Content.Library.Policies[^1].Id,
            },
        ];

    private static string Told(DayFacts day) =>
        string.Join(
            " | ",
            day.Reference,
            day.Drift,
            day.Level,
            day.Steady,
            day.MayProbe,
            day.SecondFlare,
            string.Join(", ", day.Remembered),
            string.Join(", ", day.Holds.Concat(day.Flares))
        );
}
