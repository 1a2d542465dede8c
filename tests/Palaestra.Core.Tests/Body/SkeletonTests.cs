using System.Numerics;
using Palaestra.Core.Body;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Body;

public class SkeletonTests
{
    public static TheoryData<string> PoseNames => [.. Content.Library.Poses.Keys];

    private static Pose Named(string name) => Content.Library.Poses[name];

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void Contacts_meet_their_surfaces_within_five_millimetres(string name)
    {
        foreach (var size in new BodySize[] { new(Sex.Female, 1.5), BodySize.Typical, new(Sex.Male, 2.0) })
        {
            var pose = Named(name);
            var body = ContactSolver.Solve(pose, size);
            Assert.All(
                pose.Bearing.Where(contact => !contact.OnWall && !contact.OnLeg),
                contact =>
                    Assert.InRange(
                        ContactPoint.Of(body, contact).Low - pose.HeightOf(contact.Surface),
                        -0.005,
                        0.005
                    )
            );
        }
    }

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void Hands_and_feet_are_not_below_the_floor(string name)
    {
        var body = ContactSolver.Solve(Named(name), BodySize.Typical);
        var ends =
            from spot in new[] { Spot.Heel, Spot.Toe, Spot.Knee, Spot.Elbow, Spot.Wrist, Spot.Fingertips }
            from side in Skeleton.OneSide
            select ContactPoint.Of(body, new Contact(spot, side, Contact.Floor)).Low;
        Assert.All(ends, low => Assert.True(low > -0.006, $"{1000 * low:0} mm"));
    }

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void Limbs_keep_their_length(string name)
    {
        var body = ContactSolver.Solve(Named(name), BodySize.Typical);
        var table = SegmentTable.Of(null);
        foreach (
            var (bone, share) in new[]
            {
                (Bone.ThighLeft, table.Thigh.Length),
                (Bone.ShankLeft, table.Shank.Length),
                (Bone.UpperArmLeft, table.UpperArm.Length),
                (Bone.ForearmLeft, table.Forearm.Length),
            }
        )
        {
            foreach (var side in Skeleton.OneSide)
            {
                var line = body[bone.On(side)];
                Assert.Equal(share * BodySize.TypicalHeight, Vector3.Distance(line.From, line.To), 4);
            }
        }
    }

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void No_joint_goes_farther_than_it_can(string name) =>
        Assert.Empty(JointLimits.Broken(ContactSolver.Solve(Named(name), BodySize.Typical).Posture));

    [Theory]
    [MemberData(nameof(PoseNames))]
    public void The_mirrored_pose_is_the_mirrored_body(string name)
    {
        var body = ContactSolver.Solve(Named(name), BodySize.Typical);
        var mirrored = ContactSolver.Solve(Named(name).Mirrored(), BodySize.Typical);
        foreach (var left in new[] { Bone.FootLeft, Bone.ShankLeft, Bone.HandLeft, Bone.ForearmLeft })
        {
            foreach (var side in Skeleton.OneSide)
            {
                var here = body[left.On(side)].To;
                var there = mirrored[left.On(side.Other())].To;
                Assert.True(Vector3.Distance(here with { Z = -here.Z }, there) < 0.001f, $"{left} {side}");
            }
        }
    }

    /// <summary>Facts of the trade (common practice): what each position looks like.</summary>
    [Fact]
    public void Positions_are_what_they_are_called()
    {
        var reach = End("B6");
        Assert.InRange(Low(reach, Spot.Heel, Side.Left), 0.05, 0.08);
        Assert.True(reach[Bone.ThighRight].Direction.Y > 0.95, "the resting thigh stands upright");

        var diagonal = End("D4");
        Assert.InRange(Math.Abs(diagonal[Bone.ShankLeft].Direction.Y), 0, 0.25);
        Assert.InRange(Math.Abs(diagonal[Bone.ForearmRight].Direction.Y), 0, 0.25);
        Assert.True(diagonal[Bone.ThighRight].Direction.Y < -0.95, "the bearing thigh stands upright");

        var bridge = End("E1");
        var trunk = Vector3.Normalize(bridge[Bone.Chest].From - bridge[Bone.Pelvis].From);
        Assert.True(
            Vector3.Dot(trunk, -bridge[Bone.ThighLeft].Direction) > 0.97,
            "shoulder, hip and knee line up"
        );

        var side = End("G3");
        Assert.True(
            side[Bone.Head].From.Y > side.Root.Y,
            "propped on the forearm, the head is above the hips"
        );
        Assert.True(Math.Abs(side.Ventral(Bone.Pelvis).Y) < 0.2, "the front faces sideways");

        var plank = End("H3");
        Assert.True(plank.Ventral(Bone.Chest).Y < -0.9, "the chest faces the floor");
    }

    [Fact]
    public void A_raised_arm_goes_where_flexion_points()
    {
        var posture = Posture.Of(
            new RootPlacement(),
            new Dictionary<string, JointAngles> { ["shoulderLeft"] = new(90) }
        );
        var body = new Skeleton(posture, BodySize.Typical, Vector3.UnitY);
        Assert.True(body[Bone.UpperArmLeft].Direction.X > 0.99);
        Assert.True(body[Bone.UpperArmRight].Direction.Y < -0.99);
        Assert.True(body[Bone.UpperArmRight].From.Z > 0, "z runs to the client's right");
    }

    [Theory]
    [InlineData(null)]
    [InlineData(Sex.Female)]
    [InlineData(Sex.Male)]
    public void A_standing_body_is_as_tall_as_its_stature(Sex? sex)
    {
        var size = new BodySize(sex, 1.80, 80);
        var body = ContactSolver.Solve(Named("standing"), size);
        Assert.Equal(1.80, body[Bone.Head].To.Y, 1.80 * 0.015);
    }

    private static Skeleton End(string rungId) =>
        ContactSolver.Solve(Named(Content.Library.Rung(rungId).Poses.End), BodySize.Typical);

    private static double Low(Skeleton body, Spot spot, Side side) =>
        ContactPoint.Of(body, new Contact(spot, side, Contact.Floor)).Low;
}
