using System.Text;
using System.Text.Json;
using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>
/// Where on the drawing of every rung its faults show, from every side it can be looked at: what the tablet's tests lay
/// lines to. The right is the task's side; the left mirrors it.
/// </summary>
public static class DrawnPlaces
{
    /// <summary>A JSON list, a picture a line: rung, view, the picture's box (left, top, width, height) and places by region, millimetres.</summary>
    public static string Text(PracticeLibrary library)
    {
        var text = new StringBuilder("[\n");
        foreach (var rung in library.Ladders.SelectMany(ladder => ladder.Rungs))
        {
            foreach (var view in Enum.GetValues<View>())
            {
                text.Append(text.Length > 2 ? ",\n" : "").Append(Line(library, rung, view));
            }
        }
        return text.Append("\n]\n").ToString();
    }

    private static string Line(PracticeLibrary library, Rung rung, View view)
    {
        var figure = new FigureDrawing(library.PathOf(rung), Side.Right, view).Moment(1, rung.Name);
        var regions = rung
            .Faults.Select(code => library.FindFault(code)!.Region)
            .Distinct(StringComparer.Ordinal);
        return JsonSerializer.Serialize(
            new
            {
                rung = rung.Id,
                view,
                box = new[] { figure.Left, figure.Top, figure.Width, figure.Height },
                faults = rung.Faults,
                at = regions.ToDictionary(
                    region => region,
                    region =>
                    {
                        var at = figure.Anchors.First(anchor => anchor.Region == region).At;
                        return new[] { at.X, at.Y };
                    },
                    StringComparer.Ordinal
                ),
            },
            CoreJson.Options
        );
    }
}
