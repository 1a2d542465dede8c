using System.Text.Json.Serialization;

namespace Palaestra.Core.Terms;

/// <summary>How strong an elastic band pulls, as its maker's word; the newtons of each are the clinic's.</summary>
public enum Band
{
    /// <summary>The lightest elastic.</summary>
    Light,

    /// <summary>Between both.</summary>
    Medium,

    /// <summary>The strongest elastic.</summary>
    Strong,
}

/// <summary>How much of a rung, for one side: sets of reps, each held, over a range, at a height, under a load.</summary>
/// <param name="Reps">Repetitions in the first set, 1 or more.</param>
/// <param name="Sets">Sets, 1 or more.</param>
/// <param name="Hold">Seconds each rep is held; 0 where the rung is not held.</param>
/// <param name="Fewer">Reps by which each set is shorter than the one before, 0 or more: 8 reps, 3 sets, 2 fewer is 8-6-4.</param>
/// <param name="Range">Share of the drawn movement, above 0 to 1 (the whole).</param>
/// <param name="Height">Of the surface the hands or the seat bear on, metres; none where the rung has none, or as drawn.</param>
/// <param name="Load">Held, kilograms; none where nothing is held.</param>
/// <param name="Band">None where there is no band.</param>
/// <param name="Modifier">Id of one modifier, such as a resisted breath out; none: as the rung is.</param>
[method: JsonConstructor]
public readonly record struct Dose(
    int Reps,
    int Sets,
    double Hold,
    int Fewer = 0,
    double Range = 1,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Height = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] double? Load = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] Band? Band = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Modifier = null
)
{
    /// <summary>Sum over the sets; a set never has fewer than one rep.</summary>
    public int TotalReps
    {
        get
        {
            var total = 0;
            for (var set = 0; set < Sets; set++)
            {
                total += RepsOf(set);
            }
            return total;
        }
    }

    /// <param name="set">0 for the first.</param>
    public int RepsOf(int set) => Math.Max(1, Reps - set * Fewer);

    /// <summary>Seconds under control: reps of all sets × (hold + time of the movement out and back).</summary>
    public double Seconds(double moveSeconds) => TotalReps * (Hold + moveSeconds);

    /// <summary>
    /// True when no part of this dose is below the same part of <paramref name="other"/>. Where either has shrinking sets, the
    /// reps of all sets are compared instead of the number of sets. A shorter range, a higher surface or less in the hands
    /// is below; what one of the two leaves open is not compared.
    /// </summary>
    public bool Covers(Dose other) =>
        Reps >= other.Reps
        && Hold >= other.Hold
        && (Fewer == 0 && other.Fewer == 0 ? Sets >= other.Sets : TotalReps >= other.TotalReps)
        && SettingCovers(other);

    /// <summary>
    /// The same for what the movement is, not how often: range, height, load and band. A modifier
    /// the other has must be the same here; what this one has on top is not compared.
    /// </summary>
    public bool SettingCovers(Dose other) =>
        Range >= other.Range
        && !(Height > other.Height)
        && !(Load < other.Load)
        && !(Band < other.Band)
        && (other.Modifier is null || Modifier == other.Modifier);

    /// <summary>As much of another dose as often, over this one's range, at its height, under its load.</summary>
    public Dose WithSettingOf(Dose other) =>
        this with
        {
            Range = other.Range,
            Height = other.Height,
            Load = other.Load,
            Band = other.Band,
            Modifier = other.Modifier,
        };

    /// <summary>
    /// "2 sets of 5, hold 3 s"; sets of one are told as reps alone, shrinking ones by their reps: "8-6-4 reps"; then what the
    /// setting is: "half the way", "at 90 cm", "with 4 kg".
    /// </summary>
    public Message Said()
    {
        var dose = this;
        return Message.Of(
            "dose",
            ("reps", Reps),
            ("sets", Sets),
            ("each", Sets > 1 && Fewer > 0 ? Enumerable.Range(0, Sets).Select(dose.RepsOf) : null),
            ("hold", Hold > 0 ? Hold : null),
            ("setting", SettingSaid())
        );
    }

    /// <summary>Range, height, load, band and modifier; none for the whole movement as drawn.</summary>
    public Message? SettingSaid() =>
        Range < 1 || Height is not null || Load is not null || Band is not null || Modifier is not null
            ? Message.Of(
                "dose.setting",
                ("range", Range < 1 ? Range : null),
                ("height", Height),
                ("load", Load),
                ("band", Band),
                ("modifier", Modifier)
            )
            : null;
}
