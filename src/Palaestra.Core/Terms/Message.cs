using System.Globalization;
using System.Text.Json;

namespace Palaestra.Core.Terms;

/// <summary>
/// What is to be said, without its words: which sentence, and the values in it. The words are put at the edge, from
/// <c>content/words</c>.
/// </summary>
/// <remarks>
/// A value is a number (double), a text, true or false, another message, or a list of those. Dates are texts (2026-03-03),
/// members of an enumeration are texts (<c>step-up</c>), as in JSON; so what was stored and read again is equal to what it was.
/// </remarks>
public sealed class Message : IEquatable<Message>
{
    /// <summary>The id of what is said as it stands: what somebody wrote, and sentences of records made before there were ids.</summary>
    public const string PlainId = "plain";

    private const string PlainName = "text";

    /// <param name="values">Only values as the remarks of the type allow.</param>
    internal Message(string id, IReadOnlyDictionary<string, object> values)
    {
        Id = id;
        Values = values;
    }

    /// <summary>Which sentence: the key of its words.</summary>
    public string Id { get; }

    /// <summary>By name; empty where the sentence has none. What was null is not there.</summary>
    public IReadOnlyDictionary<string, object> Values { get; }

    /// <summary>The words themselves where they stand as they are; none for a sentence of the catalogue.</summary>
    public string? Text =>
        Id != PlainId ? null
        : Values.GetValueOrDefault(PlainName) is string text ? text
        : "";

    /// <param name="values">Numbers, texts, dates, members of enumerations, messages, or lists of them; null leaves one out.</param>
    /// <exception cref="ArgumentException">A value is of another kind.</exception>
    public static Message Of(string id, params ReadOnlySpan<(string Name, object? Value)> values)
    {
        var kept = new Dictionary<string, object>(values.Length, StringComparer.Ordinal);
        foreach (var (name, value) in values)
        {
            if (value is not null)
            {
                kept.Add(name, Kept(value));
            }
        }
        return new Message(id, kept);
    }

    /// <summary>The same with values that are known only later; of a plain message nothing changes.</summary>
    public Message With(params ReadOnlySpan<(string Name, object? Value)> values)
    {
        var later = Of(Id, values);
        return Text is not null
            ? this
            : new(Id, Values.Concat(later.Values).ToDictionary(pair => pair.Key, pair => pair.Value));
    }

    /// <summary>What is said as it stands, in whatever language it was written.</summary>
    public static Message Plain(string words) => Of(PlainId, (PlainName, words));

    private static object Kept(object value) =>
        value switch
        {
            string or bool or double or Message => value,
            Enum member => JsonNamingPolicy.KebabCaseLower.ConvertName(member.ToString()),
            DateOnly day => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            int or long or float or decimal => Convert.ToDouble(value, CultureInfo.InvariantCulture),
            System.Collections.IEnumerable list => list.Cast<object>().Select(Kept).ToArray(),
            _ => throw new ArgumentException($"A message holds no {value.GetType().Name}.", nameof(value)),
        };

    /// <summary>The same id with the same values.</summary>
    public bool Equals(Message? other) =>
        other is not null
        && Id == other.Id
        && Values.Count == other.Values.Count
        && Values.All(pair => other.Values.TryGetValue(pair.Key, out var theirs) && Same(pair.Value, theirs));

    private static bool Same(object mine, object theirs) =>
        (mine, theirs) is (object[] a, object[] b)
            ? a.Length == b.Length && a.Zip(b).All(pair => Same(pair.First, pair.Second))
            : mine.Equals(theirs);

    /// <summary>The same id with the same values.</summary>
    public override bool Equals(object? obj) => Equals(obj as Message);

    /// <summary>By id and number of values.</summary>
    public override int GetHashCode() => HashCode.Combine(Id, Values.Count);

    /// <summary>For logs and failing tests: the id and the values, never words.</summary>
    public override string ToString() => JsonSerializer.Serialize(this, CoreJson.Options);
}
