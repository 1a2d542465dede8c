using Palaestra.Core.Charts;
using Palaestra.Core.Outcomes;
using Palaestra.Exchange.Letters;
using Palaestra.Exchange.Sheets;
using UglyToad.PdfPig;

namespace Palaestra.Exchange.Tests;

/// <summary>The letter read back by another library.</summary>
public class LetterPdfTests
{
    private static LetterPage Page(int paragraphs) =>
        new(
            new Letter(
                "The harbour surgery\nSaltmere",
                "Wenna Sorrel, aged 47: aches after splicing.",
                [
                    new LetterPart(
                        "The problem",
                        [
                            .. Enumerable
                                .Range(1, paragraphs)
                                .Select(i =>
                                    $"Paragraph {i}. {string.Join(' ', Enumerable.Repeat("words", 40))}"
                                ),
                        ]
                    ),
                ]
            ),
            "Lantern Quay",
            "Saltmere 0100",
            "25 November 2026",
            "Ines Tarrow",
            "Read before it was sent."
        );

    private static string Text(PdfDocument pdf) =>
        string.Join(" ", pdf.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));

    [Theory]
    [InlineData(Paper.A4, 595, 842)]
    [InlineData(Paper.Letter, 612, 792)]
    public void Everything_that_was_written_stands_on_it(Paper paper, double width, double height)
    {
        using var pdf = PdfDocument.Open(LetterPdf.Write(Page(3), paper));
        var page = Assert.Single(pdf.GetPages());
        Assert.Equal((width, height), (Math.Round(page.Width), Math.Round(page.Height)));
        var text = Text(pdf);
        foreach (
            var words in new[]
            {
                "The harbour surgery",
                "Wenna Sorrel, aged 47",
                "Paragraph 3.",
                "Ines Tarrow",
            }
        )
        {
            Assert.Contains(words, text, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void A_long_letter_goes_on_another_page_and_loses_nothing()
    {
        using var pdf = PdfDocument.Open(LetterPdf.Write(Page(18), Paper.A4));
        Assert.Equal(2, pdf.NumberOfPages);
        var text = Text(pdf);
        Assert.All(
            Enumerable.Range(1, 18),
            i => Assert.Contains($"Paragraph {i}.", text, StringComparison.Ordinal)
        );
    }

    /// <summary>Where it hurts stands under the letter: four sides as pictures with words for whoever does not see them, and the words.</summary>
    [Fact]
    public void A_body_chart_stands_under_the_letter_and_is_told_in_words()
    {
        PainArea Of(ChartView view, ChartZone zone, PainKind kind) =>
            new(view, kind, 4, ChartFigure.Of(view).Parts.First(p => p.Zone == zone).Outline);
        var chart = new LetterChart(
            new([
                Of(ChartView.Back, ChartZone.LowBack, PainKind.Ache),
                Of(ChartView.Left, ChartZone.Thigh, PainKind.Burning),
            ]),
            "Body chart of Wenna Sorrel, 25 November 2026",
            ["ache, 4 of 10: low back left", "burning, 4 of 10: thigh left"]
        );
        using var pdf = PdfDocument.Open(LetterPdf.Write(Page(3) with { Chart = chart }, Paper.A4));
        var text = Text(pdf);
        foreach (var words in chart.Says.Append(chart.Title))
        {
            Assert.Contains(words, text, StringComparison.Ordinal);
        }
        // Bodies and areas are drawn, not written: without a chart there are none.
        using var without = PdfDocument.Open(LetterPdf.Write(Page(3), Paper.A4));
        var (drawn, bare) = (
            pdf.GetPages().Sum(p => p.Paths.Count),
            without.GetPages().Sum(p => p.Paths.Count)
        );
        Assert.True(drawn >= bare + 2 * ChartFigure.All.Count + chart.Chart.Areas.Count, $"{drawn} {bare}");
        // Nothing hurts: nothing is drawn.
        using var empty = PdfDocument.Open(
            LetterPdf.Write(
                Page(3) with
                {
                    Chart = chart with { Chart = BodyChart.Empty, Says = [] },
                },
                Paper.A4
            )
        );
        Assert.Equal(bare, empty.GetPages().Sum(p => p.Paths.Count));
    }
}
