using Palaestra.Core.Charts;
using Palaestra.Core.Outcomes;
using Palaestra.Exchange.Sheets;
using PdfSharp;
using PdfSharp.Drawing;
using PdfSharp.Pdf;
using PdfSharp.UniversalAccessibility;

namespace Palaestra.Exchange.Letters;

/// <summary>A letter as it goes out: who writes, when, and about whom.</summary>
/// <param name="From">The clinic; may be empty. <paramref name="Contact"/>: one line under it.</param>
/// <param name="Signed">The practitioner.</param>
/// <param name="Address">Lines under the clinic's name; may be empty.</param>
/// <param name="Mark">The clinic's picture, JPEG or PNG; none: none.</param>
/// <param name="Chart">None: nothing was drawn.</param>
public sealed record LetterPage(
    Letter Letter,
    string From,
    string Contact,
    string Date,
    string Signed,
    string Note,
    string Address = "",
    byte[]? Mark = null,
    LetterChart? Chart = null
);

/// <summary>The body chart under a letter.</summary>
/// <param name="Title">Whose, and of which day. <paramref name="Says"/>: one line for each area.</param>
public sealed record LetterChart(BodyChart Chart, string Title, IReadOnlyList<string> Says);

/// <summary>Writes a letter as PDF: fonts embedded, headings tagged, as many pages as it takes.</summary>
public static class LetterPdf
{
    public static byte[] Write(LetterPage page, Paper paper)
    {
        SheetFonts.Use();
        using var document = new PdfDocument();
        document.Info.Title = page.Letter.About;
        document.Info.Author = page.From;
        document.Info.Creator = Product.Maker;
        document.Language = "en-GB";
        document.ViewerPreferences.DisplayDocTitle = true;
        var tags = UAManager.ForDocument(document);
        using (var writer = new Writer(document, tags.StructureBuilder, paper))
        {
            writer.Put(page);
        }
        using var bytes = new MemoryStream();
        document.Save(bytes);
        return AccessibleMark.On(bytes.ToArray());
    }

    private sealed class Writer(PdfDocument document, StructureBuilder tags, Paper paper) : IDisposable
    {
        private const double Margin = 62;
        private const double MarkWidth = 130;
        private const double MarkHeight = 56;
        private const double BodyHeight = 190;
        private XGraphics? graphics;
        private SheetPen pen = null!;
        private double width;
        private double bottom;
        private double y;

        public void Put(LetterPage page)
        {
            Begin();
            if (page.Mark is { } mark)
            {
                pen.Mark(mark, Margin + width, y - 14, MarkWidth, MarkHeight);
                width -= MarkWidth + 12;
            }
            Line(page.From, pen.Display(15), PdfBlockLevelElementTag.Paragraph);
            foreach (var line in page.Address.Split('\n'))
            {
                Line(line, pen.Text(9), PdfBlockLevelElementTag.Paragraph);
            }
            Line(page.Contact, pen.Text(9), PdfBlockLevelElementTag.Paragraph, SheetPen.Grey);
            if (page.Mark is not null)
            {
                width += MarkWidth + 12;
                y = Math.Max(y, Margin - 14 + MarkHeight);
            }
            y += 16;
            foreach (var line in page.Letter.To.Split('\n'))
            {
                Line(line, pen.Text(10.5), PdfBlockLevelElementTag.Paragraph);
            }
            y += 8;
            Line(page.Date, pen.Text(10.5), PdfBlockLevelElementTag.Paragraph);
            y += 12;
            Line(page.Letter.About, pen.Display(12.5), PdfBlockLevelElementTag.Heading1);
            foreach (var part in page.Letter.Parts)
            {
                y += 9;
                // A heading does not stand alone at the foot of a page.
                Room(52);
                Line(part.Heading, pen.Text(10.5, bold: true), PdfBlockLevelElementTag.Heading2);
                foreach (var words in part.Paragraphs)
                {
                    Line(words, pen.Text(10.5), PdfBlockLevelElementTag.Paragraph);
                    y += 3;
                }
            }
            if (page.Chart is { Chart.Areas.Count: > 0 } chart)
            {
                Bodies(chart);
            }
            y += 18;
            Room(60);
            Line(page.Signed, pen.Text(10.5), PdfBlockLevelElementTag.Paragraph);
            y += 14;
            Line(page.Note, pen.Text(8.5), PdfBlockLevelElementTag.Paragraph, SheetPen.Grey);
        }

        /// <summary>Four sides beside each other, and what each number is.</summary>
        private void Bodies(LetterChart chart)
        {
            y += 9;
            Room(BodyHeight + 60);
            Line(chart.Title, pen.Text(10.5, bold: true), PdfBlockLevelElementTag.Heading2);
            var wide = ChartFigure.All.Sum(figure => figure.Width);
            var numbered = chart.Chart.Areas.Select((area, i) => (Area: area, Number: i + 1)).ToList();
            var x = Margin;
            foreach (var figure in ChartFigure.All)
            {
                var share = width * figure.Width / wide;
                pen.Body(
                    figure,
                    numbered.Where(n => n.Area.View == figure.View),
                    string.Join(
                        ' ',
                        numbered
                            .Where(n => n.Area.View == figure.View)
                            .Select(n => chart.Says[n.Number - 1])
                            .DefaultIfEmpty(chart.Title)
                    ),
                    new XRect(x, y + 4, share, BodyHeight)
                );
                x += share;
            }
            y += BodyHeight + 10;
            for (var i = 0; i < chart.Says.Count; i++)
            {
                Line($"{i + 1}. {chart.Says[i]}", pen.Text(9.5), PdfBlockLevelElementTag.Paragraph);
            }
        }

        private void Line(string words, XFont font, PdfBlockLevelElementTag tag, XColor? colour = null)
        {
            if (words.Length == 0)
            {
                return;
            }
            Room(pen.HeightOf(words, font, width));
            y += pen.Paragraph(words, font, Margin, y, width, colour, tag);
        }

        private void Room(double height)
        {
            if (y + height > bottom)
            {
                Begin();
            }
        }

        private void Begin()
        {
            graphics?.Dispose();
            var page = document.AddPage();
            page.Size = paper.Size();
            graphics = XGraphics.FromPdfPage(page);
            pen = new SheetPen(graphics, tags, 1);
            width = page.Width.Point - 2 * Margin;
            bottom = page.Height.Point - Margin;
            y = Margin;
        }

        public void Dispose() => graphics?.Dispose();
    }
}
