using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>Where a contact is on a body: a ball of flesh whose lowest point bears.</summary>
/// <param name="Centre">Metres, in the world.</param>
/// <param name="Radius">Metres.</param>
public readonly record struct ContactPoint(Vector3 Centre, double Radius)
{
    /// <summary>The lowest point, metres above the floor.</summary>
    public double Low => Centre.Y - Radius;

    /// <summary>Where on this body the contact lies. Throws for a place the body does not have; content is checked before.</summary>
    public static ContactPoint Of(Skeleton body, Contact contact)
    {
        var side = contact.Side;
        return contact.Spot switch
        {
            Spot.Buttock or Spot.UpperBack or Spot.ShoulderBack or Spot.MidBack => new(
                TrunkShape.LowestPoint(body, contact.Spot),
                0
            ),
            Spot.HeadBack => Round(body, body[Bone.Head].At(0.5), Proportions.HeadShort),
            Spot.HeadSide => Round(body, body[Bone.Head].At(0.5), Proportions.HeadSide),
            Spot.Seat => Round(body, body.Root, 0.062),
            Spot.HipSide => Round(body, body.Hip(side), 0.045),
            Spot.ShoulderSide => Round(
                body,
                body[Bone.UpperArmLeft.On(side)].From,
                Proportions.UpperArmWidth.Near
            ),
            Spot.Knee => Round(body, body[Bone.ShankLeft.On(side)].From, Proportions.ShankWidth.Near),
            Spot.Ankle => Round(body, body[Bone.FootLeft.On(side)].From, Proportions.AnkleRadius),
            Spot.Heel => Round(body, body.HeelCentre(side), Proportions.HeelRadius),
            Spot.Toe => Round(body, body.ToeCentre(side), Proportions.ToeRadius),
            Spot.Elbow => Round(body, body[Bone.ForearmLeft.On(side)].From, Proportions.ForearmWidth.Near),
            Spot.Wrist => Round(body, body[Bone.HandLeft.On(side)].From, Proportions.HandWidth.Near),
            _ => Round(body, body[Bone.HandLeft.On(side)].To, Proportions.HandWidth.Far),
        };
    }

    private static ContactPoint Round(Skeleton body, Vector3 centre, double radius) =>
        new(centre, radius * body.Height);

    /// <summary>
    /// Half the patch that bears, along and across the mat, as fractions of stature. Our own, from the size of the part.
    /// </summary>
    public static (double Along, double Across) Patch(Spot spot) =>
        spot switch
        {
            Spot.Buttock or Spot.MidBack => (0.02, 0.05),
            Spot.UpperBack or Spot.ShoulderBack => (0.02, 0.06),
            Spot.Seat => (0.03, 0.06),
            Spot.HipSide => (0.03, 0.03),
            Spot.HeadBack or Spot.HeadSide or Spot.ShoulderSide => (0.02, 0.02),
            Spot.Knee => (0.015, 0.015),
            Spot.Heel => (0.010, 0.018),
            Spot.Toe => (0.010, 0.025),
            Spot.Wrist => (0.010, 0.020),
            Spot.Fingertips => (0.005, 0.020),
            _ => (0.012, 0.012),
        };

    /// <summary>The part of the body that carries the contact.</summary>
    public static Bone BoneOf(Contact contact) =>
        contact.Spot switch
        {
            Spot.Buttock or Spot.Seat or Spot.HipSide => Bone.Pelvis,
            Spot.MidBack => Bone.Waist,
            Spot.UpperBack or Spot.ShoulderBack => Bone.Chest,
            Spot.HeadBack or Spot.HeadSide => Bone.Head,
            Spot.ShoulderSide => Bone.UpperArmLeft.On(contact.Side),
            Spot.Knee => Bone.ShankLeft.On(contact.Side),
            Spot.Ankle or Spot.Heel or Spot.Toe => Bone.FootLeft.On(contact.Side),
            Spot.Elbow => Bone.ForearmLeft.On(contact.Side),
            _ => Bone.HandLeft.On(contact.Side),
        };
}
