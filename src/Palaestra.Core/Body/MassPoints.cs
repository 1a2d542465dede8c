using System.Numerics;

namespace Palaestra.Core.Body;

/// <summary>A weight at a point, and the part of the body it hangs on.</summary>
/// <param name="Kilograms">Mass.</param>
/// <param name="At">Metres, in the world.</param>
public readonly record struct MassPoint(Bone Bone, double Kilograms, Vector3 At);

/// <summary>The masses of a body in a posture, and what its hands hold.</summary>
public static class MassPoints
{
    /// <summary>Mass and centre of every segment and of what is held, for a body of so many kilograms.</summary>
    public static MassPoint[] Of(Skeleton body, Pose pose, double kilograms)
    {
        var table = body.Table;
        var points = new List<MassPoint>(16);
        void Add(Bone bone, SegmentRow row, Vector3 at) =>
            points.Add(new(bone, row.MassPercent / 100 * kilograms, at));

        // Trunk rows are measured from their upper end.
        Add(Bone.Head, table.Head, body[Bone.Head].At(1 - table.Head.ComPercent / 100));
        Add(Bone.Chest, table.UpperTrunk, body[Bone.Chest].At(1 - table.UpperTrunk.ComPercent / 100));
        Add(
            Bone.Waist,
            table.MiddleTrunk,
            Below(body, Bone.Waist, table.MiddleTrunk.ComPercent / 100 * table.MiddleTrunk.Length)
        );
        var aboveHips = (1 - table.LowerTrunk.ComPercent / 100) * table.LowerTrunk.Length;
        Add(
            Bone.Pelvis,
            table.LowerTrunk,
            body[Bone.Pelvis].From + body[Bone.Pelvis].Direction * (float)(aboveHips * body.Height)
        );
        foreach (var side in Skeleton.OneSide)
        {
            foreach (
                var (left, row) in new[]
                {
                    (Bone.ThighLeft, table.Thigh),
                    (Bone.ShankLeft, table.Shank),
                    (Bone.UpperArmLeft, table.UpperArm),
                    (Bone.ForearmLeft, table.Forearm),
                }
            )
            {
                Add(left.On(side), row, body[left.On(side)].At(row.ComPercent / 100));
            }
            var (heel, toe) = (body.HeelCentre(side), body.ToeCentre(side));
            Add(
                Bone.FootLeft.On(side),
                table.Foot,
                heel + (toe - heel) * (float)(table.Foot.ComPercent / 100)
            );
            var hand = Bone.HandLeft.On(side);
            var palm = body[hand].At(table.Hand.ComPercent / 100 / Proportions.FingertipsAt);
            Add(hand, table.Hand, palm);
            var name = side == Side.Left ? "handLeft" : "handRight";
            if (pose.Held?.GetValueOrDefault(name) is > 0 and var held)
            {
                points.Add(new(hand, held, palm));
            }
        }
        return [.. points];
    }

    /// <summary>Metres, in the world, of the body and what it holds.</summary>
    public static Vector3 CentreOfMass(Skeleton body, Pose pose) =>
        Centre(Of(body, pose, body.Size.Kilograms));

    /// <summary>The common centre of mass, in metres.</summary>
    public static Vector3 Centre(IReadOnlyList<MassPoint> points)
    {
        var (sum, mass) = (Vector3.Zero, 0.0);
        foreach (var point in points)
        {
            sum += point.At * (float)point.Kilograms;
            mass += point.Kilograms;
        }
        return sum / (float)mass;
    }

    private static Vector3 Below(Skeleton body, Bone bone, double length) =>
        body[bone].To - body[bone].Direction * (float)(length * body.Height);
}
