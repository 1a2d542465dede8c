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
        var columns = pushes.Select(push => Column(push, centre, stature, level)).ToArray();
        var wanted = new double[level ? 3 : 6];
        wanted[level ? 0 : 1] = 1;
        var shares = Solve(columns, wanted);
        return shares is null
            ? null
            : [.. shares.Select((share, i) => share * Math.Sqrt(pushes[i].Share) * weight)];
    }

    /// <summary>What one newton of a push does: to the forces, and by its moments about the centre over the stature.</summary>
    private static double[] Column(Push push, Vector3 centre, double stature, bool level)
    {
        var d = push.Direction * (float)Math.Sqrt(push.Share);
        double x = (push.At.X - (double)centre.X) / stature;
        double y = (push.At.Y - (double)centre.Y) / stature;
        double z = (push.At.Z - (double)centre.Z) / stature;
        return level
            ? [d.Y, -z * d.Y, x * d.Y]
            : [d.X, d.Y, d.Z, y * d.Z - z * d.Y, z * d.X - x * d.Z, x * d.Y - y * d.X];
    }

    private static double[]? Solve(double[][] columns, double[] wanted)
    {
        var pushes = new double[columns.Length];
        Array.Fill(pushes, 1);
        var lambda = Newton(columns, pushes, wanted);
        for (var i = 0; i < Iterations; i++)
        {
            Push(columns, lambda, pushes);
            var gradient = Sum(columns, pushes);
            var worst = 0.0;
            for (var row = 0; row < wanted.Length; row++)
            {
                gradient[row] -= wanted[row];
                worst = Math.Max(worst, Math.Abs(gradient[row]));
            }
            if (worst < Tolerance)
            {
                return pushes;
            }
            lambda = Descend(columns, wanted, lambda, Newton(columns, pushes, gradient), gradient);
            if (!(Dot(lambda, lambda) < 1e18))
            {
                return null;
            }
        }
        return null;
    }

    /// <summary>pushes = max(0, Aᵀλ)</summary>
    private static void Push(double[][] columns, double[] lambda, double[] pushes)
    {
        for (var i = 0; i < columns.Length; i++)
        {
            pushes[i] = Math.Max(0, Dot(columns[i], lambda));
        }
    }

    private static double[] Sum(double[][] columns, double[] pushes)
    {
        var sum = new double[columns[0].Length];
        for (var i = 0; i < columns.Length; i++)
        {
            for (var row = 0; row < sum.Length; row++)
            {
                sum[row] += columns[i][row] * pushes[i];
            }
        }
        return sum;
    }

    /// <summary>(A Aᵀ over the columns that push)⁻¹ right.</summary>
    private static double[] Newton(double[][] columns, double[] pushes, double[] right)
    {
        var rows = right.Length;
        var square = new double[rows, rows];
        for (var i = 0; i < columns.Length; i++)
        {
            if (pushes[i] <= 0)
            {
                continue;
            }
            for (var r = 0; r < rows; r++)
            {
                for (var c = 0; c < rows; c++)
                {
                    square[r, c] += columns[i][r] * columns[i][c];
                }
            }
        }
        for (var r = 0; r < rows; r++)
        {
            // Where too few push to hold every direction.
            square[r, r] += 1e-13;
        }
        return Matrix<double>.Build.DenseOfArray(square).Solve(Numbers.Build.Dense(right)).ToArray();
    }

    private static double Dot(double[] a, double[] b)
    {
        var sum = 0.0;
        for (var i = 0; i < a.Length; i++)
        {
            sum += a[i] * b[i];
        }
        return sum;
    }

    /// <summary>Goes along the Newton step as far as the dual still falls.</summary>
    private static double[] Descend(
        double[][] columns,
        double[] wanted,
        double[] lambda,
        double[] step,
        double[] gradient
    )
    {
        var pushes = new double[columns.Length];
        double Value(double[] at)
        {
            Push(columns, at, pushes);
            return 0.5 * Dot(pushes, pushes) - Dot(wanted, at);
        }
        var from = Value(lambda);
        var slope = Dot(gradient, step);
        for (var (i, length) = (0, 1.0); ; i++, length /= 2)
        {
            var next = lambda.Zip(step, (l, s) => l - s * length).ToArray();
            if (i == 40 || Value(next) <= from - 1e-4 * length * slope + 1e-15)
            {
                return next;
            }
        }
    }
}
