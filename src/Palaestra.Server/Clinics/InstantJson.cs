using System.Text.Json;
using System.Text.Json.Serialization;
using NodaTime;

namespace Palaestra.Server.Clinics;

/// <summary>
/// An instant as the API tells it: the time on the clinic's wall with its distance from UTC. Read, it needs that distance (or Z).
/// </summary>
public sealed class InstantJson(ClinicClock clock) : JsonConverter<Instant>
{
    public override Instant Read(
        ref Utf8JsonReader reader,
        Type typeToConvert,
        JsonSerializerOptions options
    ) => Instant.FromDateTimeOffset(reader.GetDateTimeOffset());

    public override void Write(Utf8JsonWriter writer, Instant value, JsonSerializerOptions options) =>
        writer.WriteStringValue(clock.Zone.Tell(value));
}
