using System.Text.Json;

namespace Palaestra.Words;

/// <summary>A made-up message for every sentence.</summary>
/// <param name="samples">Values by name, or by id and name; a name without one is a number.</param>
public sealed class SentenceSamples(Catalog catalog, string samples)
{
    private const double AnyNumber = 3;

    private readonly Dictionary<string, JsonElement> values = JsonSerializer.Deserialize<
        Dictionary<string, JsonElement>
    >(samples)!;

    /// <summary>With all values that our sentence names.</summary>
    public Message Of(string id) =>
        Message.Of(id, [.. SentenceNames.In(catalog.Texts[id]).Select(name => (name, Value(id, name)))]);

    private object? Value(string id, string name) =>
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
