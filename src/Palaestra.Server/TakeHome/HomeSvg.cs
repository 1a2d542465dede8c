using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json;

namespace Palaestra.Server.TakeHome;

/// <summary>The end of a movement as a picture that needs no script; its colours are in the styles of the page.</summary>
internal static class HomeSvg
{
    public static string Of(HomeDrawing drawing, string words)
    {
        var svg = new StringBuilder();
        svg.Append(
            CultureInfo.InvariantCulture,
            $"<svg role=\"img\" aria-label=\"{WebUtility.HtmlEncode(words)}\" viewBox=\"{drawing.Left} {drawing.Top} {drawing.Width} {drawing.Height}\">"
        );
        foreach (var shape in drawing.Shapes)
        {
            var end = shape.Frames.Aggregate(
                (from, step) =>
                    [.. from.Zip(step, (a, b) => (IReadOnlyList<int>)[.. a.Zip(b, (x, y) => x + y)])]
            );
            var path = string.Concat(end.Select(outline => $"M{string.Join(' ', outline)}Z"));
            svg.Append(
                CultureInfo.InvariantCulture,
                $"<path class=\"{JsonNamingPolicy.KebabCaseLower.ConvertName(shape.Role.ToString())}\" d=\"{path}\"/>"
            );
        }
        return svg.Append("</svg>").ToString();
    }
}
