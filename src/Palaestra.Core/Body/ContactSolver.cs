using System.Numerics;
using MathNet.Numerics.LinearAlgebra;
using Numbers = MathNet.Numerics.LinearAlgebra.Vector<double>;

namespace Palaestra.Core.Body;

/// <summary>
/// Moves the named angles and the height of the pelvis a little, so that every contact meets its surface: damped least
/// squares on contact heights, with a pull toward the angles as written.
/// </summary>
public static class ContactSolver
{
    private const int Iterations = 40;
    private const double DegreesPerMetre = 100;

    /// <summary>How strongly angles are held to what was written, against contacts off their surface.</summary>
    private const double Pull = 1e-3;

    public static Skeleton Solve(Pose pose, BodySize size) => Solve(pose, pose.Posture, size);

    /// <param name="posture">Angles to start from and to keep to, instead of those the pose was written with.</param>
    public static Skeleton Solve(Pose pose, Posture posture, BodySize size)
    {
        // Only what bears on a height counts; a wall may stand where the hands are.
        var bearing = pose.Bearing.Where(contact => !contact.OnWall && !contact.OnLeg).ToArray();
        if (bearing.Length == 0)
        {
            return new Skeleton(posture, size, new Vector3(0, (float)size.Metres, 0));
        }
        var slots = pose.Solve.SelectMany(Posture.Slots).Distinct().ToArray();
        var body = Settled(pose, posture, size, bearing, slots);
        for (
            var pass = 0;
            slots.Length > 0 && pass < 3 && Dipping(body, bearing) is { Count: > 0 } dipping;
            pass++
        )
        {
            bearing = [.. bearing, .. dipping];
            slots =
            [
                .. slots.Union(dipping.SelectMany(contact => contact.LimbAngles).SelectMany(Posture.Slots)),
            ];
            body = Settled(pose, posture, size, bearing, slots);
        }
        return body;
    }

    /// <summary>Metres a hand or foot that bears nowhere may be below the floor before it is laid on it.</summary>
    private const double Dip = 0.003;

    /// <summary>Points of free limbs that went through the floor, the lowest of each limb: they come to rest on it instead.</summary>
    private static List<Contact> Dipping(Skeleton body, Contact[] bearing) =>
        [
            .. from spot in Contact.LimbEnds
            from side in Skeleton.OneSide
            let contact = new Contact(spot, side, Contact.Floor)
            where bearing.All(other => other.Spot != spot || other.Side != side)
            let low = ContactPoint.Of(body, contact).Low
            where low < -Dip
            group (contact, low) by contact.LimbAngles.First() into limb
            select limb.MinBy(point => point.low).contact,
        ];

    /// <summary>Angles that came to the end of their joint stay there, and the others go on.</summary>
    private static Skeleton Settled(Pose pose, Posture posture, BodySize size, Contact[] bearing, int[] slots)
    {
        var body = Settled(new Task(pose, posture, size, bearing, slots));
        var free = slots.Where(slot => !JointLimits.AtEnd(slot, body.Posture[slot])).ToArray();
        return free.Length == slots.Length
            ? body
            : Settled(new Task(pose, body.Posture, size, bearing, free));
    }

    private static Skeleton Settled(Task task)
    {
        var values = Numbers.Build.Dense(task.Start());
        for (var i = 0; i < Iterations; i++)
        {
            var residual = task.Residual(values);
            var jacobian = task.Jacobian(values, residual);
            var transposed = jacobian.Transpose();
            var step = (
                transposed * jacobian + Matrix<double>.Build.DenseIdentity(values.Count) * 1e-9
            ).Solve(-(transposed * residual));
            // A long step would leave the neighbourhood in which heights are nearly linear in the angles.
            var longest = step.AbsoluteMaximum();
            values = task.Possible(values + (longest > 15 ? step * (15 / longest) : step));
            if (longest < 1e-4)
            {
                break;
            }
        }
        return task.Build(values);
    }

    private sealed class Task(Pose pose, Posture posture, BodySize size, Contact[] bearing, int[] slots)
    {
        private readonly double[] heights = [.. bearing.Select(contact => pose.HeightOf(contact.Surface))];
        private readonly bool side = pose.Balance?.Contains("side") == true;
        private readonly bool fore = pose.Balance?.Contains("fore") == true;

        public double[] Start()
        {
            var body = new Skeleton(posture, size, Vector3.Zero);
            var low = 0.0;
            for (var i = 0; i < bearing.Length; i++)
            {
                low += ContactPoint.Of(body, bearing[i]).Low - heights[i];
            }
            return [.. slots.Select(slot => posture[slot]), -low / bearing.Length * DegreesPerMetre];
        }

        public Skeleton Build(Numbers values) =>
            new(
                posture.With(slots, [.. values.Take(slots.Length)]),
                size,
                new Vector3(0, (float)(values[^1] / DegreesPerMetre), 0)
            );

        /// <summary>Angles that went past the end of a joint, brought back to it; others make up for them in the next step.</summary>
        public Numbers Possible(Numbers values)
        {
            for (var i = 0; i < slots.Length; i++)
            {
                values[i] -= JointLimits.Beyond(slots[i], values[i]);
            }
            return values;
        }

        public Numbers Residual(Numbers values)
        {
            var body = Build(values);
            var extra = (side ? 1 : 0) + (fore ? 1 : 0);
            var residual = new double[bearing.Length + slots.Length + extra];
            for (var i = 0; i < bearing.Length; i++)
            {
                residual[i] = (ContactPoint.Of(body, bearing[i]).Low - heights[i]) * DegreesPerMetre;
            }
            for (var i = 0; i < slots.Length; i++)
            {
                residual[bearing.Length + i] = (values[i] - posture[slots[i]]) * Pull;
            }
            if (extra > 0)
            {
                AddBalance(body, residual);
            }
            return Numbers.Build.Dense(residual);
        }

        private void AddBalance(Skeleton body, double[] residual)
        {
            // A counter only steadies, and a foot that came to rest by the way too; one stands on the floor.
            var floor = pose.Bearing.Where(contact => contact.OnFloor).ToList();
            var middle = Vector3.Zero;
            foreach (var contact in floor)
            {
                middle += ContactPoint.Of(body, contact).Centre / floor.Count;
            }
            var off = MassPoints.CentreOfMass(body, pose) - middle;
            if (side)
            {
                residual[^1] = off.Z * DegreesPerMetre;
            }
            if (fore)
            {
                residual[side ? ^2 : ^1] = off.X * DegreesPerMetre;
            }
        }

        public Matrix<double> Jacobian(Numbers values, Numbers residual)
        {
            const double nudge = 0.05;
            var columns = Enumerable
                .Range(0, values.Count)
                .Select(i =>
                {
                    var moved = values.Clone();
                    moved[i] += nudge;
                    return (Residual(moved) - residual) / nudge;
                });
            return Matrix<double>.Build.DenseOfColumnVectors(columns);
        }
    }
}
