using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>A band's pull where it acts.</summary>
/// <param name="At">Metres, in the world: the palm.</param>
/// <param name="Newtons">Newtons, level.</param>
public readonly record struct TugForce(Bone Bone, Vector3 At, Vector3 Newtons)
{
    /// <summary>The pulls of the elastics held in this pose, in newtons; empty where none is held.</summary>
    public static IReadOnlyList<TugForce> Of(Skeleton body, Pose pose) =>
        pose.Tugs is null
            ? []
            :
            [
                .. pose.Tugs.Select(tug => new TugForce(
                    tug.Bone,
                    body[tug.Bone].At(0.5),
                    tug.Direction * (float)tug.Newtons
                )),
            ];

    /// <summary>
    /// How far the pulls move the middle of pressure under the feet, metres: friction at the floor holds them, so a pull at a
    /// height tips the body as a weight further out would.
    /// </summary>
    /// <param name="weight">Newtons, above 0.</param>
    public static Vector3 Shift(IReadOnlyList<TugForce> tugs, double weight)
    {
        var shift = Vector3.Zero;
        foreach (var tug in tugs)
        {
            shift += tug.Newtons * (float)(tug.At.Y / weight);
        }
        return shift;
    }
}
