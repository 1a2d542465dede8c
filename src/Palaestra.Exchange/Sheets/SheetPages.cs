using System.Globalization;
using Palaestra.Core.Body;
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

    private readonly double scale = large ? 1.5 : 1;
    private double Gap => large ? 12 : 8;
    private readonly List<(PdfPage Page, string Owner)> pages = [];
    private XGraphics? graphics;
    private SheetPen pen = null!;
    private double width;
    private double bottom;
    private double y;

    /// <summary>In large print doses stand under the words; else pictures, words and doses beside each other, five to a page.</summary>
    private double FigureWidth => large ? 190 : 108;
    private double FigureHeight => large ? 118 : 36;
    private double Words => Margin + FigureWidth + (large ? 16 : 10);
    private double WordsWidth => (large ? width - Margin : Doses - 10) - Words;
    private double Doses => large ? Words : width - Margin - DosesWidth;
    private double DosesWidth => large ? WordsWidth : 150;

    /// <summary>Common practice: nothing that a client reads under 8.5 points.</summary>
    private double WordPoints => large ? 10.5 : 8.5;
    private double FootPoints => large ? 10 : 9;

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
        if (sheet.Between.Length > 0)
        {
            y += pen.Paragraph(sheet.Between, pen.Text(WordPoints + 1), Margin, y, width - 2 * Margin);
        }
        pen.Line(Margin, y + 4, width - Margin, y + 4, 1.6);
        y += Gap;
        // When to stop stands on the first page: it may hang on a wall without the others.
        var foot = FootHeight();
        var said = false;
        for (var i = 0; i < sheet.Exercises.Count; i++)
        {
            var exercise = sheet.Exercises[i];
            var under = y + HeightOf(exercise);
            if (under > bottom || (!said && i > 0 && under + foot > bottom))
            {
                if (!said && y + foot <= bottom)
                {
                    Foot();
                    said = true;
                }
                Begin(sheet.ClientName);
            }
            Exercise(i + 1, exercise);
        }
        if (!said)
        {
            if (y + foot > bottom)
            {
                Begin(sheet.ClientName);
            }
            Foot();
        }
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
        // The name first: it is read before what the pictures show.
        foreach (var (words, font, tag) in Paragraphs(number, exercise))
        {
            y += pen.Paragraph(words, font, Words, y, WordsWidth, tag: tag) + Between;
        }
        var pictures = Pictures(exercise, top);
        var under = y;
        if (!large)
        {
            y = top;
        }
        foreach (var dose in exercise.Doses)
        {
            Dose(dose);
        }
        Ticks(exercise);
        y = Math.Max(Math.Max(y, under), pictures) + Gap / 2;
        pen.Rules(Margin, y, width - Margin);
        y += Gap / 2;
    }

    private double Between => large ? 1.5 * scale : 0.5;

    /// <returns>Their lower edge.</returns>
    private double Pictures(SheetExercise exercise, double top)
    {
        if (exercise.Start is not { } start)
        {
            Picture(exercise.End, Message.Of("sheet.picture-end"), top);
            return top + FigureHeight + 2;
        }
        var under = Captioned(start, Message.Of("sheet.picture-start"), Message.Of("sheet.start"), top);
        return Captioned(exercise.End, Message.Of("sheet.picture-end"), Message.Of("sheet.end"), under);
    }

    private double Captioned(Figure figure, Message what, Message caption, double top)
    {
        Picture(figure, what, top);
        var under = top + FigureHeight + 2;
        return under
            + pen.Paragraph(speech.Say(caption), CaptionFont, Margin, under, FigureWidth, SheetPen.Grey);
    }

    private void Picture(Figure figure, Message what, double top) =>
        pen.Figure(figure, speech.Say(what), Margin, top, FigureWidth, FigureHeight);

    private XFont CaptionFont => pen.Text(large ? 8.5 : 7.5);

    private IEnumerable<(string Words, XFont Font, PdfBlockLevelElementTag Tag)> Paragraphs(
        int number,
        SheetExercise exercise
    )
    {
        var (plain, heavy) = (pen.Text(WordPoints), pen.Text(WordPoints, bold: true));
        yield return (
            $"{number}. {exercise.Name}",
            pen.Display(large ? 14 : 11),
            PdfBlockLevelElementTag.Heading2
        );
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
        var text = Paragraphs(1, exercise).Sum(p => pen.HeightOf(p.Words, p.Font, WordsWidth) + Between);
        var doses = exercise.Doses.Sum(DoseHeight) + TicksHeight(exercise);
        var label = pen.HeightOf(speech.Say(Message.Of("sheet.start")), CaptionFont, FigureWidth) + 2;
        var pictures = exercise.Start is null ? FigureHeight + 2 : 2 * (FigureHeight + label);
        return Math.Max(large ? text + doses : Math.Max(text, doses), pictures) + Gap;
    }

    private XFont DoseFont => pen.Text(large ? 12.5 : 10.5, bold: true);
    private XFont DoseWordsFont => pen.Text(large ? 9.5 : 8.5);

    private double DoseHeight(SheetDose dose) =>
        pen.HeightOf(dose.Figures, DoseFont, DosesWidth - SideWidth(dose))
        + pen.HeightOf(dose.Written, DoseWordsFont, DosesWidth)
        + Between;

    private string WordOf(Side side) => speech.Say(Message.Of("sheet.side-name", ("side", side)));

    private double SideWidth(SheetDose dose) =>
        dose.Side == Side.Both ? 0 : pen.SideWidth(WordOf(dose.Side), DoseFont) + 6;

    private void Dose(SheetDose dose)
    {
        var x = Doses;
        if (dose.Side != Side.Both)
        {
            pen.SideMark(dose.Side, WordOf(dose.Side), x, y, DoseFont);
            x += SideWidth(dose);
        }
        y += pen.Paragraph(dose.Figures, DoseFont, x, y, DosesWidth - (x - Doses));
        y += pen.Paragraph(dose.Written, DoseWordsFont, Doses, y, DosesWidth) + Between;
    }

    private double BoxSide => large ? 11 * scale : 9;
    private double BoxGap => large ? 3 : 2;
    private double DayWidth => large ? 27 * scale : 18;
    private double SidesWidth => large ? 26 * scale : 22;
    private double DaysHeight => large ? 11 * scale : 19;

    private double TicksHeight(SheetExercise exercise) =>
        (Math.Max(1, exercise.Doses.Count) * (BoxSide + BoxGap) + DaysHeight) * Rows();

    /// <summary>Days that fit beside each other; the others stand below.</summary>
    private int PerRow() => Math.Max(1, (int)((DosesWidth - SidesWidth) / DayWidth));

    private int Rows() => sheet.Days.Count == 0 ? 0 : (sheet.Days.Count + PerRow() - 1) / PerRow();

    private void Ticks(SheetExercise exercise)
    {
        for (var row = 0; row < Rows(); row++)
        {
            var days = sheet.Days.Select((day, i) => (day, i)).Skip(row * PerRow()).Take(PerRow()).ToList();
            double Middle(int i) => Doses + SidesWidth + (i + 0.5) * DayWidth;
            for (var i = 0; i < days.Count; i++)
            {
                // Beside the doses there is room for a weekday and under it its date.
                string[] lines = large ? [days[i].day] : days[i].day.Split(' ', 2);
                for (var line = 0; line < lines.Length; line++)
                {
                    pen.Cell(
                        lines[line],
                        pen.Text(7),
                        Middle(i),
                        y + (line + 1) * 8 * scale,
                        XStringFormats.BaseLineCenter
                    );
                }
            }
            y += DaysHeight;
            foreach (var dose in exercise.Doses)
            {
                if (dose.Side != Side.Both)
                {
                    pen.Cell(
                        speech.Say(Message.Of("sheet.side", ("side", dose.Side))),
                        pen.Text(large ? 8 : 7, bold: true),
                        Doses,
                        y + BoxSide * 0.8,
                        XStringFormats.BaseLineLeft
                    );
                }
                for (var i = 0; i < days.Count; i++)
                {
                    if (exercise.Days[days[i].i])
                    {
                        pen.Box(Middle(i) - BoxSide / 2, y, BoxSide);
                    }
                }
                y += BoxSide + BoxGap;
            }
        }
    }

    private XFont FootFont => pen.Text(FootPoints);
    private XFont StopFont => pen.Text(FootPoints, bold: true);
    private double BoxInner => width - 2 * Margin - 16;

    private double FootHeight() =>
        pen.HeightOf(sheet.Pain, FootFont, width - 2 * Margin)
        + PainLineHeight
        + BoxHeight()
        + 6
        + (sheet.NextVisit.Length == 0 ? 0 : pen.HeightOf(sheet.NextVisit, FootFont, width - 2 * Margin));

    private double BoxHeight() =>
        pen.HeightOf(sheet.Stop, StopFont, BoxInner)
        + (sheet.Contact.Length == 0 ? 0 : pen.HeightOf(sheet.Contact, StopFont, BoxInner) + 3)
        + 16;

    /// <summary>The line of pain, when to stop, whom to call: together.</summary>
    private void Foot()
    {
        y += pen.Paragraph(sheet.Pain, FootFont, Margin, y, width - 2 * Margin);
        PainLine();
        var under = y + BoxHeight();
        pen.Ground(Margin, y, width - 2 * Margin, BoxHeight());
        y += 8;
        y += pen.Paragraph(sheet.Stop, StopFont, Margin + 8, y, BoxInner);
        if (sheet.Contact.Length > 0)
        {
            pen.Paragraph(sheet.Contact, StopFont, Margin + 8, y + 3, BoxInner);
        }
        y = under + 6;
        if (sheet.NextVisit.Length > 0)
        {
            y += pen.Paragraph(sheet.NextVisit, FootFont, Margin, y, width - 2 * Margin);
        }
    }

    private double PainLineHeight => 28 * scale;

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
        y += PainLineHeight;
    }
}
