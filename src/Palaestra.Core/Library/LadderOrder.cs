using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>One rung in the order of its ladder.</summary>
/// <param name="Demand">In the ladder's direction, N·m.</param>
/// <param name="Falls">It asks for less than the rung below, by more than the grace.</param>
/// <param name="Reason">Why it stands there all the same.</param>
public sealed record LadderStep(Rung Rung, double Demand, bool Falls, string? Reason);

/// <summary>Whether the demand of a ladder rises from rung to rung in its own direction.</summary>
public static class LadderOrder
{
    /// <summary>Newton metres within which two rungs ask for the same. Our own: less than a lifted hand.</summary>
    public const double Grace = 1.0;

    /// <summary>The steps of a ladder with a direction, for a typical body; empty for one that trains positions.</summary>
    public static IReadOnlyList<LadderStep> Of(Ladder ladder, PracticeLibrary library) =>
        Of(ladder, rung => library.Demands.Of(rung.Id), Side.Left);

    /// <summary>The same for one client's body.</summary>
    public static IReadOnlyList<LadderStep> Of(
        Ladder ladder,
        PracticeLibrary library,
        BodySize body,
        Side side
    ) =>
        Of(
            ladder,
            rung =>
                LoadModel.Of(library.PathOf(rung), side, body, LoadChanges.None).Load?.Demands
                ?? Demands.None,
            side
        );

    private static IReadOnlyList<LadderStep> Of(Ladder ladder, Func<Rung, Demands> demands, Side task)
    {
        if (ladder.Direction == Direction.None)
        {
            return [];
        }
        var steps = new List<LadderStep>(ladder.Rungs.Count);
        foreach (var rung in ladder.Rungs)
        {
            var side = rung.Sides == RungSides.Each ? task : Side.Both;
            var demand = demands(rung).In(ladder.Direction, ladder.On, side);
            var falls = steps.Count > 0 && demand < steps[^1].Demand - Grace;
            steps.Add(new(rung, demand, falls, ladder.OffOrder?.GetValueOrDefault(rung.Id)));
        }
        return steps;
    }

    /// <summary>A rung that asks for less than the one below needs a reason; a reason needs such a rung.</summary>
    public static IEnumerable<FieldError> Errors(string file, Ladder ladder, PracticeLibrary library)
    {
        foreach (var step in Of(ladder, library))
        {
            if (step.Falls && string.IsNullOrWhiteSpace(step.Reason))
            {
                yield return new(
                    $"{file} rungs.{step.Rung.Id}",
                    Message.Of("content.out-of-order", ("moment", step.Demand))
                );
            }
        }
    }
}
