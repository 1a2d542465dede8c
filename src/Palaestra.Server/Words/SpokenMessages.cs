using System.Runtime.CompilerServices;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Palaestra.Core.Photos;

namespace Palaestra.Server.Words;

/// <summary>What is said beside its words: the id and the values. Read back, it takes the place of the words.</summary>
public sealed record Said(string Id, JsonElement Values)
{
    /// <summary>None for what is said as it stands.</summary>
    public static Said? Of(Message? message) =>
        message is null or { Text: not null }
            ? null
            : new(
                message.Id,
                JsonSerializer.SerializeToElement(message, CoreJson.Options).GetProperty("values")
            );

    public Message Message() =>
        (Message)MessageJson.Of(JsonSerializer.SerializeToElement(this, CoreJson.Options))!;
}

/// <summary>
/// Messages as the API tells them: in words, where they always stood, and beside each what it is: <c>words</c> has <c>id</c> and
/// <c>values</c>, <c>todo</c> has <c>todoSaid</c>, a list has a list.
/// </summary>
public sealed class SpokenMessages(ClinicWords words) : JsonConverter<Message>
{
    private static readonly MessageJson Stored = new();

    public override Message Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => Stored.Read(ref reader, typeToConvert, options);

    public override void Write(Utf8JsonWriter writer, Message value, JsonSerializerOptions options) =>
        writer.WriteStringValue(words.Say(value));

    /// <summary>
    /// Adds what is said beside every property that holds a message, or a list of them. What is sent back takes the place of the
    /// words only where it says just them: words that somebody changed stand as they are.
    /// </summary>
    public void AddSaid(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
        {
            return;
        }
        foreach (var property in type.Properties.Where(property => property.Get is not null).ToList())
        {
            if (typeof(IReadOnlyList<Message>).IsAssignableFrom(property.PropertyType))
            {
                AddList(type, property);
            }
            else if (property.PropertyType != typeof(Message))
            {
                continue;
            }
            else if (
                property.Name is "words" or "message"
                && !type.Properties.Any(p => p.Name is "id" or "values")
            )
            {
                AddBeside(type, property);
            }
            else
            {
                AddOne(type, property);
            }
        }
    }

    private void AddOne(JsonTypeInfo type, JsonPropertyInfo property)
    {
        var added = Added<Said>(
            type,
            $"{property.Name}Said",
            holder => Said.Of((Message?)property.Get!(holder))
        );
        added.Set = (holder, sent) =>
            Put(property, holder, Same((Message?)property.Get!(holder), (sent as Said)?.Message()));
    }

    private void AddList(JsonTypeInfo type, JsonPropertyInfo property)
    {
        IReadOnlyList<Message>? There(object holder) => (IReadOnlyList<Message>?)property.Get!(holder);
        var added = Added<IReadOnlyList<Said?>>(
            type,
            $"{property.Name}Said",
            holder => There(holder) is { Count: > 0 } list ? list.Select(Said.Of).ToList() : null
        );
        added.Set = (holder, sent) =>
        {
            if (sent is IReadOnlyList<Said?> said && There(holder) is { } there && said.Count == there.Count)
            {
                Put(
                    property,
                    holder,
                    there.Zip(said, (words, one) => Same(words, one?.Message()) ?? words).ToList()
                );
            }
        };
    }

    /// <summary>Id and values beside the words, as fields of what holds them; they come in any order.</summary>
    private void AddBeside(JsonTypeInfo type, JsonPropertyInfo property)
    {
        var waiting = new ConditionalWeakTable<object, Sent>();
        Said? There(object holder) => Said.Of((Message?)property.Get!(holder));
        var id = Added<string>(type, "id", holder => There(holder)?.Id);
        var values = Added<JsonElement?>(type, "values", holder => There(holder)?.Values);
        id.Set = (holder, sent) =>
            Read(holder, waiting.GetOrCreateValue(holder) with { Id = sent as string });
        values.Set = (holder, sent) =>
            Read(holder, waiting.GetOrCreateValue(holder) with { Values = sent as JsonElement? });

        void Read(object holder, Sent sent)
        {
            waiting.AddOrUpdate(holder, sent);
            if (sent is { Id: { } which, Values: { } with })
            {
                Put(property, holder, Same((Message?)property.Get!(holder), new Said(which, with).Message()));
            }
        }
    }

    private sealed record Sent(string? Id, JsonElement? Values)
    {
        public Sent()
            : this(null, null) { }
    }

    private static JsonPropertyInfo Added<T>(JsonTypeInfo type, string name, Func<object, object?> get)
    {
        var added = type.CreateJsonPropertyInfo(typeof(T), name);
        added.Get = get;
        added.ShouldSerialize = (_, value) => value is not null;
        type.Properties.Add(added);
        return added;
    }

    /// <summary>What was sent, where it says the very words it came with; none else.</summary>
    private Message? Same(Message? there, Message? sent) =>
        sent is not null && there?.Text is { } text && words.Say(sent) == text ? sent : null;

    private static void Put(JsonPropertyInfo property, object holder, object? read)
    {
        if (read is not null)
        {
            property.Set?.Invoke(holder, read);
        }
    }
}
