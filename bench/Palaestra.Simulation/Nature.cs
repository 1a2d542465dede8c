namespace Palaestra.Simulation;

/// <summary>How people, days and eyes differ, in rungs. Every figure is our own choice, stated in docs/screening-simulation.md.</summary>
/// <param name="Own">Standard deviation of how much harder or easier a rung is for this person than for most.</param>
/// <param name="Sides">Share of ability that differs between directions and sides of one person, 0 to 1.</param>
/// <param name="Noise">Standard deviation from rep to rep.</param>
/// <param name="Fatigue">Lost with each trial done before.</param>
/// <param name="Missed">Chance that a rater does not see a fault. <paramref name="Imagined"/>: chance of a fault marked in a clean rep.</param>
public sealed record Nature(
    double Own = 0.3,
    double Sides = 0.5,
    double Noise = 0.3,
    double Fatigue = 0.03,
    double Missed = 0.10,
    double Imagined = 0.01
)
{
    public static readonly Nature Typical = new();

    /// <summary>Nobody tires, wavers or errs, and rungs are equally hard for all: what a method does by itself.</summary>
    public static readonly Nature Perfect = new(0, 0.5, 0, 0, 0, 0);

    /// <summary>A tiring client and a hurried eye.</summary>
    public static readonly Nature Rough = new(0.5, 0.5, 0.6, 0.08, 0.2, 0.03);
}
