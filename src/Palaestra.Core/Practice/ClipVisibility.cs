using System.Numerics;
using Palaestra.Core.Body;

namespace Palaestra.Core.Practice;

/// <summary>How much of a fault shows from where one looks.</summary>
internal static class ClipVisibility
{
    /// <summary>Of a limb that only follows the trunk, or stands for itself, less is taken for the fault.</summary>
    private const double Limb = 0.6;

    /// <summary>Millimetres the outline is off in the picture: of the trunk nine points in ten are off by no more; or of the limb that is off most, its mean, in part.</summary>
    public static double Millimetres(Skeleton clean, Skeleton faulty, View view)
    {
        var camera = Camera.For(view, Side.Left);
        var (before, after) = (Parts(clean, camera), Parts(faulty, camera));
        var most = 0.0;
        foreach (var (part, outline) in before)
        {
            var off = outline.Zip(after[part], Vector2.Distance).Order().ToList();
            if (off.Count > 0)
            {
                most = Math.Max(
                    most,
                    part == "trunk" ? off[(int)(0.9 * (off.Count - 1))] : Limb * off.Average()
                );
            }
        }
        return most;
    }

    private static Dictionary<string, List<Vector2>> Parts(Skeleton body, Camera camera) =>
        new BodyPainter(body, camera, Side.Left)
            .Parts()
            .ToDictionary(
                shape => shape.Part,
                shape => shape.Points().Select(point => new Vector2(point.X, point.Y)).ToList()
            );
}
