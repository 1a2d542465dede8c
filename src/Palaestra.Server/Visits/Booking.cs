using NodaTime;
using Palaestra.Data.Clinics;
using Palaestra.Data.Visits;

namespace Palaestra.Server.Visits;

/// <summary>A visit as the desk sees it.</summary>
/// <param name="WithId">Account of whom it is booked with, or who is in charge; none: nobody in particular.</param>
/// <param name="Begun">Something was asked or done at it: it stays where it is.</param>
/// <param name="FromPaper">Typed in from paper after it had been.</param>
public sealed record Booking(
    Guid VisitId,
    Guid EpisodeId,
    Guid ClientId,
    string Name,
    Instant PlannedAt,
    int Minutes,
    Guid? WithId,
    string? WithName,
    CalledOff? CalledOff,
    string? CalledOffReason,
    string? CalledOffBy,
    bool FromPaper,
    bool Begun,
    Guid? SeriesId,
    int Version
);

/// <param name="PlannedAt">Without a distance from UTC it is the time on the clinic's wall; none: now, for somebody who walked in.</param>
/// <param name="Id">Made by whoever sends it, so that a second tap books no second visit; none: one is made here.</param>
/// <param name="WithId">Account; with one, times that are taken are refused. None: whoever is in charge, or anybody.</param>
/// <param name="Minutes">5 to 480; none: 30.</param>
/// <param name="FromPaper">It has been, and is typed in from paper.</param>
/// <param name="Anyway">Also where the time is taken.</param>
public sealed record BookVisitForm(
    DateTime? PlannedAt = null,
    Guid? Id = null,
    Guid? WithId = null,
    int? Minutes = null,
    bool FromPaper = false,
    bool Anyway = false
)
{
    public const int MinutesMin = 5;
    public const int MinutesMax = 480;

    public static Instant At(DateTime planned, ClinicZone zone) =>
        planned.Kind == DateTimeKind.Unspecified
            ? zone.At(planned)
            : Instant.FromDateTimeUtc(planned.ToUniversalTime());
}

/// <param name="PlannedAt">Without a distance from UTC it is the time on the clinic's wall.</param>
/// <param name="WithId">None: whoever is in charge, or anybody.</param>
/// <param name="Reason">Why one that was typed in from paper was at another time, 1 to 500 characters; of no account for others.</param>
public sealed record MoveVisitForm(
    DateTime PlannedAt,
    int Version,
    Guid? WithId = null,
    int? Minutes = null,
    bool Anyway = false,
    string? Reason = null
);

/// <param name="Reason">As it was told, to 200 characters; none: not told.</param>
/// <param name="Rest">With it those of its series that are still to come.</param>
public sealed record CallOffForm(CalledOff What, int Version, string? Reason = null, bool Rest = false);

/// <param name="Anyway">Also where its time was taken meanwhile.</param>
public sealed record PutBackForm(int Version, bool Anyway = false);

/// <param name="First">The time on the clinic's wall, and the same on each day.</param>
/// <param name="EveryDays">1 to 60. <paramref name="Count"/>: 2 to 26.</param>
/// <param name="Id">Made by whoever sends it, so that a second tap books no second series.</param>
/// <param name="Anyway">Also where the time is taken.</param>
public sealed record SeriesForm(
    DateTime First,
    int EveryDays,
    int Count,
    Guid? Id = null,
    Guid? WithId = null,
    int? Minutes = null,
    bool Anyway = false
);

/// <param name="At">The time on the clinic's wall.</param>
public sealed record LeftOutOfSeries(DateTime At, Message Why);

public sealed record SeriesBooked(
    Guid SeriesId,
    IReadOnlyList<Booking> Booked,
    IReadOnlyList<LeftOutOfSeries> LeftOut
);
