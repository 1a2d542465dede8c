using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Intake;

public class IrritabilityTests
{
    [Theory]
    [InlineData(2, 2, 1, false, Irritability.Low)]
    [InlineData(2, 2, 1.5, false, Irritability.Moderate)]
    [InlineData(3, 1, 1, false, Irritability.Moderate)]
    [InlineData(5, 5, 23.9, false, Irritability.Moderate)]
    [InlineData(6, 2, 1, false, Irritability.High)]
    [InlineData(1, 6, 1, false, Irritability.High)]
    [InlineData(1, 1, 24, false, Irritability.High)]
    [InlineData(1, 1, 1, true, Irritability.High)]
    public void Follows_pain_settling_and_nights(
        int now,
        int usual,
        double settle,
        bool night,
        Irritability expected
    ) =>
        Assert.Equal(
            expected,
            IrritabilityLevel.Of(
                new ClientProfile(new Pain(now, 10, usual), settle, night, []),
                Content.Policy
            )
        );
}

public class NeutralChoiceTests
{
    [Theory]
    [InlineData(RestingShape.LargeArch, SpinalStrategy.GentlyFlat)]
    [InlineData(RestingShape.Middling, SpinalStrategy.Neutral)]
    [InlineData(RestingShape.Rounded, SpinalStrategy.LittleArch)]
    public void Follows_the_build(RestingShape shape, SpinalStrategy expected)
    {
        var proposal = NeutralChoice.Propose(
            Someone.Calm with
            {
                RestingShape = shape,
            },
            Content.Policy,
            Content.Library
        );
        Assert.Equal(expected, proposal.Strategy);
        Assert.Equal("N-BUILD", proposal.RuleId);
    }

    [Fact]
    public void Stays_neutral_where_bending_stirs_it_up_whatever_the_build()
    {
        var profile = Someone.With("flexion") with { RestingShape = RestingShape.LargeArch };
        var proposal = NeutralChoice.Propose(profile, Content.Policy, Content.Library);
        Assert.Equal(SpinalStrategy.Neutral, proposal.Strategy);
        Assert.Equal("N-FLEXION", proposal.RuleId);
        Assert.NotEmpty(NeutralChoice.CautionsFor(SpinalStrategy.GentlyFlat, profile, Content.Library));
    }

    [Fact]
    public void A_policy_may_fix_the_strategy()
    {
        var policy = Content.Policy with { SpinalStrategy = StrategyRule.GentlyFlat };
        Assert.Equal("N-POLICY", NeutralChoice.Propose(Someone.Calm, policy, Content.Library).RuleId);
    }
}

public class ProfileCheckTests
{
    [Theory]
    [InlineData(-1, 2, "p.pain.now")]
    [InlineData(11, 2, "p.pain.now")]
    [InlineData(3, -0.5, "p.settleHours")]
    [InlineData(3, 400, "p.settleHours")]
    public void Refuses_what_cannot_be(int pain, double settle, string field)
    {
        var profile = new ClientProfile(new Pain(pain, 5, 5), settle, false, []);
        Assert.Equal(field, ProfileCheck.Errors(profile, Content.Library, "p").First().Field);
    }

    [Theory]
    [InlineData(6, 5, 5)]
    [InlineData(3, 5, 6)]
    public void The_worst_pain_is_not_below_the_others(int now, int worst, int usual) =>
        Assert.Equal(
            "p.pain.worst",
            Assert
                .Single(
                    ProfileCheck.Errors(
                        new ClientProfile(new Pain(now, worst, usual), 1, false, []),
                        Content.Library,
                        "p"
                    )
                )
                .Field
        );

    [Fact]
    public void Names_an_unknown_precaution() =>
        Assert.Equal(
            "p.precautions[0].id",
            Assert.Single(ProfileCheck.Errors(Someone.With("hiccups"), Content.Library, "p")).Field
        );
}
