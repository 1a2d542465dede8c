using Palaestra.Exchange.Instruments;
using Palaestra.Exchange.Tests.Given;

namespace Palaestra.Exchange.Tests.Instruments;

public class InstrumentLineTests
{
    /// <summary>The lines docs/instruments.md gives as examples.</summary>
    [Theory]
    [InlineData(
        """{"kind":"device","device":"cuff-1","is":"cuff","rate":50,"channels":["pressure"],"battery":0.9}"""
    )]
    [InlineData("""{"kind":"samples","device":"cuff-1","first":150,"values":[[40.2],null,[39.9]]}""")]
    [InlineData("""{"kind":"battery","device":"cuff-1","battery":0.87}""")]
    [InlineData("""{"kind":"gone","device":"cuff-1"}""")]
    [InlineData("""{"kind":"do","device":"cuff-1","script":"gives-way"}""")]
    public void The_documented_lines_are_read_and_written_as_they_are(string text)
    {
        Assert.Equal(text, InstrumentLine.Read(text)!.Write());
        Assert.Contains(text, Docs.Text("instruments.md"), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("")]
    [InlineData("hello")]
    [InlineData("""{"kind":"samples","device":"cuff-1","values":["x"]}""")]
    [InlineData("[1,2,3]")]
    [InlineData("null")]
    [InlineData("""{"kind":"samples","first":1}""")]
    [InlineData("""{"device":"cuff-1"}""")]
    public void What_is_no_line_is_none(string text) => Assert.Null(InstrumentLine.Read(text));
}
