using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Intake;

/// <summary>Leg pain as the rules see it: what was told at the last visits stands over what was ticked at first.</summary>
public class LegPainTests
{
    private static readonly string Precaution = LegPain.Of(Content.Library)!.Id;
    private static readonly LegReach? Free = LegReach.None;

    private static IReadOnlyList<Side> SidesOf(ClientProfile profile) =>
        [.. profile.Precautions.Where(p => p.Id == Precaution).Select(p => p.Side)];

    private static ClientProfile Told(ClientProfile profile, params LegReport[] latestFirst) =>
        LegPain.Told(profile, latestFirst, [], Content.Library, new Judgement());

    private static readonly ClientProfile Left = Someone.Calm with
    {
        Precautions = [new(Precaution, Side.Left, ["below-knee"])],
    };

    [Fact]
    public void One_visit_without_it_is_not_enough_and_two_running_are()
    {
        Assert.Equal([Side.Left], SidesOf(Told(Left, new LegReport(Free, Free))));
        Assert.Empty(SidesOf(Told(Left, new LegReport(Free, Free), new LegReport(Free, Free))));
    }

    [Fact]
    public void Told_again_within_the_last_two_it_still_counts() =>
        Assert.Equal(
            [Side.Left],
            SidesOf(Told(Left, new LegReport(Free, Free), new LegReport(LegReach.Thigh, Free)))
        );

    [Fact]
    public void A_visit_that_did_not_ask_says_nothing() =>
        Assert.Equal([Side.Left], SidesOf(Told(Left, new LegReport(null, null), new LegReport(Free, null))));

    [Fact]
    public void A_leg_nobody_ticked_counts_once_it_is_told() =>
        Assert.Equal([Side.Right], SidesOf(Told(Someone.Calm, new LegReport(null, LegReach.Buttock))));

    [Fact]
    public void Remembered_from_a_session_it_runs_to_the_thigh_at_least()
    {
        var profile = LegPain.Told(
            Someone.Calm,
            [new(Free, Free)],
            [Side.Right],
            Content.Library,
            new Judgement()
        );
        var mine = Assert.Single(profile.Precautions, p => p.Id == Precaution);
        Assert.Equal(Side.Right, mine.Side);
        Assert.Equal(["thigh"], mine.Options);
    }

    public static TheoryData<string> Options => [.. LegPain.Of(Content.Library)!.Options!.Select(o => o.Id)];

    /// <summary>As far down as it was ticked, no less: less would open what pulls on the nerve.</summary>
    [Theory]
    [MemberData(nameof(Options))]
    public void What_was_ticked_holds_as_it_is_while_nobody_asked(string option)
    {
        var ticked = Someone.Calm with { Precautions = [new(Precaution, Side.Left, [option])] };
        Assert.Equal([option], Assert.Single(Told(ticked).Precautions).Options);
    }

    /// <summary>Nothing ticked, and an option the content does not have any more: all of them hold, the strictest.</summary>
    [Theory]
    [InlineData(null)]
    [InlineData("as-far-as-the-heel")]
    public void Not_known_how_far_it_is_taken_as_far_as_any(string? option)
    {
        var ticked = Someone.Calm with
        {
            Precautions = [new(Precaution, Side.Left, option is null ? null : [option])],
        };
        Assert.Null(Assert.Single(Told(ticked).Precautions).Options);
    }

    /// <summary>More told never leaves fewer rungs barred.</summary>
    [Fact]
    public void Further_down_never_opens_what_less_far_bars()
    {
        int Barred(LegReach reach) =>
            Content
                .Library.TrainedLadders.SelectMany(ladder => ladder.Rungs)
                .Count(rung =>
                    Allowance
                        .Of(
                            Content.Library,
                            Told(Someone.Calm, new LegReport(reach, null)).Precautions,
                            rung,
                            Side.Left
                        )
                        .Barred
                );
        var counts = Enum.GetValues<LegReach>().Order().Select(Barred).ToList();
        Assert.Equal(counts.Order(), counts);
        Assert.True(counts[^1] > counts[0]);
    }
}
