using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>What is the load of a rung, or of a pose, for this body? Give exactly one of the two.</summary>
/// <param name="Pose">As content writes poses; its base may be any pose of the library.</param>
/// <param name="Side">Side of the task; a pose is taken as written for the left.</param>
/// <param name="PresentRungId">The client's present rung, to compare with.</param>
public sealed record LoadQuestion(
    BodySize Body,
    string? RungId = null,
    PoseEntry? Pose = null,
    Side Side = Side.Left,
    LoadChanges? Changes = null,
    string? PresentRungId = null
);

/// <summary>One direction's part of a load.</summary>
/// <param name="Side">The side of the trunk that holds it, or the leg the pelvis is kept level on; both: neither side.</param>
/// <param name="NewtonMetres">The greatest over the movement.</param>
/// <param name="PercentOfWeightHeight">Of body weight × stature, so that people of different sizes compare.</param>
/// <param name="PercentOfFull">Of the same rung without changes; none where that asks for nothing here.</param>
/// <param name="PercentMoreThanPresent">Above the client's present rung, below 0 for less; none without one, or where it asks for nothing here.</param>
public sealed record DirectionLoad(
    Direction Direction,
    Side Side,
    Message Words,
    double NewtonMetres,
    double PercentOfWeightHeight,
    double? PercentOfFull,
    double? PercentMoreThanPresent
);

/// <summary>What the plain numbers of a load are in.</summary>
public sealed record LoadUnits(string Moments, string Support, string Lengths)
{
    /// <summary>The units of every load answer.</summary>
    public static readonly LoadUnits Of = new("N·m", "percent of body weight and what is held", "cm");
}

/// <param name="TypicalBody">True when height or mass was left open, and the figures are for a typical body.</param>
/// <param name="Directions">Directions that are asked for at all, the ladder's own first, then the greatest.</param>
/// <param name="Load">Everything the model says: along the movement, at its start and at its end.</param>
public sealed record LoadAnswer(
    bool TypicalBody,
    double StatureMetres,
    double MassKilograms,
    Message Note,
    LoadUnits Units,
    IReadOnlyList<DirectionLoad> Directions,
    MovementLoad Load
);

/// <summary>Answers load questions for the application's own screens and for others.</summary>
public static class LoadAnswers
{
    /// <summary>That loads are those of holding still, without speed.</summary>
    public static Message Static => Message.Of("load.static");

    /// <summary>Newton metres below which a direction is not asked for. Our own.</summary>
    private const double Nothing = 0.05;

    private static readonly (Direction Direction, Side Side)[] All =
    [
        (Direction.Front, Side.Both),
        (Direction.Back, Side.Both),
        (Direction.Side, Side.Left),
        (Direction.Side, Side.Right),
        (Direction.Twist, Side.Both),
        (Direction.Pelvis, Side.Left),
        (Direction.Pelvis, Side.Right),
    ];

    /// <summary>Errors name the field: an absurd body, an unknown rung or joint, a change that does not fit, a pose that falls.</summary>
    public static Checked<LoadAnswer> Of(LoadQuestion question, PracticeLibrary library)
    {
        var errors = question.Body.Errors("body").ToList();
        var path = PathOf(question, library, errors);
        if (question.PresentRungId is { } id && library.FindRung(id) is null)
        {
            errors.Add(new("presentRungId", Message.Of("no.rung", ("rung", id))));
        }
        var changes = question.Changes ?? LoadChanges.None;
        errors.AddRange(changes.Errors("changes", path));
        if (errors.Count > 0)
        {
            return Checked<LoadAnswer>.Bad(errors);
        }
        var side = question.Side == Side.Both ? Side.Left : question.Side;
        var (load, fall) = LoadModel.Of(path, side, question.Body, changes);
        if (load is null)
        {
            return Checked<LoadAnswer>.Bad(
                new FieldError(question.Pose is null ? "changes" : "pose", fall!.Words)
            );
        }
        return Checked<LoadAnswer>.Good(
            new LoadAnswer(
                question.Body.IsTypical,
                question.Body.Metres,
                question.Body.Kilograms,
                Static,
                LoadUnits.Of,
                Directions(question, library, path, side, load.Demands),
                load
            )
        );
    }

    private static IReadOnlyList<Pose> PathOf(
        LoadQuestion question,
        PracticeLibrary library,
        List<FieldError> errors
    )
    {
        if (question.RungId is null == question.Pose is null)
        {
            errors.Add(new("rungId", Message.Of("load.either")));
            return [];
        }
        if (question.RungId is { } id)
        {
            if (library.FindRung(id) is { } rung)
            {
                return library.PathOf(rung);
            }
            errors.Add(new("rungId", Message.Of("no.rung", ("rung", id))));
            return [];
        }
        var pose = PoseEntries.Alone("pose", question.Pose!, library.Poses, errors);
        if (pose is null)
        {
            return [];
        }
        errors.AddRange(PoseCheck.Errors("pose", pose));
        return [pose];
    }

    private static IReadOnlyList<DirectionLoad> Directions(
        LoadQuestion question,
        PracticeLibrary library,
        IReadOnlyList<Pose> path,
        Side side,
        Demands asked
    )
    {
        var full = LoadModel.Of(path, side, question.Body, LoadChanges.None).Load?.Demands;
        var present = question.PresentRungId is { } id
            ? LoadModel
                .Of(library.PathOf(library.Rung(id)), side, question.Body, LoadChanges.None)
                .Load?.Demands
            : null;
        var ladder = question.RungId is null ? null : library.LadderOf(question.RungId);
        return
        [
            .. All.Select(one => new DirectionLoad(
                    one.Direction,
                    one.Side,
                    Words(one.Direction, one.Side),
                    In(asked, one),
                    100 * In(asked, one) / (question.Body.Weight * question.Body.Metres),
                    Share(In(asked, one), full is null ? 0 : In(full, one)),
                    Share(In(asked, one), present is null ? 0 : In(present, one)) - 100
                ))
                .Where(load => load.NewtonMetres >= Nothing || load.PercentOfFull is not null)
                .OrderByDescending(load =>
                    ladder is not null
                    && load.Direction == ladder.Direction
                    && IsOn(load.Side, ladder.On, side)
                )
                .ThenByDescending(load => load.NewtonMetres),
        ];
    }

    private static bool IsOn(Side side, OnSide on, Side task) =>
        side == Side.Both || side == (on == OnSide.Task ? task : task.Other());

    private static double In(Demands demands, (Direction Direction, Side Side) one) =>
        demands.In(one.Direction, OnSide.Task, one.Side);

    private static double? Share(double part, double whole) => whole < Nothing ? null : 100 * part / whole;

    /// <summary>The words of the ring; turning either way has none there.</summary>
    private static Message Words(Direction direction, Side side) =>
        Sectors.Of(direction, OnSide.Task, side) is { } sector
            ? Message.Of("load.direction", ("sector", sector), ("pelvis", direction == Direction.Pelvis))
            : Message.Of("load.turning");
}
