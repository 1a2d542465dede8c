using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using Palaestra.Core.Library;

namespace Palaestra.Server.Library;

/// <summary>Writes the JSON Schemas of the content files from the types that read them, so that the two cannot differ.</summary>
public static class SchemaWriter
{
    private static readonly JsonSerializerOptions Readable = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    public static IEnumerable<(string Name, string Text)> Schemas() =>
        ContentFiles.Schemas.Select(pair => (pair.Key, Text(pair.Key, pair.Value)));

    public static void Write(string folder)
    {
        foreach (var (name, text) in Schemas())
        {
            File.WriteAllText(Path.Combine(folder, $"{name}.schema.json"), text);
        }
    }

    private static string Text(string name, Type type)
    {
        var schema = JsonSchemaExporter.GetJsonSchemaAsNode(
            CoreJson.Options,
            type,
            new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true }
        );
        schema.AsObject().Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.AsObject().Insert(1, "title", JsonValue.Create($"Palaestra content: {name}"));
        return schema.ToJsonString(Readable) + "\n";
    }
}
