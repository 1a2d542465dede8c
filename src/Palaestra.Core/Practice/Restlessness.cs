using MathNet.Numerics.Random;
using Palaestra.Core.Body;

namespace Palaestra.Core.Practice;

/// <summary>
/// What a living body does beside the task: sway, breath, a tremor toward the end, a look aside. It knows nothing of the fault,
/// so it is the same with and without.
/// </summary>
/// <remarks>Sizes set by eye, our own. Breath at rest: 12 to 18 a minute (common practice).</remarks>
internal sealed class Restlessness
{
    /// <summary>Name of an angle, and degrees it wanders by.</summary>
    private static readonly (string Angle, double Degrees)[] Swaying =
    [
        ("root.pitch", 0.35),
        ("root.turn", 0.45),
        ("root.lean", 0.35),
        ("lumbar", 0.8),
        ("lumbar.abduction", 0.6),
        ("lumbar.rotation", 0.8),
        ("thorax", 0.8),
        ("thorax.abduction", 0.5),
        ("thorax.rotation", 0.9),
        ("neck", 1.6),
        ("neck.rotation", 2.2),
        ("hipLeft", 0.8),
        ("hipRight", 0.8),
        ("hipLeft.abduction", 0.7),
        ("hipRight.abduction", 0.7),
        ("kneeLeft", 0.9),
        ("kneeRight", 0.9),
        ("shoulderLeft", 1.2),
        ("shoulderRight", 1.2),
        ("elbowLeft", 1.0),
        ("elbowRight", 1.0),
    ];

    /// <summary>A limb that bears is held by what it bears on.</summary>
    private const double Held = 0.2;

    private readonly int[] slots;
    private readonly Wander[] waves;
    private readonly int breath;
    private readonly double breathSpeed;
    private readonly double breathPhase;
    private readonly int[] shaking;
    private readonly double shakeSpeed;
    private readonly double shakes;
    private readonly double seconds;
    private readonly IReadOnlyList<Gesture> gestures;

    /// <summary>Something harmless, once: a look aside, an arm that is laid otherwise.</summary>
    private sealed record Gesture(int Slot, double Degrees, double From, double Seconds);

    /// <param name="bearing">What the body rests on.</param>
    /// <param name="decoy">When something harmless happens for certain, seconds; <paramref name="size"/>: how large, degrees.</param>
    public Restlessness(
        RandomSource random,
        IEnumerable<Contact> bearing,
        double seconds,
        double decoy,
        double size
    )
    {
        this.seconds = seconds;
        var held = bearing.SelectMany(contact => contact.LimbAngles).ToHashSet();
        slots = [.. Swaying.Select(one => Posture.SlotsOf(one.Angle)[0])];
        var liveliness = 0.6 + 0.8 * random.NextDouble();
        waves =
        [
            .. Swaying.Select(one => new Wander(
                random,
                one.Degrees * liveliness * (held.Contains(one.Angle) ? Held : 1),
                0.08,
                0.7
            )),
        ];
        breath = Array.FindIndex(Swaying, one => one.Angle == "thorax");
        breathSpeed = 2 * Math.PI * (12 + 6 * random.NextDouble()) / 60;
        breathPhase = 2 * Math.PI * random.NextDouble();
        shaking =
        [
            .. Enumerable
                .Range(0, Swaying.Length)
                .Where(i =>
                    Swaying[i].Angle.StartsWith("hip", StringComparison.Ordinal)
                    || Swaying[i].Angle.StartsWith("shoulder", StringComparison.Ordinal)
                ),
        ];
        shakeSpeed = 2 * Math.PI * (4 + 2 * random.NextDouble());
        shakes = random.NextDouble() < 0.5 ? 0 : 0.35 * random.NextDouble();
        gestures = Gestures(random, held, seconds, decoy, size);
    }

    private static readonly string[] Gesturing =
    [
        "neck.rotation",
        "shoulderLeft",
        "shoulderRight",
        "elbowLeft",
        "elbowRight",
    ];

    private static List<Gesture> Gestures(
        RandomSource random,
        HashSet<string> held,
        double seconds,
        double decoy,
        double size
    )
    {
        var free = Gesturing
            .Where(angle => !held.Contains(angle))
            .Select(angle => Posture.SlotsOf(angle)[0])
            .ToArray();
        var gestures = new List<Gesture>();
        for (var i = random.Next(3); i > 0; i--)
        {
            gestures.Add(
                Made(
                    seconds * random.NextDouble(),
                    (random.NextDouble() < 0.5 ? -1 : 1) * (5 + 7 * random.NextDouble())
                )
            );
        }
        if (size > 0)
        {
            gestures.Add(Made(decoy, (random.NextDouble() < 0.5 ? -1 : 1) * size));
        }
        return gestures;

        Gesture Made(double from, double degrees) =>
            new(free[random.Next(free.Length)], degrees, from, 1 + 1.2 * random.NextDouble());
    }

    /// <summary>The posture with all that laid over it, within what joints can.</summary>
    public Posture Over(Posture posture, double at)
    {
        var values = new double[slots.Length];
        var late = Math.Clamp(2 * at / seconds - 1, 0, 1);
        for (var i = 0; i < slots.Length; i++)
        {
            values[i] = posture[slots[i]] + waves[i].At(at);
        }
        values[breath] -= 1.1 * Math.Sin(breathSpeed * at + breathPhase);
        foreach (var i in shaking)
        {
            values[i] += shakes * late * Math.Sin(shakeSpeed * at + i);
        }
        foreach (var gesture in gestures)
        {
            var part = (at - gesture.From) / gesture.Seconds;
            if (part is > 0 and < 1)
            {
                var slot = Array.IndexOf(slots, gesture.Slot);
                values[slot] += gesture.Degrees * Math.Pow(Math.Sin(Math.PI * part), 2);
            }
        }
        for (var i = 0; i < slots.Length; i++)
        {
            values[i] -= JointLimits.Beyond(slots[i], values[i]);
        }
        return posture.With(slots, values);
    }
}
