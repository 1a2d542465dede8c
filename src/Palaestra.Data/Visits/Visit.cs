using NodaTime;
using Palaestra.Core.Intake;
using Palaestra.Core.Outcomes;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;

namespace Palaestra.Data.Visits;

/// <summary>Why a visit that was booked is not one.</summary>
public enum CalledOff
{
    /// <summary>Somebody called it off before.</summary>
    Cancelled,

    /// <summary>The client did not come.</summary>
    Missed,
}

/// <summary>One visit of an episode.</summary>
public sealed class Visit
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid EpisodeId { get; init; }

    /// <summary>Told in the zone of the clinic.</summary>
    public Instant PlannedAt { get; set; }

    public const int UsualMinutes = 30;

    public int Minutes { get; set; } = UsualMinutes;

    /// <summary>Account of whom the client is booked with; none: whoever is in charge, or anybody.</summary>
    public Guid? WithId { get; set; }

    /// <summary>None: it stands.</summary>
    public CalledOff? CalledOff { get; set; }
    public Instant? CalledOffAt { get; set; }
    public string? CalledOffBy { get; set; }
    public string? CalledOffReason { get; set; }

    /// <summary>When it was typed in from paper; none: it was kept here as it went.</summary>
    public Instant? FromPaperAt { get; set; }
    public string? FromPaperBy { get; set; }

    /// <summary>Of visits that were booked together; none: booked alone.</summary>
    public Guid? SeriesId { get; set; }

    /// <summary>It stands again: somebody put it back, or something was done at it after all.</summary>
    public void PutBack()
    {
        (CalledOff, CalledOffAt, CalledOffBy, CalledOffReason) = (null, null, null, null);
        Version++;
    }

    /// <summary>None until the start of a later visit has been asked about.</summary>
    public CheckIn? CheckIn { get; set; }

    /// <summary>What was asked at this visit of the client and their condition; none where it was not asked anew.</summary>
    public VisitIntake? Intake { get; set; }

    /// <summary>None where it is not recorded that the red flags were asked about.</summary>
    public FlagsAsked? Flags { get; set; }

    /// <summary>A reference pain that was set after a review at this visit; none: it was not.</summary>
    public ReferenceSet? ReferenceSet { get; set; }

    /// <summary>Set once the decisions (or, on the first visit, the plan) have been taken.</summary>
    public Instant? DecidedAt { get; set; }

    /// <summary>What the client told of themselves beside pain; none where it was not asked.</summary>
    public OutcomeAnswers? Answers { get; set; }

    /// <summary>Counts changes of the answers; 0 before the first.</summary>
    public int AnswersVersion { get; set; }

    /// <summary>The planned screen; none until somebody began one or changed the proposal.</summary>
    public Battery? Battery { get; set; }

    /// <summary>Counts changes of the battery; 0 before the first.</summary>
    public int BatteryVersion { get; set; }

    public int Version { get; set; } = 1;
}
