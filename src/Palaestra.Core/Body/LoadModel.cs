using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>The load of a movement: the greatest demand on the way, and what bears at its end.</summary>
/// <param name="Demands">The greatest in each direction, N·m.</param>
/// <param name="Along">The demands at even steps from start to end.</param>
/// <param name="ReachedCm">
/// Height in centimetres of the lower heel that hovers at the end; none when no foot does, and where the pelvis travels and
/// takes the heel along.
/// </param>
public sealed record MovementLoad(
    Demands Demands,
    IReadOnlyList<Demands> Along,
    PoseLoad AtStart,
    PoseLoad AtEnd,
    double? ReachedCm
);

/// <summary>The demand of a movement, for one body and one side.</summary>
public static class LoadModel
{
    /// <summary>Places of a movement at which its load is worked out, both ends among them.</summary>
    public const int Samples = 21;

    /// <param name="path">Poses as written, for the left as the side of the task.</param>
    /// <returns>The load, or the fall where a pose on the way does not stand.</returns>
    public static (MovementLoad? Load, Fall? Fall) Of(
        IReadOnlyList<Pose> path,
        Side side,
        BodySize size,
        LoadChanges changes
    )
    {
        var changed = changes.Apply(side == Side.Right ? [.. path.Select(pose => pose.Mirrored())] : path);
        return Of(new Movement(changed, size), size, changes.Range, Statics.LargestShift);
    }

    /// <summary>The largest loads of a movement; none with a fall where the body would tip over somewhere on the way.</summary>
    public static (MovementLoad? Load, Fall? Fall) Of(
        Movement movement,
        BodySize size,
        double range,
        double largestShift
    )
    {
        var along = new List<Demands>(Samples);
        var ends = new List<PoseLoad>(2);
        for (var i = 0; i < Samples; i++)
        {
            var (body, pose) = movement.At(range * i / (Samples - 1));
            var (standing, fall) = Statics.Stand(body, pose, size, largestShift);
            if (standing is null)
            {
                return (null, fall);
            }
            var forces = new PoseForces(body, pose.Bearing, standing);
            along.Add(forces.Demands());
            if (i is 0 or Samples - 1)
            {
                ends.Add(forces.Load());
            }
        }
        return (
            new MovementLoad(
                along.Aggregate(Demands.None, (max, demands) => max.Max(demands)),
                along,
                ends[0],
                ends[1],
                Reached(movement, range)
            ),
            null
        );
    }

    /// <summary>Metres the pelvis may travel for the height of a heel to say how far the leg went. Our own.</summary>
    private const float StillPelvis = 0.05f;

    private static double? Reached(Movement movement, double range)
    {
        if (Vector3.Distance(movement.Start.Root, movement.End.Root) > StillPelvis)
        {
            return null;
        }
        var (body, pose) = movement.At(range);
        var bearing = pose
            .Bearing.Where(c => c.Spot is Spot.Heel or Spot.Toe or Spot.Ankle)
            .Select(c => c.Side);
        var free = Skeleton.OneSide.Except(bearing).ToList();
        return free.Count == 0
            ? null
            : 100 * free.Min(side => ContactPoint.Of(body, new(Spot.Heel, side, Contact.Floor)).Low);
    }
}
