using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;
using Palaestra.Exchange.Instruments;

namespace Palaestra.Server.Description;

/// <summary>Says what is written as text although its type has parts: an instant is a date with time, a file of samples is its text, a
/// message is its words.</summary>
public sealed class PlainTexts : IOpenApiSchemaTransformer
{
    public Task TransformAsync(
        OpenApiSchema schema,
        OpenApiSchemaTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        var type = context.JsonTypeInfo.Type;
        var instant = (Nullable.GetUnderlyingType(type) ?? type) == typeof(Instant);
        if (instant || type == typeof(TraceText) || type == typeof(Message))
        {
            schema.Type =
                type == typeof(Message) && context.JsonPropertyInfo is { IsGetNullable: true }
                    ? JsonSchemaType.String | JsonSchemaType.Null
                    : JsonSchemaType.String;
            schema.Format = instant ? "date-time" : null;
            schema.Properties?.Clear();
        }
        else if (typeof(IReadOnlyList<Message>).IsAssignableFrom(type))
        {
            schema.Items = new OpenApiSchema { Type = JsonSchemaType.String };
        }
        return Task.CompletedTask;
    }
}
