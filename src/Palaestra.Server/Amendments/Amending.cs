using NodaTime;
using Palaestra.Data.Visits;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;

namespace Palaestra.Server.Amendments;

/// <summary>Why this request writes anew what stands in a record already.</summary>
public sealed class Amending(ClinicClock clock)
{
    /// <summary>Characters of a reason at most.</summary>
    public const int ReasonMax = 500;

    /// <summary>As it was given; none where none was.</summary>
    public string? Reason { get; private set; }

    /// <summary>Takes the reason for writing a part of a visit anew.</summary>
    /// <param name="before">What stands there; none: it is written for the first time, and needs no reason.</param>
    /// <returns>What is wrong; none where it can be written.</returns>
    public FieldError? Of(string? reason, CaseFile file, Visit visit, object? before, object? after) =>
        Take(reason, before is not null && !Equal(before, after) && IsSettled(file, visit));

    /// <summary>Takes the reason for writing something anew that was written at a moment.</summary>
    /// <inheritdoc cref="Of"/>
    public FieldError? Written(string? reason, Instant? at, object? before, object? after) =>
        Take(
            reason,
            before is not null
                && !Equal(before, after)
                && at is { } moment
                && clock.Zone.DayOf(moment) < clock.Today
        );

    /// <summary>Takes a reason that may be given.</summary>
    public FieldError? Given(string? reason) => Take(reason, needed: false);

    /// <summary>Takes a reason that has to be given.</summary>
    public FieldError? Always(string? reason) => Take(reason, needed: true);

    /// <summary>Something may rest on it: the visit was decided, or its day is over.</summary>
    public bool IsSettled(CaseFile file, Visit visit) =>
        visit.DecidedAt is not null || file.DayOf(visit) < clock.Today;

    private FieldError? Take(string? reason, bool needed)
    {
        Reason = string.IsNullOrWhiteSpace(reason) ? null : reason.Trim();
        return needed && Reason is null ? new("reason", Message.Of("amend.reason"))
            : Reason?.Length > ReasonMax ? new("reason", Message.Of("amend.reason-long", ("most", ReasonMax)))
            : null;
    }

    private static bool Equal(object before, object? after) =>
        AmendmentTrail.Json(before) == AmendmentTrail.Json(after);
}
