using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>First doses: by how irritable the client is, and more for the weaker side.</summary>
public static class DosePlanner
{
    /// <summary>Fewer seconds are half of those asked for, at least two. Common practice.</summary>
    public const double LeastHold = 2;

    /// <summary>
    /// Low: the rung's own start dose, in the form the policy builds endurance in. Moderate and high: the policy's reps and
    /// sets, never above the start reps, with the hold bounded. Rules P-DOSE-LOW, P-DOSE-MODERATE, P-DOSE-HIGH.
    /// </summary>
    public static Dose Start(Rung rung, Irritability level, Policy policy)
    {
        var start = rung.Start;
        var table = policy.Irritability;
        return level switch
        {
            Irritability.High => new Dose(
                Math.Min(start.Reps, table.High.Reps),
                table.High.Sets,
                HoldOf(rung, table.High.HoldMax)
            ),
            Irritability.Moderate => Bounded(
                new Dose(
                    Math.Min(start.Reps, table.Moderate.Reps),
                    Math.Min(table.Moderate.Sets, Math.Max(start.Sets, rung.Target.Sets)),
                    HoldOf(rung, Math.Min(table.Moderate.HoldMax, policy.Sore.HoldMax))
                ),
                rung.Target
            ),
            _ => InItsSchool(Training(start, rung), rung, policy),
        };
    }

    /// <summary>The start hold, no longer than a sore back bears; lying and sitting are no strain.</summary>
    private static double HoldOf(Rung rung, double most) =>
        rung.Features.Contains(Rung.EasyFeature) ? rung.Start.Hold : Math.Min(rung.Start.Hold, most);

    /// <summary>Once ten seconds is awareness, not training: a calm back does three of them, as far as the cap has room (P-HOLD-DOSE).</summary>
    /// <remarks>Common practice.</remarks>
    private static Dose Training(Dose start, Rung rung) =>
        start is { Reps: 1, Sets: 1, Hold: > 0 and <= 10 }
            ? start with
            {
                Reps = Math.Min(3, rung.Cap.Reps),
            }
            : start;

    /// <summary>
    /// Holds of a calm back: as they are; in three shrinking sets, each a quarter shorter, at least one rep (8-6-4,
    /// P-DESCENDING); or the same seconds in one hold, where the rung has one (P-ONE-LONG).
    /// </summary>
    /// <remarks>The pattern 8-6-4 is common practice; a quarter keeps it for other numbers of reps.</remarks>
    public static Dose InItsSchool(Dose dose, Rung rung, Policy policy) =>
        policy.Endurance switch
        {
            HoldEndurance.Descending when dose is { Hold: > 0, Reps: > 1 } => dose with
            {
                Sets = DescendingSets,
                Fewer = Math.Max(1, (int)Math.Round(dose.Reps / 4.0)),
            },
            HoldEndurance.OneLong when rung.Endurance is { } one => new Dose(
                1,
                1,
                Math.Min(one.Hold, dose.TotalReps * dose.Hold)
            ),
            _ => dose,
        };

    /// <summary>Sets of a descending dose.</summary>
    public const int DescendingSets = 3;

    /// <summary>
    /// The doses a plan may choose from, the usual first: with fewer sets where it has more than one (P-FEWER-SETS); for a
    /// calm back one set more, up to the target (P-MORE-SETS). All within what the precautions let through (P-LIMIT).
    /// </summary>
    public static IReadOnlyList<Dose> Choices(Rung rung, Irritability level, DoseLimit limit, Policy policy)
    {
        var start = Start(rung, level, policy);
        var doses = new List<Dose> { start };
        if (start.Sets > 1)
        {
            doses.Add(start with { Sets = 1, Fewer = 0 });
        }
        if (level == Irritability.Low && start.Fewer == 0 && start.Sets < rung.Target.Sets)
        {
            doses.Add(start with { Sets = start.Sets + 1 });
        }
        return [.. doses.Select(dose => Within(dose, limit, rung, policy)).Distinct()];
    }

    /// <summary>As much of a dose as a limit lets through; at least one rep.</summary>
    public static Dose Within(Dose dose, DoseLimit limit, Rung rung, Policy policy)
    {
        var held = dose with { Hold = Math.Min(dose.Hold, limit.Hold ?? dose.Hold) };
        var rep = held.Hold + policy.Tempo.Seconds(rung.MoveSeconds);
        return limit.Seconds is { } most && held.Reps * rep > most
            ? held with
            {
                Reps = Math.Max(1, (int)(most / rep)),
            }
            : held;
    }

    /// <summary>
    /// Work for a weaker side as short sets: its clean reps and the share more, at most the share more than the dose; of one
    /// long hold its seconds likewise, in holds half as long. At least one rep. Rule P-WEAKER.
    /// </summary>
    /// <param name="clean">Reps it did clean of the dose, 0 or more; of one hold 1 when it was held.</param>
    /// <param name="more">Share more, 0 where nothing more is due.</param>
    /// <remarks>A fifth to a third more, in sets that stay clean: common practice.</remarks>
    public static Dose ShortSets(Dose dose, int clean, double more, Rung rung, Policy policy)
    {
        if (dose.TotalReps == 1)
        {
            return dose.Hold >= 2 * LeastHold
                ? dose with
                {
                    Sets = 2,
                    Hold = Math.Floor(dose.Hold * (1 + more) / 2),
                    Fewer = 0,
                }
                : dose;
        }
        var most = (int)Math.Floor(dose.TotalReps * (1 + more) + 1e-9);
        var asked = Math.Clamp(
            (int)Math.Floor(clean * (1 + policy.WeakerExtraFraction) + 1e-9),
            1,
            Math.Max(1, most)
        );
        var inSet = Math.Clamp((int)Math.Ceiling(dose.Reps * ShortSet), 1, rung.Cap.Reps);
        // As near to what is asked as short sets come, never above it; with the fewest sets.
        return (
            from sets in Enumerable.Range(1, Math.Max(1, rung.Cap.Sets))
            from each in Enumerable.Range(1, inSet)
            from fewer in Enumerable.Range(0, 2)
            let option = dose with
            {
                Reps = each,
                Sets = sets,
                Fewer = fewer,
            }
            where option.TotalReps <= asked && each - fewer * (sets - 1) >= 1 && (fewer == 0 || sets > 1)
            orderby option.TotalReps descending, sets, fewer
            select option
        ).First();
    }

    /// <summary>A short set has at most this share of the reps of the set it stands for. Common practice.</summary>
    private const double ShortSet = 0.75;

    private static Dose Bounded(Dose dose, Dose cap) =>
        new(Math.Min(dose.Reps, cap.Reps), Math.Min(dose.Sets, cap.Sets), Math.Min(dose.Hold, cap.Hold));
}
