using System.Reflection;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Mvc.ApiExplorer;
using Microsoft.AspNetCore.Mvc.ModelBinding;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;
using Palaestra.Server.Intake;
using Palaestra.Server.People;

namespace Palaestra.Server.Description;

/// <summary>What every refusal holds (RFC 9457), for the API description.</summary>
/// <param name="Title">A sentence for people. <paramref name="Detail"/>: more of it, where there is more.</param>
/// <param name="Status">The HTTP status.</param>
/// <param name="Errors">What is wrong with which field of what was sent; none where it is not about fields.</param>
/// <param name="Current">At a conflict: what stands there now, in the form that was sent or asked for.</param>
public sealed record ProblemView(
    string Title,
    int Status,
    string? Type = null,
    string? Detail = null,
    IReadOnlyList<FieldError>? Errors = null,
    object? Current = null
);

/// <summary>Adds to each operation how it refuses: what follows from what it takes, and what it says of itself.</summary>
public sealed class Refusals : IOpenApiOperationTransformer
{
    private const string Problem = "application/problem+json";

    public async Task TransformAsync(
        OpenApiOperation operation,
        OpenApiOperationTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        var document = context.Document!;
        if (document.Components?.Schemas?.ContainsKey(nameof(Problem)) != true)
        {
            var schema = await context.GetOrCreateSchemaAsync(typeof(ProblemView), null, cancellationToken);
            // Whoever reads one must not stumble over members added later.
            schema.AdditionalPropertiesAllowed = true;
            document.AddComponent<IOpenApiSchema>(nameof(Problem), schema);
        }
        operation.Responses ??= [];
        foreach (var status in Of(context.Description).Order())
        {
            operation.Responses[$"{status}"] = new OpenApiResponse
            {
                Description = Words[status],
                Content = new Dictionary<string, OpenApiMediaType>
                {
                    [Problem] = new OpenApiMediaType
                    {
                        Schema = new OpenApiSchemaReference(nameof(Problem), document),
                    },
                },
            };
        }
    }

    /// <summary>Statuses by which an operation refuses.</summary>
    public static IReadOnlySet<int> Of(ApiDescription operation)
    {
        var metadata = operation.ActionDescriptor.EndpointMetadata;
        var found = metadata.OfType<OwnRefusals>().SelectMany(own => own.Statuses).ToHashSet();
        if (!metadata.OfType<IAllowAnonymous>().Any())
        {
            found.Add(StatusCodes.Status401Unauthorized);
            found.Add(StatusCodes.Status403Forbidden);
            if (
                !metadata
                    .OfType<IEndpointNameMetadata>()
                    .Any(n => Permissions.WhileLocked.Contains(n.EndpointName))
            )
            {
                found.Add(StatusCodes.Status423Locked);
            }
        }
        if (metadata.OfType<MethodInfo>().Any(OpenCase.IsAskedBy))
        {
            found.Add(StatusCodes.Status404NotFound);
            if (operation.RelativePath?.Contains("{visitId", StringComparison.Ordinal) == true)
            {
                // One that was called off.
                found.Add(StatusCodes.Status409Conflict);
            }
        }
        if (
            operation.ParameterDescriptions.Any(p =>
                // Any text is a text.
                p.Source == BindingSource.Query
                && p.Type != typeof(string)
            )
        )
        {
            found.Add(StatusCodes.Status400BadRequest);
            found.Add(StatusCodes.Status422UnprocessableEntity);
        }
        if (metadata.OfType<IAcceptsMetadata>().Any())
        {
            found.UnionWith([
                StatusCodes.Status400BadRequest,
                StatusCodes.Status413PayloadTooLarge,
                StatusCodes.Status415UnsupportedMediaType,
                StatusCodes.Status422UnprocessableEntity,
            ]);
        }
        return found;
    }

    private static readonly Dictionary<int, string> Words = new()
    {
        [400] = "What was sent cannot be read; the field is named.",
        [401] = "Nobody is signed in.",
        [403] = "Whoever is signed in may not do this.",
        [404] = "There is no such thing.",
        [409] = "Somebody was faster, or it does not go with what stands there.",
        [413] = "What was sent is too large.",
        [415] = "What was sent is of another content type.",
        [422] = "What was sent does not go; each field that is wrong is named.",
        [423] = "The tablet is locked; its user has to open it.",
        [429] = "Too many attempts; later again.",
    };
}
