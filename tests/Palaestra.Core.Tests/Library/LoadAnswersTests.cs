using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

public class LoadAnswersTests
{
    private static readonly BodySize Woman = new(Sex.Female, 1.68, 64);

    private static Checked<LoadAnswer> Ask(LoadQuestion question) =>
        LoadAnswers.Of(question, Content.Library);

    private static string FieldOf(LoadQuestion question) => Assert.Single(Ask(question).Errors).Field;

    [Fact]
    public void The_ladders_own_direction_comes_first_with_its_share_of_the_full_rung()
    {
        var answer = Ask(new(Woman, "B6", Changes: new(Range: 0.7), PresentRungId: "B5")).Value!;
        var main = answer.Directions[0];
        Assert.Equal((Direction.Front, Side.Both), (main.Direction, main.Side));
        Assert.Equal("front, against arching", main.Words.En());
        Assert.InRange(main.PercentOfFull!.Value, 60, 99);
        Assert.Equal(100 * main.NewtonMetres / (64 * Statics.Gravity * 1.68), main.PercentOfWeightHeight, 6);
        // Half-way to the long leg it already asks more than the present heel tap.
        Assert.InRange(main.PercentMoreThanPresent!.Value, 1, 60);
        Assert.InRange(answer.Load.ReachedCm!.Value, 15, 45);
        Assert.False(answer.TypicalBody);
    }

    [Fact]
    public void An_open_height_or_mass_is_answered_for_a_typical_body_and_says_so()
    {
        var answer = Ask(new(new BodySize(Sex.Male, 1.80), "E7", Side: Side.Right)).Value!;
        Assert.True(answer.TypicalBody);
        Assert.Equal(BodySize.TypicalMass, answer.MassKilograms);
        Assert.Equal(Side.Right, answer.Directions[0].Side);
    }

    [Fact]
    public void A_pose_may_start_from_one_of_the_library()
    {
        var hand = new PoseEntry("plank-hands", Held: null);
        var load = Ask(new(Woman, Pose: hand)).Value!.Load;
        Assert.Equal(100, load.AtEnd.Support.Sum(part => part.Percent), 4);
        Assert.Contains(load.AtEnd.Support, part => part.Part.En() == "left hand");
    }

    [Theory]
    [InlineData(0.30, 64.0, "body.height")]
    [InlineData(17.0, 64.0, "body.height")]
    [InlineData(1.70, 0.0, "body.mass")]
    [InlineData(1.70, 900.0, "body.mass")]
    public void Absurd_bodies_are_refused(double height, double mass, string field) =>
        Assert.Equal(field, FieldOf(new(new BodySize(null, height, mass), "B6")));

    [Fact]
    public void What_does_not_fit_the_rung_is_refused_by_field()
    {
        Assert.Equal("rungId", FieldOf(new(Woman, "Q9")));
        Assert.Equal("rungId", FieldOf(new(Woman)));
        Assert.Equal("presentRungId", FieldOf(new(Woman, "B6", PresentRungId: "Q9")));
        Assert.Equal("changes.range", FieldOf(new(Woman, "B6", Changes: new(Range: 0))));
        Assert.Equal("changes.kneeBend", FieldOf(new(Woman, "B6", Changes: new(KneeBend: 170))));
        Assert.Equal("changes.counterHeight", FieldOf(new(Woman, "B6", Changes: new(CounterHeight: 0.9))));
        Assert.Equal("changes.counterHeight", FieldOf(new(Woman, "H1", Changes: new(CounterHeight: 3))));
        Assert.Equal("changes.heldMass", FieldOf(new(Woman, "H3", Changes: new(HeldMass: 5))));
    }

    [Fact]
    public void Impossible_and_falling_poses_are_refused_by_field()
    {
        PoseEntry Standing(string joint, double flexion) =>
            new("standing", Joints: new Dictionary<string, JointAngles> { [joint] = new(flexion) });
        Assert.Equal("pose.joints", FieldOf(new(Woman, Pose: Standing("tail", 10))));
        Assert.Equal("pose.joints", FieldOf(new(Woman, Pose: Standing("kneeLeft", -90))));
        Assert.Equal("pose.base", FieldOf(new(Woman, Pose: new("hovering"))));
        Assert.Equal("pose", FieldOf(new(Woman, Pose: new())));
        Assert.Equal("pose.contacts", FieldOf(new(Woman, Pose: new(Root: new(0), Contacts: []))));
        Assert.Equal("pose.contacts", FieldOf(new(Woman, Pose: new(Root: new(0), Contacts: ["wing"]))));
        var leaning = new PoseEntry("standing", Root: new RootPlacement(-30), Solve: [], Balance: []);
        var error = Assert.Single(Ask(new(Woman, Pose: leaning)).Errors);
        Assert.Equal("pose", error.Field);
        Assert.Contains("fall toward the front", error.Message.En(), StringComparison.Ordinal);
    }
}
