using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>A task as one client can do it: where, on which sides, with what to mind. Or why not at all.</summary>
/// <param name="Rung">What is set up first: the rung looked at, or the middle one allowed of the ladder.</param>
/// <param name="Sore">A caution touches it, so it comes late.</param>
/// <param name="Covers">Directions it asks for, with the share of the hardest screened rung.</param>
public sealed record TaskOption(
    ScreenTask Task,
    Rung Rung,
    string? Surface,
    IReadOnlyList<Side> Sides,
    IReadOnlyList<string> Cautions,
    bool Sore,
    IReadOnlyDictionary<Sector, double> Covers,
    LeftOut? Out
)
{
    /// <summary>Minutes it takes on the sides that are asked.</summary>
    public double Minutes => Sides.Count == 1 && Sides[0] != Side.Both ? Task.Minutes / 2 : Task.Minutes;

    /// <summary>Whether and on which sides a task can be done by this client, and what it would tell.</summary>
    public static TaskOption Of(
        ScreenTask task,
        ClientProfile profile,
        Policy policy,
        IReadOnlyList<string> missing,
        PracticeLibrary library
    )
    {
        var places = PlacesOf(task, library);
        var free = places.Where(place => OpenSides(place.Rung, profile, library).Count > 0).ToList();
        var equipped = free.Where(place => !place.Rung.Equipment.Any(missing.Contains)).ToList();
        var open =
            equipped.Count > 0 ? equipped
            : free.Count > 0 ? free
            : places;
        // A climb begins in the middle; its place is where that is, and it shows what is asked there.
        var place = open[task.Climbs ? (open.Count - 1) / 2 : 0];
        var rungs = task.Climbs
            ? open.Select(p => p.Rung).Where(r => r.Position == place.Rung.Position).ToList()
            : [place.Rung];
        var sides = OpenSides(place.Rung, profile, library);
        var cautions = CautionsOf(place.Rung, profile, library);
        var option = new TaskOption(
            task,
            place.Rung,
            place.Surface,
            task.Climbs ? ClimbedSides(open.Select(p => p.Rung), profile, library) : sides,
            [.. cautions, .. task.Caution is { } words ? new[] { words } : []],
            cautions.Count > 0,
            task.Climbs || task.TellsControl ? CoversOf(rungs, library) : new Dictionary<Sector, double>(),
            null
        );
        return option with { Out = WhyNot(task, free, equipped, option, profile, policy, missing, library) };
    }

    /// <summary>Left and right where any rung is done for each side, else both together.</summary>
    private static List<Side> ClimbedSides(
        IEnumerable<Rung> rungs,
        ClientProfile profile,
        PracticeLibrary library
    )
    {
        var sides = rungs.SelectMany(rung => OpenSides(rung, profile, library)).Distinct().ToList();
        return sides.Contains(Side.Left) || sides.Contains(Side.Right)
            ? [.. sides.Where(side => side != Side.Both).Order()]
            : sides;
    }

    private static List<(Rung Rung, string? Surface)> PlacesOf(ScreenTask task, PracticeLibrary library) =>
        task switch
        {
            { Ladder: { } ladder } =>
            [
                .. library.Ladders.First(l => l.Id == ladder).Rungs.Select(r => (r, (string?)null)),
            ],
            { Surfaces: { } surfaces } => [.. surfaces.Select(s => (library.Rung(s.Rung), (string?)s.Id))],
            _ => [(library.Rung(task.Rung!), null)],
        };

    private static List<Side> OpenSides(Rung rung, ClientProfile profile, PracticeLibrary library) =>
        [.. rung.TaskSides.Where(side => !Allowance.Of(library, profile.Precautions, rung, side).Barred)];

    private static List<string> CautionsOf(Rung rung, ClientProfile profile, PracticeLibrary library) =>
        [
            .. rung
                .TaskSides.SelectMany(side => Allowance.Of(library, profile.Precautions, rung, side).Cautions)
                .Select(note => $"{note.Tag}: {note.Change ?? note.Words}")
                .Distinct(),
        ];

    private static Dictionary<Sector, double> CoversOf(List<Rung> rungs, PracticeLibrary library) =>
        Enum.GetValues<Sector>()
            .Select(sector =>
                (
                    sector,
                    Share: rungs
                        .SelectMany(rung =>
                            rung.TaskSides.Select(side => library.WeightOf(rung, sector, side))
                        )
                        .DefaultIfEmpty(0)
                        .Max()
                )
            )
            .Where(pair => pair.Share > 0)
            .ToDictionary(pair => pair.sector, pair => pair.Share);

    private static LeftOut? WhyNot(
        ScreenTask task,
        List<(Rung Rung, string? Surface)> free,
        List<(Rung Rung, string? Surface)> equipped,
        TaskOption option,
        ClientProfile profile,
        Policy policy,
        IReadOnlyList<string> missing,
        PracticeLibrary library
    )
    {
        if (free.Count == 0)
        {
            var bar = Allowance.Of(library, profile.Precautions, option.Rung, option.Rung.TaskSides[0]);
            return new(task.Id, "S-BARRED", Message.Of("screen.barred", ("why", bar.BarWords)), false);
        }
        if (task.OnlyWhenCalm && IrritabilityLevel.Of(profile, policy) != Irritability.Low)
        {
            return new(task.Id, "S-SORE", Message.Of("screen.sore"), true);
        }
        if (equipped.Count == 0)
        {
            var lacks = option.Rung.Equipment.First(missing.Contains);
            return new(task.Id, "S-EQUIPMENT", Message.Of("screen.lacks", ("pieces", lacks)), true);
        }
        return null;
    }
}
