using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>A precaution the client has. <paramref name="Side"/> is <see cref="Side.Both"/> where it has none.</summary>
/// <param name="Options">What is ticked beside it; none or nothing: all of its options hold.</param>
/// <param name="Until">The day from which somebody is to look at it again; it holds until they take it away.</param>
/// <param name="Note">In whose words, such as the surgeon's.</param>
public sealed record ClientPrecaution(
    string Id,
    Side Side = Side.Both,
    IReadOnlyList<string>? Options = null,
    DateOnly? Until = null,
    string? Note = null
)
{
    /// <summary>Whether a rule for these options holds; a rule for none of them always does.</summary>
    public bool Ticks(IReadOnlyList<string>? when) =>
        when is null || Options is not { Count: > 0 } || when.Any(Options.Contains);

    /// <summary>Whether it was set to end before that day.</summary>
    public bool LapsedOn(DateOnly day) => Until < day;
}

/// <summary>Pain, each 0 (none) to 10 (worst imaginable).</summary>
/// <param name="Usual">On most days of the last week.</param>
public sealed record Pain(int Now, int Worst, int Usual);

/// <summary>Shape of the low back at rest.</summary>
public enum RestingShape
{
    /// <summary>The low back arches much.</summary>
    LargeArch,

    /// <summary>Between both.</summary>
    Middling,

    /// <summary>The low back is flat or rounded.</summary>
    Rounded,
}

/// <summary>What the rules need to know of the client.</summary>
/// <param name="SettleHours">Hours until an irritated back is as before, 0 or more.</param>
public sealed record ClientProfile(
    Pain Pain,
    double SettleHours,
    bool WakesAtNight,
    IReadOnlyList<ClientPrecaution> Precautions,
    RestingShape RestingShape = RestingShape.Middling
)
{
    /// <summary>Whether the client has that precaution.</summary>
    public bool Has(string precautionId) => Precautions.Any(p => p.Id == precautionId);
}

/// <summary>How easily the condition is stirred up.</summary>
public enum Irritability
{
    /// <summary>It takes much and settles soon.</summary>
    Low,

    /// <summary>Between both.</summary>
    Moderate,

    /// <summary>Little stirs it up and it settles slowly.</summary>
    High,
}

/// <summary>Where a client lies on the policy's table of irritability.</summary>
public static class IrritabilityLevel
{
    /// <summary>
    /// High at the policy's pain or settling time, or when it wakes the client; low under both lower bounds;
    /// otherwise moderate. The usual and present pain count, the worst does not.
    /// </summary>
    /// <remarks>Common practice.</remarks>
    public static Irritability Of(ClientProfile profile, Policy policy)
    {
        var pain = Math.Max(profile.Pain.Now, profile.Pain.Usual);
        var table = policy.Irritability;
        if (
            pain >= table.High.PainFrom
            || profile.SettleHours >= table.High.SettleHoursFrom
            || profile.WakesAtNight
        )
        {
            return Irritability.High;
        }
        return pain < table.Low.PainBelow && profile.SettleHours <= table.Low.SettleHoursTo
            ? Irritability.Low
            : Irritability.Moderate;
    }
}
