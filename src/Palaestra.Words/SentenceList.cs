using System.Text;
using System.Text.Json;
using Palaestra.Core.Library;

namespace Palaestra.Words;

/// <summary>All sentences with an example each, for reading them through: <c>docs/reasons.md</c>.</summary>
public static class SentenceList
{
    private const double AnyNumber = 3;

    /// <param name="samples">Values by name, or by id and name; a name without one is a number.</param>
    public static string Text(Catalog catalog, PracticeLibrary library, string samples)
    {
        var values = JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(samples)!;
        var text = new StringBuilder(
            """
            # Everything that is said

            Made by `./palaestra generate` from `content/words/en` with the values of `content/words/samples.json`.
            The first part of an id names the group. How sentences are written: [words.md](words.md).

            | id | example |
            |---|---|

            """
        );
        foreach (var (id, template) in catalog.Texts.OrderBy(pair => pair.Key, StringComparer.Ordinal))
        {
            var said = catalog.Say(Sample(id, template, values), new Manner(library));
            text.Append("| `").Append(id).Append("` | ").Append(said.Replace("|", "\\|")).Append(" |\n");
        }
        return text.ToString();
    }

    private static Message Sample(string id, string template, Dictionary<string, JsonElement> values) =>
        Message.Of(id, [.. SentenceNames.In(template).Select(name => (name, Value(id, name, values)))]);

    private static object? Value(string id, string name, Dictionary<string, JsonElement> values) =>
        values.TryGetValue($"{id} {name}", out var own) ? Held(own)
        : values.TryGetValue(name, out var any) ? Held(any)
        : AnyNumber;

    private static object? Held(JsonElement value) =>
        value.ValueKind switch
        {
            JsonValueKind.Null => null,
            JsonValueKind.String => value.GetString(),
            JsonValueKind.Number => value.GetDouble(),
            JsonValueKind.Array => value.EnumerateArray().Select(Held).ToArray(),
            _ => value.GetBoolean(),
        };
}
