using System.Text.Json;
using System.Text.Json.Serialization;

namespace Palaestra.Core.Terms;

/// <summary>
/// Messages as they are stored: id and values, no words. Sentences of records made before, and what somebody wrote, are plain
/// texts, and stay so.
/// </summary>
public sealed class MessageJson : JsonConverter<Message>
{
    /// <exception cref="JsonException">Neither a text nor an object with an id.</exception>
    public override Message Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        using var read = JsonDocument.ParseValue(ref reader);
        return Of(read.RootElement) as Message ?? throw new JsonException("A text or a message is needed.");
    }

    /// <summary>Id and values; what is said is added where it is answered.</summary>
    public override void Write(Utf8JsonWriter writer, Message value, JsonSerializerOptions options)
    {
        if (value.Text is { } text)
        {
            writer.WriteStringValue(text);
        }
        else
        {
            WriteObject(writer, value);
        }
    }

    /// <summary>Reads id and values; a text is a plain message.</summary>
    /// <returns>A message for a text or an object; what a message holds for anything else.</returns>
    public static object? Of(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.String => Message.Plain(element.GetString()!),
            JsonValueKind.Object
                when element.TryGetProperty("id", out var id) && id.ValueKind == JsonValueKind.String =>
                new Message(
                    id.GetString()!,
                    element.TryGetProperty("values", out var values)
                    && values.ValueKind == JsonValueKind.Object
                        ? values
                            .EnumerateObject()
                            .Where(pair => pair.Value.ValueKind != JsonValueKind.Null)
                            .ToDictionary(pair => pair.Name, pair => Held(pair.Value), StringComparer.Ordinal)
                        : new Dictionary<string, object>()
                ),
            _ => null,
        };

    private static object Held(JsonElement element) =>
        element.ValueKind switch
        {
            JsonValueKind.String => element.GetString()!,
            JsonValueKind.Number => element.GetDouble(),
            JsonValueKind.True => true,
            JsonValueKind.False => false,
            JsonValueKind.Array => element.EnumerateArray().Select(Held).ToArray(),
            _ => Of(element) ?? throw new JsonException("A message holds no such value."),
        };

    /// <summary>Writes <c>{ "id": …, "values": { … } }</c>, plain messages too.</summary>
    public static void WriteObject(Utf8JsonWriter writer, Message message)
    {
        writer.WriteStartObject();
        writer.WriteString("id", message.Id);
        writer.WritePropertyName("values");
        WriteValues(writer, message);
        writer.WriteEndObject();
    }

    /// <summary>The values alone, as an object.</summary>
    public static void WriteValues(Utf8JsonWriter writer, Message message)
    {
        writer.WriteStartObject();
        foreach (var (name, value) in message.Values)
        {
            writer.WritePropertyName(name);
            WriteHeld(writer, value);
        }
        writer.WriteEndObject();
    }

    private static void WriteHeld(Utf8JsonWriter writer, object value)
    {
        switch (value)
        {
            case string text:
                writer.WriteStringValue(text);
                break;
            case double number:
                writer.WriteNumberValue(number);
                break;
            case bool flag:
                writer.WriteBooleanValue(flag);
                break;
            case Message message:
                WriteObject(writer, message);
                break;
            case object[] list:
                writer.WriteStartArray();
                foreach (var part in list)
                {
                    WriteHeld(writer, part);
                }
                writer.WriteEndArray();
                break;
        }
    }
}
