using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Data.Intake;

/// <summary>One stretch of care for one complaint.</summary>
public sealed class Episode
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid ClientId { get; set; }
    public Client? Client { get; set; }
    public DateOnly OpenedOn { get; set; }
    public required string Complaint { get; set; }
    public int PainNow { get; set; }
    public int PainWorst { get; set; }
    public int PainUsual { get; set; }
    public double SettleHours { get; set; }
    public bool WakesAtNight { get; set; }
    public required IReadOnlyList<ClientPrecaution> Precautions { get; set; }
    public required string PolicyId { get; set; }
    public double MinutesPerDay { get; set; }

    /// <summary>What the client wants to do again, by id.</summary>
    public IReadOnlyList<string> Goals { get; set; } = [];

    /// <summary>What is at hand at home, by id; none: not asked yet, and everything is taken to be.</summary>
    public IReadOnlyList<string>? Equipment { get; set; }

    /// <summary>Days a week the client can, 1 to 7.</summary>
    public int DaysPerWeek { get; set; } = 5;

    /// <summary>Holidays and other days without training.</summary>
    public IReadOnlyList<DaysAway> Away { get; set; } = [];

    /// <summary>Whether pictures may be kept; none: the client was not asked yet.</summary>
    public Consent? PhotoConsent { get; set; }

    /// <summary>Whether colleagues may rate their traces and kept pictures, without a name; none: the client was not asked yet.</summary>
    public Consent? PracticeConsent { get; set; }

    /// <summary>Secret part of the address of the calendar feed; none until somebody asked for one.</summary>
    public string? FeedKey { get; set; }

    /// <summary>Secret part of the address of the home programme; none until somebody asked for one.</summary>
    public string? HomeKey { get; set; }

    /// <summary>None until the neutral station has been done.</summary>
    public RestingShape? RestingShape { get; set; }
    public SpinalStrategy? Strategy { get; set; }
    public Activation? Activation { get; set; }

    /// <summary>False where it was opened at the desk and nobody has asked the client yet: its answers are no answers.</summary>
    public bool Asked { get; set; } = true;

    /// <summary>The day it was discharged; none: it is open.</summary>
    public DateOnly? DischargedOn { get; set; }

    /// <summary>Counts edits; an edit made on an older count is a conflict.</summary>
    public int Version { get; set; } = 1;

    public List<DangerReport> DangerReports { get; } = [];
    public List<Visits.Visit> Visits { get; } = [];

    /// <summary>Takes answers as those that stand now; <see cref="Answers"/> tells them.</summary>
    public void Tell(VisitIntake answers)
    {
        Complaint = answers.Complaint;
        (PainNow, PainWorst, PainUsual) = (answers.Pain.Now, answers.Pain.Worst, answers.Pain.Usual);
        SettleHours = answers.SettleHours;
        WakesAtNight = answers.WakesAtNight;
        Precautions = answers.Precautions;
        MinutesPerDay = answers.MinutesPerDay;
        PolicyId = answers.PolicyId;
        Goals = answers.Goals;
        Equipment = answers.Equipment;
        DaysPerWeek = answers.DaysPerWeek;
    }

    /// <summary>The answers that stand now, as a visit's own.</summary>
    public VisitIntake Answers() =>
        new(
            Complaint,
            new Pain(PainNow, PainWorst, PainUsual),
            SettleHours,
            WakesAtNight,
            Precautions,
            MinutesPerDay,
            PolicyId,
            Goals,
            Equipment,
            DaysPerWeek
        );
}
