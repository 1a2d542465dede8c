using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Seconds of a session in a position that a precaution limits. <paramref name="Most"/>: what it lets through.</summary>
public sealed record SpellWork(string Position, double Seconds, double Most);

/// <summary>Time in a position that a precaution counts over the whole plan: late in pregnancy ten minutes on the back in all.</summary>
internal static class SpellAccount
{
    /// <summary>An option to let go of, the least worth in points for its seconds, while the plan has more than is let through; none when it fits.</summary>
    public static PlanOption? TooLong(
        FoundPlan plan,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    )
    {
        foreach (var (position, most) in Limits(profile, library))
        {
            var there = plan
                .Options.Where(option => library.Rung(option.RungId).Position == position)
                .ToList();
            if (there.Sum(option => Seconds(option.Doses, library.Rung(option.RungId), policy)) > most + 1e-6)
            {
                return there
                    .Where(option => option.Locked is null)
                    .OrderBy(option => option.Cover.Sum() / Math.Max(1, option.Seconds))
                    .ThenBy(option => option.Key, StringComparer.Ordinal)
                    .FirstOrDefault();
            }
        }
        return null;
    }

    /// <summary>What a plan comes to in each limited position.</summary>
    public static IEnumerable<SpellWork> Of(
        Plan plan,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    ) =>
        Limits(profile, library)
            .Select(limit => new SpellWork(
                limit.Position,
                plan.Items.Where(item =>
                        !item.Resting && library.Rung(item.RungId).Position == limit.Position
                    )
                    .Sum(item => Seconds(item.Doses, library.Rung(item.RungId), policy)),
                limit.Seconds
            ));

    /// <summary>Seconds in all that a precaution lets through in a position, over a plan.</summary>
    public static IEnumerable<(string Position, double Seconds)> Limits(
        ClientProfile profile,
        PracticeLibrary library
    ) =>
        from mine in profile.Precautions
        from rule in library.Precaution(mine.Id).Rules
        where rule is { Position: not null, InAll: not null } && mine.Ticks(rule.When)
        group rule.InAll!.Value by rule.Position! into same
        select (same.Key, same.Min());

    /// <summary>Seconds in the position: the work, without rests in which the client turns to the side.</summary>
    public static double Seconds(IReadOnlyList<SideDose> doses, Rung rung, Policy policy) =>
        PlanTime.UnderControl(doses, rung, policy);
}
