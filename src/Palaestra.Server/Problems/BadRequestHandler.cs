using System.Text.Json;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Palaestra.Server.Problems;

/// <summary>Turns requests that could not be read (wrong types, broken JSON, too large) into problem details with the field.</summary>
public sealed partial class BadRequestHandler(IProblemDetailsService problems) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (Kindless(exception) is { } kindless)
        {
            exception = kindless;
        }
        if (exception is not BadHttpRequestException bad)
        {
            return false;
        }
        httpContext.Response.StatusCode = bad.StatusCode;
        return await problems.TryWriteAsync(
            new ProblemDetailsContext { HttpContext = httpContext, ProblemDetails = Describe(bad) }
        );
    }

    /// <summary>
    /// Something of several kinds that does not say of which it is: the JSON reader holds that for a fault of the program, and
    /// tells the place in its words alone.
    /// </summary>
    private static BadHttpRequestException? Kindless(Exception exception) =>
        exception is NotSupportedException && UnknownKind().Match(exception.Message) is { Success: true } told
            ? new(
                exception.Message,
                StatusCodes.Status400BadRequest,
                new JsonException(
                    $"The value could not be converted: {exception.Message}",
                    $"{told.Groups["path"].Value}.{Core.Capture.CaptureEvent.KindName}",
                    null,
                    null
                )
            )
            : null;

    [GeneratedRegex(@"type discriminator.* Path: (?<path>\$\S*)", RegexOptions.Singleline)]
    private static partial Regex UnknownKind();

    private static ProblemDetails Describe(BadHttpRequestException bad)
    {
        var details = new SaidProblem
        {
            Status = bad.StatusCode,
            Said =
                bad.StatusCode == StatusCodes.Status413PayloadTooLarge
                    ? Message.Of("problem.large")
                    : Message.Of("problem.unread"),
        };
        if (bad.InnerException is JsonException json)
        {
            var field = FieldOf(json);
            details.Extensions["errors"] = new[] { new FieldError(field, Sentence(json)) };
        }
        else if (bad.StatusCode != StatusCodes.Status413PayloadTooLarge)
        {
            if (bad.Message.Contains("no body was provided", StringComparison.Ordinal))
            {
                details.Extensions["errors"] = new[]
                {
                    new FieldError("body", Message.Of("request.missing")),
                };
            }
            else if (Named().Match(bad.Message) is { Success: true } named)
            {
                var error = new FieldError(
                    named.Groups["name"].Value,
                    named.Groups["given"].Success
                        ? Message.Of("request.unfit")
                        : Message.Of("request.missing")
                );
                details.Extensions["errors"] = new[] { error };
            }
            else
            {
                details.Detail = bad.Message;
            }
        }
        return details;
    }

    /// <summary>How the framework names a part of the address that could not be read, or a body that is not there.</summary>
    [GeneratedRegex(
        """parameter "(?:.* )?(?<name>\w+)" (?:from "(?<given>.*)"|was not provided)""",
        RegexOptions.Singleline
    )]
    private static partial Regex Named();

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

    private static Message Sentence(JsonException json) =>
        MissingOf(json) is not null ? Message.Of("request.missing")
        : json.Message.Contains("could not be mapped", StringComparison.Ordinal)
            ? Message.Of("request.no-field")
        : json.Message.Contains("could not be converted", StringComparison.Ordinal)
            ? Message.Of("request.unfit")
        : json.Message.Contains("null values", StringComparison.Ordinal) ? Message.Of("request.null")
        : Message.Of("request.malformed");
}
