using Palaestra.Core.Body;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Body;

public class FigureDrawingTests
{
    public static TheoryData<string> RungIds =>
        [.. Content.Library.Ladders.SelectMany(ladder => ladder.Rungs).Select(rung => rung.Id)];

    private static readonly ShapeRole[] OfTheBody =
    [
        ShapeRole.FarLimb,
        ShapeRole.NearLimb,
        ShapeRole.Trunk,
        ShapeRole.Head,
    ];

    private static FigureDrawing Drawing(string rungId, Side side, View? view = null)
    {
        var rung = Content.Library.Rung(rungId);
        return new FigureDrawing(Content.Library.PathOf(rung), side, view ?? rung.View);
    }

    [Theory]
    [MemberData(nameof(RungIds))]
    public void Nothing_goes_through_the_floor_on_the_way(string rungId)
    {
        foreach (var figure in Drawing(rungId, Side.Left, View.Side).Frames(7, rungId))
        {
            // y grows downward from the floor at 0; flesh gives a little, most where the back rounds against it.
            Assert.All(
                figure.Shapes.Where(shape => OfTheBody.Contains(shape.Role)).SelectMany(s => s.Points()),
                point => Assert.True(point.Y <= 24, $"{point.Y} mm below the floor")
            );
        }
    }

    public static TheoryData<string, string> Neighbours =>
        [
            .. Content.Library.Ladders.SelectMany(ladder =>
                ladder.Rungs.Zip(
                    ladder.Rungs.Skip(1),
                    (a, b) => new TheoryDataRow<string, string>(a.Id, b.Id)
                )
            ),
        ];

    [Theory]
    [MemberData(nameof(Neighbours))]
    public void From_one_rung_to_the_next_the_body_goes_in_small_steps_from_end_to_end(
        string before,
        string after
    )
    {
        var library = Content.Library;
        var (one, two) = (library.Rung(before), library.Rung(after));
        var frames = FigureDrawing.Change(
            library.PathOf(one),
            library.PathOf(two),
            Side.Left,
            View.Side,
            13,
            ""
        );
        var (from, to) = (library.PathOf(one)[^1].Root, library.PathOf(two)[^1].Root);
        if (frames.Count == 0)
        {
            Assert.True(Math.Abs(from.Pitch - to.Pitch) > 90 || Math.Abs(from.Turn - to.Turn) > 90);
            return;
        }
        // The same drawing but for where it stands in the room.
        AssertSame(Drawing(before, Side.Left, View.Side).Moment(1, ""), frames[0]);
        AssertSame(Drawing(after, Side.Left, View.Side).Moment(1, ""), frames[^1]);
        Assert.All(
            frames.Zip(frames.Skip(1), (a, b) => (A: Head(a), B: Head(b))),
            step => Assert.True(Math.Abs(step.A.X - step.B.X) + Math.Abs(step.A.Y - step.B.Y) < 320)
        );
        Assert.All(frames, f => Assert.Equal((frames[0].Left, frames[0].Width), (f.Left, f.Width)));
    }

    private static (double X, double Y) Head(Figure figure)
    {
        var points = Points(figure, ShapeRole.Head).ToList();
        return (points.Average(p => p.X), points.Average(p => p.Y));
    }

    private static void AssertSame(Figure one, Figure other)
    {
        var (a, b) = (Head(one), Head(other));
        Assert.Equal(a.Y, b.Y, 3.0);
        var slip = b.X - a.X;
        foreach (var role in OfTheBody)
        {
            var (p, q) = (Points(one, role).Order().ToList(), Points(other, role).Order().ToList());
            Assert.Equal(p.Count, q.Count);
            Assert.All(p.Zip(q), pair => Assert.True(Math.Abs(pair.First.X + slip - pair.Second.X) <= 3));
        }
    }

    [Theory]
    [MemberData(nameof(RungIds))]
    public void Left_and_right_mirror_exactly(string rungId)
    {
        var left = Drawing(rungId, Side.Left, View.Side).Moment(1, rungId);
        var right = Drawing(rungId, Side.Right, View.Side).Moment(1, rungId);
        Assert.Equal(left.Shapes.Count, right.Shapes.Count);
        foreach (var role in OfTheBody)
        {
            var l = Points(left, role).Order().ToList();
            var r = Points(right, role).Select(p => (X: -p.X, p.Y)).Order().ToList();
            Assert.All(l, p => Assert.Contains(r, m => Math.Abs(m.X - p.X) <= 2 && Math.Abs(m.Y - p.Y) <= 2));
        }
    }

