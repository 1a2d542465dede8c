using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Exchange.Sheets;
using Palaestra.Exchange.Tests.Given;
using UglyToad.PdfPig;
using UglyToad.PdfPig.Content;

namespace Palaestra.Exchange.Tests;

/// <summary>The sheet read back by another library than wrote it.</summary>
public class SheetPdfTests
{
    private static readonly PracticeLibrary Library = Read();

    private static Figure FigureOf(string rungId, bool start)
    {
        var rung = Library.Rung(rungId);
        return new FigureDrawing(Library.PathOf(rung), Side.Left, rung.View).Moment(
            start ? 0 : 1,
            rung.Movement
        );
    }

    private static SheetExercise Exercise(string rungId, params SheetDose[] doses) =>
        new(
            Guid.Empty,
            rungId,
            Side.Left,
            1,
            true,
            Library.Rung(rungId).Name,
            FigureOf(rungId, start: true),
            FigureOf(rungId, start: false),
            [
                "Start: on the back, knees bent.",
                Library.Rung(rungId).Movement,
                "“Slow.” Breath: able to talk.",
            ],
            $"Feel it in: {Library.Rung(rungId).Feel}",
            $"Not in: {Library.Rung(rungId).NotFeel}",
            doses,
            ["For you: short range on this side."],
            [true, false, true, true, false, true, true]
        );

    private static readonly SheetDose Left = new(
        Side.Left,
        "2 sets of 5",
        "Two sets of five: 3 s out, 3 s back."
    );
    private static readonly SheetDose Right = new(
        Side.Right,
        "5 reps",
        "Five times: 3 s out, 3 s back; only 70 % of the range"
    );

    private static Sheet SheetOf(int exercises, SheetRecord? record = null) =>
        new(
            "Ottoline Brask",
            "Lantern Quay",
            "Call: Saltmere 0100",
            "About 12 minutes a day.",
            "After each rep, one beat: is the back where it was?",
            [.. Enumerable.Range(0, exercises).Select(_ => Exercise("B5", Left, Right))],
            ["Thu 26", "Fri 27", "Sat 28", "Sun 29", "Mon 30", "Tue 1", "Wed 2"],
            "Pain, the worst of the day.",
            "Stop and call if: numbness between the legs.",
            "Next visit: Friday.",
            "plan 1",
            record
        );

    private static PdfDocument Open(Sheet sheet, Paper paper = Paper.A4, bool large = false) =>
        PdfDocument.Open(SheetPdf.Write(sheet, paper, large, English.Speech));

    /// <summary>In the order in which they are read to somebody.</summary>
    private static string Words(Page page) =>
        string.Join(
            ' ',
            UglyToad
                .PdfPig.DocumentLayoutAnalysis.TextExtractor.ContentOrderTextExtractor.GetText(page)
                .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
        );

