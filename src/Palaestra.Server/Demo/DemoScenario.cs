using System.Text.Json;
using Palaestra.Core;
using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Server.Intake;
using Palaestra.Server.SignIn;

namespace Palaestra.Server.Demo;

/// <summary>The invented clinic, with dates told as days ago so that it never looks old.</summary>
public sealed record DemoScenario(
    string Clinic,
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
    RestingShape? Neutral = null
);

/// <param name="Screen">By ladder: the highest rung each side holds clean, and what gives way above it.</param>
public sealed record DemoVisit(
    int DaysAgo,
    TimeOnly Time,
    IReadOnlyDictionary<string, DemoCapacity>? Screen = null,
    DemoCheckIn? CheckIn = null,
    DemoSession? Session = null,
    IReadOnlyList<string>? DangerSigns = null
);

public sealed record DemoCapacity(string Left, string Right, string Fault)
{
    public string Of(Side side) => side == Side.Right ? Right : Left;
}

public sealed record DemoCheckIn(int Now, int Usual, int NextDay, double Settled);

/// <param name="Share">Share of the reps asked for that are clean.</param>
public sealed record DemoSession(
    double Share,
    int Effort,
    IReadOnlyDictionary<string, DemoWeakness>? Weak = null
);

public sealed record DemoWeakness(Side Side, double Share, string Fault);
