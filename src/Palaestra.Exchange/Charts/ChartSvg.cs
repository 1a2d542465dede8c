using System.Globalization;
using System.Xml.Linq;
using Palaestra.Core.Charts;

namespace Palaestra.Exchange.Charts;

/// <summary>Writes a body chart as one SVG: four views beside each other, areas filled by pattern, and in words under them.</summary>
public static class ChartSvg
{
    private static readonly XNamespace Svg = "http://www.w3.org/2000/svg";

    /// <summary>Millimetres of the chart.</summary>
    private const int Gap = 120;
    private const int LineHeight = 78;
    private const string Ink = "#24323A";

    /// <param name="title">For those who do not see it.</param>
    /// <param name="says">One line for each area.</param>
    public static string Write(BodyChart chart, string title, IReadOnlyList<string> says)
    {
        var figures = ChartFigure.All;
        var height = figures.Max(f => f.Height);
        var width = figures.Sum(f => f.Width) + Gap * (figures.Count - 1);
        var views = new List<XElement>();
        var at = 0;
        foreach (var figure in figures)
        {
            views.Add(
                new XElement(
                    Svg + "g",
                    new XAttribute(
                        "transform",
                        $"translate({at - figure.Left} {height - figure.Top - figure.Height})"
                    ),
                    Body(figure),
                    chart
                        .Areas.Select((area, i) => (area, i))
                        .Where(pair => pair.area.View == figure.View)
                        .SelectMany(pair => Area(pair.area, pair.i))
                )
            );
            at += figure.Width + Gap;
        }
        var total = height + LineHeight * (says.Count + 1);
        return new XElement(
            Svg + "svg",
            new XAttribute("viewBox", $"0 0 {width} {total}"),
            new XAttribute("role", "img"),
            new XElement(Svg + "title", title),
            new XElement(Svg + "defs", ChartPattern.All.Select(Pattern)),
            views,
            says.Select((line, i) => Text(line, 0, height + LineHeight * (i + 1), $"{i + 1}. "))
        ).ToString(SaveOptions.DisableFormatting);
    }

    /// <summary>The rim of all parts, and all of them over it: one body, not its joints.</summary>
    private static XElement[] Body(ChartFigure figure)
    {
        var whole = string.Concat(figure.Shapes.SelectMany(shape => shape.Outlines).Select(Path));
        return
        [
            new(
                Svg + "path",
                new XAttribute("d", whole),
                new XAttribute("fill", Ink),
                new XAttribute("stroke", Ink),
                new XAttribute("stroke-width", 12)
            ),
            new(Svg + "path", new XAttribute("d", whole), new XAttribute("fill", "#FFFDF8")),
        ];
    }

    private static IEnumerable<XElement> Area(PainArea area, int number)
    {
        yield return new(
            Svg + "path",
            new XAttribute("d", Path(area.Outline)),
            new XAttribute("fill", $"url(#kind-{area.Kind})"),
            new XAttribute("stroke", Ink),
            new XAttribute("stroke-width", 6)
        );
        yield return Text(
            (number + 1).ToString(CultureInfo.InvariantCulture),
            area.Outline.Where((_, i) => i % 2 == 0).Max() + 14,
            area.Outline.Where((_, i) => i % 2 == 1).Min(),
            ""
        );
    }

    private static XElement Pattern(ChartPattern pattern) =>
        new(
            Svg + "pattern",
            new XAttribute("id", $"kind-{pattern.Kind}"),
            new XAttribute("width", pattern.Size),
            new XAttribute("height", pattern.Size),
            new XAttribute("patternUnits", "userSpaceOnUse"),
            new XElement(
                Svg + "path",
                new XAttribute("d", pattern.Path),
                new XAttribute("fill", "none"),
                new XAttribute("stroke", Ink),
                new XAttribute("stroke-width", pattern.Line),
                new XAttribute("stroke-linecap", "round")
            )
        );

    private static XElement Text(string words, int x, int y, string before) =>
        new(
            Svg + "text",
            new XAttribute("x", x),
            new XAttribute("y", y),
            new XAttribute("font-size", 54),
            new XAttribute("font-family", "sans-serif"),
            new XAttribute("fill", Ink),
            before + words
        );

    private static string Path(IReadOnlyList<int> outline) =>
        $"M{string.Join(' ', outline.Select(n => n.ToString(CultureInfo.InvariantCulture)))}Z";
}
