using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Palaestra.Exchange.Instruments;

/// <summary>
/// The text of a file of samples, as the UTF-8 it came in: an hour and a half of a sensor is 31 MB of that, and twice as much as
/// a string.
/// </summary>
[JsonConverter(typeof(TraceTextJson))]
public sealed class TraceText(ReadOnlyMemory<byte> utf8)
{
    public static implicit operator TraceText(string text) => new(Encoding.UTF8.GetBytes(text));

    public ReadOnlyMemory<byte> Utf8 => utf8;

    /// <summary>From its beginning, without a mark of the byte order.</summary>
    public TextReader Open() =>
        new StreamReader(
            System.Runtime.InteropServices.MemoryMarshal.TryGetArray(utf8, out var bytes)
                ? new MemoryStream(bytes.Array!, bytes.Offset, bytes.Count, writable: false)
                : new MemoryStream(utf8.ToArray(), writable: false),
            Encoding.UTF8
        );
}

/// <summary>In JSON it is a string.</summary>
public sealed class TraceTextJson : JsonConverter<TraceText>
{
    public override TraceText Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    )
    {
        if (reader.TokenType != JsonTokenType.String)
        {
            throw new JsonException("The value could not be converted to text.");
        }
        var length = reader.HasValueSequence ? reader.ValueSequence.Length : reader.ValueSpan.Length;
        var bytes = new byte[length];
        try
        {
            return new(bytes.AsMemory(0, reader.CopyString(bytes)));
        }
        catch (InvalidOperationException broken)
        {
            // Half of a surrogate pair, or bytes that are no UTF-8.
            throw new JsonException("The value could not be converted to text.", broken);
        }
    }

    public override void Write(Utf8JsonWriter writer, TraceText value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.Utf8.Span);
}
