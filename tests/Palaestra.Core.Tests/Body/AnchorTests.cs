using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Body;

/// <summary>Where marks and lines point on a drawing.</summary>
public class AnchorTests
{
    /// <summary>Six pixels where the drawing is largest on a live screen, 0.4 px a millimetre.</summary>
    private const double BesideMost = 15;

    public static TheoryData<string> RungIds =>
        [.. Content.Library.Ladders.SelectMany(ladder => ladder.Rungs).Select(rung => rung.Id)];

    [Theory]
    [MemberData(nameof(RungIds))]
    public void Every_one_lies_on_the_body_from_every_side_all_the_way(string rungId)
    {
        var path = Content.Library.PathOf(Content.Library.Rung(rungId));
        foreach (var view in Enum.GetValues<View>())
        {
            foreach (var side in Skeleton.OneSide)
            {
                var drawing = new FigureDrawing(path, side, view);
                foreach (var share in new[] { 0, 0.5, 1 })
                {
                    var figure = drawing.Moment(share, rungId);
                    var body = figure
                        .Shapes.Where(shape => shape.Role is not (ShapeRole.Floor or ShapeRole.Prop))
                        .SelectMany(shape => shape.Outlines)
                        .ToList();
                    Assert.All(
                        figure.Anchors,
                        anchor =>
                            Assert.True(
                                body.Min(outline => Beside(outline, anchor.At)) <= BesideMost,
                                $"{anchor.Region} at {share} from {view}, {side}: {body.Min(o => Beside(o, anchor.At)):0} mm beside the body"
                            )
                    );
                }
            }
        }
    }

    [Fact]
    public void A_place_beside_a_square_is_as_far_from_it_as_it_is()
    {
        int[] square = [0, 0, 100, 0, 100, 100, 0, 100];
        Assert.Equal(0, Beside(square, new(50, 50)));
        Assert.Equal(30, Beside(square, new(130, 50)), 6);
        Assert.Equal(50, Beside(square, new(130, 140)), 6);
    }

    /// <summary>The list that the tablet's tests read (client/src/given/drawnPlaces.json) is of today's drawings.</summary>
    [Fact]
    public void The_list_the_tablets_tests_read_is_written_from_these()
    {
        var file = Path.Combine(Content.Root, "client", "src", "given", "drawnPlaces.json");
        Assert.True(
            File.ReadAllText(file) == DrawnPlaces.Text(Content.Library),
            "client/src/given/drawnPlaces.json is of other drawings; ./palaestra generate writes it."
        );
    }

    /// <summary>Millimetres from the outline; 0 inside.</summary>
    private static double Beside(IReadOnlyList<int> outline, FigurePoint at)
    {
        var inside = false;
        var least = double.MaxValue;
        var count = outline.Count / 2;
        for (var i = 0; i < count; i++)
        {
            var j = (i + count - 1) % count;
            var (ax, ay) = (outline[2 * j], outline[(2 * j) + 1]);
            var (bx, by) = (outline[2 * i], outline[(2 * i) + 1]);
            if ((ay > at.Y) != (by > at.Y) && at.X < ((bx - ax) * (double)(at.Y - ay) / (by - ay)) + ax)
            {
                inside = !inside;
            }
            double length = ((bx - ax) * (bx - ax)) + ((by - ay) * (by - ay));
            var along =
                length == 0
                    ? 0
                    : Math.Clamp((((at.X - ax) * (bx - ax)) + ((at.Y - ay) * (by - ay))) / length, 0, 1);
            least = Math.Min(
                least,
                Math.Sqrt(
                    Math.Pow(at.X - ax - (along * (bx - ax)), 2)
                        + Math.Pow(at.Y - ay - (along * (by - ay)), 2)
                )
            );
        }
        return inside ? 0 : least;
    }
}
