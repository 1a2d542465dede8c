namespace Palaestra.Core.Intake;

/// <summary>
/// What was asked at one visit, as it was told there. Asking again at a later visit is that visit's own: earlier answers stay.
/// </summary>
/// <param name="MinutesPerDay">Minutes available a day. <paramref name="DaysPerWeek"/>: 1 to 7.</param>
/// <param name="Equipment">What is at hand at home, by id; none: not asked.</param>
public sealed record VisitIntake(
    string Complaint,
    Pain Pain,
    double SettleHours,
    bool WakesAtNight,
    IReadOnlyList<ClientPrecaution> Precautions,
    double MinutesPerDay,
    string PolicyId,
    IReadOnlyList<string> Goals,
    IReadOnlyList<string>? Equipment,
    int DaysPerWeek
)
{
    /// <param name="shape">Shape of the low back at rest; middling where the neutral station was not done.</param>
    public ClientProfile Profile(RestingShape? shape) =>
        new(Pain, SettleHours, WakesAtNight, Precautions, shape ?? RestingShape.Middling);
}

/// <summary>The red flags were asked about.</summary>
/// <param name="Signs">Those that were named; empty: none of them.</param>
public sealed record FlagsAsked(string By, DateTime At, IReadOnlyList<string> Signs);
