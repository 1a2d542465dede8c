using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Palaestra.Core.Screening;

namespace Palaestra.Server.Description;

/// <summary>Says of a union told apart by a word that it is one of its kinds, and that a kind has no other fields.</summary>
public sealed class ClosedUnions : IOpenApiSchemaTransformer
{
    private const string Discriminator = "kind";

    public Task TransformAsync(
        OpenApiSchema schema,
        OpenApiSchemaTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        if (schema is { Discriminator: not null, AnyOf: { Count: > 0 } kinds })
        {
            schema.OneOf = [.. kinds];
            schema.AnyOf = null;
            schema.Type = null;
            schema.Required?.Clear();
            // The kinds are described under their own names, not under those of the union and the kind together.
            var union = context.JsonTypeInfo.Type.Name;
            foreach (var (word, kind) in schema.Discriminator.Mapping?.ToList() ?? [])
            {
                if (kind.Reference.Id is { } id && id.StartsWith(union, StringComparison.Ordinal))
                {
                    schema.Discriminator.Mapping![word] = new OpenApiSchemaReference(id[union.Length..], context.Document);
                }
            }
        }
        if (typeof(CaptureEvent).IsAssignableFrom(context.JsonTypeInfo.Type))
        {
            if (schema.Properties?.ContainsKey(Discriminator) == true)
            {
                (schema.Required ??= new HashSet<string>()).Add(Discriminator);
            }
            schema.AdditionalProperties = null;
            schema.AdditionalPropertiesAllowed = false;
        }
        return Task.CompletedTask;
    }
}
