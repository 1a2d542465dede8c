using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>How long the movement of a rep takes.</summary>
public static class RepTempo
{
    /// <summary>Seconds a rep is to take out and back, of one way where they are counted apart; 0 where the rung only holds.</summary>
    public static double MoveSeconds(Rung rung, Policy policy) =>
        rung.Moves && !rung.Features.Contains(Rung.ToleranceFeature)
            ? policy.Tempo.Seconds(rung.MoveSeconds) / Math.Max(1, policy.WaysOf(rung).Count)
            : 0;
}
