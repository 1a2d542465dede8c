using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.WebUtilities;

namespace Palaestra.Server.Problems;

/// <summary>A sentence where the framework, answering before any of our own code, would give the bare name of the status.</summary>
public static class PlainTitle
{
    /// <returns>None where the title is good as it is.</returns>
    public static Message? Of(ProblemDetails problem) =>
        problem.Status is { } status
        && (
            problem.Title is null
            || problem.Title == ReasonPhrases.GetReasonPhrase(status)
            || status == StatusCodes.Status500InternalServerError
        )
            ? status switch
            {
                StatusCodes.Status401Unauthorized => Message.Of("problem.401"),
                StatusCodes.Status403Forbidden => Message.Of("problem.403"),
                StatusCodes.Status404NotFound => Message.Of("problem.404"),
                StatusCodes.Status405MethodNotAllowed => Message.Of("problem.405"),
                StatusCodes.Status413PayloadTooLarge => Message.Of("problem.large"),
                StatusCodes.Status503ServiceUnavailable => Message.Of("problem.503"),
                StatusCodes.Status415UnsupportedMediaType => Message.Of("problem.415"),
                StatusCodes.Status500InternalServerError => Message.Of("problem.500"),
                _ => null,
            }
            : null;
}
