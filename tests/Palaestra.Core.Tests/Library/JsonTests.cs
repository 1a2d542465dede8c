using System.Text.Json;
using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

/// <summary>What is stored and sent comes back as it was, and what does not fit is refused.</summary>
public class JsonTests
{
    private static T Round<T>(T value) =>
        JsonSerializer.Deserialize<T>(JsonSerializer.Serialize(value, CoreJson.Options), CoreJson.Options)!;

    [Fact]
    public void Events_come_back_as_they_were()
    {
        var events = new Tape()
            .Start("B6", Side.Left)
            .Rep(3, "arch")
            .Cue()
            .CueAnswered(true)
            .Pain(PainPhase.Peak, 3)
            .Undo()
            .End()
            .Events;
        Assert.Equal(events, Round(events));
    }

    [Fact]
    public void Findings_come_back_and_give_the_same_plan()
    {
        var tape = new Tape()
            .Start("B5", Side.Left)
            .Reps(5)
            .End()
            .Start("B5", Side.Right)
            .Rep(fault: "arch")
            .Rep(fault: "arch")
            .End();
        var findings = FindingsMaker.Of(
            tape.Trials(),
            Someone.Calm,
            Content.Policy,
            Content.Library,
            others: []
        );
        Guid Fixed() => Guid.Parse("22222222-2222-2222-2222-222222222222");
        string PlanOf(ScreenFindings from) =>
            JsonSerializer.Serialize(
                Planner.Propose(
                    new PlanInput(
                        Someone.Calm,
                        from,
                        Content.Policy.Id,
                        SpinalStrategy.Neutral,
                        Activation.Brace,
                        20
                    ),
                    Content.Library,
                    Fixed
                ),
                CoreJson.Options
            );
        Assert.Equal(PlanOf(findings), PlanOf(Round(findings)));
    }

    [Theory]
    [InlineData("""{"reps":5,"sets":1}""")]
    [InlineData("""{"reps":5.5,"sets":1,"hold":0}""")]
    [InlineData("""{"reps":"5","sets":1,"hold":0}""")]
    [InlineData("""{"reps":5,"sets":1,"hold":0,"tempo":3}""")]
    [InlineData("""{"reps":null,"sets":1,"hold":0}""")]
    public void A_dose_that_is_none_is_refused(string text) =>
        Assert.Throws<JsonException>(() => JsonSerializer.Deserialize<Dose>(text, CoreJson.Options));

    [Theory]
    [InlineData("1")]
    [InlineData("\"\"")]
    [InlineData("\"sideways\"")]
    public void Sides_are_words_and_nothing_else(string text) =>
        Assert.Throws<JsonException>(() => JsonSerializer.Deserialize<Side>(text, CoreJson.Options));
}
