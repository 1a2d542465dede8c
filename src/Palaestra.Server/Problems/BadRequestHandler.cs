using System.Text.Json;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;
using Palaestra.Core;

namespace Palaestra.Server.Problems;

/// <summary>Turns requests that could not be read (wrong types, broken JSON, too large) into problem details with the field.</summary>
public sealed class BadRequestHandler(IProblemDetailsService problems) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (exception is not BadHttpRequestException bad)
        {
            return false;
        }
        httpContext.Response.StatusCode = bad.StatusCode;
        return await problems.TryWriteAsync(
            new ProblemDetailsContext { HttpContext = httpContext, ProblemDetails = Describe(bad) }
        );
    }

    private static ProblemDetails Describe(BadHttpRequestException bad)
    {
        var details = new ProblemDetails
        {
            Status = bad.StatusCode,
            Title =
                bad.StatusCode == StatusCodes.Status413PayloadTooLarge
                    ? "This is too large; nothing was stored. Send it in smaller parts."
                    : "This could not be read; nothing was stored.",
        };
        if (bad.InnerException is JsonException json)
        {
            var field = FieldOf(json);
            details.Detail = $"{field}: {Sentence(json)}";
            details.Extensions["errors"] = new[] { new FieldError(field, Sentence(json)) };
        }
        else if (bad.StatusCode != StatusCodes.Status413PayloadTooLarge)
        {
            details.Detail = bad.Message;
        }
        return details;
    }

    private static string FieldOf(JsonException json)
    {
        var path = json.Path ?? "$";
        var field = path.StartsWith("$.", StringComparison.Ordinal) ? path[2..] : path;
        return MissingOf(json) is { } name
            ? field is "$"
                ? name
                : $"{field}.{name}"
            : field;
    }

    private const string Missing = " was missing required properties including: ";

    /// <summary>The first field that was required and not given; none where that is not what was wrong.</summary>
    private static string? MissingOf(JsonException json) =>
        json.Message.Split(Missing) is [_, var names]
            ? names.Split(',')[0].Trim().Trim('.', '\'', '"', ' ')
            : null;

    private static string Sentence(JsonException json)
    {
        if (json.Message.Contains("missing required", StringComparison.Ordinal))
        {
            return json.Message.Split(Missing)[^1] is var names
                ? $"Required and not given: {names}"
                : json.Message;
        }
        return json.Message.Contains("could not be mapped", StringComparison.Ordinal)
                ? "There is no such field."
            : json.Message.Contains("could not be converted", StringComparison.Ordinal)
                ? "This is not a value that fits here."
            : json.Message.Contains("null values", StringComparison.Ordinal)
                ? "This is required and was null."
            : "This is not well-formed JSON.";
    }
}
