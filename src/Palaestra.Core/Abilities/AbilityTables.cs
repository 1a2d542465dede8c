using System.Runtime.CompilerServices;
using Palaestra.Core.Library;

namespace Palaestra.Core.Abilities;

/// <summary>The grids of a library, one for each direction, kept as long as the library is.</summary>
internal sealed class AbilityTables(PracticeLibrary library)
{
    private static readonly ConditionalWeakTable<PracticeLibrary, AbilityTables> Kept = [];

    /// <summary>Worked out when first asked for.</summary>
    public static AbilityTables Of(PracticeLibrary library) =>
        Kept.GetValue(library, l => new AbilityTables(l));

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
