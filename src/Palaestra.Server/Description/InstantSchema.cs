using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using NodaTime;

namespace Palaestra.Server.Description;

/// <summary>Says of an instant that it is a date with time.</summary>
public sealed class InstantSchema : IOpenApiSchemaTransformer
{
    public Task TransformAsync(
        OpenApiSchema schema,
        OpenApiSchemaTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        if (
            (Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type)
            == typeof(Instant)
        )
        {
            schema.Type = JsonSchemaType.String;
            schema.Format = "date-time";
            schema.Properties?.Clear();
        }
        return Task.CompletedTask;
    }
}
