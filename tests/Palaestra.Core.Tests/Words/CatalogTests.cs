using System.Text.Json;
using System.Text.RegularExpressions;
using CsCheck;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Words;

namespace Palaestra.Core.Tests.Words;

/// <summary>Code and sentences fit each other: what is said has words, and the words have what they name.</summary>
public partial class CatalogTests
{
    private static readonly Dictionary<string, string> Sentences = Directory
        .EnumerateFiles(Path.Combine(Content.Root, "content", "words", "en"))
        .SelectMany(path => JsonSerializer.Deserialize<Dictionary<string, string>>(File.ReadAllText(path))!)
        .ToDictionary();

    private static readonly List<SaidInCode> Code =
    [
        .. Directory
            .EnumerateFiles(Path.Combine(Content.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(path => !path.Contains("/obj/", StringComparison.Ordinal))
            .SelectMany(path => SaidInCode.In(Path.GetFileName(path), File.ReadAllText(path))),
    ];

    /// <summary>Values of the day's pile that are known when it is read.</summary>
    private static readonly string[] Later = ["days", "weeks"];

    /// <summary>Lists of words that a sentence picks from: "side.left".</summary>
    private static readonly HashSet<string> Lists =
    [
        .. Sentences.Values.SelectMany(s => WordList().Matches(s).Select(m => m.Groups[1].Value)),
        "number",
        "rule",
    ];

    [Fact]
    public void Everything_said_in_code_has_words() =>
        AssertNone(Code.Where(said => !Sentences.ContainsKey(said.Id)).Select(said => said.ToString()));

    /// <summary>Sentences that only stored records still say; none yet.</summary>
    private static readonly HashSet<string> Retired = File.Exists(RetiredFile)
        ? [.. JsonSerializer.Deserialize<Dictionary<string, string>>(File.ReadAllText(RetiredFile))!.Keys]
        : [];

    private static string RetiredFile => Path.Combine(Content.Root, "content", "words", "en", "retired.json");

    [Fact]
    public void Every_sentence_is_said_somewhere()
    {
        Assert.NotEmpty(Code);
        AssertNone(
            Sentences
                .Keys.Except(Code.Select(said => said.Id))
                .Where(id => !Retired.Contains(id) && !Lists.Contains(id.Split('.')[0]))
        );
    }

    [Fact]
    public void Every_rule_of_decisions_is_called_something()
    {
        var rules = Directory
            .EnumerateFiles(
                Path.Combine(Content.Root, "src", "Palaestra.Core"),
                "*.cs",
                SearchOption.AllDirectories
            )
            .SelectMany(path => RuleId().Matches(File.ReadAllText(path)).Select(m => m.Groups[1].Value))
            .ToHashSet();
        Assert.Contains("D-MASTER", rules);
        AssertNone(rules.Where(rule => !Sentences.ContainsKey($"rule.{rule}")));
        AssertNone(
            Sentences.Keys.Where(id =>
                id.StartsWith("rule.", StringComparison.Ordinal) && !rules.Contains(id[5..])
            )
        );
    }

    /// <summary>Ends without a dash: what ends with one begins the names of a group.</summary>
    [GeneratedRegex("\"(D-[A-Z-]*[A-Z])\"")]
    private static partial Regex RuleId();

    [Fact]
    public void Every_sentence_is_given_what_it_names() =>
        AssertNone(
            from said in Code
            where Sentences.ContainsKey(said.Id)
            let lacking = SentenceNames
                .In(Sentences[said.Id])
                .Except([.. said.Names, .. Later, .. SentenceNames.Optional(Sentences[said.Id])])
                .ToList()
            where lacking.Count > 0
            select $"{said}: {string.Join(", ", lacking)}"
        );

    [Fact]
    public void No_value_is_given_that_no_sentence_names() =>
        AssertNone(
            from said in Code
            where Sentences.ContainsKey(said.Id)
            let idle = said.Names.Except(SentenceNames.In(Sentences[said.Id])).ToList()
            where idle.Count > 0
            select $"{said}: {string.Join(", ", idle)}"
        );

    [Fact]
    public void The_clinics_sentence_takes_the_place_of_ours()
    {
        var read = Catalog.Read(
            new Dictionary<string, string> { ["a.json"] = """{"hello": "Good day, {{ name }}"}""" },
            new Dictionary<string, string> { ["b.json"] = """{"hello": "Hello {{ name }}"}""" }
        );
        Assert.Equal("Hello Ann", read.Value!.Say(Message.Of("hello", ("name", "Ann")), new Manner()));
    }

    [Theory]
    [InlineData("""{"hello": "{{ name"}""", "own b.json hello", "words.unreadable")]
    [InlineData("""{"other": "Hello"}""", "own b.json other", "words.none")]
    [InlineData("""{"hello": "Good {{ time }}"}""", "own b.json hello", "words.unknown-value")]
    [InlineData("""{"hello": 1}""", "b.json $.hello", Message.PlainId)]
    public void A_sentence_that_cannot_be_read_is_refused_by_name(string own, string field, string id)
    {
        var read = Catalog.Read(
            new Dictionary<string, string> { ["a.json"] = """{"hello": "Good day"}""" },
            new Dictionary<string, string> { ["b.json"] = own }
        );
        var error = Assert.Single(read.Errors);
        Assert.Equal((field, id), (error.Field, error.Message.Id));
    }

    private static readonly Gen<object> Anything = Gen.OneOf(
        Gen.Double.Select(number => (object)(double.IsNaN(number) ? 0 : number)),
        Gen.String.Select(text => (object)text),
        Gen.Bool.Select(flag => (object)flag),
        Gen.String.Array[0, 3].Select(list => (object)list),
        Gen.String.Select(text => (object)Message.Plain(text))
    );

    /// <summary>What was stored by another version, or came from outside, can be read whatever it holds.</summary>
    [Fact]
    public void Whatever_the_values_are_something_is_said() =>
        Gen.Select(Gen.Int[0, Sentences.Count - 1], Anything.Array[30])
            .Sample(
                (which, values) =>
                {
                    var (id, template) = Sentences.ElementAt(which);
                    var names = SentenceNames
                        .In(template)
                        .Zip(values, (name, value) => (name, (object?)value));
                    Assert.NotNull(Message.Of(id, [.. names]).En());
                },
                iter: Soak.Cases(20_000)
            );

    [Theory]
    [InlineData("on", "nonsense")]
    [InlineData("on", 1e300)]
    public void Values_a_sentence_cannot_say_show_its_id(string name, object value) =>
        Assert.Equal("[flare.taken-back]", Message.Of("flare.taken-back", (name, value)).En());

    [Fact]
    public void What_has_no_words_shows_its_id_and_what_was_written_is_said_as_it_stands()
    {
        Assert.Equal("[no-such-sentence]", Message.Of("no-such-sentence").En());
        Assert.Equal("{{ as it stands }}", Message.Plain("{{ as it stands }}").En());
    }

    /// <summary>All of them at once, not the first five.</summary>
    private static void AssertNone(IEnumerable<string> wrong) =>
        Assert.True(!wrong.Any(), $"\n{string.Join('\n', wrong)}");

    [GeneratedRegex("words?: \"([\\w-]+)\"")]
    private static partial Regex WordList();
}

/// <summary>One <c>Message.Of</c> in the sources: its id and the names of its values.</summary>
internal sealed record SaidInCode(string File, string Id, IReadOnlyList<string> Names)
{
    private const string Call = "Message.Of(";

    public static IEnumerable<SaidInCode> In(string file, string source)
    {
        for (
            var at = source.IndexOf(Call, StringComparison.Ordinal);
            at >= 0;
            at = source.IndexOf(Call, at + 1, StringComparison.Ordinal)
        )
        {
            var body = source[(at + Call.Length)..End(source, at + Call.Length)];
            var id = Regex.Match(body, """^\s*"([^"]+)"|^\s*Decision\.StandstillId""");
            if (id.Success)
            {
                // Names of this call alone: what is nested in it has its own.
                var flat = Nested(body);
                yield return new(
                    file,
                    id.Groups[1].Success ? id.Groups[1].Value : Core.Progression.Decision.StandstillId,
                    [.. Regex.Matches(flat, """\(\s*"([a-z_]+)",""").Select(m => m.Groups[1].Value)]
                );
            }
        }
    }

    private static int End(string source, int from)
    {
        var depth = 1;
        var at = from;
        for (var text = false; depth > 0; at++)
        {
            text ^= source[at] == '"' && source[at - 1] != '\\';
            depth +=
                text ? 0
                : source[at] == '(' ? 1
                : source[at] == ')' ? -1
                : 0;
        }
        return at - 1;
    }

    private static string Nested(string body)
    {
        for (
            var at = body.IndexOf(Call, StringComparison.Ordinal);
            at >= 0;
            at = body.IndexOf(Call, StringComparison.Ordinal)
        )
        {
            body = body[..at] + body[End(body, at + Call.Length)..];
        }
        return body;
    }

    public override string ToString() => $"{File} {Id}";
}
