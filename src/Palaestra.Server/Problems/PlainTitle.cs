using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.WebUtilities;

namespace Palaestra.Server.Problems;

/// <summary>A sentence where the framework, answering before any of our own code, would give the bare name of the status.</summary>
public static class PlainTitle
{
    public static string? Of(ProblemDetails problem) =>
        problem.Status is { } status
        && (
            problem.Title is null
            || problem.Title == ReasonPhrases.GetReasonPhrase(status)
            || status == StatusCodes.Status500InternalServerError
        )
            ? status switch
            {
                StatusCodes.Status401Unauthorized => "Sign in first.",
                StatusCodes.Status403Forbidden => "This is not for this account.",
                StatusCodes.Status404NotFound => "There is nothing at this address.",
                StatusCodes.Status405MethodNotAllowed => "This address does not do that.",
                StatusCodes.Status413PayloadTooLarge =>
                    "This is too large; nothing was stored. Send it in smaller parts.",
                StatusCodes.Status503ServiceUnavailable =>
                    "Too much is being read at this moment; nothing was stored. Try again in a minute.",
                StatusCodes.Status415UnsupportedMediaType =>
                    "This kind of content is not read here; nothing was stored.",
                StatusCodes.Status500InternalServerError =>
                    "Something went wrong here, and we know of it from the log. Nothing was stored.",
                _ => problem.Title,
            }
            : problem.Title;
}
