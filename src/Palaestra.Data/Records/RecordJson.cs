using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using NodaTime;
using NodaTime.Text;
using Palaestra.Data.Intake;

namespace Palaestra.Data.Records;

/// <summary>How a record is written and read: stored fields alone, times in UTC (ISO 8601, to the tick), unknown fields passed over.</summary>
public static class RecordJson
{
    public static JsonSerializerOptions Options { get; } = Create(StoredAlone);

    /// <summary>The same, with every author said to be from elsewhere.</summary>
    /// <param name="from">In brackets behind the name: "imported from …".</param>
    public static JsonSerializerOptions Imported(string from)
    {
        var said = new Elsewhere($" ({from})");
        return Create(
            StoredAlone,
            type =>
            {
                foreach (var property in type.Properties.Where(IsAuthor))
                {
                    property.CustomConverter = said;
                }
            }
        );
    }

    /// <summary>Fields that name somebody: "by", "acceptedBy".</summary>
    private static bool IsAuthor(JsonPropertyInfo property) =>
        property.PropertyType == typeof(string)
        && (property.Name == "by" || property.Name.EndsWith("By", StringComparison.Ordinal));

    private static JsonSerializerOptions Create(params Action<JsonTypeInfo>[] modifiers)
    {
        var resolver = new DefaultJsonTypeInfoResolver();
        foreach (var modifier in modifiers)
        {
            resolver.Modifiers.Add(modifier);
        }
        var options = new JsonSerializerOptions(CoreJson.Stored)
        {
            TypeInfoResolver = resolver,
            // Read as a file and never as a part of a page.
            Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        };
        options.Converters.Add(new InUtc());
        options.MakeReadOnly();
        return options;
    }

    /// <summary>Without what belongs together by reference, what is worked out, and the secrets of addresses.</summary>
    private static void StoredAlone(JsonTypeInfo type)
    {
        if (type.Type.Namespace?.StartsWith("Palaestra.Data", StringComparison.Ordinal) != true)
        {
            return;
        }
        foreach (var property in type.Properties.ToList())
        {
            if (
                type.Type == typeof(Episode) && property.Name is "client" or "feedKey" or "homeKey"
                || type.Type == typeof(Client) && property.Name is "heightCm" or "searchText"
                || property.AttributeProvider is System.Reflection.PropertyInfo { CanWrite: false }
            )
            {
                type.Properties.Remove(property);
            }
        }
    }

    private sealed class Elsewhere(string said) : JsonConverter<string>
    {
        public override string? Read(
            ref Utf8JsonReader reader,
            Type typeToConvert,
            JsonSerializerOptions options
        ) =>
            reader.GetString() is { Length: > 0 } name && !name.EndsWith(said, StringComparison.Ordinal)
                ? name + said
                : reader.GetString();

        public override void Write(Utf8JsonWriter writer, string value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value);
    }

    private sealed class InUtc : JsonConverter<Instant>
    {
        public override Instant Read(
            ref Utf8JsonReader reader,
            Type typeToConvert,
            JsonSerializerOptions options
        ) =>
            InstantPattern.ExtendedIso.Parse(reader.GetString() ?? "") is { Success: true, Value: var at }
                ? at
                : throw new JsonException("This is no time in UTC.");

        public override void Write(Utf8JsonWriter writer, Instant value, JsonSerializerOptions options) =>
            writer.WriteStringValue(
                InstantPattern.ExtendedIso.WithCulture(CultureInfo.InvariantCulture).Format(value)
            );
    }
}
