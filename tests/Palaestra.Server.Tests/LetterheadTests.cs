using System.Net;
using System.Net.Http.Headers;
using Palaestra.Server.Clinics;
using Palaestra.Server.Tests.Given;
using UglyToad.PdfPig;

namespace Palaestra.Server.Tests;

/// <summary>What a clinic puts at the head of what goes out, read back from the PDF by another library.</summary>
public sealed class LetterheadTests(OneServer one) : IClassFixture<OneServer>, IAsyncLifetime
{
    /// <summary>One black point. PNG specification (W3C), written by another program.</summary>
    private static readonly byte[] Picture = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg=="
    );

    private HttpClient browser = null!;

    public async ValueTask InitializeAsync() => browser = await one.Running.SignedIn();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Put(byte[] bytes, string type = "image/png")
    {
        var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = new MediaTypeHeaderValue(type);
        return browser.PutAsync("/api/clinic/mark", content);
    }

    private async Task<(string Words, int Pictures)> Read(string address)
    {
        using var pdf = PdfDocument.Open(await browser.GetByteArrayAsync(address));
        var page = pdf.GetPage(1);
        return (string.Join(' ', page.GetWords().Select(w => w.Text)), page.GetImages().Count());
    }

    [Fact]
    public async Task Address_and_picture_stand_on_letters_the_picture_on_sheets_and_both_go_again()
    {
        // The clinic is the other tests' too.
        await browser.DeleteAsync("/api/clinic/mark");
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        await clinic.Screen(opened.VisitId, 3, 3);
        await clinic.AcceptProposal(opened);
        var (letter, sheet) = (
            $"/api/visits/{opened.VisitId}/letter.pdf",
            $"/api/episodes/{opened.EpisodeId}/sheet.pdf"
        );
        Assert.Equal((0, 0), ((await Read(letter)).Pictures, (await Read(sheet)).Pictures));

        var form = await browser.Get<ClinicForm>("/api/clinic");
        await browser.Put("/api/clinic", form with { Address = "3 Rope Walk\nSaltmere" }).Ok<ClinicForm>();
        Assert.True((await Put(Picture).Ok<ClinicForm>()).HasMark);
        Assert.Equal(Picture, await browser.GetByteArrayAsync("/api/clinic/mark"));
        var (words, pictures) = await Read(letter);
        Assert.Contains("3 Rope Walk Saltmere", words, StringComparison.Ordinal);
        Assert.Equal(1, pictures);
        Assert.Equal(1, (await Read(sheet)).Pictures);

        Assert.False((await browser.DeleteAsync("/api/clinic/mark").Ok<ClinicForm>()).HasMark);
        Assert.Equal(HttpStatusCode.NotFound, (await browser.GetAsync("/api/clinic/mark")).StatusCode);
        Assert.Equal(0, (await Read(letter)).Pictures);
    }

    [Fact]
    public async Task What_is_no_small_picture_is_refused_and_the_one_before_stays()
    {
        await Put(Picture).Ok<ClinicForm>();
        foreach (var wrong in new[] { [], "<svg/>"u8.ToArray(), Picture[..30], new byte[300_001] })
        {
            Assert.Equal(["mark"], await Put(wrong).RefusedFields(HttpStatusCode.UnprocessableEntity));
        }
        Assert.Equal(Picture, await browser.GetByteArrayAsync("/api/clinic/mark"));
        var form = await browser.Get<ClinicForm>("/api/clinic");
        Assert.Equal(
            ["address"],
            await browser
                .Put("/api/clinic", form with { Address = "1\n2\n3\n4\n5\n6" })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }
}
