using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>Checks poses as written: names that are not there, and joints that do not go so far.</summary>
public static class PoseCheck
{
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
                JointLimits
                    .Broken(pose.Posture)
                    .Select(words => new FieldError($"{at}.joints", $"{Capital(words)}."))
            );

    private static IEnumerable<FieldError> BearingErrors(string at, Pose pose)
    {
        if (pose.Contacts.Count == 0)
        {
            yield return new(
                $"{at}.contacts",
                "A body in the air falls: name at least one point that bears."
            );
        }
    }

    private static IEnumerable<FieldError> FaultErrors(int i, FaultPose pose, FaultsFile faults)
    {
        var at = $"fault-poses.json faultPoses[{i}]";
        if (faults.Faults.All(fault => fault.Code != pose.Fault))
        {
            yield return new($"{at}.fault", $"There is no fault {pose.Fault}.");
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

    private static IEnumerable<FieldError> JointErrors(string at, IEnumerable<string> joints) =>
        joints
            .Where(joint => Joints.Named(joint).Count == 0)
            .Select(joint => new FieldError($"{at}.joints", $"There is no joint {joint}."));

    private static IEnumerable<FieldError> ContactErrors(string at, IEnumerable<string> contacts) =>
        contacts
            .Where(contact => Contact.Named(contact).Count == 0)
            .Select(contact => new FieldError($"{at}.contacts", $"There is no contact point {contact}."));

    private static IEnumerable<FieldError> SolveErrors(string at, IEnumerable<string> solve) =>
        solve
            .Where(name => Posture.Slots(name).Count == 0)
            .Select(name => new FieldError($"{at}.solve", $"There is no angle {name}."));

    private static IEnumerable<FieldError> SurfaceErrors(string at, Pose pose)
    {
        foreach (var surface in pose.Bearing.Select(c => c.Surface).Distinct())
        {
            if (!Pose.SurfaceNames.Contains(surface))
            {
                yield return new($"{at}.contacts", $"There is no surface {surface}.");
            }
            else if (
                surface is not (Contact.Floor or Contact.Touch or Contact.Wall or Contact.Leg or "slider")
                && pose.Surfaces?.ContainsKey(surface) != true
            )
            {
                yield return new($"{at}.surfaces", $"Give the height of the {surface} in metres.");
            }
        }
        foreach (var (surface, height) in pose.Surfaces ?? new Dictionary<string, double>())
        {
            if (!(height is >= 0 and <= 1.5))
            {
                yield return new($"{at}.surfaces.{surface}", "A height is between 0 and 1.5 m.");
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
                $"A band pulls at handLeft or handRight with up to 500 N, not at {tug.Hand} with {tug.Newtons:0.#}."
            );
        }
        foreach (var prop in (pose.Props ?? []).Where(prop => !Pose.PropKinds.Contains(prop.Kind)))
        {
            yield return new($"{at}.props", $"There is no prop {prop.Kind}.");
        }
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
