using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Palaestra.Server.Words;

namespace Palaestra.Server.Problems;

/// <summary>A problem with what is wrong as a message; it is put into words when it is sent.</summary>
public sealed class SaidProblem : ProblemDetails
{
    [JsonIgnore]
    public Message Said { get; init; } = Message.Plain("");
}

/// <summary>RFC 9457 problem details with field paths and sentences a person can act on.</summary>
public static class Problem
{
    public static ProblemHttpResult Fields(IEnumerable<FieldError> errors)
    {
        var list = errors.ToList();
        return TypedResults.Problem(
            new SaidProblem
            {
                Status = StatusCodes.Status422UnprocessableEntity,
                Said = Message.Of("problem.fields"),
                Extensions = { ["errors"] = list },
            }
        );
    }

    private const int DetailsMost = 3;

    /// <summary>Puts title and detail into words, as far as they are not: the detail is the first few sentences of the fields.</summary>
    public static void Say(ProblemDetails problem, ClinicWords words)
    {
        problem.Title = problem is SaidProblem said
            ? words.Say(said.Said)
            : words.SayAny(PlainTitle.Of(problem)) ?? problem.Title;
        if (
            problem.Detail is null
            && problem.Extensions.TryGetValue("errors", out var errors)
            && errors is IReadOnlyList<FieldError> list
        )
        {
            problem.Detail = string.Join(" ", list.Take(DetailsMost).Select(e => words.Say(e.Message)));
        }
    }

    public static ProblemHttpResult Field(string field, Message message) =>
        Fields([new FieldError(field, message)]);

    /// <param name="what">One of the things of the words: "visit".</param>
    public static ProblemHttpResult NotFound(string what) =>
        Of(StatusCodes.Status404NotFound, Message.Of("problem.not-found", ("what", what)));

    public static ProblemHttpResult Of(int status, Message said) =>
        TypedResults.Problem(new SaidProblem { Status = status, Said = said });

    /// <param name="type">What a client can do about it, by a name.</param>
    private static ProblemHttpResult Typed(int status, string type, Message said) =>
        TypedResults.Problem(
            new SaidProblem
            {
                Status = status,
                Type = type,
                Said = said,
            }
        );

    /// <summary>Whoever is signed in may do it, after giving the password again.</summary>
    public static ProblemHttpResult Reauthenticate() =>
        Typed(StatusCodes.Status403Forbidden, "reauthenticate", Message.Of("people.confirm"));

    /// <summary>An administrator whose time to set up the second factor is over.</summary>
    public static ProblemHttpResult SecondFactorMissing() =>
        Typed(StatusCodes.Status403Forbidden, "second-factor", Message.Of("second.missing"));

    /// <summary>The password is right; the digits are still to be told.</summary>
    public static ProblemHttpResult SecondFactorAsked() =>
        Typed(StatusCodes.Status401Unauthorized, "second-factor", Message.Of("second.asked"));

    /// <summary>Something secret was got wrong too often.</summary>
    public static ProblemHttpResult TooOften() =>
        Of(StatusCodes.Status429TooManyRequests, Message.Of("sign-in.tries"));

    /// <summary>The time is taken; it can be booked all the same.</summary>
    /// <param name="current">What stands there.</param>
    public static ProblemHttpResult Taken(Message said, object current) =>
        TypedResults.Problem(
            new SaidProblem
            {
                Status = StatusCodes.Status409Conflict,
                Type = "taken",
                Said = said,
                Extensions = { ["current"] = current },
            }
        );

    /// <summary>The tablet is locked: whoever is signed in has to open it.</summary>
    public static ProblemHttpResult Locked() =>
        Typed(StatusCodes.Status423Locked, "locked", Message.Of("pin.locked"));

    public static ProblemHttpResult Conflict(Message said, object? current = null) =>
        TypedResults.Problem(
            new SaidProblem
            {
                Status = StatusCodes.Status409Conflict,
                Said = said,
                Extensions = { ["current"] = current },
            }
        );

    /// <summary>The stations are closed by a red flag.</summary>
    public static ProblemHttpResult Closed() => Conflict(Message.Of("conflict.closed"));

    /// <summary>Why nothing of a case may go on now; none: it may.</summary>
    public static ProblemHttpResult? Held(Intake.CaseFile file) =>
        file.Closed ? Closed()
        : file.Held is { } why ? Conflict(why)
        : null;

    /// <summary>
    /// Why no exercises may be handed out or shown at home now: a red flag is open, or a drawing asks one; none: they may, also
    /// after a discharge.
    /// </summary>
    public static ProblemHttpResult? NotAtHome(Intake.CaseFile file) =>
        file.Closed ? Closed()
        : file.Unanswered is { } why ? Conflict(why)
        : null;
}
