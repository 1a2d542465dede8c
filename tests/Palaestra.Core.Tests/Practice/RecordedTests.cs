using CsCheck;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Practice;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Practice;

public class RecordedTests
{
    private static readonly PracticeModel Model = Content.Library.Practice;

    private static RecordedThing Trace(int place, double? byBand = null, int? of = null) =>
        new(place, of, RecordedKind.Trace, 30, byBand);

    private static RecordedThing Photo(int place, int? of = null) =>
        new(place, of, RecordedKind.Photo, View: PhotoView.Front, Width: 1000, Height: 1000);

    /// <summary>Hip bones 500 pixels apart, the right one so many degrees lower.</summary>
    private static RecordedReading Hips(double degrees) =>
        new(
            Photo: new(
                PhotoView.Front,
                1000,
                1000,
                [
                    new(PhotoPoint.HipBoneRight, new(250, 500 + 500 * Math.Tan(degrees * Math.PI / 180))),
                    new(PhotoPoint.HipBoneLeft, new(750, 500)),
                ]
            )
        );

    private static Dictionary<int, RecordedReading> Said(
        IEnumerable<RecordedThing> things,
        Func<RecordedThing, RecordedReading> of
    ) => things.ToDictionary(thing => thing.Place, of);

    [Fact]
    public void Each_comes_once_and_a_sixth_of_them_again_after_all()
    {
        Gen.Select(Gen.Int[0, 80], Gen.Int[0, 100000])
            .Sample(
                (count, seed) =>
                {
                    var order = RecordedOrder.Of(count, seed);
                    Assert.Equal(order, RecordedOrder.Of(count, seed));
                    Assert.Equal(Enumerable.Range(0, count), order.Take(count).Select(o => o.Which).Order());
                    Assert.All(order.Take(count), one => Assert.Null(one.Of));
                    Assert.Equal(count / 6, order.Count - count);
                    foreach (var (which, of) in order.Skip(count))
                    {
                        Assert.Equal(order[of!.Value].Which, which);
                    }
                },
                iter: 200
            );
    }

    [Fact]
    public void Who_say_the_same_of_every_trace_agree_wholly()
    {
        var things = Enumerable.Range(0, 24).Select(i => Trace(i)).ToList();
        RecordedReading Same(RecordedThing t) => new(t.Place % 3 == 0 ? null : t.Place);
        var traces = RecordedFigures.Of(things, [Said(things, Same), Said(things, Same)], Model).Traces!;
        Assert.True(traces.Enough);
        Assert.Equal(1, traces.Kappa!.Value, 9);
        Assert.Equal(1, traces.Ac1!.Value, 9);
        Assert.Equal(0, traces.Seconds!.Sem, 9);
    }

    [Fact]
    public void A_rater_who_is_later_by_as_much_every_time_errs_by_that()
    {
        // Two seconds later than the other always: between raters 2²/2 of variance, and nothing else beside the items.
        var things = Enumerable.Range(0, 20).Select(i => Trace(i)).ToList();
        var traces = RecordedFigures
            .Of(things, [Said(things, t => new(1 + t.Place)), Said(things, t => new(3 + t.Place))], Model)
            .Traces!;
        Assert.Equal(Math.Sqrt(2), traces.Seconds!.Sem, 6);
    }

    [Fact]
    public void The_eye_stands_beside_the_band()
    {
        var things = Enumerable.Range(0, 6).Select(i => Trace(i, byBand: 10 + i)).ToList();
        var limits = RecordedFigures
            .Of(things, [Said(things, t => new(11.5 + t.Place))], Model)
            .Traces!.ByBand!;
        Assert.Equal(1.5, limits.Bias, 9);
        Assert.Equal(0, limits.Sd, 9);
        var never = Enumerable.Range(0, 6).Select(i => Trace(i, byBand: 30)).ToList();
        Assert.Equal(0, RecordedFigures.Of(never, [Said(never, _ => new())], Model).Traces!.ByBand!.Bias, 9);
    }

    [Fact]
    public void A_trace_without_a_neutral_stands_beside_no_band()
    {
        var things = Enumerable.Range(0, 6).Select(i => Trace(i)).ToList();
        Assert.Null(RecordedFigures.Of(things, [Said(things, t => new(5))], Model).Traces!.ByBand);
    }

    [Fact]
    public void What_one_errs_by_from_one_time_to_the_next_is_told_apart()
    {
        var first = Enumerable.Range(0, 12).Select(i => Photo(i)).ToList();
        var again = Enumerable.Range(0, 6).Select(i => Photo(12 + i, of: i)).ToList();
        RecordedThing[] all = [.. first, .. again];
        // The second time 2° more: a standard error of √2.
        var figures = RecordedFigures.Of(
            all,
            [Said(all, t => Hips(t.Of is null ? t.Place : t.Of.Value + 2))],
            Model
        );
        var drop = Assert.Single(figures.Angles);
        Assert.Equal(PhotoAngleKind.SideDrop, drop.Kind);
        Assert.Equal(Math.Sqrt(2), drop.AgainError!.Value, 6);
        Assert.Equal(12, drop.Items);
        Assert.False(drop.Enough);
    }

