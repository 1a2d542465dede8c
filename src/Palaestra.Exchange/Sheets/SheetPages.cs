using System.Globalization;
using Palaestra.Words;
using PdfSharp;
using PdfSharp.Drawing;
using PdfSharp.Pdf;
using PdfSharp.UniversalAccessibility;

namespace Palaestra.Exchange.Sheets;

/// <summary>Lays a sheet out over pages: an exercise is never cut in two.</summary>
internal sealed class SheetPages(
    PdfDocument document,
    StructureBuilder tags,
    Paper paper,
    bool large,
    Sheet sheet,
    Speech speech
)
{
    private const double Margin = 36;
    private const double Gap = 12;

    private readonly double scale = large ? 1.5 : 1;
    private readonly List<(PdfPage Page, string Owner)> pages = [];
    private XGraphics? graphics;
    private SheetPen pen = null!;
    private double width;
    private double bottom;
    private double y;

    private double FigureWidth => large ? 190 : 150;
    private double FigureHeight => large ? 118 : 88;
    private double Words => Margin + FigureWidth + 16;
    private double WordsWidth => width - Margin - Words;

    public void Exercises()
    {
        Begin(sheet.ClientName);
        if (sheet.Mark is { } mark)
        {
            pen.Mark(mark, width - Margin, y, 110, 34);
        }
        y += pen.Paragraph(
            sheet.ClientName,
            pen.Display(20),
            Margin,
            y,
            width - 2 * Margin,
            tag: PdfBlockLevelElementTag.Heading1
        );
        y += pen.Paragraph(sheet.Line, pen.Text(10.5), Margin, y, width - 2 * Margin, SheetPen.Grey);
        pen.Line(Margin, y + 4, width - Margin, y + 4, 1.6);
        y += Gap;
        for (var i = 0; i < sheet.Exercises.Count; i++)
        {
            var exercise = sheet.Exercises[i];
            if (y + HeightOf(exercise) > bottom)
            {
                Begin(sheet.ClientName);
            }
            Exercise(i + 1, exercise);
        }
        Foot();
    }

    /// <summary>The practitioner's page stands apart, after the client's, and says whose it is.</summary>
    public void Record(SheetRecord record)
    {
        Begin(speech.Say(Message.Of("sheet.for-practitioner")));
        y += pen.Paragraph(
            record.Title,
            pen.Display(16),
            Margin,
            y,
            width - 2 * Margin,
            tag: PdfBlockLevelElementTag.Heading1
        );
        foreach (var line in record.Lines)
        {
            var font = pen.Text(10);
            if (y + pen.HeightOf(line, font, width - 2 * Margin) > bottom)
            {
                Begin(speech.Say(Message.Of("sheet.for-practitioner")));
            }
            y += pen.Paragraph(line, font, Margin, y, width - 2 * Margin) + 3;
        }
    }

    public void Close()
    {
        graphics?.Dispose();
        graphics = null;
    }

    private void Begin(string owner)
    {
        graphics?.Dispose();
        var page = document.AddPage();
        page.Size = paper.Size();
        pages.Add((page, owner));
        graphics = XGraphics.FromPdfPage(page);
        pen = new SheetPen(graphics, tags, scale);
        width = page.Width.Point;
        bottom = page.Height.Point - Margin - 14;
        y = Margin;
        var number = pages.Count(p => p.Owner == owner);
        pen.Artifact(() =>
        {
            var font = new XFont(SheetFonts.Text, 8.5);
            var brush = new XSolidBrush(SheetPen.Grey);
            graphics.DrawString(
                speech.Say(
                    Message.Of("sheet.page", ("owner", owner), ("page", number), ("made", sheet.Made))
                ),
                font,
                brush,
                Margin,
                page.Height.Point - Margin + 8
            );
            graphics.DrawString(
                sheet.ClinicName,
                font,
                brush,
                width - Margin,
                page.Height.Point - Margin + 8,
                XStringFormats.BaseLineRight
            );
        });
    }

    private void Exercise(int number, SheetExercise exercise)
    {
        var top = y;
        var pictures = top;
        if (exercise.Start is { } start)
        {
            pen.Figure(
                start,
                speech.Say(Message.Of("sheet.picture-start")),
                Margin,
                pictures,
                FigureWidth,
                FigureHeight
            );
            pictures += FigureHeight + 2;
            pictures += pen.Paragraph(
                speech.Say(Message.Of("sheet.start")),
                pen.Text(8.5),
                Margin,
                pictures,
                FigureWidth,
                SheetPen.Grey
            );
        }
        pen.Figure(
            exercise.End,
            speech.Say(Message.Of("sheet.picture-end")),
            Margin,
            pictures,
            FigureWidth,
            FigureHeight
        );
        pictures += FigureHeight + 2;
        if (exercise.Start is not null)
        {
            pictures += pen.Paragraph(
                speech.Say(Message.Of("sheet.end")),
                pen.Text(8.5),
                Margin,
                pictures,
                FigureWidth,
                SheetPen.Grey
            );
        }
        foreach (var (words, font, tag) in Paragraphs(number, exercise))
        {
            y += pen.Paragraph(words, font, Words, y, WordsWidth, tag: tag) + 1.5 * scale;
        }
        foreach (var dose in exercise.Doses)
        {
            Dose(dose);
        }
        Ticks(exercise);
        y = Math.Max(y, pictures) + Gap / 2;
        pen.Rules(Margin, y, width - Margin);
        y += Gap / 2;
    }

    private IEnumerable<(string Words, XFont Font, PdfBlockLevelElementTag Tag)> Paragraphs(
        int number,
        SheetExercise exercise
    )
    {
        var (plain, heavy) = (pen.Text(10.5), pen.Text(10.5, bold: true));
        yield return ($"{number}. {exercise.Name}", pen.Display(14), PdfBlockLevelElementTag.Heading2);
        foreach (var line in exercise.Lines)
        {
            yield return (line, plain, PdfBlockLevelElementTag.Paragraph);
        }
        yield return (exercise.Feel, heavy, PdfBlockLevelElementTag.Paragraph);
        yield return (exercise.NotFeel, plain, PdfBlockLevelElementTag.Paragraph);
        foreach (var change in exercise.Changes)
        {
            yield return (change, heavy, PdfBlockLevelElementTag.Paragraph);
        }
    }

    private double HeightOf(SheetExercise exercise)
    {
        var text = Paragraphs(1, exercise).Sum(p => pen.HeightOf(p.Words, p.Font, WordsWidth) + 1.5 * scale);
        var doses = exercise.Doses.Sum(DoseHeight);
        var label = pen.HeightOf(speech.Say(Message.Of("sheet.start")), pen.Text(8.5), FigureWidth) + 2;
        var pictures = exercise.Start is null ? FigureHeight + 2 : 2 * (FigureHeight + label);
        return Math.Max(text + doses + TicksHeight(exercise), pictures) + Gap;
    }

    private XFont DoseFont => pen.Text(12.5, bold: true);
    private XFont DoseWordsFont => pen.Text(9.5);

    private double DoseHeight(SheetDose dose) =>
        pen.HeightOf(dose.Figures, DoseFont, WordsWidth)
        + pen.HeightOf(dose.Written, DoseWordsFont, WordsWidth)
        + 2 * scale;

    private void Dose(SheetDose dose)
    {
        var x = Words;
        if (dose.Side != Side.Both)
        {
            x += pen.SideMark(dose.Side, x, y, 12.5) + 8;
        }
        y += pen.Paragraph(dose.Figures, DoseFont, x, y, width - Margin - x);
        y += pen.Paragraph(dose.Written, DoseWordsFont, Words, y, WordsWidth) + 2 * scale;
    }

    private double Side1 => 11 * scale;

    private double TicksHeight(SheetExercise exercise) =>
        (Math.Max(1, exercise.Doses.Count) * (Side1 + 3) + 11 * scale) * Rows();

    /// <summary>Days that fit beside each other; the others stand below.</summary>
    private int PerRow() => Math.Max(1, (int)((WordsWidth - 26 * scale) / (27 * scale)));

    private int Rows() => sheet.Days.Count == 0 ? 0 : (sheet.Days.Count + PerRow() - 1) / PerRow();

    private void Ticks(SheetExercise exercise)
    {
        for (var row = 0; row < Rows(); row++)
        {
            var days = sheet.Days.Select((day, i) => (day, i)).Skip(row * PerRow()).Take(PerRow()).ToList();
            var baseline = y + 8 * scale;
            for (var i = 0; i < days.Count; i++)
            {
                pen.Cell(
                    days[i].day,
                    pen.Text(7),
                    Words + 26 * scale + (i + 0.5) * 27 * scale,
                    baseline,
                    XStringFormats.BaseLineCenter
                );
            }
            y += 11 * scale;
            foreach (var dose in exercise.Doses)
            {
                if (dose.Side != Side.Both)
                {
                    pen.Cell(
                        speech.Say(Message.Of("sheet.side", ("side", dose.Side))),
                        pen.Text(8, bold: true),
                        Words,
                        y + Side1 * 0.8,
                        XStringFormats.BaseLineLeft
                    );
                }
                for (var i = 0; i < days.Count; i++)
                {
                    if (exercise.Days[days[i].i])
                    {
                        pen.Box(Words + 26 * scale + (i + 0.5) * 27 * scale - Side1 / 2, y, Side1);
                    }
                }
                y += Side1 + 3;
            }
        }
    }

    /// <summary>The line of pain, when to stop, whom to call: together, on the last page.</summary>
    private void Foot()
    {
        var (plain, heavy) = (pen.Text(10), pen.Text(10, bold: true));
        var inner = width - 2 * Margin - 16;
        var contact = sheet.Contact;
        var height =
            pen.HeightOf(sheet.Pain, plain, inner)
            + 26 * scale
            + pen.HeightOf(sheet.Stop, heavy, inner)
            + (contact.Length == 0 ? 0 : pen.HeightOf(contact, heavy, inner))
            + pen.HeightOf(sheet.NextVisit, plain, inner)
            + 34;
        if (y + height > bottom)
        {
            Begin(sheet.ClientName);
        }
        y += pen.Paragraph(sheet.Pain, plain, Margin, y, width - 2 * Margin);
        PainLine();
        var box =
            pen.HeightOf(sheet.Stop, heavy, inner)
            + (contact.Length == 0 ? 0 : pen.HeightOf(contact, heavy, inner) + 3)
            + 16;
        pen.Ground(Margin, y, width - 2 * Margin, box);
        y += 8;
        y += pen.Paragraph(sheet.Stop, heavy, Margin + 8, y, inner);
        if (contact.Length > 0)
        {
            y += 3 + pen.Paragraph(contact, heavy, Margin + 8, y + 3, inner);
        }
        y += 14;
        if (sheet.NextVisit.Length > 0)
        {
            y += pen.Paragraph(sheet.NextVisit, plain, Margin, y, width - 2 * Margin);
        }
    }

    /// <summary>0 to 10 on a line, one for the whole sheet: where pain was, written beside the day.</summary>
    private void PainLine()
    {
        var (left, right) = (Margin + 10, width - Margin - 10);
        var line = y + 8 * scale;
        pen.Line(left, line, right, line, 1);
        for (var i = 0; i <= 10; i++)
        {
            var x = left + (right - left) * i / 10;
            pen.Line(x, line - 3, x, line + 3);
            pen.Cell(
                i.ToString(CultureInfo.InvariantCulture),
                pen.Text(8.5),
                x,
                line + 12 * scale,
                XStringFormats.BaseLineCenter
            );
        }
        y = line + 20 * scale;
    }
}
