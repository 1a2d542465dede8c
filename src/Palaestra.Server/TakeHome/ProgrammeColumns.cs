using Palaestra.Core.Planning;

namespace Palaestra.Server.TakeHome;

/// <summary>An exercise and side of a plan, by its place in the log of a home programme.</summary>
public sealed record ProgrammeColumn(int Place, PlanItem Item, Side Side);

/// <summary>What a home programme of a plan counts, in the order in which its page and its codes number it.</summary>
public static class ProgrammeColumns
{
    public static IReadOnlyList<ProgrammeColumn> Of(Plan plan) =>
        [
            .. plan
                .Items.Where(item => !item.Resting)
                .SelectMany(item => item.Doses.OrderBy(dose => dose.Side).Select(dose => (item, dose.Side)))
                .Select((one, place) => new ProgrammeColumn(place, one.item, one.Side)),
        ];
}
