namespace Palaestra.Instruments;

/// <summary>The trunk gives way: it leaves over <paramref name="Rise"/> seconds, stays, and comes back as fast.</summary>
/// <param name="At">Seconds from the start of the script.</param>
/// <param name="Sizes">How far each channel goes, in its unit and the device's order.</param>
public sealed record GivesWay(double At, double Lasts, IReadOnlyList<double> Sizes, double Rise = 0.5);

/// <summary>A rep: the moving limb pulls at the pelvis a little, inside what is allowed.</summary>
public sealed record ScriptRep(double At, double Out, double Hold, double Back, IReadOnlyList<double> Swings);

/// <summary>A stretch of time.</summary>
public sealed record Stretch(double At, double Lasts);

/// <summary>A knock: half a wave of 0.15 s.</summary>
public sealed record Bump(double At, double Size);

/// <summary>What a simulated client does in front of a device, and what the device does wrong. It runs over and over.</summary>
/// <param name="Words">For the person who picks it.</param>
/// <param name="Seconds">Length of one round.</param>
/// <param name="Trembles">Shaking at 9 Hz. <paramref name="Drops"/>: no samples come.</param>
public sealed record Script(
    string Id,
    string Words,
    double Seconds,
    IReadOnlyList<ScriptRep> Reps,
    IReadOnlyList<GivesWay> Faults,
    IReadOnlyList<Stretch> Trembles,
    IReadOnlyList<Bump> Bumps,
    IReadOnlyList<Stretch> Drops
)
{
    public static Script Quiet(string id, string words, double seconds) =>
        new(id, words, seconds, [], [], [], [], []);
}
