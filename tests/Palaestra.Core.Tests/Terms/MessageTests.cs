using System.Text.Json;
using CsCheck;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Terms;

public class MessageTests
{
    private static readonly Gen<string> Name = Gen.Int[0, 4].Select(i => "name" + i);

    private static readonly Gen<object> Held = Gen.Recursive<object>(
        (depth, held) =>
            depth > 2
                ? Gen.Double[-1e6, 1e6].Select(number => (object)number)
                : Gen.OneOf(
                    Gen.Double[-1e6, 1e6].Select(number => (object)number),
                    Gen.String.Select(text => (object)text),
                    Gen.Bool.Select(flag => (object)flag),
                    held.Array[0, 3].Select(list => (object)list),
                    Any(held).Select(message => (object)message)
                )
    );

    private static Gen<Message> Any(Gen<object> held) =>
        Gen.Select(Gen.Int[0, 3].Select(i => "x." + i), Gen.Dictionary(Name, held)[0, 4])
            .Select(pair => Message.Of(pair.Item1, [.. pair.Item2.Select(v => (v.Key, (object?)v.Value))]));

    [Fact]
    public void What_is_stored_and_read_again_is_the_same() =>
        Any(Held)
            .Sample(message =>
                Assert.Equal(
                    message,
                    JsonSerializer.Deserialize<Message>(
                        JsonSerializer.Serialize(message, CoreJson.Options),
                        CoreJson.Options
                    )
                )
            );

    [Fact]
    public void Days_and_members_of_enumerations_are_kept_as_texts()
    {
        var message = Message.Of("x", ("day", new DateOnly(2026, 3, 3)), ("side", Side.Left), ("none", null));
        Assert.Equal("""{"id":"x","values":{"day":"2026-03-03","side":"left"}}""", message.ToString());
    }

    [Fact]
    public void What_a_message_cannot_hold_is_refused() =>
        Assert.Throws<ArgumentException>(() => Message.Of("x", ("what", new Dose(1, 1, 0))));

    [Theory]
    [InlineData("1")]
    [InlineData("[]")]
    [InlineData("""{"values":{}}""")]
    [InlineData("""{"id":5,"values":{}}""")]
    [InlineData("""{"id":"x","values":{"none":{"no":"id"}}}""")]
    public void What_is_no_message_is_not_read_as_one(string json) =>
        Assert.Throws<JsonException>(() => JsonSerializer.Deserialize<Message>(json, CoreJson.Options));

    [Theory]
    [InlineData("""{"id":"plain"}""")]
    [InlineData("""{"id":"plain","values":{"text":5}}""")]
    public void What_is_said_as_it_stands_and_has_no_text_says_nothing(string json) =>
        Assert.Equal("", JsonSerializer.Deserialize<Message>(json, CoreJson.Options).En());

    /// <summary>As the version before this one stored it.</summary>
    [Fact]
    public void A_decision_of_before_keeps_its_sentences_and_is_stored_again_as_it_was()
    {
        const string before = """
            {"planItemId":"11111111-1111-1111-1111-111111111111","side":"left","outcome":"stay","ruleId":"D-STAY","rungId":"B5",
             "dose":{"reps":5,"sets":2,"hold":0,"fewer":0,"range":1},
             "evidence":["4 of 10 clean."],"wouldChange":"One more clean set, and this would be: add.","todo":"Screen again.",
             "fired":[{"ruleId":"D-STAY","outcome":"stay","evidence":["4 of 10 clean."]}],"notes":["Long through the heel"]}
            """;
        var decision = JsonSerializer.Deserialize<Decision>(before, CoreJson.Stored)!;
        Assert.Equal("4 of 10 clean.", decision.Evidence[0].En());
        Assert.Equal("One more clean set, and this would be: add.", decision.WouldChange.En());
        Assert.Equal("Screen again.", decision.Todo.En());
        var again = JsonSerializer.SerializeToElement(decision, CoreJson.Options);
        Assert.Equal("4 of 10 clean.", again.GetProperty("evidence")[0].GetString());
        Assert.Equal("4 of 10 clean.", again.GetProperty("fired")[0].GetProperty("evidence")[0].GetString());
        Assert.Equal("Long through the heel", again.GetProperty("notes")[0].GetString());
    }

    [Fact]
    public void A_plan_of_before_keeps_its_sentences()
    {
        const string before = """
            {"id":"11111111-1111-1111-1111-111111111111","rungId":"B5","for":"against arching",
             "doses":[{"side":"left","dose":{"reps":5,"sets":2,"hold":0,"fewer":0,"range":0.7},"rangeEnds":"70 % of the way"}],
             "reasons":[{"ruleId":"P-ENTRY","words":"Entry level: Heel tap."}],"changes":["left: knee bent"],"cue":"Long"}
            """;
        var item = JsonSerializer.Deserialize<PlanItem>(before, CoreJson.Stored)!;
        Assert.Equal(
            ["against arching", "70 % of the way", "Entry level: Heel tap.", "left: knee bent"],
            [item.For.En(), item.Doses[0].RangeEnds.En(), item.Reasons[0].Words.En(), item.Changes[0].En()]
        );
    }

    [Fact]
    public void Nothing_that_is_decided_stores_words() =>
        Work.Any.Sample(work =>
            Assert.All(
                work.Decisions()
                    .SelectMany(d => d.Evidence.Append(d.WouldChange).Append(d.Todo))
                    .OfType<Message>(),
                said => Assert.Null(said.Text)
            )
        );

    [Fact]
    public void Everything_that_is_decided_has_its_words() =>
        Work.Any.Sample(work =>
            Assert.All(
                work.Decisions()
                    .SelectMany(d => d.Evidence.Append(d.WouldChange).Append(d.Todo))
                    .OfType<Message>(),
                said =>
                {
                    Assert.NotEmpty(said.En());
                    Assert.DoesNotContain("[", said.En(), StringComparison.Ordinal);
                }
            )
        );
}
