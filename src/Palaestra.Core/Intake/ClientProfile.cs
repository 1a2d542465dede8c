using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>A precaution the client has. <paramref name="Side"/> is <see cref="Side.Both"/> where it has none.</summary>
public sealed record ClientPrecaution(string Id, Side Side = Side.Both);

/// <summary>Pain, each 0 (none) to 10 (worst imaginable).</summary>
/// <param name="Usual">On most days of the last week.</param>
public sealed record Pain(int Now, int Worst, int Usual);

/// <summary>Shape of the low back at rest.</summary>
public enum RestingShape
{
    LargeArch,
    Middling,
    Rounded,
}

/// <summary>What the rules need to know of the client.</summary>
/// <param name="SettleHours">Hours until a stirred-up back is as before, 0 or more.</param>
public sealed record ClientProfile(
    Pain Pain,
    double SettleHours,
    bool WakesAtNight,
    IReadOnlyList<ClientPrecaution> Precautions,
    RestingShape RestingShape = RestingShape.Middling
)
{
    public bool Has(string precautionId) => Precautions.Any(p => p.Id == precautionId);
}

public enum StirredUp
{
    Low,
    Moderate,
    High,
}

public static class StirredUpLevel
{
    /// <summary>
    /// High at the policy's pain or settling time, or when it wakes the client; low under both lower bounds;
    /// otherwise moderate. The usual and present pain count, the worst does not.
    /// </summary>
    /// <remarks>Common practice.</remarks>
    public static StirredUp Of(ClientProfile profile, Policy policy)
    {
        var pain = Math.Max(profile.Pain.Now, profile.Pain.Usual);
        var table = policy.StirredUp;
        if (
            pain >= table.High.PainFrom
            || profile.SettleHours >= table.High.SettleHoursFrom
            || profile.WakesAtNight
        )
        {
            return StirredUp.High;
        }
        return pain < table.Low.PainBelow && profile.SettleHours <= table.Low.SettleHoursTo
            ? StirredUp.Low
            : StirredUp.Moderate;
    }
}
