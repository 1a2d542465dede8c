using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>A body on its way through poses: the first is the start, the last the end.</summary>
public sealed class Movement
{
    private readonly IReadOnlyList<Pose> poses;
    private readonly IReadOnlyList<Skeleton> bodies;
    private readonly IReadOnlyList<Pose> between;
    private readonly BodySize size;

    /// <param name="poses">At least one.</param>
    public Movement(IReadOnlyList<Pose> poses, BodySize size)
    {
        this.poses = poses;
        this.size = size;
        var solved = new List<Skeleton>(poses.Count);
        for (var i = 0; i < poses.Count; i++)
        {
            var body = ContactSolver.Solve(poses[i], size);
            solved.Add(i == 0 ? body : Planted(solved[i - 1], poses[i - 1], body, poses[i]));
        }
        bodies = solved;
        between = [.. poses.Zip(poses.Skip(1), Between)];
    }

    /// <summary>How it begins.</summary>
    public Pose StartPose => poses[0];

    /// <summary>How it ends.</summary>
    public Pose EndPose => poses[^1];

    /// <summary>The body as it begins.</summary>
    public Skeleton Start => bodies[0];

    /// <summary>The body as it ends.</summary>
    public Skeleton End => bodies[^1];

    /// <summary>The body and what bears, part of the way.</summary>
    /// <param name="share">0 at the start, 1 at the end; poses lie evenly between.</param>
    public (Skeleton Body, Pose Pose) At(double share)
    {
        var place = Math.Clamp(share, 0, 1) * (poses.Count - 1);
        var before = (int)Math.Floor(place);
        var part = place - before;
        if (part < 1e-9 || poses.Count == 1)
        {
            return (bodies[before], poses[before]);
        }
        var (a, b) = (bodies[before], bodies[before + 1]);
        var posture = IsRound
            ? Posture.Curve(
                Around(before - 1).Posture,
                a.Posture,
                b.Posture,
                Around(before + 2).Posture,
                part
            )
            : a.Posture.Toward(b.Posture, part);
        var root = Vector3.Lerp(a.Root, b.Root, (float)part);
        return (new Skeleton(posture, size, root), between[before]);
    }

    /// <summary>A movement that ends where it began goes round, not from corner to corner.</summary>
    private bool IsRound => poses.Count > 3 && bodies[0].Posture.Is(bodies[^1].Posture);

    /// <summary>Bodies of a round movement, counted on past its end; the end is the start.</summary>
    private Skeleton Around(int index)
    {
        var turns = bodies.Count - 1;
        return bodies[(index + turns) % turns];
    }

    /// <summary>As <see cref="At"/>, with the contacts brought back onto their surfaces, for a picture.</summary>
    public (Skeleton Body, Pose Pose) SettledAt(double share)
    {
        var (body, pose) = At(share);
        if (bodies.Contains(body))
        {
            return (body, pose);
        }
        var settled = ContactSolver.Solve(pose, body.Posture, size);
        return (
            settled.Moved(new Vector3(body.Root.X - settled.Root.X, 0, body.Root.Z - settled.Root.Z)),
            pose
        );
    }

    /// <summary>
    /// On the way a limb bears only if it does at both ends; the trunk rolls at once onto what it will bear on.
    /// </summary>
    private static Pose Between(Pose a, Pose b)
    {
        var before = a.Bearing.ToHashSet();
        var contacts = b.Bearing.Where(contact => contact.OnTrunk || before.Contains(contact));
        return b with { Contacts = [.. contacts.Select(c => $"{c.Name}@{c.Surface}")] };
    }

    /// <summary>Points that bear before and after stay where they are.</summary>
    private static Skeleton Planted(Skeleton from, Pose fromPose, Skeleton to, Pose toPose)
    {
        var after = toPose.Bearing.ToHashSet();
        var kept = fromPose.Bearing.Where(after.Contains).ToList();
        if (kept.Count == 0)
        {
            return to.Moved(new Vector3(from.Root.X - to.Root.X, 0, from.Root.Z - to.Root.Z));
        }
        var slip = Vector3.Zero;
        foreach (var contact in kept)
        {
            slip += ContactPoint.Of(from, contact).Centre - ContactPoint.Of(to, contact).Centre;
        }
        slip /= kept.Count;
        return to.Moved(new Vector3(slip.X, 0, slip.Z));
    }
}
