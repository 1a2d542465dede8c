using MathNet.Numerics.Distributions;
using Palaestra.Core.Intake;

namespace Palaestra.Simulation.Courses;

/// <summary>What a draw is for: each purpose has a stream of its own.</summary>
public enum Purpose
{
    Person,
    Day,
    Rep,
    Rater,
    Cue,
    Effort,
    Pain,
    Flare,
    Adherence,
    Told,
}

/// <summary>
/// The luck of one client. A draw is named by its purpose and place (week, exercise, side, set, rep) and not by how many were
/// drawn before it, so that the same client meets the same chances whatever a policy asks of them.
/// </summary>
public readonly struct Chance(int seed)
{
    /// <returns>Above 0 and below 1, evenly.</returns>
    public double Even(Purpose purpose, params ReadOnlySpan<int> place)
    {
        var state = Mixed(((ulong)(uint)seed << 32) | (uint)purpose);
        foreach (var part in place)
        {
            state = Mixed(state ^ (uint)part);
        }
        return ((state >> 11) + 0.5) / (1UL << 53);
    }

    /// <returns>Mean 0.</returns>
    public double Normal(double deviation, Purpose purpose, params ReadOnlySpan<int> place) =>
        deviation == 0 ? 0 : MathNet.Numerics.Distributions.Normal.InvCDF(0, deviation, Even(purpose, place));

    public double Share(double a, double b, Purpose purpose, params ReadOnlySpan<int> place) =>
        Beta.InvCDF(a, b, Even(purpose, place));

    /// <remarks>The finalizer of SplitMix64: Steele, Lea, Flood, Fast splittable pseudorandom number generators, 2014; constants from memory.</remarks>
    private static ulong Mixed(ulong x)
    {
        x += 0x9E3779B97F4A7C15;
        x = (x ^ (x >> 30)) * 0xBF58476D1CE4E5B9;
        x = (x ^ (x >> 27)) * 0x94D049BB133111EB;
        return x ^ (x >> 31);
    }
}
