using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Palaestra.Server.Description;

/// <summary>
/// Keeps null out of the named enumerations of the API description: where a value may be absent, the place that uses
/// it says so.
/// </summary>
public sealed class PlainEnums : IOpenApiSchemaTransformer
{
    public Task TransformAsync(
        OpenApiSchema schema,
        OpenApiSchemaTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        if (schema.Enum is { Count: > 0 } values)
        {
            schema.Enum = [.. values.Where(value => value?.ToString().Length > 0)];
            schema.Type ??= JsonSchemaType.String;
        }
        return Task.CompletedTask;
    }
}
