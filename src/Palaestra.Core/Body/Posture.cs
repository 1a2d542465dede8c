namespace Palaestra.Core.Body;

/// <summary>All angles of a body in degrees: how the pelvis is placed, and every joint; and how far the belly domes. Immutable.</summary>
public sealed class Posture
{
    private const int RootAngles = 3;
    private const int BellySlot = RootAngles + 3 * Joints.Count;
    private readonly double[] values;

    private Posture(double[] values) => this.values = values;

    /// <summary>From content: joints by name, those left out at rest. Throws for a name that is no joint; content is checked before.</summary>
    /// <param name="belly">See <see cref="Belly"/>.</param>
    public static Posture Of(
        RootPlacement root,
        IReadOnlyDictionary<string, JointAngles> joints,
        double belly = 0
    )
    {
        var values = new double[Slots];
        values[BellySlot] = belly;
        (values[0], values[1], values[2]) = (root.Pitch, root.Turn, root.Lean);
        foreach (var (name, angles) in joints)
        {
            foreach (var joint in Joints.Named(name))
            {
                var at = Slot(joint);
                (values[at], values[at + 1], values[at + 2]) = (
                    angles.Flexion,
                    angles.Abduction,
                    angles.Rotation
                );
            }
        }
        return new Posture(values);
    }

    /// <summary>How the pelvis lies in the room, in degrees.</summary>
    public RootPlacement Root => new(values[0], values[1], values[2]);

    /// <summary>How far the midline of the belly comes out, as a share of stature; 0 at rest. It carries no weight and bears nothing.</summary>
    public double Belly => values[BellySlot];

    /// <summary>A joint's angles, in degrees.</summary>
    public JointAngles At(Joint joint)
    {
        var at = Slot(joint);
        return new JointAngles(values[at], values[at + 1], values[at + 2]);
    }

    /// <summary>How many values a posture has: three of the pelvis, three of each joint, the belly.</summary>
    public const int Slots = BellySlot + 1;

    /// <summary>The angle at a slot, in degrees; of the last one the belly, as a share of stature.</summary>
    public double this[int slot] => values[slot];

    /// <summary>True when every angle is the same.</summary>
    public bool Is(Posture other) => values.AsSpan().SequenceEqual(other.values);

    /// <summary>The same posture with these slots at these angles, in degrees.</summary>
    public Posture With(IReadOnlyList<int> slots, IList<double> set)
    {
        var copy = (double[])values.Clone();
        for (var i = 0; i < slots.Count; i++)
        {
            copy[slots[i]] = set[i];
        }
        return new Posture(copy);
    }

    /// <summary>Angles added, for a fault laid over a pose.</summary>
    public Posture Plus(Posture other) => new([.. values.Zip(other.values, (a, b) => a + b)]);

    /// <param name="share">0 is this posture, 1 the other; each angle goes straight from one to the other.</param>
    public Posture Toward(Posture other, double share)
    {
        var between = new double[values.Length];
        for (var i = 0; i < between.Length; i++)
        {
            between[i] = values[i] + (other.values[i] - values[i]) * share;
        }
        return new Posture(between);
    }

    /// <summary>Between two postures on a smooth curve through four (Catmull–Rom).</summary>
    public static Posture Curve(Posture before, Posture from, Posture to, Posture after, double share)
    {
        var (t, t2, t3) = (share, share * share, share * share * share);
        var between = new double[from.values.Length];
        for (var i = 0; i < between.Length; i++)
        {
            var (a, b, c, d) = (before.values[i], from.values[i], to.values[i], after.values[i]);
            between[i] =
                0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t2 + (3 * b - a - 3 * c + d) * t3);
        }
        return new Posture(between);
    }

    /// <summary>Left and right swapped, exactly: what turns or bends to a side turns or bends to the other.</summary>
    public Posture Mirrored()
    {
        var mirrored = new double[values.Length];
        (mirrored[0], mirrored[1], mirrored[2]) = (values[0], -values[1], -values[2]);
        mirrored[BellySlot] = values[BellySlot];
        foreach (var joint in Enum.GetValues<Joint>())
        {
            var (from, to) = (Slot(joint), Slot(joint.Mirror()));
            // Sided joints measure abduction and rotation outward, so only the trunk's own change sign.
            var sign = joint.IsSided() ? 1 : -1;
            mirrored[to] = values[from];
            mirrored[to + 1] = sign * values[from + 1];
            mirrored[to + 2] = sign * values[from + 2];
        }
        return new Posture(mirrored);
    }

    /// <summary>
    /// Slots an angle's name means: "root.pitch", "root.turn", "root.lean", "hipLeft" (its flexion), "hip" (both sides),
    /// "hipLeft.abduction", "lumbar.rotation"; empty for an unknown name.
    /// </summary>
    public static IReadOnlyList<int> SlotsOf(string name)
    {
        var parts = name.Split('.');
        if (parts[0] == "root")
        {
            var root = parts.Length == 2 ? Array.IndexOf(["pitch", "turn", "lean"], parts[1]) : -1;
            return root < 0 ? [] : [root];
        }
        var axis = parts.Length == 1 ? 0 : Array.IndexOf(["flexion", "abduction", "rotation"], parts[1]);
        return axis < 0 ? [] : [.. Joints.Named(parts[0]).Select(joint => Slot(joint) + axis)];
    }

    /// <summary>Where a joint's three angles begin among the values.</summary>
    public static int Slot(Joint joint) => RootAngles + 3 * (int)joint;
}
