using Palaestra.Core.Library;

namespace Palaestra.Core.Abilities;

/// <summary>The grids of a library, one for each direction, kept.</summary>
internal sealed class AbilityTables(PracticeLibrary library)
{
    private readonly Dictionary<Direction, AbilityGrid> grids = library.Heights.Directions.ToDictionary(
        direction => direction,
        direction =>
        {
            var model = library.Ability;
            var (lowest, highest) = library.Heights.Ends(direction);
            return new AbilityGrid(lowest - model.Beyond, highest + model.Beyond, model);
        }
    );

    public AbilityGrid Of(Direction direction) => grids[direction];
}
