using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>Leg pain as the rules see it: by what was asked at the last visits, beside what was ticked at first.</summary>
public static class LegPain
{
    public const string Precaution = "leg-pain";

    /// <summary>The option of the precaution that says how far down it runs.</summary>
    private static string Option(LegReach reach) =>
        reach switch
        {
            LegReach.BelowKnee => "below-knee",
            LegReach.Thigh => "thigh",
            _ => "buttock",
        };

    /// <summary>
    /// The client's precautions with leg pain as it was told: on a side for as long as one of the last visits had it there.
    /// Where nothing was asked, what was ticked holds as it is.
    /// </summary>
    /// <param name="reports">As asked, the latest visit first; visits that did not ask about a leg are left out for it.</param>
    /// <param name="remembered">Sides on which pain moved down the leg lately: they count as pain down to the thigh.</param>
    public static ClientProfile Told(
        ClientProfile profile,
        IReadOnlyList<LegReport> reports,
        IReadOnlyCollection<Side> remembered,
        Judgement judgement
    )
    {
        var sides = new[] { Side.Left, Side.Right }
            .Select(side => (Side: side, Reach: ReachOn(side, profile, reports, remembered, judgement)))
            .Where(s => s.Reach is not null)
            .ToList();
        if (sides.Count == 0 && !profile.Has(Precaution))
        {
            return profile;
        }
        return profile with
        {
            Precautions =
            [
                .. profile.Precautions.Where(p => p.Id != Precaution),
                .. sides.Select(s => new ClientPrecaution(
                    Precaution,
                    s.Side,
                    s.Reach is { } reach && reach > LegReach.None ? [Option(reach)] : null
                )),
            ],
        };
    }

    /// <summary>The furthest of the visits that still count; none where the side is free of it. <see cref="LegReach.None"/>: ticked, and not known how far.</summary>
    private static LegReach? ReachOn(
        Side side,
        ClientProfile profile,
        IReadOnlyList<LegReport> reports,
        IReadOnlyCollection<Side> remembered,
        Judgement judgement
    )
    {
        var recent = reports
            .Select(r => r.Of(side))
            .OfType<LegReach>()
            .Take(judgement.LegClearVisits)
            .ToList();
        var told = recent.DefaultIfEmpty(LegReach.None).Max();
        if (remembered.Contains(side) || remembered.Contains(Side.Both))
        {
            return told > LegReach.Thigh ? told : LegReach.Thigh;
        }
        if (told > LegReach.None)
        {
            return told;
        }
        var ticked = profile.Precautions.FirstOrDefault(p =>
            p.Id == Precaution && (p.Side == side || p.Side == Side.Both)
        );
        if (ticked is null || recent.Count >= judgement.LegClearVisits)
        {
            return null;
        }
        return ticked.Options is [var option, ..]
            ? Enum.GetValues<LegReach>().FirstOrDefault(r => r > LegReach.None && Option(r) == option)
            : LegReach.None;
    }
}
