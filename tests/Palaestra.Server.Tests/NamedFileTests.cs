using Palaestra.Data.Intake;
using Palaestra.Server.Serving;

namespace Palaestra.Server.Tests;

public class NamedFileTests
{
    [Theory]
    [InlineData("Letter, Łucja Ó Faoláin", "Letter, Łucja Ó Faoláin")]
    [InlineData("a/b\\c:d*e?f\"g<h>i|j", "a-b-c-d-e-f-g-h-i-j")]
    [InlineData("two\r\nlines", "two--lines")]
    [InlineData(" ..hidden. ", "hidden")]
    public void A_name_holds_what_a_name_of_a_file_can(string name, string safe) =>
        Assert.Equal(safe, NamedFile.Safe(name));

    /// <summary>From centimetres to metres and back; 19 of 131 whole ones had come back as others.</summary>
    [Fact]
    public void Every_height_comes_back_as_it_went_in()
    {
        for (var millimetres = 1000; millimetres <= 2300; millimetres++)
        {
            var client = new Client { Name = "Wenna Sorrel", HeightCm = millimetres / 10.0 };
            Assert.Equal(millimetres / 10.0, client.HeightCm);
            Assert.Equal(millimetres / 1000.0, client.Height);
        }
    }
}
