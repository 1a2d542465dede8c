namespace Palaestra.Core.Library;

public enum StrategyRule
{
    Neutral,
    GentlyFlat,
    ByBuild,
}

public enum SwitchOn
{
    Brace,
    DrawIn,
}

public enum PainRuleKind
{
    /// <summary>Pain may not go above where it was before the work.</summary>
    NoRise,

    /// <summary>Pain may rise to the policy's limit while exercising.</summary>
    Tolerable,
}

/// <param name="Limit">0 to 10; used by the tolerable rule.</param>
public sealed record PainRule(PainRuleKind Rule, int Limit)
{
    /// <summary>True when pain <paramref name="now"/> is over what the rule lets through. Unknown "before" counts as 0.</summary>
    public bool Exceeded(int? before, int now) =>
        Rule == PainRuleKind.NoRise ? now > (before ?? 0) : now > Math.Max(Limit, before ?? 0);
}

/// <summary>Seconds between work. Common practice.</summary>
public sealed record PolicySeconds(
    double RestHolds,
    double RestOther,
    double SetUp,
    double PositionChange,
    double SideChange
);

/// <summary>In which order the two sides of a task are tried.</summary>
public enum SideOrder
{
    /// <summary>The weaker side first as far as anything is known of it, and then the other.</summary>
    WeakerFirst,

    /// <summary>Trial by trial, turn about, so that neither side is the rested one.</summary>
    Alternate,

    /// <summary>Left to the end, then right: fewest changes.</summary>
    OneThenOther,
}

public sealed record HighStirred(int PainFrom, double SettleHoursFrom, int Reps, int Sets, double HoldMax);

public sealed record ModerateStirred(int Reps, int Sets, double HoldMax);

public sealed record LowStirred(int PainBelow, double SettleHoursTo);

public sealed record StirredUpTable(HighStirred High, ModerateStirred Moderate, LowStirred Low);

/// <summary>
/// A school: every choice and threshold the rules use, by name, so that a clinic can see and change them.
/// Percentages and fractions are of 1 unless the name says percent; pain is 0 to 10.
/// </summary>
public sealed record Policy(
    string Id,
    int Version,
    string Name,
    string Why,
    StrategyRule SpinalStrategy,
    SwitchOn SwitchOn,
    string Breath,
    PainRule Pain,
    double EvenPercent,
    int MasteryVisits,
    int MasteryEffortMax,
    double DoneLessFraction,
    double FaultCapFraction,
    int NextDayRise,
    double SettleHours,
    int AwayDays,
    double WeeklyGrowth,
    int PainStopSets,
    double WeakerExtraFraction,
    int TrialsPerSide,
    int RungsUpAtOnce,
    SideOrder SideOrder,
    double ScreenMinutes,
    double MinutesPerDay,
    int RescreenWeeks,
    PolicySeconds Seconds,
    StirredUpTable StirredUp
);