    [Fact]
    public void Says_what_to_do_how_much_on_which_side_and_when_to_stop()
    {
        using var read = Open(SheetOf(1));
        var words = Words(read.GetPage(1));
        foreach (
            var expected in new[]
            {
                "Ottoline Brask",
                "Heel tap",
                "Left",
                "2 sets of 5",
                "Right",
                "only 70 % of the range",
                "For you: short range",
                "Stop and call if",
                "Call: Saltmere 0100",
                "Thu 26",
            }
        )
        {
            Assert.Contains(expected, words, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void Five_exercises_and_when_to_stop_stand_on_one_page()
    {
        using var read = Open(SheetOf(5) with { Stop = LongestStop });
        Assert.Equal(1, read.NumberOfPages);
        Assert.Contains("5. Heel tap", Words(read.GetPage(1)), StringComparison.Ordinal);
    }

    /// <summary>Letter is 50 points lower: four.</summary>
    [Fact]
    public void On_letter_the_fifth_stands_on_the_second_page()
    {
        using var read = Open(SheetOf(5) with { Stop = LongestStop }, Paper.Letter);
        Assert.Equal(2, read.NumberOfPages);
        Assert.Contains("4. Heel tap", Words(read.GetPage(1)), StringComparison.Ordinal);
        Assert.Contains("Stop and call if", Words(read.GetPage(1)), StringComparison.Ordinal);
    }

    /// <summary>With how to pick things up, as for backs that must not bend.</summary>
    private static readonly string LongestStop = $"{Library.Cautions.PickingUp} {Library.Cautions.OnSheet}";

    /// <summary>The first page may hang on a wall without the others.</summary>
    [Theory]
    [InlineData(6, false)]
    [InlineData(9, false)]
    [InlineData(4, true)]
    public void When_to_stop_and_whom_to_call_stand_on_the_first_page_and_only_there(int count, bool large)
    {
        using var read = Open(SheetOf(count), large: large);
        var pages = read.GetPages().Select(Words).ToList();
        Assert.True(pages.Count > 1);
        foreach (var said in new[] { "Stop and call if", "Call: Saltmere 0100", "Pain, the worst" })
        {
            Assert.Contains(said, pages[0], StringComparison.Ordinal);
            Assert.DoesNotContain(said, string.Concat(pages.Skip(1)), StringComparison.Ordinal);
        }
        Assert.Contains($"{count}. Heel tap", pages[^1], StringComparison.Ordinal);
    }

    [Fact]
    public void Is_read_from_the_name_to_the_words_and_then_to_how_much()
    {
        using var read = Open(SheetOf(2));
        var words = Words(read.GetPage(1));
        var order = new[]
        {
            "1. Heel tap",
            "Start: on the back",
            "Feel it in:",
            "Left 2 sets of 5",
            "Right 5 reps",
            "2. Heel tap",
            "Stop and call if",
        }
            .Select(part => words.IndexOf(part, StringComparison.Ordinal))
            .ToList();
        Assert.DoesNotContain(-1, order);
        Assert.Equal(order.Order(), order);
    }

    /// <summary>ISO 14289-1, clause 5: the identifier stands in metadata that are well-formed XML and no compressed stream.</summary>
    [Fact]
    public void Says_in_its_metadata_that_it_keeps_to_pdf_ua()
    {
        var raw = SheetPdf.Write(SheetOf(1), Paper.A4, false, English.Speech);
        using var read = PdfDocument.Open(raw);
        Assert.True(read.TryGetXmpMetadata(out var metadata));
        var told = metadata!
            .GetXDocument()
            .Descendants(System.Xml.Linq.XName.Get("part", "http://www.aiim.org/pdfua/ns/id/"));
        Assert.Equal("1", Assert.Single(told).Value);
        Assert.Contains(
            "Exercises for Ottoline Brask",
            metadata.GetXDocument().ToString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Has_its_title_its_language_its_tags_and_its_own_fonts()
    {
        using var read = Open(SheetOf(1));
        Assert.Equal("Exercises for Ottoline Brask", read.Information.Title);
        var raw = System.Text.Encoding.Latin1.GetString(
            SheetPdf.Write(SheetOf(1), Paper.A4, false, English.Speech)
        );
        Assert.Contains("/DisplayDocTitle true", raw, StringComparison.Ordinal);
        Assert.Contains("/StructTreeRoot", raw, StringComparison.Ordinal);
        Assert.Contains("/Lang", raw, StringComparison.Ordinal);
        Assert.Contains("/FontFile2", raw, StringComparison.Ordinal);
        var fonts = read.GetPage(1).Letters.Select(letter => letter.FontName).Distinct().ToList();
        Assert.All(fonts, font => Assert.Matches("Atkinson|Bricolage", font ?? "none"));
    }

    [Fact]
    public void Draws_the_body_as_vectors_not_as_pictures()
    {
        using var read = Open(SheetOf(1));
        Assert.Empty(read.GetPage(1).GetImages());
        Assert.True(read.GetPage(1).Paths.Count > 20);
    }

    [Theory]
    [InlineData(Paper.A4, 595, 842)]
    [InlineData(Paper.Letter, 612, 792)]
    public void Comes_on_either_paper(Paper paper, double width, double height)
    {
        using var read = Open(SheetOf(2), paper);
        Assert.Equal(width, read.GetPage(1).Width, 0);
        Assert.Equal(height, read.GetPage(1).Height, 0);
    }

    [Fact]
    public void Large_print_is_larger_and_nothing_leaves_the_page()
    {
        using var usual = Open(SheetOf(5));
        using var large = Open(SheetOf(5), large: true);
        double Size(PdfDocument pdf) =>
            pdf.GetPage(1).GetWords().First(w => w.Text == "Feel").Letters[0].PointSize;
        Assert.True(Size(large) >= 1.5 * Size(usual));
        foreach (var page in usual.GetPages().Concat(large.GetPages()))
        {
            Assert.All(
                page.Letters,
                letter =>
                {
                    Assert.InRange(letter.BoundingBox.Left, 20, page.Width);
                    Assert.InRange(letter.BoundingBox.Right, 0, page.Width - 20);
                    Assert.InRange(letter.BoundingBox.Bottom, 15, page.Height - 15);
                }
            );
        }
    }

    [Fact]
    public void The_practitioners_page_is_apart_and_only_there_when_asked_for()
    {
        using var without = Open(SheetOf(1));
        using var with = Open(
            SheetOf(1, new SheetRecord("For the practitioner", ["Entry rung: Heel tap (P-ENTRY)"]))
        );
        Assert.Equal(1, without.NumberOfPages);
        Assert.Equal(2, with.NumberOfPages);
        Assert.DoesNotContain("P-ENTRY", Words(with.GetPage(1)), StringComparison.Ordinal);
        Assert.Contains("P-ENTRY", Words(with.GetPage(2)), StringComparison.Ordinal);
    }

    private static PracticeLibrary Read()
    {
        var folder = Path.Combine(AppContext.BaseDirectory, "content");
        var texts = Directory
            .EnumerateFiles(folder, "*.json", SearchOption.AllDirectories)
            .Select(path => (Name: Path.GetRelativePath(folder, path).Replace('\\', '/'), path))
            .Where(f =>
                !f.Name.StartsWith("schema/", StringComparison.Ordinal)
                && !f.Name.StartsWith("demo/", StringComparison.Ordinal)
            )
            .ToDictionary(f => f.Name, f => File.ReadAllText(f.path));
        return ContentFiles.Read(texts).Value!;
    }
}
