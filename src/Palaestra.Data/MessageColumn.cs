using System.Text.Json;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Palaestra.Data;

/// <summary>A message is stored as JSON, id and values; what was stored as a sentence before there were ids stays one.</summary>
internal sealed class MessageColumn()
    : ValueConverter<Message, string>(
        message => JsonSerializer.Serialize(message, CoreJson.Options),
        stored => Read(stored)
    )
{
    private static Message Read(string stored) =>
        stored is ['{' or '"', ..] && TryRead(stored) is { } message ? message : Message.Plain(stored);

    private static Message? TryRead(string stored)
    {
        try
        {
            return JsonSerializer.Deserialize<Message>(stored, CoreJson.Stored);
        }
        catch (JsonException)
        {
            return null;
        }
    }
}
