namespace Palaestra.Core.Progression;

/// <summary>
/// The load at which form broke, and what is trained under it. A set breaks when more reps broke than still count as clean.
/// Lifted clean again at that load or above, it is forgotten; likewise after the weeks at which a screen is due again.
/// </summary>
internal static class BreakingLoad
{
    /// <summary>Kilograms, the smallest of either side; none where none is known.</summary>
    public static double? Of(DecisionCase c) => c.Sides.Select(side => Of(c, side)).Min();

    /// <summary>The most that is trained, kilograms; none where no breaking load is known.</summary>
    public static double? Most(DecisionCase c) => Of(c) * (1 - c.Judgement.UnderBreak);

    /// <summary>D-UNDER-BREAK: a load within the policy's share of where form broke is taken down, at least to the lightest there is.</summary>
    public static Decision? Under(DecisionCase c)
    {
        if (c.Dose.Load is not { } load || Most(c) is not { } most || load <= most + 1e-9)
        {
            return null;
        }
        var lighter = (c.Rung.Loads ?? []).Where(kg => kg < load - 1e-9).ToList();
        if (lighter.Count == 0)
        {
            return null;
        }
        var to = lighter.Where(kg => kg <= most + 1e-9).DefaultIfEmpty(lighter[0]).Max();
        return c.Make(
            Outcome.Ease,
            "D-UNDER-BREAK",
            c.Rung,
            c.Dose with
            {
                Load = to,
            },
            [Words(c), Message.Of("ease.lighter", ("load", to))]
        );
    }

    public static Message Words(DecisionCase c) =>
        Message.Of("break.load", ("broke", Of(c)), ("most", Most(c)), ("under", c.Judgement.UnderBreak));

    private static double? Of(DecisionCase c, Side side)
    {
        var since = c.Input.Date.AddDays(-7 * c.Policy.RescreenWeeks);
        double? broke = c.Input.Broke?.Where(b => b.RungId == c.Rung.Id).Select(b => (double?)b.Load).Min();
        foreach (var done in c.History(side).Where(done => done.Date >= since).Reverse())
        {
            foreach (var set in done.Sets.Where(set => set.RungId is null))
            {
                if ((set.Setting ?? done.Prescribed).Load is not { } load || load <= 0)
                {
                    continue;
                }
                if (set.BreakingReps > Math.Max(set.Reps, set.BreakingReps) / c.Judgement.BrokenPer)
                {
                    broke = Math.Min(load, broke ?? load);
                }
                else if (load >= broke && set.CleanReps > 0)
                {
                    broke = null;
                }
            }
        }
        return broke;
    }
}
