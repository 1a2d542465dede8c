using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>What one side of an exercise comes to.</summary>
/// <param name="Seconds">Under control in a session. <paramref name="WeekSeconds"/>: in a week.</param>
public sealed record SideWork(Side Side, double Seconds, double WeekSeconds);

/// <param name="Days">Days a week it is done. <paramref name="Loaded"/>: with days between.</param>
public sealed record ItemWork(Guid ItemId, int Days, bool Loaded, IReadOnlyList<SideWork> Sides);

/// <summary>A week's work in one direction.</summary>
/// <param name="Minutes">Under control, each counted by how much its rung asks for the direction.</param>
/// <param name="Before">The same in the plan before; none without one.</param>
/// <param name="Wanted">The plan's minutes of all directions, shared by what each lacks of full control (the weak link twice); none where nothing was screened or nothing lacks.</param>
public sealed record DirectionWork(
    Sector Sector,
    string Name,
    double Minutes,
    double? Before,
    double? Wanted = null
);

/// <summary>The arithmetic of a plan: time under control by session, week, side and direction, and its growth.</summary>
/// <param name="SessionMinutes">With rests, set-up and changes. <paramref name="WeekMinutes"/>: the sum over the days.</param>
/// <param name="Growth">Of the week's seconds under control against the plan before, as a share; none without one.</param>
/// <param name="Bending">The week's bending, where a precaution counts it. <paramref name="Spells"/>: time in positions that are limited.</param>
public sealed record PlanWork(
    double Seconds,
    double WeekSeconds,
    double SessionMinutes,
    double WeekMinutes,
    IReadOnlyList<ItemWork> Items,
    IReadOnlyList<DirectionWork> Directions,
    double? Growth,
    BendingAccount? Bending = null,
    IReadOnlyList<SpellWork>? Spells = null
)
{
    /// <param name="daysPerWeek">Days the client can, 1 to 7.</param>
    /// <param name="before">The plan it follows; none for the first.</param>
    /// <param name="profile">Whose precautions limit bending and positions; none: neither is added up.</param>
    /// <param name="findings">What each direction lacks; none: nothing is said of what is wanted.</param>
    public static PlanWork Of(
        Plan plan,
        int daysPerWeek,
        Policy policy,
        PracticeLibrary library,
        Plan? before = null,
        ClientProfile? profile = null,
        ScreenFindings? findings = null
    )
    {
        var items = plan.Items.Select(item => OfItem(item, daysPerWeek, policy, library)).ToList();
        var earlier = before is null ? null : Of(before, daysPerWeek, policy, library);
        var week = items.Sum(item => item.Sides.Sum(side => side.WeekSeconds));
        return new PlanWork(
            items.Sum(item => item.Sides.Sum(side => side.Seconds)),
            week,
            plan.TotalMinutes,
            Math.Round(plan.Items.Zip(items, (item, work) => item.Minutes * work.Days).Sum(), 1),
            items,
            Wanted(
                [
                    .. Enum.GetValues<Sector>()
                        .Select(sector => OfDirection(sector, plan, items, earlier, library)),
                ],
                findings
            ),
            earlier is { WeekSeconds: > 0 } ? week / earlier.WeekSeconds - 1 : null,
            profile is null ? null : BendingAccount.Of(plan, profile, daysPerWeek, policy, library),
            profile is null ? null : [.. SpellAccount.Of(plan, profile, policy, library)]
        );
    }

    /// <summary>Days a week an exercise is done: control work on most days, loaded work on fewer, with days between.</summary>
    public static int DaysOf(Rung rung, int daysPerWeek, Policy policy) =>
        policy.Loaded.Is(rung)
            ? Math.Min(
                Math.Min(daysPerWeek, policy.Loaded.DaysPerWeek),
                Math.Max(1, 7 / (policy.Loaded.DaysBetween + 1))
            )
            : Math.Min(daysPerWeek, policy.LowLoadDays);

    /// <summary>Growth beyond the policy's share warns: P-GROWTH; and the bending account: P-BENDING.</summary>
    public IEnumerable<PlanWarning> Warnings(Policy policy)
    {
        if (Growth > policy.WeeklyGrowth + 1e-9)
        {
            yield return new(
                null,
                "P-GROWTH",
                Message.Of("plan.growth", ("share", Growth), ("most", policy.WeeklyGrowth)),
                false
            );
        }
        foreach (var warning in Bending?.Warnings() ?? [])
        {
            yield return warning;
        }
    }

    private static ItemWork OfItem(PlanItem item, int daysPerWeek, Policy policy, PracticeLibrary library)
    {
        var rung = library.Rung(item.RungId);
        var days = DaysOf(rung, daysPerWeek, policy);
        var move = policy.Tempo.Seconds(rung.MoveSeconds);
        return new ItemWork(
            item.Id,
            days,
            policy.Loaded.Is(rung),
            [
                .. item.Doses.Select(dose => new SideWork(
                    dose.Side,
                    dose.Dose.Seconds(move),
                    dose.Dose.Seconds(move) * days
                )),
            ]
        );
    }

    /// <summary>The same minutes in all, shared by what each direction lacks.</summary>
    private static IReadOnlyList<DirectionWork> Wanted(
        IReadOnlyList<DirectionWork> directions,
        ScreenFindings? findings
    )
    {
        var needs =
            findings?.Control.ToDictionary(c => c.Sector, c => PlanObjective.NeedOf(c, findings)) ?? [];
        var all = needs.Values.Sum();
        var minutes = directions.Sum(d => d.Minutes);
        return all == 0
            ? directions
            :
            [
                .. directions.Select(d =>
                    d with
                    {
                        Wanted = Math.Round(minutes * needs.GetValueOrDefault(d.Sector) / all, 1),
                    }
                ),
            ];
    }

    private static DirectionWork OfDirection(
        Sector sector,
        Plan plan,
        List<ItemWork> items,
        PlanWork? earlier,
        PracticeLibrary library
    )
    {
        var seconds = plan
            .Items.Zip(items)
            .SelectMany(pair =>
                pair.Second.Sides.Select(side =>
                    side.WeekSeconds * library.WeightOf(library.Rung(pair.First.RungId), sector, side.Side)
                )
            )
            .Sum();
        return new DirectionWork(
            sector,
            library.Words(sector).Name,
            Math.Round(seconds / 60, 1),
            earlier?.Directions.First(direction => direction.Sector == sector).Minutes
        );
    }
}
