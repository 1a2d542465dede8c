using System.Text.Json;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Progression;
using Palaestra.Server.Intake;
using Palaestra.Server.People;

namespace Palaestra.Server.Demo;

/// <summary>The invented clinic, with dates told as days ago so that it never looks old.</summary>
public sealed record DemoScenario(
    string Clinic,
    string Contact,
    IReadOnlyList<DemoAccount> Accounts,
    IReadOnlyList<DemoClient> Clients
)
{
    public static DemoScenario Load(string contentFolder) =>
        JsonSerializer.Deserialize<DemoScenario>(
            File.ReadAllText(Path.Combine(contentFolder, "demo", "scenario.json")),
            CoreJson.Options
        )!;
}

public sealed record DemoClient(
    string Name,
    int Age,
    Sex? Sex,
    double HeightCm,
    double MassKg,
    string Complaint,
    Pain Pain,
    double SettleHours,
    bool WakesAtNight,
    double MinutesPerDay,
    IReadOnlyList<ClientPrecaution> Precautions,
    IReadOnlyList<DemoVisit> Visits,
    RestingShape? Neutral = null,
    IReadOnlyList<string>? Goals = null,
    IReadOnlyList<string>? Equipment = null,
    int DaysPerWeek = IntakeForm.UsualDays,
    bool ForPractice = false
);

/// <param name="Screen">By ladder: the highest rung each side holds clean, and what gives way above it.</param>
/// <param name="Looks">By task, and way where it has several ("reaches/front"): the reading of each side.</param>
public sealed record DemoVisit(
    int DaysAgo,
    TimeOnly Time,
    IReadOnlyDictionary<string, DemoCapacity>? Screen = null,
    DemoCheckIn? CheckIn = null,
    DemoSession? Session = null,
    IReadOnlyList<string>? DangerSigns = null,
    IReadOnlyDictionary<string, DemoReading>? Looks = null,
    DemoAnswers? Answers = null,
    DemoHome? Home = null,
    IReadOnlyList<DemoTrace>? Traces = null,
    IReadOnlyList<DemoAmendment>? Amends = null
);

/// <summary>Something of the visit that was put right later: the check-in, or a fault that is taken out of a trial of the screen.</summary>
/// <param name="By">A name of the scenario's accounts. <paramref name="Hours"/>: after the beginning of the visit.</param>
public sealed record DemoAmendment(
    string By,
    string Why,
    double Hours,
    DemoCheckIn? CheckIn = null,
    DemoMistaken? Mistaken = null
);

/// <summary>A trial of the screen in which a fault was marked that was none.</summary>
public sealed record DemoMistaken(string Rung, Side Side);

/// <summary>What an instrument saw of a trial: a file of content/demo/traces, invented like all of it.</summary>
public sealed record DemoTrace(string Rung, Side Side, string File);

/// <param name="Activities">Name to score, 0 to 10. <paramref name="Disability24"/>: a total of 24.</param>
public sealed record DemoAnswers(IReadOnlyDictionary<string, int> Activities, int? Disability24 = null);

/// <summary>The sheet brought to the visit: the share of what was planned, the same on every planned day.</summary>
public sealed record DemoHome(double Share, int Pain, int Morning);

/// <summary>What the sides come to in the unit of the task; <paramref name="Both"/> where it has no side.</summary>
public sealed record DemoReading(
    double? Left = null,
    double? Right = null,
    double? Both = null,
    string? Fault = null
)
{
    public IEnumerable<(Side Side, double Reading)> Sides =>
        new[] { (Side.Left, Left), (Side.Right, Right), (Side.Both, Both) }
            .Where(pair => pair.Item2 is not null)
            .Select(pair => (pair.Item1, pair.Item2!.Value));
}

/// <param name="Range">Share of the way that the last of them is clean, 0 to 1.</param>
public sealed record DemoCapacity(string Left, string Right, string Fault, double? Range = null)
{
    public string Of(Side side) => side == Side.Right ? Right : Left;
}

public sealed record DemoCheckIn(int Now, int Usual, int NextDay, double Settled);

/// <param name="Share">Share of the reps asked for that are clean.</param>
/// <param name="Hurts">By ladder: the most pain in the first set of its exercise, which it ended.</param>
/// <param name="Leg">By ladder: the leg that pain went down in that set; it was back after ten minutes.</param>
/// <param name="End">Pain ten minutes after the last set.</param>
/// <param name="Agree">Decided, agreeing where <paramref name="Own"/> says nothing else; else the visit is left undecided.</param>
/// <param name="Own">Ladder to the practitioner's own word on both sides of its exercise.</param>
public sealed record DemoSession(
    double Share,
    int Effort,
    IReadOnlyDictionary<string, DemoWeakness>? Weak = null,
    bool Agree = true,
    IReadOnlyDictionary<string, DemoWord>? Own = null,
    IReadOnlyDictionary<string, int>? Hurts = null,
    IReadOnlyDictionary<string, Side>? Leg = null,
    int? End = null
);

public sealed record DemoWord(Outcome Outcome, string Why);

public sealed record DemoWeakness(Side Side, double Share, string Fault);
