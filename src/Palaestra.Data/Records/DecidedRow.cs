using System.Text.Json;
using System.Text.Json.Serialization;
using Palaestra.Data.Progression;

namespace Palaestra.Data.Records;

/// <summary>What the rules looked at when a visit was decided, with its input as the text that is stored: of a long record it is most of the file.</summary>
public sealed record DecidedRow(
    Guid VisitId,
    [property: JsonConverter(typeof(DecidedRow.AsItStands))] string Input,
    Guid PlanRevisionId,
    int PolicyVersion,
    string LibraryVersion
)
{
    /// <exception cref="JsonException">The input is none.</exception>
    public DecidedVisit Visit() =>
        new()
        {
            VisitId = VisitId,
            Input = JsonSerializer.Deserialize<Palaestra.Core.Progression.DecideInput>(
                Input,
                CoreJson.Stored
            )!,
            PlanRevisionId = PlanRevisionId,
            PolicyVersion = PolicyVersion,
            LibraryVersion = LibraryVersion,
        };

    internal sealed class AsItStands : JsonConverter<string>
    {
        public override string Read(
            ref Utf8JsonReader reader,
            Type typeToConvert,
            JsonSerializerOptions options
        )
        {
            using var read = JsonDocument.ParseValue(ref reader);
            return read.RootElement.GetRawText();
        }

        public override void Write(Utf8JsonWriter writer, string value, JsonSerializerOptions options) =>
            writer.WriteRawValue(value, skipInputValidation: true);
    }
}
