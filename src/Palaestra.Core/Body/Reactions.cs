using System.Numerics;
using MathNet.Numerics.LinearAlgebra;
using Numbers = MathNet.Numerics.LinearAlgebra.Vector<double>;

namespace Palaestra.Core.Body;

/// <summary>A push a surface can give at a point of the body.</summary>
/// <param name="Contact">Which contact it belongs to.</param>
/// <param name="At">Metres, in the world.</param>
/// <param name="Direction">Unit vector away from the surface; along it for friction.</param>
/// <param name="Share">How much it takes on beside others, above 0 to 1.</param>
public readonly record struct Push(int Contact, Vector3 At, Vector3 Direction, double Share = 1);

/// <summary>Finds pushes, none of them negative, that carry a weight and let nothing turn.</summary>
/// <remarks>
/// Of all such pushes those with the least sum of squares, each square divided by the push's share. Solved in its dual: the pushes are f = max(0, Aᵀλ) with A f = b,
/// a Newton search in three unknowns (six with a wall). Infeasible means the body would fall.
/// </remarks>
public static class Reactions
{
    private const int Iterations = 60;

    /// <summary>Balance is met to this share of the weight (and of weight × stature for moments).</summary>
    public const double Tolerance = 1e-9;

    /// <summary>Newtons for each push; none when no pushes balance.</summary>
    /// <param name="centre">Centre of mass.</param>
    /// <param name="weight">Newtons, above 0.</param>
    /// <param name="stature">Metres, to weigh moments against forces.</param>
    public static double[]? Carrying(
        IReadOnlyList<Push> pushes,
        Vector3 centre,
        double weight,
        double stature
    )
    {
        var level = pushes.All(push => push.Direction == Vector3.UnitY);
        var a = Balance(pushes, centre, stature, level);
        var b = Numbers.Build.Dense(level ? 3 : 6);
        b[level ? 0 : 1] = 1;
        var shares = Solve(a, b);
        return shares is null
            ? null
            : [.. shares.Select((share, i) => share * Math.Sqrt(pushes[i].Share) * weight)];
    }

    private static Matrix<double> Balance(
        IReadOnlyList<Push> pushes,
        Vector3 centre,
        double stature,
        bool level
    )
    {
        var a = Matrix<double>.Build.Dense(level ? 3 : 6, pushes.Count);
        for (var i = 0; i < pushes.Count; i++)
        {
            var d = pushes[i].Direction * (float)Math.Sqrt(pushes[i].Share);
            double x = (pushes[i].At.X - (double)centre.X) / stature;
            double y = (pushes[i].At.Y - (double)centre.Y) / stature;
            double z = (pushes[i].At.Z - (double)centre.Z) / stature;
            if (level)
            {
                (a[0, i], a[1, i], a[2, i]) = (d.Y, -z * d.Y, x * d.Y);
                continue;
            }
            (a[0, i], a[1, i], a[2, i]) = (d.X, d.Y, d.Z);
            (a[3, i], a[4, i], a[5, i]) = (y * d.Z - z * d.Y, z * d.X - x * d.Z, x * d.Y - y * d.X);
        }
        return a;
    }

    private static Numbers? Solve(Matrix<double> a, Numbers b)
    {
        var ridge = Matrix<double>.Build.DenseIdentity(a.RowCount) * 1e-13;
        var lambda = (a * a.Transpose() + ridge).Solve(b);
        for (var i = 0; i < Iterations; i++)
        {
            var pushes = a.TransposeThisAndMultiply(lambda).PointwiseMaximum(0);
            var gradient = a * pushes - b;
            if (gradient.AbsoluteMaximum() < Tolerance)
            {
                return pushes;
            }
            var active = a.Clone();
            for (var column = 0; column < a.ColumnCount; column++)
            {
                if (pushes[column] <= 0)
                {
                    active.ClearColumn(column);
                }
            }
            var step = (active * active.Transpose() + ridge).Solve(gradient);
            lambda = Descend(a, b, lambda, step, gradient);
            if (!(lambda.L2Norm() < 1e9))
            {
                return null;
            }
        }
        return null;
    }

    /// <summary>Goes along the Newton step as far as the dual still falls.</summary>
    private static Numbers Descend(
        Matrix<double> a,
        Numbers b,
        Numbers lambda,
        Numbers step,
        Numbers gradient
    )
    {
        double Value(Numbers at)
        {
            var pushes = a.TransposeThisAndMultiply(at).PointwiseMaximum(0);
            return 0.5 * pushes.DotProduct(pushes) - b.DotProduct(at);
        }
        var from = Value(lambda);
        var slope = gradient.DotProduct(step);
        var length = 1.0;
        for (var i = 0; i < 40; i++)
        {
            var next = lambda - step * length;
            if (Value(next) <= from - 1e-4 * length * slope + 1e-15)
            {
                return next;
            }
            length /= 2;
        }
        return lambda - step * length;
    }
}
