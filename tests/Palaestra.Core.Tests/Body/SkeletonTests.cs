using System.Numerics;
using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Body;

public class SkeletonTests
{
    public static TheoryData<string> PoseNames => [.. Content.Library.Poses.Keys];

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void Contacts_meet_the_floor_within_five_millimetres(string name)
    {
        foreach (var height in new[] { 1.5, 1.75, 2.0 })
        {
            var pose = Content.Library.Poses[name];
            var body = ContactSolver.Solve(pose, height);
            Assert.All(pose.Contacts, contact => Assert.InRange(body.ContactHeight(contact), -0.005, 0.005));
        }
    }

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void Nothing_goes_through_the_floor(string name)
    {
        foreach (var side in new[] { Side.Left, Side.Right })
        {
            var figure = FigureDrawing.Of(Content.Library.Poses[name], side, name);
            var body = figure.Shapes.Where(shape => shape.Role != ShapeRole.Floor);
            // y grows downward from the floor at 0.
            Assert.All(
                body.SelectMany(shape => shape.Outline),
                point => Assert.True(point.Y <= 12, $"{name}: {point.Y} mm below the floor")
            );
        }
    }

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void Left_and_right_mirror_exactly(string name)
    {
        var left = FigureDrawing.Of(Content.Library.Poses[name], Side.Left, name);
        var right = FigureDrawing.Of(Content.Library.Poses[name], Side.Right, name);
        Assert.Equal(left.Shapes.Count, right.Shapes.Count);
        foreach (
            var (l, r) in left.Shapes.Zip(right.Shapes).Where(pair => pair.First.Role != ShapeRole.Floor)
        )
        {
            // Vertices run the other way round after mirroring, so the sets of points are compared; a millimetre for rounding.
            var mirrored = r.Outline.Select(p => (X: -p.X, p.Y)).ToList();
            Assert.All(
                l.Outline,
                p => Assert.Contains(mirrored, m => Math.Abs(m.X - p.X) <= 1 && Math.Abs(m.Y - p.Y) <= 1)
            );
        }
    }

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void Limbs_keep_their_length(string name)
    {
        var body = ContactSolver.Solve(Content.Library.Poses[name], 1.7);
        foreach (
            var (segment, share) in new[]
            {
                ("thigh", Proportions.Thigh),
                ("shank", Proportions.Shank),
                ("upperArm", Proportions.UpperArm),
                ("forearm", Proportions.Forearm),
            }
        )
        {
            foreach (var side in new[] { "Left", "Right" })
            {
                var line = body[segment + side];
                Assert.Equal(share * 1.7, Vector3.Distance(line.From, line.To), 4);
            }
        }
    }

    /// <summary>Facts of the trade (common practice): what each position looks like from the side.</summary>
    [Fact]
    public void Positions_are_what_they_are_called()
    {
        var library = Content.Library;
        var reach = ContactSolver.Solve(library.Poses[library.Rung("B6").Poses.End], 1.75);
        Assert.InRange(reach.ContactHeight("heelLeft"), 0.05, 0.08);
        Assert.True(reach["thighRight"].Direction.Y > 0.95, "the resting thigh stands upright");

        var diagonal = ContactSolver.Solve(library.Poses[library.Rung("D4").Poses.End], 1.75);
        Assert.InRange(Math.Abs(diagonal["shankLeft"].Direction.Y), 0, 0.25);
        Assert.InRange(Math.Abs(diagonal["forearmRight"].Direction.Y), 0, 0.25);
        Assert.True(diagonal["thighRight"].Direction.Y < -0.95, "the bearing thigh stands upright");

        var bridge = ContactSolver.Solve(library.Poses[library.Rung("E1").Poses.End], 1.75);
        var trunk = Vector3.Normalize(bridge["chest"].From - bridge["pelvis"].From);
        var line = Vector3.Dot(trunk, -bridge["thighLeft"].Direction);
        Assert.True(line > 0.97, "shoulder, hip and knee line up");
    }

    [Fact]
    public void A_raised_arm_goes_where_flexion_points()
    {
        var pose = new Pose(
            new RootPlacement(0),
            new Dictionary<string, JointAngles> { ["shoulderLeft"] = new(90) },
            [],
            []
        );
        var body = new Skeleton(pose, 1.7, 1);
        Assert.True(body["upperArmLeft"].Direction.X > 0.99);
        Assert.True(body["upperArmRight"].Direction.Y < -0.99);
        Assert.True(body["upperArmRight"].From.Z > 0, "z runs to the client's right");
    }
}
