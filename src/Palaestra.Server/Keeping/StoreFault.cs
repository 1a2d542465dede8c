using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;
using Palaestra.Server.Problems;
using static Palaestra.Data.Keeping.DatabaseCheck;

namespace Palaestra.Server.Keeping;

/// <summary>A write that the disk or another program does not let through is answered with words; nothing of it is stored.</summary>
public sealed class StoreFault(IProblemDetailsService problems, ILogger<StoreFault> log) : IExceptionHandler
{
    /// <summary>None for faults that are not the disk's.</summary>
    public static Message? Words(SqliteException problem) =>
        problem.SqliteErrorCode switch
        {
            Busy or Locked => Message.Of("store.busy"),
            ReadOnly => Message.Of("store.read-only"),
            Full => Message.Of("store.full"),
            InputOutput or CannotOpen => Message.Of("store.no-answer"),
            _ => null,
        };

    public async ValueTask<bool> TryHandleAsync(
        HttpContext httpContext,
        Exception exception,
        CancellationToken cancellationToken
    )
    {
        if (Find(exception) is not { } problem || Words(problem) is not { } words)
        {
            return false;
        }
        log.LogError(exception, "A request was refused by the store.");
        var status =
            problem.SqliteErrorCode == Full
                ? StatusCodes.Status507InsufficientStorage
                : StatusCodes.Status503ServiceUnavailable;
        httpContext.Response.StatusCode = status;
        return await problems.TryWriteAsync(
            new()
            {
                HttpContext = httpContext,
                ProblemDetails = new SaidProblem { Status = status, Said = words },
            }
        );
    }

    /// <summary>The disk, or another program, does not let anything be written now.</summary>
    public static bool Is(Exception exception) =>
        Find(exception) is { } problem && Words(problem) is not null;

    private static SqliteException? Find(Exception? exception) =>
        exception is null ? null : exception as SqliteException ?? Find(exception.InnerException);
}
