using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>Checks poses as written: names that are not there, and joints that do not go so far.</summary>
public static class PoseCheck
{
    /// <summary>Angles beyond what joints can and contacts that cannot be met, by field; empty where all can be.</summary>
    public static IEnumerable<FieldError> Errors(
        IReadOnlyDictionary<string, Pose> poses,
        FaultPosesFile faultPoses,
        FaultsFile faults
    ) =>
        poses
            .SelectMany(pair => Errors($"poses.json poses.{pair.Key}", pair.Value))
            .Concat(faultPoses.FaultPoses.SelectMany((pose, i) => FaultErrors(i, pose, faults)));

    /// <summary>Errors of one pose; fields are named under <paramref name="at"/>.</summary>
    public static IEnumerable<FieldError> Errors(string at, Pose pose) =>
        BearingErrors(at, pose)
            .Concat(JointErrors(at, pose.Joints.Keys))
            .Concat(ContactErrors(at, pose.Contacts))
            .Concat(SolveErrors(at, pose.Solve))
            .Concat(SurfaceErrors(at, pose))
            .Concat(
                JointLimits.Broken(pose.Posture).Select(broken => new FieldError($"{at}.joints", broken))
            );

    private static IEnumerable<FieldError> BearingErrors(string at, Pose pose)
    {
        if (pose.Contacts.Count == 0)
        {
            yield return new($"{at}.contacts", Message.Of("pose.in-the-air"));
        }
    }

    private static IEnumerable<FieldError> FaultErrors(int i, FaultPose pose, FaultsFile faults)
    {
        var at = $"fault-poses.json faultPoses[{i}]";
        if (faults.Faults.All(fault => fault.Code != pose.Fault))
        {
            yield return new($"{at}.fault", Message.Of("content.no-fault", ("fault", pose.Fault)));
        }
        if (!(pose.Belly is >= 0 and <= FarthestBelly))
        {
            yield return new($"{at}.belly", Message.Of("pose.belly", ("most", FarthestBelly)));
        }
        foreach (
            var error in JointErrors(at, pose.Joints?.Keys ?? [])
                .Concat(ContactErrors(at, [.. pose.Lift ?? [], .. pose.Add ?? []]))
                .Concat(SolveErrors(at, pose.Solve ?? []))
        )
        {
            yield return error;
        }
    }

    /// <summary>Share of stature: about ten centimetres. Our own.</summary>
    private const double FarthestBelly = 0.06;

    private static IEnumerable<FieldError> JointErrors(string at, IEnumerable<string> joints) =>
        joints
            .Where(joint => Joints.Named(joint).Count == 0)
            .Select(joint => new FieldError($"{at}.joints", Message.Of("pose.no-joint", ("joint", joint))));

    private static IEnumerable<FieldError> ContactErrors(string at, IEnumerable<string> contacts) =>
        contacts
            .Where(contact => Contact.Named(contact).Count == 0)
            .Select(contact => new FieldError(
                $"{at}.contacts",
                Message.Of("pose.no-contact", ("contact", contact))
            ));

    private static IEnumerable<FieldError> SolveErrors(string at, IEnumerable<string> solve) =>
        solve
            .Where(name => Posture.SlotsOf(name).Count == 0)
            .Select(name => new FieldError($"{at}.solve", Message.Of("pose.no-angle", ("angle", name))));

    private static IEnumerable<FieldError> SurfaceErrors(string at, Pose pose)
    {
        foreach (var surface in pose.Bearing.Select(c => c.Surface).Distinct())
        {
            if (!Pose.SurfaceNames.Contains(surface))
            {
                yield return new($"{at}.contacts", Message.Of("pose.no-surface", ("surface", surface)));
            }
            else if (
                surface is not (Contact.Floor or Contact.Touch or Contact.Wall or Contact.Leg or "slider")
                && pose.Surfaces?.ContainsKey(surface) != true
            )
            {
                yield return new($"{at}.surfaces", Message.Of("pose.surface-height", ("surface", surface)));
            }
        }
        foreach (var (surface, height) in pose.Surfaces ?? new Dictionary<string, double>())
        {
            if (!(height is >= 0 and <= 1.5))
            {
                yield return new($"{at}.surfaces.{surface}", Message.Of("pose.height"));
            }
        }
        foreach (
            var tug in (pose.Tugs ?? []).Where(t =>
                t.Hand is not ("handLeft" or "handRight") || !(t.Newtons is > 0 and <= 500)
            )
        )
        {
            yield return new(
                $"{at}.tugs",
                Message.Of("pose.tug", ("hand", tug.Hand), ("newtons", tug.Newtons))
            );
        }
        foreach (var prop in (pose.Props ?? []).Where(prop => !Pose.PropKinds.Contains(prop.Kind)))
        {
            yield return new($"{at}.props", Message.Of("pose.no-prop", ("prop", prop.Kind)));
        }
    }
}
