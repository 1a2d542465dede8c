using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Body;

public class PoseTests
{
    [Theory]
    [InlineData("heelLeft", "heelLeft@floor")]
    [InlineData("heel", "heelLeft@floor heelRight@floor")]
    [InlineData("wrist@counter", "wristLeft@counter wristRight@counter")]
    [InlineData("buttock", "buttock@floor")]
    [InlineData("buttockLeft", "")]
    [InlineData("wing", "")]
    [InlineData("", "")]
    public void Contacts_are_read_by_name(string text, string expected) =>
        Assert.Equal(
            expected,
            string.Join(' ', Contact.Named(text).Select(contact => $"{contact.Name}@{contact.Surface}"))
        );

    [Theory]
    [InlineData("hip", 2)]
    [InlineData("hipLeft", 1)]
    [InlineData("hipLeft.abduction", 1)]
    [InlineData("root.pitch", 1)]
    [InlineData("lumbar.rotation", 1)]
    [InlineData("root.sideways", 0)]
    [InlineData("hip.sideways", 0)]
    [InlineData("tail", 0)]
    public void Angles_are_read_by_name(string name, int count) =>
        Assert.Equal(count, Posture.SlotsOf(name).Count);

    [Fact]
    public void A_name_for_one_side_wins_over_a_name_for_both()
    {
        var entries = new Dictionary<string, PoseEntry>
        {
            ["under"] = new(Root: new(), Contacts: ["heel"], Joints: Joints(("hip", 30), ("kneeLeft", 50))),
            ["over"] = new("under", Joints: Joints(("hipLeft", 60), ("knee", 10)), Lift: ["heelLeft"]),
        };
        var (poses, families, errors) = PoseEntries.Resolve(entries);
        Assert.Empty(errors);
        Assert.Equal("under", families["over"]);
        var posture = poses["over"].Posture;
        Assert.Equal(60, posture.At(Joint.HipLeft).Flexion);
        Assert.Equal(30, posture.At(Joint.HipRight).Flexion);
        Assert.Equal(10, posture.At(Joint.KneeLeft).Flexion);
        Assert.Equal(["heelRight"], poses["over"].Bearing.Select(contact => contact.Name));
    }

    [Fact]
    public void Bases_that_are_not_there_or_go_round_are_named()
    {
        var (_, _, missing) = PoseEntries.Resolve(new Dictionary<string, PoseEntry> { ["a"] = new("b") });
        Assert.Equal("poses.json poses.a.base", Assert.Single(missing).Field);
        var ring = new Dictionary<string, PoseEntry> { ["a"] = new("b"), ["b"] = new("a") };
        Assert.NotEmpty(PoseEntries.Resolve(ring).Errors);
    }

    [Fact]
    public void Mirrored_twice_is_the_same_pose()
    {
        foreach (var pose in Content.Library.Poses.Values)
        {
            Assert.True(pose.Posture.Is(pose.Mirrored().Mirrored().Posture));
            Assert.True(pose.Posture.Mirrored().Is(pose.Mirrored().Posture));
        }
    }

    [Fact]
    public void A_joint_past_its_end_is_named_in_words()
    {
        var posture = Posture.Of(new(), Joints(("kneeLeft", -40), ("elbowRight", 90)));
        Assert.Equal(
            "KneeLeft flexion of -40° is outside -8 to 155°.",
            Assert.Single(JointLimits.Broken(posture)).En()
        );
        Assert.Empty(JointLimits.Broken(JointLimits.Within(posture)));
    }

    [Theory]
    [InlineData("B6", true, true, false, true)]
    [InlineData("H1", true, false, true, false)]
    [InlineData("K6", true, true, false, true)]
    public void Only_changes_that_make_sense_are_offered(
        string rung,
        bool range,
        bool knee,
        bool counter,
        bool weight
    )
    {
        var choices = LoadChoices.Of(Content.Library.PathOf(Content.Library.Rung(rung)));
        Assert.Equal(
            (range, knee, counter, weight),
            (
                choices.Range,
                choices.KneeBend is not null,
                choices.CounterHeight is not null,
                choices.HeldMass is not null
            )
        );
    }

    /// <summary>A belly comes out to the front alone, on either side alike, and bears nothing: the body lies as before.</summary>
    [Fact]
    public void A_belly_that_domes_moves_nothing_but_the_belly()
    {
        var clean = Content.Library.Poses["hook-lying"];
        var domed = Content.Library.FaultyPose(Content.Library.Rung("B3"), "bulge")!;
        Assert.Equal(0.03, domed.Belly);
        Assert.Equal(0.03, domed.Mirrored().Posture.Mirrored().Belly);
        var with = ContactSolver.Solve(clean with { Belly = 0.03 }, BodySize.Typical);
        var without = ContactSolver.Solve(clean, BodySize.Typical);
        Assert.Equal(without.Root, with.Root);
        var sections = TrunkShape
            .Sections(with, 4)
            .Zip(
                TrunkShape.Sections(without, 4),
                (a, b) =>
                    (
                        Front: (a.Front - b.Front).Length(),
                        Else: (a.Back - b.Back).Length() + (a.Side - b.Side).Length()
                    )
            )
            .ToList();
        Assert.All(sections, one => Assert.Equal(0, one.Else));
        // Farthest at the middle of the waist: all of it.
        Assert.Equal(0.03 * BodySize.Typical.Metres, sections.Max(one => one.Front), 3);
    }

    [Theory]
    [InlineData(-0.01)]
    [InlineData(0.061)]
    [InlineData(double.NaN)]
    public void A_belly_comes_out_no_farther_than_it_can(double belly)
    {
        var (poses, faults) = (Content.Library.Poses, new FaultsFile("", Content.Library.Faults, []));
        var file = new FaultPosesFile("", [new("bulge", ["hook-lying"], Belly: belly)]);
        Assert.Equal(
            "fault-poses.json faultPoses[0].belly",
            Assert.Single(PoseCheck.Errors(poses, file, faults)).Field
        );
    }

    private static Dictionary<string, JointAngles> Joints(params (string Name, double Flexion)[] joints) =>
        joints.ToDictionary(joint => joint.Name, joint => new JointAngles(joint.Flexion));
}