    [Theory]
    [MemberData(nameof(RungIds))]
    public void Each_picture_keeps_within_its_frame_and_says_what_it_shows(string rungId)
    {
        var figure = Drawing(rungId, Side.Left).Together(rungId);
        Assert.Equal(rungId, figure.Words);
        Assert.All(
            figure.Shapes.SelectMany(shape => shape.Points()),
            p =>
            {
                Assert.InRange(p.X, figure.Left, figure.Left + figure.Width);
                Assert.InRange(p.Y, figure.Top, figure.Top + figure.Height);
            }
        );
    }

    [Theory]
    [InlineData("B6", 1)]
    [InlineData("B8", 2)]
    [InlineData("E1", 1)]
    [InlineData("J4", 1)]
    public void What_moves_most_gets_an_arrow(string rungId, int least) =>
        Assert.InRange(
            Drawing(rungId, Side.Left).Together(rungId).Shapes.Count(shape => shape.Role == ShapeRole.Arrow),
            least,
            3
        );

    [Fact]
    public void Pictures_of_a_movement_flow_into_each_other()
    {
        var frames = Drawing("B6", Side.Left).Frames(25, "B6");
        Assert.All(frames, f => Assert.Equal(Bounds(frames[0]), Bounds(f)));
        Assert.All(
            frames,
            f => Assert.Equal(frames[0].Shapes.Select(s => s.Part), f.Shapes.Select(s => s.Part))
        );
        foreach (var (before, after) in frames.Zip(frames.Skip(1)))
        {
            var (a, b) = (Foot(before), Foot(after));
            Assert.True(Math.Abs(a.X - b.X) + Math.Abs(a.Y - b.Y) < 120, "a foot does not jump");
        }
    }

    /// <summary>A circle is round: its middle picture is as far from the chord as a circle's, not as a square's.</summary>
    [Fact]
    public void A_leg_circle_is_round()
    {
        var rung = Content.Library.Rung("J4");
        var movement = new Movement(Content.Library.PathOf(rung), BodySize.Typical);
        var ankle = (double share) => movement.At(share).Body[Bone.FootLeft].From;
        var (corner, middle, next) = (ankle(0.25), ankle(0.375), ankle(0.5));
        var chord = (corner + next) / 2;
        var bulge = (middle - chord).Length() / (next - corner).Length();
        // A quarter of a circle bulges (√2 − 1) / 2 of its chord.
        Assert.InRange(bulge, 0.10, 0.30);
    }

    [Fact]
    public void Every_fault_that_is_drawn_is_marked_and_shows_the_clean_posture_behind()
    {
        var library = Content.Library;
        foreach (var rung in library.Ladders.SelectMany(ladder => ladder.Rungs))
        {
            var drawn = rung.Faults.Where(code => library.FaultyPose(rung, code) is not null).ToList();
            Assert.True(drawn.Count > 0 || rung.Faults.Count == 0, rung.Id);
            foreach (var code in drawn)
            {
                var fault = library.FindFault(code)!;
                var pose = library.FaultyPose(rung, code)!;
                var figure = Drawing(rung.Id, Side.Right).Faulty(pose, fault.Region, code);
                Assert.True(figure.Shapes.Any(s => s.Role == ShapeRole.Mark), $"{rung.Id} {code} has a mark");
                Assert.True(figure.Shapes.Any(s => s.Role == ShapeRole.Ghost), $"{rung.Id} {code}");
            }
        }
    }

    [Fact]
    public void A_faulty_body_bears_on_its_surfaces_too()
    {
        var library = Content.Library;
        var worst = 0.0;
        foreach (var rung in library.Ladders.SelectMany(ladder => ladder.Rungs))
        {
            foreach (var pose in rung.Faults.Select(code => library.FaultyPose(rung, code)).OfType<Pose>())
            {
                var body = ContactSolver.Solve(pose, BodySize.Typical);
                foreach (var contact in pose.Bearing.Where(c => !c.OnWall && !c.OnLeg))
                {
                    var off = ContactPoint.Of(body, contact).Low - pose.HeightOf(contact.Surface);
                    worst = Math.Max(worst, Math.Abs(off));
                }
            }
        }
        // 32 mm is a foot that comes down from a hip turned out as far as it goes; most are within 5.
        Assert.InRange(worst, 0, 0.033);
    }

    private static (int, int, int, int) Bounds(Figure f) => (f.Left, f.Top, f.Width, f.Height);

    private static FigurePoint Foot(Figure figure) =>
        figure.Shapes.First(shape => shape.Part == "footLeft").Points().First();

    private static IEnumerable<(int X, int Y)> Points(Figure figure, ShapeRole role) =>
        figure.Shapes.Where(shape => shape.Role == role).SelectMany(s => s.Points()).Select(p => (p.X, p.Y));
}
