using System.Text.Json;
using System.Text.Json.Serialization;

namespace Palaestra.Core.Agreement;

/// <summary>What a rater gave an item: a number or a name. Neither, where something else was told.</summary>
[JsonConverter(typeof(RatingJson))]
public readonly record struct Rating(double? Number, string? Name);

/// <summary>A rating as it is told: the number or the name itself.</summary>
internal sealed class RatingJson : JsonConverter<Rating>
{
    /// <summary>Nothing at all is refused with its place, as other wrong values are.</summary>
    public override bool HandleNull => true;

    public override Rating Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType == JsonTokenType.Number)
        {
            return new(reader.TryGetDouble(out var number) ? number : null, null);
        }
        if (reader.TokenType == JsonTokenType.String)
        {
            return new(null, reader.GetString());
        }
        reader.Skip();
        return default;
    }

    public override void Write(Utf8JsonWriter writer, Rating value, JsonSerializerOptions options)
    {
        if (value.Number is { } number)
        {
            writer.WriteNumberValue(number);
        }
        else
        {
            writer.WriteStringValue(value.Name);
        }
    }
}
