namespace Palaestra.Core.Progression;

/// <summary>Rules that are looked at together.</summary>
public static class RuleGroups
{
    /// <summary>About pain, and the legs.</summary>
    public static readonly IReadOnlySet<string> Pain = new HashSet<string>
    {
        "D-PAIN-STOP",
        "D-PAIN-WATCH",
        "D-PAIN-SESSION",
        "D-PAIN-NOW",
        "D-PAIN-NEXT",
        "D-PAIN-HOME",
        "D-PAIN-DRIFT",
        "D-LEG-MEMORY",
        "D-NO-TRAINING",
    };

    /// <summary>Those, what is barred by now, and time away: while one of them is in force nothing is changed for standing still.</summary>
    public static readonly IReadOnlySet<string> PainOrAway = new HashSet<string>(Pain)
    {
        "D-BARRED",
        "D-AWAY",
    };

    /// <summary>All that hold whatever a client is able to do.</summary>
    public static readonly IReadOnlySet<string> Safety = new HashSet<string>(PainOrAway)
    {
        "D-REFER",
        "D-REST",
        "D-TREMOR",
        "D-SETUP",
        "D-UNDER-BREAK",
        "D-CAP-RISE",
    };
}
