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

    /// <summary>Adds what is said beside every property that holds a message, or a list of them.</summary>
    public static void AddSaid(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
        {
            return;
        }
        foreach (var property in type.Properties.ToList())
        {
            if (
                property.PropertyType == typeof(Message)
                && property.Name is "words" or "message"
                && !type.Properties.Any(p => p.Name is "id" or "values")
            )
            {
                AddBeside(type, property);
            }
            else if (property.PropertyType == typeof(Message))
            {
                Add<Said>(type, property, value => Said.Of((Message?)value), said => said.Message());
            }
            else if (typeof(IReadOnlyList<Message>).IsAssignableFrom(property.PropertyType))
            {
                Add<IReadOnlyList<Said?>>(
                    type,
                    property,
                    value =>
                        value is IReadOnlyList<Message> { Count: > 0 } list
                            ? [.. list.Select(Said.Of)]
                            : null,
                    said =>
                        said.All(one => one is not null) ? said.Select(one => one!.Message()).ToList() : null
                );
            }
        }
    }

    private static void Add<T>(
        JsonTypeInfo type,
        JsonPropertyInfo property,
        Func<object?, T?> said,
        Func<T, object?> message
    )
        where T : class
    {
        if (property.Get is not { } get)
        {
            return;
        }
        var added = type.CreateJsonPropertyInfo(typeof(T), $"{property.Name}Said");
        added.Get = holder => said(get(holder));
        added.ShouldSerialize = (_, value) => value is not null;
        if (property.Set is { } set)
        {
            added.Set = (holder, value) =>
            {
                if (value is T told && message(told) is { } read)
                {
                    set(holder, read);
                }
            };
        }
        type.Properties.Add(added);
    }

    /// <summary>Id and values beside the words, as fields of what holds them.</summary>
    private static void AddBeside(JsonTypeInfo type, JsonPropertyInfo property)
    {
        var get = property.Get!;
        Message Of(object holder) => (Message)get(holder)!;
        var id = type.CreateJsonPropertyInfo(typeof(string), "id");
        id.Get = holder => Of(holder) is { Text: null } said ? said.Id : null;
        var values = type.CreateJsonPropertyInfo(typeof(JsonElement?), "values");
        values.Get = holder => Said.Of(Of(holder))?.Values;
        id.ShouldSerialize = values.ShouldSerialize = (_, value) => value is not null;
        if (property.Set is { } set)
        {
            // They come in any order: the one that is first waits in the message for the other.
            id.Set = (holder, value) =>
            {
                if (value is string told)
                {
                    var there = Of(holder);
                    set(holder, there.Text is null ? there.As(told) : Message.Of(told));
                }
            };
            values.Set = (holder, value) =>
            {
                if (value is JsonElement { ValueKind: JsonValueKind.Object } told)
                {
                    var there = Of(holder);
                    set(holder, new Said(there.Text is null ? there.Id : "", told).Message());
                }
            };
        }
        type.Properties.Add(id);
        type.Properties.Add(values);
    }
}
