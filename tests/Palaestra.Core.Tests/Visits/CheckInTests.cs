using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Visits;

/// <summary>What a client says before a session, and what cannot be.</summary>
public class CheckInTests
{
    private static readonly CheckIn Nothing = new(null, null, null, null, []);

    private static IEnumerable<string> Wrong(CheckIn checkIn) =>
        CheckInCheck.Errors(checkIn, Content.Library, "checkIn").Select(error => error.Field);

    [Theory]
    [InlineData(0)]
    [InlineData(10)]
    public void Pain_goes_from_0_to_10(int pain) =>
        Assert.Empty(
            Wrong(Nothing with { PainNow = pain, UsualPain = pain, NextDayPain = pain, Soreness = pain })
        );

    [Theory]
    [InlineData(-1)]
    [InlineData(11)]
    public void Pain_beyond_it_is_named_wherever_it_stands(int pain) =>
        Assert.Equal(
            ["checkIn.painNow", "checkIn.usualPain", "checkIn.nextDayPain", "checkIn.soreness"],
            Wrong(Nothing with { PainNow = pain, UsualPain = pain, NextDayPain = pain, Soreness = pain })
        );

    [Theory]
    [InlineData(0, true)]
    [InlineData(336, true)]
    [InlineData(-0.5, false)]
    [InlineData(336.5, false)]
    [InlineData(double.NaN, false)]
    public void It_settles_within_two_weeks(double hours, bool can) =>
        Assert.Equal(can ? [] : ["checkIn.settledHours"], Wrong(Nothing with { SettledHours = hours }));

    [Theory]
    [InlineData(Settling.LongerThanADay, 24.5, true)]
    [InlineData(Settling.LongerThanADay, 3.0, false)]
    [InlineData(Settling.NextMorning, 24.5, false)]
    [InlineData(Settling.NextMorning, 3.0, true)]
    public void A_word_and_hours_that_say_otherwise_are_not_both_taken(
        Settling word,
        double hours,
        bool can
    ) =>
        Assert.Equal(
            can ? [] : ["checkIn.settledHours"],
            Wrong(Nothing with { Settled = word, SettledHours = hours })
        );

    [Theory]
    [InlineData(null, null, null)]
    [InlineData(null, 3.0, 3.0)]
    [InlineData(Settling.SameDay, null, 12.0)]
    [InlineData(Settling.SameDay, 3.0, 12.0)]
    [InlineData(Settling.WithinAnHour, 20.0, 20.0)]
    public void Where_word_and_hours_differ_the_longer_counts(
        Settling? word,
        double? hours,
        double? counts
    ) => Assert.Equal(counts, (Nothing with { Settled = word, SettledHours = hours }).Hours);

    [Fact]
    public void The_limit_of_the_word_is_still_the_word() =>
        Assert.Empty(
            Wrong(
                Nothing with
                {
                    Settled = Settling.NextMorning,
                    SettledHours = Settling.NextMorning.Hours(),
                }
            )
        );

    [Fact]
    public void Red_flags_that_were_not_asked_for_cannot_have_been_told()
    {
        var flag = Content.Library.DangerSigns[0].Id;
        var told = Nothing with { DangerSigns = [flag] };
        Assert.Equal(["checkIn.flagsAsked"], Wrong(told with { FlagsAsked = false }));
        Assert.Empty(Wrong(told with { FlagsAsked = true }));
        Assert.Empty(Wrong(told));
        Assert.Empty(Wrong(Nothing with { FlagsAsked = false }));
    }

    [Fact]
    public void A_red_flag_that_the_library_does_not_know_is_named()
    {
        var flag = Content.Library.DangerSigns[0].Id;
        Assert.Equal(["checkIn.dangerSigns[1]"], Wrong(Nothing with { DangerSigns = [flag, "odd"] }));
    }
}
