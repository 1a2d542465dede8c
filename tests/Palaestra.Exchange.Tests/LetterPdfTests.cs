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
}
