using System.Net;
using System.Net.Http.Headers;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Server.Compute;
using Palaestra.Server.Library;
using Palaestra.Server.Photos;
using Palaestra.Server.Screening;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

public sealed class PhotoTests(OneServer one) : IClassFixture<OneServer>
{
    private static readonly PhotoReading Level = new(
        PhotoView.Front,
        800,
        600,
        [new(PhotoPoint.HipBoneLeft, new(500, 300)), new(PhotoPoint.HipBoneRight, new(300, 300))]
    );

    private static ByteArrayContent Picture(params byte[] bytes) =>
        new(bytes) { Headers = { ContentType = new MediaTypeHeaderValue("image/jpeg") } };

    [Fact]
    public async Task Points_are_kept_with_the_trial_and_come_back_as_angles_and_can_be_undone()
    {
        var browser = await one.Running.SignedIn();
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var library = await browser.Get<LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        var events = clinic.Trial(rung, Side.Left, rung.Start, 2, 0);
        var after = events[^1].At.AddMinutes(10);
        var photo = new PhotoMeasured(Guid.CreateVersion7(), events[0].TrialId, after, Level);
        await clinic.Send(opened.VisitId, [.. events, photo]).Ok<EventsTaken>();
        async Task<Trial> Stored() =>
            (await browser.Get<ScreenView>($"/api/visits/{opened.VisitId}/screen")).Trials.Single();
        var measured = Assert.Single((await Stored()).Photos!);
        Assert.Equal(PhotoAngleKind.SideDrop, Assert.Single(measured.Angles).Kind);
        Assert.Equal(Level.Points, measured.Reading.Points);
        Assert.Equal(2, (await Stored()).Clean.Reps);

        var undo = new Undone(Guid.CreateVersion7(), photo.TrialId, photo.At, photo.Id);
        await clinic.Send(opened.VisitId, [undo]).Ok<EventsTaken>();
        Assert.Null((await Stored()).Photos);

        var wrong = photo with { Id = Guid.CreateVersion7(), Photo = Level with { Width = -1 } };
        Assert.Equal(
            ["events[0].photo.width"],
            await clinic.Send(opened.VisitId, [wrong]).RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    private static Task<Intake.EpisodeView> Consent(HttpClient browser, Guid episode, bool given) =>
        browser
            .Put($"/api/episodes/{episode}/photo-consent", new PhotoConsentForm(given))
            .Ok<Intake.EpisodeView>();

    [Fact]
    public async Task A_picture_is_kept_only_when_sent_and_only_a_picture_and_can_be_taken_away()
    {
        var browser = await one.Running.SignedIn();
        byte[] jpeg = [0xFF, 0xD8, 0xFF, 0xE0, 1, 2, 3];
        var clinic = new Clinic(browser);
        var opened = await clinic.NewClient();
        var library = await browser.Get<LibraryView>("/api/library");
        var rung = library.Ladders.SelectMany(l => l.Rungs).First(r => r.Sides == RungSides.Each);
        var events = clinic.Trial(rung, Side.Left, rung.Start, 2, 0);
        await clinic.Send(opened.VisitId, events).Ok<EventsTaken>();
        var path = $"/api/visits/{opened.VisitId}/trials/{events[0].TrialId}/photos";
        // Not asked, or not agreed to: nothing is kept.
        foreach (var given in new bool?[] { null, false })
        {
            if (given is { } said)
            {
                await Consent(browser, opened.EpisodeId, said);
            }
            await browser.PostAsync(path, Picture(jpeg)).RefusedFields(HttpStatusCode.Conflict);
        }
        Assert.True((await Consent(browser, opened.EpisodeId, true)).PhotoConsent);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await browser.PostAsync(
                    $"/api/visits/{opened.VisitId}/trials/{Guid.NewGuid()}/photos",
                    Picture(jpeg)
                )
            ).StatusCode
        );
        var kept = await browser.PostAsync(path, Picture(jpeg)).Ok<PhotoKept>();
        var answer = await browser.GetAsync($"/api/photos/{kept.Id}");
        Assert.Equal("image/jpeg", answer.Content.Headers.ContentType?.MediaType);
        Assert.Equal(jpeg, await answer.Content.ReadAsByteArrayAsync());
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await one.Running.Browser().GetAsync($"/api/photos/{kept.Id}")).StatusCode
        );
        Assert.Equal(
            ["reason"],
            await browser
                .DeleteAsync($"/api/photos/{kept.Id}")
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
        Assert.True((await browser.GetAsync($"/api/photos/{kept.Id}")).IsSuccessStatusCode);
        (
            await browser.DeleteAsync($"/api/photos/{kept.Id}?reason=the%20client%20asked")
        ).EnsureSuccessStatusCode();
        Assert.Empty(await browser.GetAsync($"/api/photos/{kept.Id}").RefusedFields(HttpStatusCode.NotFound));
        var change = Assert.Single(
            await browser.Get<IReadOnlyList<Amendments.RecordChange>>(
                $"/api/episodes/{opened.EpisodeId}/amendments"
            )
        );
        Assert.Equal(
            (Data.Amendments.AmendedPart.Photo, (Guid?)opened.VisitId, "the client asked"),
            (change.Entry, change.VisitId, change.Reason)
        );
        // A page in disguise is no picture.
        Assert.Equal(
            ["image"],
            await browser
                .PostAsync(path, Picture("<html>"u8.ToArray()))
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task Angles_are_computed_without_storing_anything()
    {
        var browser = await one.Running.SignedIn();
        var answer = await browser.Post("/api/compute/photo", Level).Ok<PhotoAnswer>();
        Assert.Equal(0, answer.Angles[0].Degrees, 6);
        Assert.Equal(PhotoPoint.HipBoneLeft, answer.Asked[0]);
        Assert.Equal(
            ["plumb"],
            await browser
                .Post("/api/compute/photo", Level with { Plumb = new(new(1, 5), new(1, 1)) })
                .RefusedFields(HttpStatusCode.UnprocessableEntity)
        );
    }
}
