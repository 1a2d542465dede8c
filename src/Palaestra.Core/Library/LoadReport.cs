using System.Globalization;
using System.Text;
using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>The order of every ladder by demand, as a Markdown page for <c>docs/</c>.</summary>
public static class LoadReport
{
    /// <summary>The page of all rungs with their loads, as Markdown.</summary>
    public static string Text(PracticeLibrary library)
    {
        var text = new StringBuilder();
        text.Append(
            CultureInfo.InvariantCulture,
            $"""
            # What each rung asks for

            Written by `./palaestra generate` from the content and the body model; do not edit.

            Newton metres, the greatest over the movement, for a typical body ({BodySize.TypicalHeight:0.00} m,
            {BodySize.TypicalMass:0} kg, mean of both segment tables), the left as the side of the task. Static and by gravity
            alone: speed, and muscles that stiffen against each other, add to it. **Bold**: the ladder's own direction, in which
            each rung should ask for more than the one below. A rung that asks for less, by more than {LadderOrder.Grace:0} N·m,
            is marked ↓, and the reason why it stands there all the same is given below the table. The server does not start
            with such a rung without a reason.


            """
        );
        foreach (var ladder in library.Ladders)
        {
            AppendLadder(text, ladder, library);
        }
        return text.ToString();
    }

    private static void AppendLadder(StringBuilder text, Ladder ladder, PracticeLibrary library)
    {
        text.Append($"## {ladder.Id}. {ladder.Name}\n\n");
        var main = ladder.Direction;
        text.Append(
            main == Direction.None
                ? "Positions and switching on: not ordered by load.\n\n"
                : $"Rises in: {Word(main, ladder.On)}.\n\n"
        );
        text.Append(
            "| rung | | front | back | side, task | side, other | twist | pelvis, task | pelvis, other |\n"
        );
        text.Append("|---|---|---:|---:|---:|---:|---:|---:|---:|\n");
        var steps = LadderOrder.Of(ladder, library).ToDictionary(step => step.Rung.Id);
        foreach (var rung in ladder.Rungs)
        {
            var falls = steps.GetValueOrDefault(rung.Id)?.Falls == true;
            text.Append($"| {rung.Id} | {rung.Name}{(falls ? " ↓" : "")} |");
            foreach (var (direction, on) in DemandTable.Asked)
            {
                var side = rung.Sides == RungSides.Each ? Side.Left : Side.Both;
                var demand = library.Demands.Of(rung.Id).In(direction, on, side);
                var cell = demand.ToString(demand < 10 ? "0.0" : "0", CultureInfo.InvariantCulture);
                text.Append(direction == main && on == ladder.On ? $" **{cell}** |" : $" {cell} |");
            }
            text.Append('\n');
        }
        text.Append('\n');
        foreach (var step in steps.Values.Where(step => step.Falls))
        {
            text.Append($"- {step.Rung.Id} {step.Rung.Name}: {step.Reason}\n");
        }
        if (steps.Values.Any(step => step.Falls))
        {
            text.Append('\n');
        }
    }

    private static string Word(Direction direction, OnSide on) =>
        direction switch
        {
            Direction.Front => "the front of the trunk, against arching",
            Direction.Back => "the back, against rounding",
            Direction.Side => on == OnSide.Task ? "the side of the task" : "the other side",
            Direction.Twist => "twist",
            Direction.Pelvis => on == OnSide.Task
                ? "the pelvis kept level, on the side of the task"
                : "the pelvis kept level, on the other side",
            _ => "",
        };
}
