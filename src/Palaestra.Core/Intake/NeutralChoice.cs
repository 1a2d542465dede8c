using System.Text.Json.Serialization;
using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>How the low back is held on the back.</summary>
public enum SpinalStrategy
{
    /// <summary>Between flat and arched, where it is comfortable.</summary>
    Neutral,

    /// <summary>A gently flattened low back.</summary>
    GentlyFlat,

    /// <summary>A little arch.</summary>
    LittleArch,
}

/// <param name="RuleId">N-FLEXION, N-POLICY or N-BUILD.</param>
public sealed record NeutralProposal(
    SpinalStrategy Strategy,
    [property: JsonPropertyName("switchOn")] Activation Activation,
    string RuleId,
    Message Why,
    IReadOnlyList<Message> Cautions
);

/// <summary>Which neutral position and strategy suit a client.</summary>
public static class NeutralChoice
{
    /// <summary>The strategy that follows from policy, resting shape and precautions, with the reason.</summary>
    /// <remarks>Common practice.</remarks>
    public static NeutralProposal Propose(ClientProfile profile, Policy policy, PracticeLibrary library)
    {
        var flat = Allowance.OfStrategy(library, profile.Precautions, "gently-flat");
        var (strategy, rule, why) = Choose(profile, policy, flat.Count > 0);
        return new NeutralProposal(
            strategy,
            policy.Activation,
            rule,
            why,
            CautionsFor(strategy, profile, library)
        );
    }

    /// <summary>What the precautions say against a strategy the practitioner picks.</summary>
    public static IReadOnlyList<Message> CautionsFor(
        SpinalStrategy strategy,
        ClientProfile profile,
        PracticeLibrary library
    )
    {
        var id = strategy == SpinalStrategy.GentlyFlat ? "gently-flat" : "neutral";
        return
        [
            .. Allowance
                .OfStrategy(library, profile.Precautions, id)
                .Select(note => Message.Of("tagged", ("tag", note.Tag), ("words", note.Words))),
        ];
    }

    private static (SpinalStrategy, string, Message) Choose(
        ClientProfile profile,
        Policy policy,
        bool flatCautioned
    )
    {
        if (flatCautioned)
        {
            return (SpinalStrategy.Neutral, "N-FLEXION", Message.Of("neutral.flexion"));
        }
        if (policy.SpinalStrategy != StrategyRule.ByBuild)
        {
            return policy.SpinalStrategy == StrategyRule.GentlyFlat
                ? (SpinalStrategy.GentlyFlat, "N-POLICY", Message.Of("neutral.policy-flat"))
                : (SpinalStrategy.Neutral, "N-POLICY", Message.Of("neutral.policy"));
        }
        return profile.RestingShape switch
        {
            RestingShape.LargeArch => (
                SpinalStrategy.GentlyFlat,
                "N-BUILD",
                Message.Of("neutral.large-arch")
            ),
            RestingShape.Rounded => (SpinalStrategy.LittleArch, "N-BUILD", Message.Of("neutral.rounded")),
            _ => (SpinalStrategy.Neutral, "N-BUILD", Message.Of("neutral.middling")),
        };
    }
}
