using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace Palaestra.Core.Terms;

/// <summary>
/// The one way the product writes JSON: camel-case names, kebab-case words for enumerations (never numbers),
/// numbers as numbers, unknown fields refused. Content files, stored documents and the API all use it.
/// </summary>
public static class CoreJson
{
    /// <summary>As records are stored and answered.</summary>
    public static JsonSerializerOptions Options { get; } = Create();

    /// <summary>For what was stored by this version or an earlier one: fields that are no more are passed over.</summary>
    public static JsonSerializerOptions Stored { get; } = CreateStored();

    /// <summary>Sets options of somebody else the same way.</summary>
    public static void Configure(JsonSerializerOptions options)
    {
        options.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.AllowOutOfOrderMetadataProperties = true;
        options.Converters.Add(
            new JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower, allowIntegerValues: false)
        );
        options.Converters.Add(new MessageJson());
    }

    private static JsonSerializerOptions CreateStored()
    {
        var options = new JsonSerializerOptions(Options)
        {
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Skip,
        };
        options.MakeReadOnly();
        return options;
    }

    private static JsonSerializerOptions Create()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            WriteIndented = false,
            TypeInfoResolver = new DefaultJsonTypeInfoResolver(),
        };
        Configure(options);
        options.MakeReadOnly();
        return options;
    }
}
