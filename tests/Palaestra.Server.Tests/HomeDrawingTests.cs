using Microsoft.Extensions.DependencyInjection;
using Palaestra.Core.Library;
using Palaestra.Server.Library;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The drawings that go with a home programme: the phone goes from picture to picture point by point.</summary>
public sealed class HomeDrawingTests(OneServer one) : IClassFixture<OneServer>
{
    [Fact]
    public void Every_exercise_on_every_side_has_the_same_points_in_every_picture()
    {
        using var scope = one.Running.Services.CreateScope();
        var library = scope.ServiceProvider.GetRequiredService<PracticeLibrary>();
        var figures = scope.ServiceProvider.GetRequiredService<FigureStore>();
        foreach (var rung in library.Ladders.SelectMany(ladder => ladder.Rungs))
        {
            foreach (var side in Enum.GetValues<Side>())
            {
                foreach (var range in new[] { 0.35, 0.7, 1 })
                {
                    var frames = figures.Keyframes(rung, side, range);
                    var drawing = HomeDrawing.Of(frames);
                    Assert.All(frames, frame => Assert.Equal(drawing.Width, frame.Width));
                    Assert.All(
                        drawing.Shapes,
                        shape =>
                        {
                            var lengths = shape.Frames[0].Select(outline => outline.Count);
                            Assert.True(shape.Frames.Count is 1 || shape.Frames.Count == frames.Count);
                            Assert.All(
                                shape.Frames,
                                frame => Assert.Equal(lengths, frame.Select(outline => outline.Count))
                            );
                        }
                    );
                    // The last picture, added up, reaches as far as the last drawing, to how an outline was told anew.
                    var ends = Corners(drawing.Shapes.SelectMany(EndOf));
                    var drawn = Corners(
                        frames[^1].Shapes.SelectMany(s => s.Outlines.Select(o => o.ToArray()))
                    );
                    Assert.All(ends.Zip(drawn), pair => Assert.InRange(pair.First - pair.Second, -15, 15));
                }
            }
        }
    }

    /// <summary>Left, right, top, bottom in millimetres.</summary>
    private static int[] Corners(IEnumerable<int[]> outlines)
    {
        var points = outlines.SelectMany(outline => outline.Chunk(2)).ToList();
        return [points.Min(p => p[0]), points.Max(p => p[0]), points.Min(p => p[1]), points.Max(p => p[1])];
    }

    private static IReadOnlyList<int[]> EndOf(HomeShape shape) =>
        [
            .. shape
                .Frames[0]
                .Select(
                    (outline, o) =>
                        outline.Select((n, i) => n + shape.Frames.Skip(1).Sum(step => step[o][i])).ToArray()
                ),
        ];

    /// <summary>Sit to stand: the seat is still there when one stands.</summary>
    [Theory]
    [InlineData("N2")]
    [InlineData("Q1")]
    [InlineData("Q3")]
    public void What_one_rises_from_stays_where_it_is(string rungId)
    {
        using var scope = one.Running.Services.CreateScope();
        var library = scope.ServiceProvider.GetRequiredService<PracticeLibrary>();
        var figures = scope.ServiceProvider.GetRequiredService<FigureStore>();
        var frames = figures.Moving(library.Rung(rungId), Side.Both);
        Assert.All(frames, frame => Assert.Contains(frame.Shapes, shape => shape.Part == "box"));
    }
}
