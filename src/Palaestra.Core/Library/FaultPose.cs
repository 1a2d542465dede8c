using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>How a fault looks in a family of poses: what is added to the clean end pose.</summary>
/// <param name="Fault">Code.</param>
/// <param name="Families">Poses that others go back to, such as "bridge".</param>
/// <param name="Joints">Degrees added, by joint.</param>
/// <param name="Lift">Contacts that come off.</param>
/// <param name="Add">Contacts that come down.</param>
/// <param name="Belly">How much farther the midline of the belly comes out, as a share of stature, 0 to 0.06.</param>
/// <param name="Solve">None: what the clean pose lets move, and every limb that bears.</param>
public sealed record FaultPose(
    string Fault,
    IReadOnlyList<string> Families,
    RootPlacement? Root = null,
    IReadOnlyDictionary<string, JointAngles>? Joints = null,
    IReadOnlyList<string>? Lift = null,
    IReadOnlyList<string>? Add = null,
    IReadOnlyList<string>? Solve = null,
    double Belly = 0
)
{
    /// <summary>The clean pose, faulty.</summary>
    public Pose Over(Pose clean)
    {
        var added = Posture.Of(Root ?? new(), Joints ?? new Dictionary<string, JointAngles>(), Belly);
        var sum = JointLimits.Within(clean.Posture.Plus(added));
        var lifted = (Lift ?? []).SelectMany(Contact.Named).Select(c => c.Name).ToHashSet();
        IReadOnlyList<string> contacts =
        [
            .. clean.Contacts.Where(c => !lifted.Contains(c.Split('@')[0])),
            .. Add ?? [],
        ];
        return clean with
        {
            Root = sum.Root,
            Joints = Enum.GetValues<Joint>()
                .ToDictionary(j => char.ToLowerInvariant(j.ToString()[0]) + j.ToString()[1..], sum.At),
            Contacts = contacts,
            Belly = sum.Belly,
            Solve =
                Solve
                ?? [.. clean.Solve.Union(contacts.SelectMany(Contact.Named).SelectMany(c => c.LimbAngles))],
            // A fault is a loss of balance as often as not.
            Balance = null,
        };
    }
}
