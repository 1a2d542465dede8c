using MathNet.Numerics.LinearAlgebra;

namespace Palaestra.Core.Body;

/// <summary>
/// Moves the named angles and the height of the pelvis a little, so that every contact meets the floor:
/// damped least squares on contact heights, with a pull toward the angles as written.
/// </summary>
public static class ContactSolver
{
    private const int Iterations = 60;
    private const double DegreesPerMetre = 100;

    /// <summary>How strongly angles are held to what was written, against contacts off the floor.</summary>
    private const double Pull = 1e-3;

    public static Skeleton Solve(Pose pose, double height)
    {
        if (pose.Contacts.Count == 0)
        {
            return new Skeleton(pose, height, height);
        }
        var values = Vector<double>.Build.DenseOfEnumerable(
            pose.Solve.Select(name => Read(pose, name)).Append(StartHeight(pose, height) * DegreesPerMetre)
        );
        var written = values.Clone();
        for (var i = 0; i < Iterations; i++)
        {
            var residual = Residual(pose, height, values, written);
            var jacobian = Jacobian(pose, height, values, written, residual);
            var transposed = jacobian.Transpose();
            var step = (
                transposed * jacobian + Matrix<double>.Build.DenseIdentity(values.Count) * 1e-9
            ).Solve(-(transposed * residual));
            values += step;
            if (step.L2Norm() < 1e-6)
            {
                break;
            }
        }
        return Build(pose, height, values);
    }

    private static double StartHeight(Pose pose, double height)
    {
        var body = new Skeleton(pose, height, 0);
        return -pose.Contacts.Average(body.ContactHeight);
    }

    private static Vector<double> Residual(
        Pose pose,
        double height,
        Vector<double> values,
        Vector<double> written
    )
    {
        var body = Build(pose, height, values);
        var contacts = pose.Contacts.Select(body.ContactHeight).Select(y => y * DegreesPerMetre);
        var pull = Enumerable.Range(0, values.Count - 1).Select(i => (values[i] - written[i]) * Pull);
        return Vector<double>.Build.DenseOfEnumerable(contacts.Concat(pull));
    }

    private static Matrix<double> Jacobian(
        Pose pose,
        double height,
        Vector<double> values,
        Vector<double> written,
        Vector<double> residual
    )
    {
        const double nudge = 0.05;
        var columns = Enumerable
            .Range(0, values.Count)
            .Select(i =>
            {
                var moved = values.Clone();
                moved[i] += nudge;
                return (Residual(pose, height, moved, written) - residual) / nudge;
            });
        return Matrix<double>.Build.DenseOfColumnVectors(columns);
    }

    private static Skeleton Build(Pose pose, double height, Vector<double> values)
    {
        var joints = new Dictionary<string, JointAngles>(pose.Joints);
        var root = pose.Root;
        for (var i = 0; i < pose.Solve.Count; i++)
        {
            var name = pose.Solve[i];
            if (name == Pose.RootPitch)
            {
                root = new RootPlacement(values[i]);
            }
            else
            {
                joints[name] = pose.Angles(name) with { Flexion = values[i] };
            }
        }
        return new Skeleton(pose with { Root = root, Joints = joints }, height, values[^1] / DegreesPerMetre);
    }

    private static double Read(Pose pose, string name) =>
        name == Pose.RootPitch ? pose.Root.Pitch : pose.Angles(name).Flexion;
}
