using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Support, moments and demand of a pose: weights at segment centres, pushes at contacts, all at rest.</summary>
public static class Statics
{
    /// <summary>Standard gravity, m/s² (ISO 80000-3).</summary>
    public const double Gravity = 9.80665;

    /// <summary>
    /// A person shifts over what bears before lifting a limb; a rung's drawing may be this far from standing, metres.
    /// Our own; reported with every answer.
    /// </summary>
    public const double LargestShift = 0.08;

    /// <param name="pose">What bears and what is held; its angles are not used.</param>
    /// <param name="largestShift">Metres the weight may be shifted to make it stand.</param>
    /// <returns>The load, or the way it falls.</returns>
    public static (PoseLoad? Load, Fall? Fall) Of(
        Skeleton body,
        Pose pose,
        BodySize size,
        double largestShift = 0
    )
    {
        var (standing, fall) = Stand(body, pose, size, largestShift);
        return standing is null ? (null, fall) : (new PoseForces(body, pose.Bearing, standing).Load(), null);
    }

    /// <summary>What carries the body; or the way it falls.</summary>
    public static (Standing? Standing, Fall? Fall) Stand(
        Skeleton body,
        Pose pose,
        BodySize size,
        double largestShift = 0
    )
    {
        var contacts = pose.Bearing;
        if (contacts.Count == 0)
        {
            return (null, Fall.InTheAir);
        }
        var masses = MassPoints.Of(body, pose, size.Kilograms);
        var pushes = Pushes(body, contacts);
        var weight = masses.Sum(mass => mass.Kilograms) * Gravity;
        var tugs = TugForce.Of(body, pose);
        var centre = MassPoints.Centre(masses) + TugForce.Shift(tugs, weight);
        if (Reactions.Carrying(pushes, centre, weight, size.Metres) is { } asDrawn)
        {
            return (new Standing(masses, pushes, asDrawn, weight, Vector3.Zero, tugs), null);
        }
        if (contacts.Any(contact => contact.OnWall))
        {
            return (null, new Fall(Toward(body, Vector2.Zero), null));
        }
        var off = new SupportArea(pushes.Select(push => push.At)).Outside(centre);
        // A hair further in than the very edge, where the balance would be met only in the limit.
        var by = -ToWorld(off) * 1.02f - ToWorld(Vector2.Normalize(off)) * 1e-4f;
        var shifted =
            off.Length() > largestShift ? null : Reactions.Carrying(pushes, centre + by, weight, size.Metres);
        return shifted is null
            ? (null, new Fall(Toward(body, off), off.Length() * 100))
            : (new Standing(masses, pushes, shifted, weight, by, tugs), null);
    }

    /// <summary>
    /// Fingertips without a palm, the foot of a kneeling leg and a resting head steady, they do not carry: they take this
    /// share of what another part would. Our own.
    /// </summary>
    private const double SteadyingShare = 0.01;

    private static bool Steadies(IReadOnlyList<Contact> contacts, Contact contact) =>
        contact.Surface == Contact.Touch
        || contact.Spot switch
        {
            Spot.Fingertips => !Bears(contacts, contact.Side, Spot.Wrist, Spot.Elbow),
            Spot.Toe or Spot.Ankle => Bears(contacts, contact.Side, Spot.Knee, Spot.Knee),
            Spot.HeadBack or Spot.HeadSide => contacts.Any(c => c.OnTrunk && c != contact),
            _ => false,
        };

    private static bool Bears(IReadOnlyList<Contact> contacts, Side side, Spot one, Spot other) =>
        contacts.Any(c => c.Side == side && (c.Spot == one || c.Spot == other));

    private static Vector3 ToWorld(Vector2 flat) => new(flat.X, 0, flat.Y);

    private static List<Push> Pushes(Skeleton body, IReadOnlyList<Contact> contacts)
    {
        var wall = contacts.Any(contact => contact.OnWall);
        var pushes = new List<Push>(contacts.Count * 4);
        for (var i = 0; i < contacts.Count; i++)
        {
            if (contacts[i].OnLeg)
            {
                continue;
            }
            var point = ContactPoint.Of(body, contacts[i]);
            if (contacts[i].OnWall)
            {
                pushes.Add(new(i, point.Centre, -Vector3.UnitX));
                continue;
            }
            var share = Steadies(contacts, contacts[i]) ? SteadyingShare : 1;
            var (along, across) = ContactPoint.Patch(contacts[i].Spot);
            var low = point.Centre - Vector3.UnitY * (float)point.Radius;
            foreach (var (x, z) in new[] { (-1, -1), (-1, 1), (1, -1), (1, 1) })
            {
                var at =
                    low + new Vector3((float)(x * along * body.Height), 0, (float)(z * across * body.Height));
                pushes.Add(new(i, at, Vector3.UnitY, share));
            }
            if (wall)
            {
                // Friction under the feet holds what the wall pushes back.
                pushes.Add(new(i, low, Vector3.UnitX));
                pushes.Add(new(i, low, -Vector3.UnitX));
            }
        }
        return pushes;
    }

    /// <summary>The way it goes over, by the body's own axes.</summary>
    private static string Toward(Skeleton body, Vector2 off)
    {
        var way = ToWorld(off);
        var pelvis = body[Bone.Pelvis].Direction;
        var axes = new (Vector3 Axis, string Plus, string Minus)[]
        {
            (pelvis, "head", "feet"),
            (body.Rightward(Bone.Pelvis), "right", "left"),
            (body.Ventral(Bone.Pelvis), "front", "back"),
        };
        var (axis, plus, minus) = axes.MaxBy(a => Math.Abs(Vector3.Dot(a.Axis, way)));
        return Vector3.Dot(axis, way) >= 0 ? plus : minus;
    }
}
