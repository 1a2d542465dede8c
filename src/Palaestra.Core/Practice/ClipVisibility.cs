using System.Numerics;
using Palaestra.Core.Body;
using Palaestra.Core.Library;

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

    /// <summary>Whether anybody would look from there: down only on hips that are low, and a trunk nearer to level than to upright.</summary>
    public static bool CanLook(Skeleton clean, View view, PracticeModel model)
    {
        var up = clean[Bone.Chest].Direction.Y;
        return view != View.Top || (up * up < 0.5 && clean.Root.Y < model.TopBelow * clean.Height);
    }

    /// <summary>
    /// How far one looks along the axes about which the parts of the trunk turn, by how much they do, 0 to 1; of all parts where
    /// the trunk keeps still. Where nothing turns, the belly comes out: how far one looks across that. As the poses are written: how
    /// the body then comes to rest turns all of it.
    /// </summary>
    public static double AlongAxes(Posture clean, Posture faulty, View view)
    {
        var (before, after) = (At(clean), At(faulty));
        return Along(before, after, view, [Bone.Pelvis, Bone.Waist, Bone.Chest])
            ?? Along(before, after, view, Enum.GetValues<Bone>())
            ?? 1 - Math.Abs(Vector3.Dot(before.Ventral(Bone.Waist), Camera.For(view, Side.Left).Near));

        static Skeleton At(Posture posture) => new(posture, BodySize.Typical, Vector3.Zero);
    }

    private static double? Along(Skeleton clean, Skeleton faulty, View view, IEnumerable<Bone> bones)
    {
        var near = Camera.For(view, Side.Left).Near;
        var (along, all) = (0.0, 0.0);
        foreach (var bone in bones)
        {
            var turn = faulty.Frame(bone) * Quaternion.Conjugate(clean.Frame(bone));
            var axis = new Vector3(turn.X, turn.Y, turn.Z);
            // Twice the sine of half the angle: near enough the angle itself.
            along += Math.Abs(Vector3.Dot(axis, near));
            all += axis.Length();
        }
        return all < Still ? null : along / all;
    }

    /// <summary>Of all bones together, about two degrees: less is no turn.</summary>
    private const double Still = 0.02;

    private static Dictionary<string, List<Vector2>> Parts(Skeleton body, Camera camera) =>
        new BodyPainter(body, camera, Side.Left)
            .Parts()
            .ToDictionary(
                shape => shape.Part,
                shape => shape.Points().Select(point => new Vector2(point.X, point.Y)).ToList()
            );
}
