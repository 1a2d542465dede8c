using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Weights and the pushes that carry them.</summary>
/// <param name="Newtons">For each push, 0 or more.</param>
/// <param name="Weight">Newtons, of the body and what it holds.</param>
/// <param name="Tugs">Bands that pull at the hands; their counterpart at the floor is not among the pushes.</param>
/// <param name="Shift">Metres the whole weight was moved over the ground to stand; zero where it stands as drawn.</param>
public sealed record Standing(
    IReadOnlyList<MassPoint> Masses,
    IReadOnlyList<Push> Pushes,
    IReadOnlyList<double> Newtons,
    double Weight,
    Vector3 Shift,
    IReadOnlyList<TugForce> Tugs
)
{
    /// <summary>Centre of mass after the shift, metres in the world.</summary>
    public Vector3 Centre => MassPoints.Centre(Masses) + Shift;
}
