using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>A body in a posture with all forces on it, at rest.</summary>
public sealed class PoseForces(Skeleton body, IReadOnlyList<Contact> contacts, Standing standing)
{
    private readonly IReadOnlyList<Push> pushes = standing.Pushes;
    private readonly IReadOnlyList<double> forces = standing.Newtons;

    /// <summary>Moments and supports of this pose, in newton metres and shares of weight.</summary>
    public PoseLoad Load() =>
        new(
            Shares(),
            Carried,
            Split(TrunkMoment()),
            Pull(),
            Hips(),
            Demands(),
            standing.Shift.Length() * 100
        );

    /// <summary>What each direction of the trunk has to hold here, in newton metres.</summary>
    public Demands Demands() => Carried ? CarriedDemands(Pull()) : CutDemands(Split(TrunkMoment()), Hips());

    private IReadOnlyList<HipMoment> Hips() => [.. Skeleton.OneSide.Where(Bears).Select(Hip)];

    /// <summary>The floor carries the trunk when it bears on both sides of the lumbosacral joint.</summary>
    private bool Carried =>
        contacts.Any(c => ContactPoint.BoneOf(c) == Bone.Pelvis)
        && contacts.Any(c => !IsLower(ContactPoint.BoneOf(c)));

    private static bool IsLower(Bone bone) =>
        bone is Bone.Pelvis or (>= Bone.ThighLeft and <= Bone.FootRight);

    /// <summary>A left part stands one before its right twin, from the thighs on.</summary>
    private static bool IsOn(Bone bone, Side side) =>
        (bone - Bone.ThighLeft) % 2 == (side == Side.Right ? 1 : 0);

    private static bool IsLeg(Bone bone, Side side) =>
        bone is >= Bone.ThighLeft and <= Bone.FootRight && IsOn(bone, side);

    private static bool IsArm(Bone bone, Side side) => bone >= Bone.UpperArmLeft && IsOn(bone, side);

    private bool Bears(Side side) => contacts.Any(c => IsLeg(ContactPoint.BoneOf(c), side));

    private IReadOnlyList<SupportShare> Shares()
    {
        var onElbow = contacts.Where(c => c.Spot == Spot.Elbow).Select(c => c.Side).ToHashSet();
        return
        [
            .. pushes
                .Select(
                    (push, i) =>
                        (
                            Contact: contacts[push.Contact],
                            Newtons: push.Direction == Vector3.UnitY ? forces[i] : 0
                        )
                )
                .Where(part => !part.Contact.OnWall)
                .GroupBy(part => PartName(part.Contact, onElbow))
                .Select(part => new SupportShare(part.Key, 100 * part.Sum(p => p.Newtons) / standing.Weight)),
        ];
    }

    /// <summary>Lying on the front.</summary>
    private bool Prone => body.Ventral(Bone.Pelvis).Y < -0.5f;

    private Message PartName(Contact contact, HashSet<Side> onElbow)
    {
        Message Of(string part) => Message.Of("support.part", ("part", part), ("side", Side.Both));
        Message OnSide(string part) => Message.Of("support.part", ("part", part), ("side", contact.Side));
        return contact.Spot switch
        {
            Spot.Buttock or Spot.Seat or Spot.HipSide => Of("pelvis"),
            Spot.UpperBack when Prone => Of("chest"),
            Spot.UpperBack or Spot.ShoulderBack or Spot.MidBack or Spot.ShoulderSide => Of("upper-back"),
            Spot.HeadBack or Spot.HeadSide => Of("head"),
            Spot.Knee => OnSide("knee"),
            Spot.Ankle or Spot.Heel or Spot.Toe => OnSide("foot"),
            Spot.Elbow => OnSide("forearm"),
            _ => OnSide(onElbow.Contains(contact.Side) ? "forearm" : "hand"),
        };
    }

    /// <summary>Moment of all that acts above the cut, about the lumbosacral joint.</summary>
    private Vector3 TrunkMoment() => MomentOn(bone => !IsLower(bone), body.Lumbosacral);

    private Vector3 MomentOn(Func<Bone, bool> part, Vector3 about)
    {
        var moment = Vector3.Zero;
        foreach (var mass in standing.Masses)
        {
            if (part(mass.Bone))
            {
                // All masses go along when the weight is shifted.
                moment += Vector3.Cross(
                    mass.At + standing.Shift - about,
                    -Vector3.UnitY * (float)(mass.Kilograms * Statics.Gravity)
                );
            }
        }
        foreach (var tug in standing.Tugs)
        {
            if (part(tug.Bone))
            {
                moment += Vector3.Cross(tug.At + standing.Shift - about, tug.Newtons);
            }
        }
        for (var i = 0; i < pushes.Count; i++)
        {
            if (forces[i] > 0 && part(ContactPoint.BoneOf(contacts[pushes[i].Contact])))
            {
                moment += Vector3.Cross(pushes[i].At - about, pushes[i].Direction * (float)forces[i]);
            }
        }
        return moment;
    }

