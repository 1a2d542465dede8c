using Palaestra.Core.Library;

namespace Palaestra.Core.Abilities;

/// <summary>How high somebody stands in a direction: a client's ability, with how sure that is.</summary>
/// <param name="Side">The side of the ring; for the front the side of the limb that moves; both: no ladder asks it one-sided.</param>
/// <param name="Theta">The mean, rungs of the load scale. <paramref name="Low"/>, <paramref name="High"/>: the ends of its interval.</param>
/// <param name="Sd">Standard deviation, rungs.</param>
/// <param name="Percent">The same on the way from a rung and a half below the lowest rung to as much above the highest, 0 to 100; likewise its ends.</param>
/// <param name="Spread">From rep to rep, rungs.</param>
/// <param name="Reps">Uncued reps it rests on, at least 1. <paramref name="Trials"/>: where they were done, the latest last.</param>
/// <param name="Unclear">It is lowest or not, but cannot be told apart from the lowest: their intervals overlap.</param>
public sealed record Ability(
    Direction Direction,
    Side Side,
    Sector Sector,
    Message Name,
    double Theta,
    double Low,
    double High,
    double Sd,
    double Percent,
    double PercentLow,
    double PercentHigh,
    double Spread,
    int Reps,
    IReadOnlyList<Guid> Trials,
    bool Lowest = false,
    bool Unclear = false
)
{
    /// <summary>Beyond chance 19 times in 20: 1.96 standard errors of the difference of two readings, in rungs.</summary>
    public double SmallestChange(Ability other) => 1.96 * Math.Sqrt(Sd * Sd + other.Sd * other.Sd);
}

/// <summary>Chance of a clean rep of the rung above the one somebody stands on.</summary>
/// <param name="Chance">0 to 1.</param>
public sealed record NextRung(string LadderId, Side Side, string RungId, double Chance)
{
    /// <summary>"8 of 10 reps would be clean".</summary>
    public Message Words => Message.Of("ability.next", ("reps", Math.Round(10 * Chance)));
}
