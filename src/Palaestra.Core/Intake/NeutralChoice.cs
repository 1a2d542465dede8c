using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>How the low back is held on the back.</summary>
public enum SpinalStrategy
{
    Neutral,
    GentlyFlat,
    LittleArch,
}

/// <param name="RuleId">N-FLEXION, N-POLICY or N-BUILD.</param>
public sealed record NeutralProposal(
    SpinalStrategy Strategy,
    SwitchOn SwitchOn,
    string RuleId,
    string Why,
    IReadOnlyList<string> Cautions
);

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
            policy.SwitchOn,
            rule,
            why,
            CautionsFor(strategy, profile, library)
        );
    }

    /// <summary>What the precautions say against a strategy the practitioner picks.</summary>
    public static IReadOnlyList<string> CautionsFor(
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
                .Select(note => $"{note.Tag}: {note.Words}"),
        ];
    }

    private static (SpinalStrategy, string, string) Choose(
        ClientProfile profile,
        Policy policy,
        bool flatCautioned
    )
    {
        if (flatCautioned)
        {
            return (
                SpinalStrategy.Neutral,
                "N-FLEXION",
                "Bending stirs this back up, so it stays in neutral."
            );
        }
        if (policy.SpinalStrategy != StrategyRule.ByBuild)
        {
            return policy.SpinalStrategy == StrategyRule.GentlyFlat
                ? (SpinalStrategy.GentlyFlat, "N-POLICY", "The policy asks for a gently flat back.")
                : (SpinalStrategy.Neutral, "N-POLICY", "The policy asks for neutral.");
        }
        return profile.RestingShape switch
        {
            RestingShape.LargeArch => (
                SpinalStrategy.GentlyFlat,
                "N-BUILD",
                "The resting arch is large, so the low back is flattened gently on the back."
            ),
            RestingShape.Rounded => (
                SpinalStrategy.LittleArch,
                "N-BUILD",
                "The low back rests rounded, so a little arch is found and kept."
            ),
            _ => (
                SpinalStrategy.Neutral,
                "N-BUILD",
                "The resting shape is in the middle, so neutral is kept."
            ),
        };
    }
}
