using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>First doses: by how stirred up the client is, and more for the weaker side.</summary>
public static class DosePlanner
{
    /// <summary>
    /// Low: the rung's own start dose. Moderate and high: the policy's reps and sets, never above the start reps,
    /// with the hold bounded. Rules P-DOSE-LOW, P-DOSE-MODERATE, P-DOSE-HIGH.
    /// </summary>
    public static Dose Start(Rung rung, StirredUp level, Policy policy)
    {
        var start = rung.Start;
        var table = policy.StirredUp;
        return level switch
        {
            StirredUp.High => new Dose(
                Math.Min(start.Reps, table.High.Reps),
                table.High.Sets,
                Math.Min(start.Hold, table.High.HoldMax)
            ),
            StirredUp.Moderate => Bounded(
                new Dose(
                    Math.Min(start.Reps, table.Moderate.Reps),
                    Math.Min(table.Moderate.Sets, Math.Max(start.Sets, rung.Target.Sets)),
                    Math.Min(start.Hold, table.Moderate.HoldMax)
                ),
                rung.Target
            ),
            _ => start,
        };
    }

    /// <summary>
    /// The weaker side gets one extra set; when sore, or where the cap has no set left, a quarter more reps
    /// (the policy's share) instead, and at least one. Never above the rung's cap. Rule P-WEAKER.
    /// </summary>
    /// <remarks>One extra set or 20–30 % more reps: common practice.</remarks>
    public static Dose ForWeakerSide(Dose dose, Rung rung, StirredUp level, Policy policy)
    {
        if (level != StirredUp.High && dose.Sets < rung.Cap.Sets)
        {
            return dose with { Sets = dose.Sets + 1 };
        }
        var more = Math.Max(1, (int)Math.Round(dose.Reps * policy.WeakerExtraFraction));
        return dose with { Reps = Math.Min(rung.Cap.Reps, dose.Reps + more) };
    }

    private static Dose Bounded(Dose dose, Dose cap) =>
        new(Math.Min(dose.Reps, cap.Reps), Math.Min(dose.Sets, cap.Sets), Math.Min(dose.Hold, cap.Hold));
}
