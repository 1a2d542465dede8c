using System.Text.Json;
using System.Text.RegularExpressions;
using Palaestra.Core.Photos;
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
    ];

    [Fact]
    public void Everything_said_in_code_has_words() =>
        AssertNone(Code.Where(said => !Sentences.ContainsKey(said.Id)).Select(said => said.ToString()));

    [Fact]
    public void Every_sentence_is_said_somewhere() =>
        AssertNone(
            Sentences.Keys.Except(Code.Select(said => said.Id)).Where(id => !Lists.Contains(id.Split('.')[0]))
        );

    [Fact]
    public void Every_sentence_is_given_what_it_names() =>
        AssertNone(
            from said in Code
            where Sentences.ContainsKey(said.Id)
            let lacking = NamedIn(Sentences[said.Id])
                .Except([.. said.Names, .. Later, .. AskedIn(Sentences[said.Id])])
                .ToList()
            where lacking.Count > 0
            select $"{said}: {string.Join(", ", lacking)}"
        );

    [Fact]
    public void No_value_is_given_that_no_sentence_names() =>
        AssertNone(
            from said in Code
            where Sentences.ContainsKey(said.Id)
            let idle = said.Names.Except(NamedIn(Sentences[said.Id])).ToList()
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
    [InlineData("""{"hello": "{{ name"}""", "b.json hello", "words.unreadable")]
    [InlineData("""{"other": "Hello"}""", "own b.json other", "words.none")]
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

    [Fact]
    public void What_has_no_words_shows_its_id_and_what_was_written_is_said_as_it_stands()
    {
        Assert.Equal("[no-such-sentence]", Message.Of("no-such-sentence").En());
        Assert.Equal("{{ as it stands }}", Message.Plain("{{ as it stands }}").En());
    }

    /// <summary>All of them at once, not the first five.</summary>
    private static void AssertNone(IEnumerable<string> wrong) =>
        Assert.True(!wrong.Any(), $"\n{string.Join('\n', wrong)}");

    /// <summary>The values a template names, its own assignments left out.</summary>
    private static IEnumerable<string> NamedIn(string template)
    {
        var code = Text().Replace(string.Join(' ', Tag().Matches(template).Select(m => m.Value)), "''");
        var own = Own().Matches(code).Select(m => m.Groups[1].Value);
        return Filter()
            .Replace(Member().Replace(Argument().Replace(code, ""), ""), "|")
            .Split(
                [' ', '{', '}', '%', '|', ',', '\'', ':', '-', '\n'],
                StringSplitOptions.RemoveEmptyEntries
            )
            .Where(word => Name().IsMatch(word))
            .Except([.. own, .. Keywords]);
    }

    /// <summary>Values a template asks for before it names them: they may be left out.</summary>
    private static IEnumerable<string> AskedIn(string template) =>
        Asked().Matches(template).SelectMany(m => NamedIn(m.Value));

    [GeneratedRegex("""\{% (?:if|elsif|unless) .*? %\}""")]
    private static partial Regex Asked();

    private static readonly string[] Keywords =
    [
        "if",
        "elsif",
        "else",
        "endif",
        "unless",
        "endunless",
        "case",
        "when",
        "endcase",
        "for",
        "in",
        "endfor",
        "assign",
        "capture",
        "endcapture",
        "and",
        "or",
        "contains",
        "forloop",
    ];

    [GeneratedRegex(@"\{\{.*?\}\}|\{%.*?%\}", RegexOptions.Singleline)]
    private static partial Regex Tag();

    [GeneratedRegex("\"[^\"]*\"")]
    private static partial Regex Text();

    [GeneratedRegex(@"(?:assign|capture|for)\s+(\w+)")]
    private static partial Regex Own();

    [GeneratedRegex(@"\|\s*\w+")]
    private static partial Regex Filter();

    [GeneratedRegex(@"\.\w+")]
    private static partial Regex Member();

    [GeneratedRegex(@"\b\w+:")]
    private static partial Regex Argument();

    [GeneratedRegex("^[a-z_]+$")]
    private static partial Regex Name();

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
