namespace Palaestra.Core.Progression;

/// <summary>Danger signs and pain come before anything that was done well. Common practice; thresholds from the policy.</summary>
internal static class SafetyRules
{
    public static Decision? Refer(DecisionCase c)
    {
        var signs = c.Input.CheckIn.DangerSigns;
        if (signs.Count == 0)
        {
            return null;
        }
        var why = signs.Select(id => c.Library.DangerSigns.FirstOrDefault(s => s.Id == id)?.Words ?? id);
        return c.Make(
            Outcome.Stop,
            "D-REFER",
            c.Rung,
            c.Dose,
            [.. why.Select(words => $"{words}."), "Stop everything and send on."]
        );
    }

    public static Decision? PainStop(DecisionCase c)
    {
        var sets = c.Sides.Sum(s => c.Today(s)?.PainSets ?? 0);
        if (sets < c.Policy.PainStopSets)
        {
            return null;
        }
        var evidence = $"Pain over the limit in {sets} sets.";
        return c.Below is { } lower
            ? c.Make(Outcome.StepDown, "D-PAIN-STOP", lower, c.StartOf(lower), [evidence])
            : c.Make(Outcome.Stop, "D-PAIN-STOP", c.Rung, c.Dose, [evidence, "Already at the lowest rung."]);
    }

    /// <summary>The morning after: asked at the visit, or written in the home log for days this exercise was done.</summary>
    public static Decision? PainNext(DecisionCase c)
    {
        var check = c.Input.CheckIn;
        var home = c.Home(c.Side)?.WorstMorning;
        if (Rises(c, check.NextDayPain))
        {
            return c.EaseOneStep(
                "D-PAIN-NEXT",
                $"Pain {check.NextDayPain} the day after, usual {check.UsualPain}."
            );
        }
        if (Rises(c, home))
        {
            return c.EaseOneStep(
                "D-PAIN-NEXT",
                $"Home log: pain {home} the morning after this exercise, usual {check.UsualPain}."
            );
        }
        return check.SettledHours > c.Policy.SettleHours
            ? c.EaseOneStep(
                "D-PAIN-NEXT",
                $"Took {check.SettledHours:0.#} h to settle, over {c.Policy.SettleHours:0.#} h."
            )
            : null;
    }

    private static bool Rises(DecisionCase c, int? nextDay) =>
        nextDay - c.Input.CheckIn.UsualPain >= c.Policy.NextDayRise;
}