    [Fact]
    public void Traces_rated_twice_are_told_apart_and_counted_once()
    {
        var first = Enumerable.Range(0, 20).Select(i => Trace(i)).ToList();
        var again = Enumerable.Range(0, 5).Select(i => Trace(20 + i, of: i)).ToList();
        RecordedThing[] all = [.. first, .. again];
        // Of the five that come again two held the first time and not the second, and the others are a second later.
        RecordedReading One(RecordedThing t) =>
            new(
                t.Place is 0 or 1 ? null
                : t.Of is { } of ? of + 6
                : t.Place + 5
            );
        var traces = RecordedFigures.Of(all, [Said(all, One), Said(all, One)], Model).Traces!;
        Assert.Equal((20, 10, 6), (traces.Items, traces.Again, traces.SameAgain));
        // 30 s against 6 and 7, then 1 s thrice: (24² + 23² + 3) / 10.
        Assert.Equal(Math.Sqrt(110.8), traces.AgainError!.Value, 6);
        Assert.Equal(1, traces.Fleiss!.Value, 9);
    }

    [Fact]
    public void Angles_agree_as_far_as_the_points_do()
    {
        var things = Enumerable.Range(0, 20).Select(i => Photo(i)).ToList();
        var drop = Assert.Single(
            RecordedFigures
                .Of(
                    things,
                    [Said(things, t => Hips(t.Place)), Said(things, t => Hips(t.Place + (t.Place % 2)))],
                    Model
                )
                .Angles
        );
        // Differences of 0 and 1 by turns: mean square within items 0.25.
        Assert.True(drop.Enough);
        Assert.Equal(0.5, drop.Degrees!.Sem, 1);
        Assert.InRange(drop.Degrees.Icc.Value!.Value, 0.98, 1);
    }

    [Fact]
    public void Too_few_or_one_alone_get_no_figure()
    {
        var few = Enumerable.Range(0, Model.EnoughClips - 1).Select(i => Trace(i)).ToList();
        Assert.Null(
            RecordedFigures.Of(few, [Said(few, _ => new()), Said(few, _ => new(3))], Model).Traces!.Kappa
        );
        var many = Enumerable.Range(0, Model.EnoughClips).Select(i => Trace(i)).ToList();
        Assert.Null(RecordedFigures.Of(many, [Said(many, _ => new(3))], Model).Traces!.Seconds);
    }

    [Fact]
    public void What_one_of_them_did_not_rate_counts_for_nobody()
    {
        var things = Enumerable.Range(0, 21).Select(i => Trace(i)).ToList();
        var figures = RecordedFigures.Of(
            things,
            [Said(things, _ => new(3)), Said(things.Skip(1), _ => new(3))],
            Model
        );
        Assert.Equal(20, figures.Traces!.Items);
    }

    [Fact]
    public void Nobody_who_rated_and_nothing_to_rate_is_no_figure()
    {
        Assert.Null(RecordedFigures.Of([], [], Model).Traces);
        Assert.Empty(RecordedFigures.Of([Photo(0)], [], Model).Angles);
    }

    public static TheoryData<RecordedReading, RecordedThing, string?> Sayings =>
        new()
        {
            { new(), Trace(0), null },
            { new(0), Trace(0), null },
            { new(30), Trace(0), null },
            { new(30.1), Trace(0), "lost" },
            { new(-0.1), Trace(0), "lost" },
            { new(double.NaN), Trace(0), "lost" },
            { Hips(3), Trace(0), "photo" },
            { Hips(3), Photo(0), null },
            { new(), Photo(0), "photo" },
            { Hips(3) with { Lost = 2 }, Photo(0), "lost" },
            { Hips(3), Photo(0) with { Width = 999 }, "photo" },
            { Hips(3), Photo(0) with { View = PhotoView.Back }, "photo" },
            { new(Photo: new(PhotoView.Front, 1000, 1000, [])), Photo(0), "photo.points" },
            { Hips(3) with { Photo = Hips(3).Photo! with { Image = Guid.Empty } }, Photo(0), "photo" },
            { Hips(60), Photo(0), "photo.points[0].at" },
        };

    [Theory]
    [MemberData(nameof(Sayings))]
    public void What_cannot_be_said_of_it_is_refused_by_its_field(
        RecordedReading said,
        RecordedThing of,
        string? field
    ) => Assert.Equal(field is null ? [] : [field], said.Errors(of).Select(e => e.Field));
}
