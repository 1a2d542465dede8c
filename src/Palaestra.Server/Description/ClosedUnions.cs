using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Palaestra.Core.Capture;

namespace Palaestra.Server.Description;

/// <summary>Says of a union told apart by a word that it is one of its kinds, and that a kind has no other fields.</summary>
public sealed class ClosedUnions : IOpenApiSchemaTransformer, IOpenApiDocumentTransformer
{
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
                    schema.Discriminator.Mapping![word] = new OpenApiSchemaReference(
                        id[union.Length..],
                        context.Document
                    );
                }
            }
        }
        if (typeof(CaptureEvent).IsAssignableFrom(context.JsonTypeInfo.Type))
        {
            schema.AdditionalProperties = null;
            schema.AdditionalPropertiesAllowed = false;
        }
        return Task.CompletedTask;
    }

    /// <summary>The word that tells the kinds apart is always there.</summary>
    public Task TransformAsync(
        OpenApiDocument document,
        OpenApiDocumentTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        var schemas = document.Components?.Schemas ?? new Dictionary<string, IOpenApiSchema>();
        foreach (var union in schemas.Values.OfType<OpenApiSchema>().Where(s => s.Discriminator is not null))
        {
            foreach (var kind in union.Discriminator!.Mapping?.Values ?? [])
            {
                if (
                    kind.Reference.Id is { } id
                    && schemas.TryGetValue(id, out var named)
                    && named is OpenApiSchema own
                )
                {
                    (own.Required ??= new HashSet<string>()).Add(union.Discriminator.PropertyName!);
                }
            }
        }
        return Task.CompletedTask;
    }
}
