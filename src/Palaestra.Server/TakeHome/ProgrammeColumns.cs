using Palaestra.Core.Planning;

namespace Palaestra.Server.TakeHome;

/// <summary>An exercise and side of a plan, by its place in the log of a home programme.</summary>
public sealed record ProgrammeColumn(int Place, PlanItem Item, SideDose Dose);

/// <summary>What a home programme of a plan counts, in the order in which its page, its codes and the home log have it.</summary>
public static class ProgrammeColumns
{
    public static IReadOnlyList<ProgrammeColumn> Of(Plan plan) =>
        [
            .. plan
                .Items.Where(item => !item.Resting)
                .SelectMany(item => item.Doses.OrderBy(dose => dose.Side).Select(dose => (item, dose)))
                .Select((one, place) => new ProgrammeColumn(place, one.item, one.dose)),
        ];
}
