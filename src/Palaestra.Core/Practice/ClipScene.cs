using System.Numerics;
using Palaestra.Core.Body;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>
/// A movement and a fault over it, solved once at even steps, for the left as the side of the task: what lies between is filled
/// in, as fast as pictures are asked for.
/// </summary>
internal sealed class ClipScene
{
    /// <summary>Steps of the movement that are solved.</summary>
    private const int Steps = 8;

    private readonly BodySize size;
    private readonly (Skeleton Body, Pose Pose)[] clean;
    private readonly (Posture Posture, Vector3 Root) added;

    /// <param name="faulty">The fault over the end of the movement.</param>
    public ClipScene(IReadOnlyList<Pose> path, Pose faulty, BodySize size)
    {
        this.size = size;
        var movement = new Movement(path, size);
        var steps = movement.Start.Posture.Is(movement.End.Posture) && path.Count <= 2 ? 0 : Steps;
        clean =
        [
            .. Enumerable
                .Range(0, steps + 1)
                .Select(i => movement.SettledAt(steps == 0 ? 1 : i / (double)steps)),
        ];
        var there = new Movement([path[^1], faulty], size);
        added = (Less(there.End.Posture, there.Start.Posture), there.End.Root - there.Start.Root);
        End = clean[^1].Body;
        Faulty = there.End.Moved(End.Root - there.Start.Root);
    }

    /// <summary>The body at the end of the movement, clean.</summary>
    public Skeleton End { get; }

    /// <summary>The same with the fault as the library draws it.</summary>
    public Skeleton Faulty { get; }

    /// <summary>All poses that a picture may be of, for what lies about.</summary>
    public IEnumerable<(Skeleton Body, Pose Pose)> Solved => clean;

    /// <param name="share">Of the movement, 0 to 1. <paramref name="fault"/>: of the fault as it is drawn, 0 or more.</param>
    /// <param name="restless">What else the body does.</param>
    public (Skeleton Body, Pose Pose) At(double share, double fault, Func<Posture, Posture> restless)
    {
        var place = Math.Clamp(share, 0, 1) * (clean.Length - 1);
        var before = Math.Min((int)place, Math.Max(0, clean.Length - 2));
        var part = place - before;
        var (from, to) = (clean[before], clean[Math.Min(before + 1, clean.Length - 1)]);
        var posture = from.Body.Posture.Toward(to.Body.Posture, part);
        var root = Vector3.Lerp(from.Body.Root, to.Body.Root, (float)part);
        if (fault > 0)
        {
            posture = posture.Plus(Scaled(added.Posture, fault));
            root += added.Root * (float)fault;
        }
        return (new Skeleton(restless(posture), size, root), part < 0.5 ? from.Pose : to.Pose);
    }

    private static readonly int[] AllSlots = [.. Enumerable.Range(0, Posture.Slots)];

    private static Posture Less(Posture a, Posture b) =>
        a.With(AllSlots, [.. AllSlots.Select(slot => a[slot] - b[slot])]);

    private static Posture Scaled(Posture posture, double by) =>
        posture.With(AllSlots, [.. AllSlots.Select(slot => posture[slot] * by)]);
}
