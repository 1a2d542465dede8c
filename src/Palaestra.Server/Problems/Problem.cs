using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Palaestra.Server.Words;

namespace Palaestra.Server.Problems;

/// <summary>RFC 9457 problem details with field paths and sentences a person can act on.</summary>
public static class Problem
{
    public static ProblemHttpResult Fields(IEnumerable<FieldError> errors)
    {
        var list = errors.ToList();
        return TypedResults.Problem(
            new ProblemDetails
            {
                Status = StatusCodes.Status422UnprocessableEntity,
                Title = "Something in this is not right; nothing was stored.",
                Extensions = { ["errors"] = list },
            }
        );
    }

    private const int DetailsMost = 3;

    /// <summary>The first few sentences of the fields, for those who show no fields; none where there are none.</summary>
    public static string? DetailOf(ProblemDetails problem, ClinicWords words) =>
        problem.Extensions.TryGetValue("errors", out var errors) && errors is IReadOnlyList<FieldError> list
            ? string.Join(" ", list.Take(DetailsMost).Select(error => words.Say(error.Message)))
            : null;

    public static ProblemHttpResult Field(string field, Message message) =>
        Fields([new FieldError(field, message)]);

    public static ProblemHttpResult Field(string field, string message) =>
        Fields([new FieldError(field, message)]);

    public static ProblemHttpResult NotFound(string what) =>
        TypedResults.Problem(statusCode: StatusCodes.Status404NotFound, title: $"There is no such {what}.");

    public static ProblemHttpResult Conflict(string title, object? current = null) =>
        TypedResults.Problem(
            new ProblemDetails
            {
                Status = StatusCodes.Status409Conflict,
                Title = title,
                Extensions = { ["current"] = current },
            }
        );

    /// <summary>The stations are closed by a red flag.</summary>
    public static ProblemHttpResult Closed() =>
        Conflict("Closed by a red flag until a practitioner has recorded what was found and done.");
}
