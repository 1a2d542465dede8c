using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>Faults, and work that was not done clean. Common practice; thresholds from the policy.</summary>
internal static class FaultRules
{
    public static Decision? Cap(DecisionCase c)
    {
        if (c.Today(c.Side) is not { Tried: > 0 } today || today.CueFixed)
        {
            return null;
        }
        var share = (double)today.BreakingReps / today.Tried;
        return share > c.Policy.FaultCapFraction
            ? c.EaseOneStep(
                "D-FAULT-CAP",
                [
                    $"{FaultWords(c, today)} in {today.BreakingReps} of {today.Tried} reps; no cue fixed it.",
                    .. EasedWords(today),
                ]
            )
            : null;
    }

    public static Decision? Cue(DecisionCase c) =>
        c.Today(c.Side) is { BreakingReps: > 0, CueFixed: true } today
            ? c.Stay(
                "D-FAULT-CUE",
                $"{FaultWords(c, today)} in {today.BreakingReps} of {today.Tried} reps; one cue fixed it.",
                "Coach at the same dose."
            )
            : null;

    public static Decision? DoneLess(DecisionCase c)
    {
        if (c.Today(c.Side) is not { } now || c.History(c.Side).Skip(1).FirstOrDefault() is not { } before)
        {
            return null;
        }
        var least = c.Policy.DoneLessFraction;
        return now.DoneFraction >= least || before.DoneFraction >= least
            ? null
            : c.EaseOneStep(
                "D-DONE-LESS",
                [
                    $"{now.DoneFraction:P0} and {before.DoneFraction:P0} of the work was clean, two visits running.",
                    .. EasedWords(now),
                ]
            );
    }

    private static IEnumerable<string> EasedWords(Performance today) =>
        today.Eased
            ?
            [
                $"Made easier in {today.Sets.Count(set => set.Eased)} of {today.Sets.Count} sets; those do not count as asked.",
            ]
            : [];

    private static string FaultWords(DecisionCase c, Performance today)
    {
        var code = today.Sets.Select(set => set.FirstFault).FirstOrDefault(fault => fault is not null);
        var name = code is null ? "Control was lost" : c.Library.FindFault(code)?.Name ?? code;
        return char.ToUpperInvariant(name[0]) + name[1..];
    }
}
