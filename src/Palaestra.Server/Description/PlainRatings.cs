using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Palaestra.Core.Agreement;

namespace Palaestra.Server.Description;

/// <summary>A rating is a number or a name, as it stands: its converter says nothing of that.</summary>
public sealed class PlainRatings : IOpenApiSchemaTransformer
{
    public Task TransformAsync(
        OpenApiSchema schema,
        OpenApiSchemaTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        if (context.JsonTypeInfo.Type == typeof(IReadOnlyList<Rating>))
        {
            schema.Items = new OpenApiSchema { Type = JsonSchemaType.Number | JsonSchemaType.String };
        }
        return Task.CompletedTask;
    }
}
