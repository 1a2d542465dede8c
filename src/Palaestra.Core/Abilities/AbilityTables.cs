using Palaestra.Core.Library;

namespace Palaestra.Core.Abilities;

/// <summary>The grids of a library, one for each direction, kept.</summary>
internal sealed class AbilityTables(PracticeLibrary library)
{
    /// <summary>How far beyond the lowest and the highest rung an ability may stand, rungs. Our own.</summary>
    public const double Beyond = 1.5;

    private readonly Dictionary<Direction, AbilityGrid> grids = library.Heights.Directions.ToDictionary(
        direction => direction,
        direction =>
        {
            var (lowest, highest) = library.Heights.Ends(direction);
            return new AbilityGrid(lowest - Beyond, highest + Beyond, library.Ability);
        }
    );

    public AbilityGrid Of(Direction direction) => grids[direction];
}
