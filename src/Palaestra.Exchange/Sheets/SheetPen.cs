using Palaestra.Core.Body;
using Palaestra.Core.Charts;
using PdfSharp.Drawing;
using PdfSharp.UniversalAccessibility;

namespace Palaestra.Exchange.Sheets;

/// <summary>Draws words, drawings and marks on one page, each tagged for a reader.</summary>
internal sealed class SheetPen(XGraphics page, StructureBuilder tags, double scale)
{
    /// <summary>The same tones as on screen; printed in grey they still differ.</summary>
    public static readonly XColor Ink = XColor.FromArgb(0x24, 0x32, 0x3A);
    public static readonly XColor Grey = XColor.FromArgb(0x56, 0x62, 0x6A);
    private static readonly XColor Slate = XColor.FromArgb(0x45, 0x57, 0x5F);
    private static readonly XColor Sand = XColor.FromArgb(0xC9, 0xBB, 0xA6);
    private static readonly XColor Rule = XColor.FromArgb(0xD9, 0xCE, 0xBB);
    private static readonly XColor Wash = XColor.FromArgb(0xED, 0xE6, 0xD7);
    private static readonly XColor Sea = XColor.FromArgb(0x1F, 0x64, 0x70);
    private static readonly XColor Bark = XColor.FromArgb(0x7A, 0x3B, 0x1F);

    private const double Leading = 1.28;

    public double Scale => scale;

    public XFont Text(double points, bool bold = false) =>
        new(SheetFonts.Text, points * scale, bold ? XFontStyleEx.Bold : XFontStyleEx.Regular);

    public XFont Display(double points) => new(SheetFonts.Display, points * scale, XFontStyleEx.Bold);

    /// <summary>The clinic's mark, its right upper corner there; nothing a reader need hear of.</summary>
    public void Mark(byte[] picture, double right, double top, double widthMost, double heightMost)
    {
        Artifact(() =>
        {
            using var image = XImage.FromStream(new MemoryStream(picture));
            var size = Math.Min(widthMost / image.PixelWidth, heightMost / image.PixelHeight);
            var (width, height) = (image.PixelWidth * size, image.PixelHeight * size);
            page.DrawImage(image, right - width, top, width, height);
        });
    }

    /// <summary>Height a text takes at a width.</summary>
    public double HeightOf(string words, XFont font, double width) =>
        Lines(words, font, width).Count * font.Size * Leading;

    /// <returns>The height taken.</returns>
    public double Paragraph(
        string words,
        XFont font,
        double x,
        double y,
        double width,
        XColor? colour = null,
        PdfBlockLevelElementTag tag = PdfBlockLevelElementTag.Paragraph
    )
    {
        tags.BeginElement(tag);
        var brush = new XSolidBrush(colour ?? Ink);
        var lines = Lines(words, font, width);
        for (var i = 0; i < lines.Count; i++)
        {
            page.DrawString(lines[i], font, brush, x, y + font.Size * (0.95 + i * Leading));
        }
        tags.End();
        return lines.Count * font.Size * Leading;
    }

    /// <summary>Words on one line of a table, to the right, centred or to the left of a point.</summary>
    public void Cell(string words, XFont font, double x, double baseline, XStringFormat format)
    {
        tags.BeginElement(PdfBlockLevelElementTag.Paragraph);
        page.DrawString(words, font, new XSolidBrush(Ink), x, baseline, format);
        tags.End();
    }

    /// <summary>Width of <see cref="SideMark"/>.</summary>
    public double SideWidth(string word, XFont font) =>
        page.MeasureString(word, font).Width + font.Size * Tip + 3;

    private const double Tip = 0.55;

    /// <summary>The mark of a side: left points left, right points right, always with the word.</summary>
    public void SideMark(Side side, string word, double x, double y, XFont font)
    {
        var brush = new XSolidBrush(side == Side.Left ? Sea : Bark);
        var width = page.MeasureString(word, font).Width;
        var (half, tip) = (font.Size * 0.38, font.Size * Tip);
        var middle = y + font.Size * 0.62;
        tags.BeginElement(PdfBlockLevelElementTag.Paragraph);
        var from = side == Side.Left ? x + tip + 3 : x;
        page.DrawString(word, font, brush, from, y + font.Size * 0.95);
        tags.End();
        Artifact(() =>
        {
            var (point, back) = side == Side.Left ? (x, x + tip) : (x + width + 3 + tip, x + width + 3);
            page.DrawPolygon(
                brush,
                [new(point, middle), new(back, middle - half), new(back, middle + half)],
                XFillMode.Winding
            );
        });
    }

    public void Line(double x1, double y1, double x2, double y2, double width = 0.7) =>
        Artifact(() => page.DrawLine(new XPen(Ink, width), x1, y1, x2, y2));