    /// <summary>In the pelvis's axes: to the right: arching; to the front: bending right; upward: turning left.</summary>
    private TrunkMoments Split(Vector3 moment)
    {
        double arch = Vector3.Dot(moment, body.Rightward(Bone.Pelvis));
        double bend = Vector3.Dot(moment, body.Ventral(Bone.Pelvis));
        double turn = Vector3.Dot(moment, body[Bone.Pelvis].Direction);
        return new(
            Math.Max(0, arch),
            Math.Max(0, -arch),
            Math.Max(0, -bend),
            Math.Max(0, bend),
            Math.Max(0, turn),
            Math.Max(0, -turn)
        );
    }

    private TiltPull Pull() => new(LegsPull(), ArmsPull(), HeadPull());

    /// <summary>Of the legs that bear nowhere, about the hip axis; toward arching above 0.</summary>
    private double LegsPull() => -Vector3.Dot(LegsMoment(), body.Rightward(Bone.Pelvis));

    private Vector3 LegsMoment() =>
        MomentOn(bone => Skeleton.OneSide.Any(side => IsLeg(bone, side) && !Bears(side)), body.Root);

    private double ArmsPull()
    {
        var pull = 0.0;
        foreach (var side in Skeleton.OneSide)
        {
            if (!contacts.Any(c => IsArm(ContactPoint.BoneOf(c), side)))
            {
                var moment = MomentOn(bone => IsArm(bone, side), body[Bone.UpperArmLeft.On(side)].From);
                pull += Vector3.Dot(moment, body.Rightward(Bone.Chest));
            }
        }
        return pull;
    }

    /// <summary>A lifted head about the base of the neck; with the shoulders lifted, all of it about the lower ribs.</summary>
    private double HeadPull()
    {
        if (contacts.Any(c => ContactPoint.BoneOf(c) == Bone.Head))
        {
            return 0;
        }
        var chestBears = contacts.Any(c =>
            ContactPoint.BoneOf(c) is Bone.Chest or Bone.UpperArmLeft or Bone.UpperArmRight
        );
        var moment = chestBears
            ? MomentOn(bone => bone == Bone.Head, body[Bone.Neck].From)
            : MomentOn(
                bone => bone is Bone.Head or Bone.Chest || Skeleton.OneSide.Any(side => IsArm(bone, side)),
                body[Bone.Chest].From
            );
        return Vector3.Dot(moment, body.Rightward(Bone.Chest));
    }

    /// <summary>
    /// About the hip of a bearing leg, of all that hangs on it: pelvis and other leg where the trunk bears somewhere
    /// else, the whole rest of the body where it does not.
    /// </summary>
    private HipMoment Hip(Side side)
    {
        var hip = body.Hip(side);
        var alone = !contacts.Any(c => !IsLower(ContactPoint.BoneOf(c)));
        var hanging = MomentOn(bone => !IsLeg(bone, side) && (alone || IsLower(bone)), hip);
        var flexing = Vector3.Dot(MomentOn(bone => IsLeg(bone, side), hip), body.Rightward(Bone.Pelvis));
        var across = body.Hip(side.Other()) - hip;
        var flat = new Vector3(across.X, 0, across.Z);
        // Hips one above the other, on the side: neither can sink.
        if (flat.Length() < 0.5f * across.Length())
        {
            return new(side, 0, flexing);
        }
        var sinks = Vector3.Cross(Vector3.Normalize(flat), -Vector3.UnitY);
        return new(side, Vector3.Dot(hanging, sinks), flexing);
    }

    private static Demands CutDemands(TrunkMoments trunk, IReadOnlyList<HipMoment> hips) =>
        new(
            trunk.Arching,
            trunk.Rounding,
            trunk.BendingRight,
            trunk.BendingLeft,
            Math.Max(trunk.TurningLeft, trunk.TurningRight),
            Level(hips, Side.Left),
            Level(hips, Side.Right)
        );

    private static double Level(IReadOnlyList<HipMoment> hips, Side side) =>
        Math.Max(0, hips.FirstOrDefault(hip => hip.Side == side)?.Sinking ?? 0);

    /// <summary>
    /// The front wall ties ribs and pelvis together and answers for pulls at both ends, so they are added. On the side,
    /// the lifted leg asks the hip that lifts it; on the front, whatever is lifted asks the back, and what the elbows prop up rests.
    /// </summary>
    private Demands CarriedDemands(TiltPull pull)
    {
        var legs = LegsMoment();
        double bend = Vector3.Dot(legs, body.Ventral(Bone.Pelvis));
        var ribs = new[] { pull.Arms, pull.HeadAndChest };
        return new(
            Math.Max(0, pull.Legs) + (Prone ? 0 : ribs.Sum(r => Math.Max(0, r))),
            Math.Max(0, -pull.Legs) + (Prone ? ribs.Sum(r => Math.Max(0, -r)) : 0),
            Math.Max(0, -bend),
            Math.Max(0, bend),
            Math.Abs(Vector3.Dot(legs, body[Bone.Pelvis].Direction)),
            Lifted(Side.Left),
            Lifted(Side.Right)
        );
    }

    private double Lifted(Side side)
    {
        if (Bears(side))
        {
            return 0;
        }
        var moment = MomentOn(bone => IsLeg(bone, side), body.Hip(side));
        return Math.Abs(Vector3.Dot(moment, body.Ventral(Bone.Pelvis)));
    }
}
