using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>What one exercise adds to the week's bending.</summary>
/// <param name="Degrees">The most the trunk is bent forward in it, lumbar and thoracic spine together.</param>
/// <param name="Reps">In a week. <paramref name="Seconds"/>: bent, in a week: the hold and half of the movement.</param>
public sealed record BendingItem(string RungId, double Degrees, double Reps, double Seconds);

/// <summary>
/// Bending of the trunk over a week, for clients whom it irritates or whose bone is fragile. Bent is: at
/// <see cref="Judgement.BendingFrom"/> degrees or more, from the drawn poses and the dose's range. Both sides are added up.
/// </summary>
/// <param name="Reps">In a week; at most <paramref name="RepsMost"/> by the policy.</param>
/// <param name="Seconds">In a week; at most <paramref name="SecondsMost"/> by the policy.</param>
public sealed record BendingAccount(
    double Reps,
    double Seconds,
    double RepsMost,
    double SecondsMost,
    IReadOnlyList<BendingItem> Items
)
{
    /// <summary>None where no precaution of the client counts bending.</summary>
    public static BendingAccount? Of(
        Plan plan,
        ClientProfile profile,
        int daysPerWeek,
        Policy policy,
        PracticeLibrary library
    )
    {
        if (!CountsFor(profile, library))
        {
            return null;
        }
        List<BendingItem> items =
        [
            .. plan
                .Items.Where(item => !item.Resting)
                .Select(item => Of(item, daysPerWeek, policy, library))
                .OfType<BendingItem>(),
        ];
        return new(
            items.Sum(item => item.Reps),
            items.Sum(item => item.Seconds),
            policy.Judgement.BendingReps,
            policy.Judgement.BendingSeconds,
            items
        );
    }

    /// <summary>Most degrees the trunk is bent forward on the way of a rung, over a share of its movement.</summary>
    /// <param name="range">Above 0; the way from the first pose is taken as even.</param>
    public static double Degrees(Rung rung, double range, PracticeLibrary library)
    {
        var path = library.PathOf(rung).Select(pose => Bent(pose.Posture)).ToList();
        return path[0] + Math.Max(0, path.Max() - path[0]) * Math.Min(1, range);
    }

    /// <summary>More reps or seconds than the policy's week: P-BENDING.</summary>
    public IEnumerable<PlanWarning> Warnings()
    {
        if (Reps > RepsMost + 1e-9 || Seconds > SecondsMost + 1e-9)
        {
            yield return new(
                null,
                "P-BENDING",
                Message.Of(
                    "plan.bending",
                    ("reps", Reps),
                    ("seconds", Seconds),
                    ("reps_most", RepsMost),
                    ("seconds_most", SecondsMost)
                ),
                false
            );
        }
    }

    /// <summary>Whether a precaution of the client counts bending.</summary>
    public static bool CountsFor(ClientProfile profile, PracticeLibrary library) =>
        profile.Precautions.Any(mine => Counts(mine, library));

    private static bool Counts(ClientPrecaution mine, PracticeLibrary library) =>
        library.Precaution(mine.Id) is { CountsBending: true } precaution
        && (precaution.BendingWhen is not { } when || mine.Ticks(when));

    private static BendingItem? Of(PlanItem item, int daysPerWeek, Policy policy, PracticeLibrary library)
    {
        var rung = library.Rung(item.RungId);
        var bent = item
            .Doses.Where(d => Degrees(rung, d.Dose.Range, library) >= policy.Judgement.BendingFrom)
            .Select(d => d.Dose)
            .ToList();
        if (bent.Count == 0)
        {
            return null;
        }
        var days = PlanWork.DaysOf(rung, daysPerWeek, policy);
        var half = policy.Tempo.Seconds(rung.MoveSeconds) / 2;
        return new(
            rung.Id,
            bent.Max(dose => Degrees(rung, dose.Range, library)),
            bent.Sum(dose => dose.TotalReps) * days,
            bent.Sum(dose => dose.Seconds(half)) * days
        );
    }

    private static double Bent(Posture posture) =>
        posture.At(Joint.Lumbar).Flexion + posture.At(Joint.Thorax).Flexion;
}