    public void Rules(double x1, double y, double x2) =>
        Artifact(() => page.DrawLine(new XPen(Rule, 0.8), x1, y, x2, y));

    public void Box(double x, double y, double side) =>
        Artifact(() => page.DrawRectangle(new XPen(Ink, 0.8), x, y, side, side));

    public void Ground(double x, double y, double width, double height) =>
        Artifact(() => page.DrawRectangle(new XSolidBrush(Wash), x, y, width, height));

    /// <summary>A drawing of the body, as large as fits, standing on the lower edge.</summary>
    public void Figure(Figure figure, string what, double x, double y, double width, double height)
    {
        var zoom = Math.Min(width / figure.Width, height / figure.Height);
        var left = x + (width - figure.Width * zoom) / 2;
        var top = y + height - figure.Height * zoom;
        XPoint At(int px, int py) => new(left + (px - figure.Left) * zoom, top + (py - figure.Top) * zoom);

        tags.BeginElement(
            PdfIllustrationElementTag.Figure,
            $"{what}: {figure.Words}",
            new XRect(x, y, width, height)
        );
        foreach (var shape in figure.Shapes)
        {
            var path = new XGraphicsPath { FillMode = XFillMode.Winding };
            foreach (var outline in shape.Outlines)
            {
                path.StartFigure();
                path.AddPolygon([
                    .. Enumerable
                        .Range(0, outline.Count / 2)
                        .Select(i => At(outline[2 * i], outline[2 * i + 1])),
                ]);
            }
            if (EdgeOf(shape.Role) is { } edge)
            {
                page.DrawPath(new XPen(edge.Colour, edge.Width * zoom) { LineJoin = XLineJoin.Round }, path);
            }
            page.DrawPath(new XSolidBrush(ToneOf(shape.Role)), path);
        }
        tags.End();
    }

    /// <summary>One side of the body with what is drawn on it, numbered; as large as fits, standing on the lower edge.</summary>
    /// <param name="what">For those who do not see it.</param>
    public void Body(
        ChartFigure figure,
        IEnumerable<(PainArea Area, int Number)> areas,
        string what,
        XRect box
    )
    {
        var zoom = Math.Min(box.Width / figure.Width, box.Height / figure.Height);
        var left = box.X + (box.Width - figure.Width * zoom) / 2;
        var top = box.Bottom - figure.Height * zoom;
        XPoint At(int px, int py) => new(left + (px - figure.Left) * zoom, top + (py - figure.Top) * zoom);
        XPoint[] Run(IReadOnlyList<int> outline) =>
            [.. Enumerable.Range(0, outline.Count / 2).Select(i => At(outline[2 * i], outline[2 * i + 1]))];

        tags.BeginElement(PdfIllustrationElementTag.Figure, what, box);
        var whole = new XGraphicsPath { FillMode = XFillMode.Winding };
        foreach (var outline in figure.Shapes.SelectMany(shape => shape.Outlines))
        {
            whole.StartFigure();
            whole.AddPolygon(Run(outline));
        }
        page.DrawPath(new XPen(Ink, 1.2), whole);
        page.DrawPath(XBrushes.White, whole);
        foreach (var (area, number) in areas)
        {
            var drawn = Run(area.Outline);
            page.DrawPolygon(new XPen(Ink, 0.9), new XSolidBrush(Sand), drawn, XFillMode.Alternate);
            page.DrawString(
                number.ToString(System.Globalization.CultureInfo.InvariantCulture),
                Text(8, bold: true),
                new XSolidBrush(Ink),
                drawn.Max(p => p.X) + 1.5,
                drawn.Min(p => p.Y) + 3
            );
        }
        tags.End();
    }

    public void Artifact(Action draw)
    {
        tags.BeginArtifact();
        draw();
        tags.End();
    }

    private static XColor ToneOf(ShapeRole role) =>
        role switch
        {
            ShapeRole.Floor => Rule,
            ShapeRole.Prop => Wash,
            ShapeRole.Ghost => Wash,
            ShapeRole.FarLimb => Sand,
            ShapeRole.NearLimb => Ink,
            ShapeRole.Arrow => Sea,
            _ => Slate,
        };

    private static (XColor Colour, double Width)? EdgeOf(ShapeRole role) =>
        role switch
        {
            ShapeRole.Prop => (Slate, 8),
            ShapeRole.FarLimb or ShapeRole.NearLimb => (XColors.White, 14),
            _ => null,
        };

    private List<string> Lines(string words, XFont font, double width)
    {
        var lines = new List<string>();
        var line = "";
        foreach (var word in words.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && page.MeasureString(longer, font).Width > width)
            {
                lines.Add(line);
                line = word;
            }
            else
            {
                line = longer;
            }
        }
        if (line.Length > 0)
        {
            lines.Add(line);
        }
        return lines;
    }
}
