using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>A pose as content writes it: what differs from another one.</summary>
/// <param name="Base">Pose it starts from; none when it stands for itself and gives root and contacts.</param>
/// <param name="Joints">Joints that differ; each replaces all angles of that joint.</param>
/// <param name="Lift">Contacts of the base that no longer bear.</param>
/// <param name="Add">Contacts beside those of the base.</param>
public sealed record PoseEntry(
    string? Base = null,
    RootPlacement? Root = null,
    IReadOnlyDictionary<string, JointAngles>? Joints = null,
    IReadOnlyList<string>? Contacts = null,
    IReadOnlyList<string>? Lift = null,
    IReadOnlyList<string>? Add = null,
    IReadOnlyList<string>? Solve = null,
    IReadOnlyDictionary<string, double>? Surfaces = null,
    IReadOnlyList<string>? Balance = null,
    IReadOnlyList<Prop>? Props = null,
    IReadOnlyDictionary<string, double>? Held = null,
    IReadOnlyList<Tug>? Tugs = null
);

/// <summary>Works out every pose from its bases.</summary>
public static class PoseEntries
{
    /// <summary>
    /// Poses by name, and the name of the base each goes back to. Errors for a base that is not there and for a ring of bases.
    /// </summary>
    public static (
        IReadOnlyDictionary<string, Pose> Poses,
        IReadOnlyDictionary<string, string> Families,
        IReadOnlyList<FieldError> Errors
    ) Resolve(IReadOnlyDictionary<string, PoseEntry> entries)
    {
        var poses = new Dictionary<string, Pose>();
        var families = new Dictionary<string, string>();
        var errors = new List<FieldError>();
        foreach (var name in entries.Keys)
        {
            Resolve(name, entries, poses, families, errors, []);
        }
        return (poses, families, errors);
    }

    /// <summary>One pose that is not in the library, its base taken from it; none with an error under <paramref name="at"/>.</summary>
    public static Pose? Alone(
        string at,
        PoseEntry entry,
        IReadOnlyDictionary<string, Pose> library,
        List<FieldError> errors
    )
    {
        if (entry.Base is { } name)
        {
            if (library.TryGetValue(name, out var under))
            {
                return Over(under, entry);
            }
            errors.Add(new($"{at}.base", Message.Of("pose.no-base", ("pose", name))));
            return null;
        }
        if (entry.Root is null || entry.Contacts is null)
        {
            errors.Add(new(at, WithoutBase));
            return null;
        }
        return Over(Nothing, entry);
    }

    private static Message WithoutBase => Message.Of("pose.without-base");

    private static readonly Pose Nothing = new(
        new RootPlacement(),
        new Dictionary<string, JointAngles>(),
        [],
        []
    );

    private static Pose? Resolve(
        string name,
        IReadOnlyDictionary<string, PoseEntry> entries,
        Dictionary<string, Pose> poses,
        Dictionary<string, string> families,
        List<FieldError> errors,
        HashSet<string> open
    )
    {
        if (poses.TryGetValue(name, out var known))
        {
            return known;
        }
        var at = $"poses.json poses.{name}";
        var entry = entries[name];
        if (!open.Add(name))
        {
            errors.Add(new($"{at}.base", Message.Of("pose.ring")));
            return null;
        }
        if (entry.Base is not { } baseName)
        {
            if (entry.Root is null || entry.Contacts is null)
            {
                errors.Add(new(at, WithoutBase));
                return null;
            }
            families[name] = name;
            return poses[name] = Over(Nothing, entry);
        }
        if (!entries.ContainsKey(baseName))
        {
            errors.Add(new($"{at}.base", Message.Of("pose.no-base", ("pose", baseName))));
            return null;
        }
        if (Resolve(baseName, entries, poses, families, errors, open) is not { } under)
        {
            return null;
        }
        families[name] = families[baseName];
        return poses[name] = Over(under, entry);
    }

    private static Pose Over(Pose under, PoseEntry entry) =>
        new(
            entry.Root ?? under.Root,
            Merged(under.Joints, entry.Joints),
            Bearing(under.Contacts, entry),
            entry.Solve ?? under.Solve,
            entry.Surfaces ?? under.Surfaces,
            entry.Balance ?? under.Balance,
            entry.Props ?? under.Props,
            entry.Held ?? under.Held,
            entry.Tugs ?? under.Tugs
        );

    private static Dictionary<string, JointAngles> Merged(
        IReadOnlyDictionary<string, JointAngles> under,
        IReadOnlyDictionary<string, JointAngles>? over
    )
    {
        var joints = new Dictionary<string, JointAngles>(under);
        // A name for both sides is written out, so that a later name for one side wins over it.
        foreach (
            var (name, angles) in (over ?? joints).OrderBy(pair => Joints.Named(pair.Key).Count == 2 ? 0 : 1)
        )
        {
            if (Joints.Named(name).Count == 2)
            {
                joints.Remove(name);
                (joints[name + "Left"], joints[name + "Right"]) = (angles, angles);
            }
            else
            {
                joints[name] = angles;
            }
        }
        return joints;
    }

    private static IReadOnlyList<string> Bearing(IReadOnlyList<string> under, PoseEntry entry)
    {
        var lifted = (entry.Lift ?? []).SelectMany(Contact.Named).Select(c => c.Name).ToHashSet();
        return
        [
            .. (entry.Contacts ?? under)
                .SelectMany(Parts)
                .Where(text => !lifted.Contains(text.Split('@')[0]))
                .Concat((entry.Add ?? []).SelectMany(Parts)),
        ];
    }

    /// <summary>A name for both sides as one of each; an unknown name stays, for the check to find.</summary>
    private static IEnumerable<string> Parts(string text) =>
        Contact.Named(text) is { Count: > 0 } found ? found.Select(Written) : [text];

    private static string Written(Contact contact) =>
        contact.Surface == Contact.Floor ? contact.Name : $"{contact.Name}@{contact.Surface}";
}
