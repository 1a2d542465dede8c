namespace Palaestra.Core.Body;

/// <summary>How far each joint goes, in degrees; poses outside are refused.</summary>
/// <remarks>
/// Normal ranges as in the handbook of the American Academy of Orthopaedic Surgeons (from memory), widened where a drawing
/// borrows from a neighbour it does not have: the shoulder stands for shoulder blade and collar bone, the ankle for the
/// joints of the mid foot, neck and thorax for many joints at once.
/// </remarks>
public static class JointLimits
{
    private readonly record struct Range(double Low, double High);

    private static readonly Dictionary<string, (Range Flexion, Range Abduction, Range Rotation)> Limits =
        new()
        {
            ["lumbar"] = (new(-45, 60), new(-35, 35), new(-25, 25)),
            ["thorax"] = (new(-30, 50), new(-30, 30), new(-40, 40)),
            ["neck"] = (new(-60, 60), new(-45, 45), new(-80, 80)),
            ["hip"] = (new(-35, 135), new(-35, 75), new(-50, 60)),
            ["knee"] = (new(-8, 155), new(-3, 3), new(-15, 15)),
            ["ankle"] = (new(-85, 35), new(-25, 25), new(-25, 25)),
            ["shoulder"] = (new(-75, 185), new(-75, 185), new(-95, 95)),
            ["elbow"] = (new(-8, 155), new(-5, 5), new(-95, 95)),
            ["wrist"] = (new(-85, 95), new(-35, 35), new(-20, 20)),
        };

    /// <summary>Degrees an angle is outside its range; below 0 under it, 0 within and for the pelvis.</summary>
    /// <param name="slot">Of a <see cref="Posture"/>.</param>
    public static double Beyond(int slot, double value)
    {
        var (low, high) = BySlot[slot];
        return value > high ? value - high
            : value < low ? value - low
            : 0;
    }

    /// <summary>Each angle as far as its joint goes.</summary>
    public static Posture Within(Posture posture)
    {
        var slots = Enumerable.Range(0, BySlot.Length).ToList();
        return posture.With(slots, [.. slots.Select(slot => posture[slot] - Beyond(slot, posture[slot]))]);
    }

    /// <summary>Whether an angle, in degrees, is at the end of what its joint can.</summary>
    public static bool AtEnd(int slot, double value) =>
        Math.Abs(value - BySlot[slot].Low) < 1e-6 || Math.Abs(value - BySlot[slot].High) < 1e-6;

    private static readonly Range[] BySlot = SlotRanges();

    private static Range[] SlotRanges()
    {
        var ranges = new Range[Posture.Slot((Joint)Joints.Count)];
        Array.Fill(ranges, new Range(double.NegativeInfinity, double.PositiveInfinity));
        foreach (var joint in Enum.GetValues<Joint>())
        {
            var slot = Posture.Slot(joint);
            (ranges[slot], ranges[slot + 1], ranges[slot + 2]) = Of(joint);
        }
        return ranges;
    }

    private static (Range Flexion, Range Abduction, Range Rotation) Of(Joint joint)
    {
        var name = joint
            .ToString()
            .Replace("Left", "", StringComparison.Ordinal)
            .Replace("Right", "", StringComparison.Ordinal);
        return Limits[name.ToLowerInvariant()];
    }

    /// <summary>Every angle outside its range, in words; empty when the pose is possible.</summary>
    public static IEnumerable<Message> Broken(Posture posture)
    {
        foreach (var joint in Enum.GetValues<Joint>())
        {
            var word = joint.ToString();
            var name = char.ToLowerInvariant(word[0]) + word[1..];
            var (flexion, abduction, rotation) = Of(joint);
            var angles = posture.At(joint);
            foreach (
                var (axis, value, range) in new[]
                {
                    ("flexion", angles.Flexion, flexion),
                    ("abduction", angles.Abduction, abduction),
                    ("rotation", angles.Rotation, rotation),
                }
            )
            {
                // A tenth of a degree of grace for the solver's rounding.
                if (!(value >= range.Low - 0.1 && value <= range.High + 0.1))
                {
                    yield return Message.Of(
                        "joint.outside",
                        ("joint", name),
                        ("axis", axis),
                        ("degrees", value),
                        ("low", range.Low),
                        ("high", range.High)
                    );
                }
            }
        }
    }
}
