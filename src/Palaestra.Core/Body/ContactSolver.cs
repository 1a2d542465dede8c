using System.Numerics;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearAlgebra.Factorization;
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

    /// <summary>The body in a pose, moved so that its contacts meet their surfaces as well as they can.</summary>
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
        var slots = pose.Solve.SelectMany(Posture.SlotsOf).Distinct().ToArray();
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
                .. slots.Union(dipping.SelectMany(contact => contact.LimbAngles).SelectMany(Posture.SlotsOf)),
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

    /// <summary>Degrees of a step below which the slopes found before it still hold.</summary>
    private const double Near = 2;

    private static Skeleton Settled(Task task)
    {
        var values = Numbers.Build.DenseOfArray(task.Start());
        Matrix<double>? transposed = null;
        Cholesky<double>? normal = null;
        var longest = double.PositiveInfinity;
        for (var i = 0; i < Iterations && longest >= 1e-3; i++)
        {
            var residual = task.Residual(values);
            if (longest > Near)
            {
                var jacobian = task.Jacobian(values, residual);
                transposed = jacobian.Transpose();
                normal = (
                    transposed * jacobian + Matrix<double>.Build.DenseIdentity(values.Count) * 1e-9
                ).Cholesky();
            }
            var step = normal!.Solve(transposed! * -residual);
            // A long step would leave the neighbourhood in which heights are nearly linear in the angles.
            longest = step.AbsoluteMaximum();
            values = task.Possible(values + (longest > 15 ? step * (15 / longest) : step));
        }
        return task.Build(values);
    }

    private sealed class Task
    {
        private readonly Pose pose;
        private readonly Posture posture;
        private readonly BodySize size;
        private readonly Contact[] bearing;
        private readonly int[] slots;
        private readonly double[] heights;
        private readonly bool side;
        private readonly bool fore;

        // A counter only steadies, and a foot that came to rest by the way too; one stands on the floor, or on a step.
        private readonly Contact[] floor;

        public Task(Pose pose, Posture posture, BodySize size, Contact[] bearing, int[] slots)
        {
            (this.pose, this.posture, this.size, this.bearing, this.slots) = (
                pose,
                posture,
                size,
                bearing,
                slots
            );
            heights = [.. bearing.Select(contact => pose.HeightOf(contact.Surface))];
            side = pose.Balance?.Contains("side") == true;
            fore = pose.Balance?.Contains("fore") == true;
            floor = [.. pose.Bearing.Where(contact => contact.OnFloor)];
            floor = floor.Length > 0 ? floor : [.. pose.Bearing];
        }

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
            new(posture.With(slots, values), size, new Vector3(0, (float)(values[^1] / DegreesPerMetre), 0));

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
            var middle = Vector3.Zero;
            foreach (var contact in floor)
            {
                middle += ContactPoint.Of(body, contact).Centre / floor.Length;
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
            var jacobian = Matrix<double>.Build.Dense(residual.Count, values.Count);
            for (var column = 0; column < slots.Length; column++)
            {
                var moved = values.Clone();
                moved[column] += nudge;
                jacobian.SetColumn(column, (Residual(moved) - residual) / nudge);
            }
            // The height of the pelvis lifts every contact alike and changes nothing else.
            for (var row = 0; row < bearing.Length; row++)
            {
                jacobian[row, slots.Length] = 1;
            }
            return jacobian;
        }
    }
}
