using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>Leg pain as the rules see it: by what was asked at the last visits, beside what was ticked at first.</summary>
public static class LegPain
{
    /// <summary>The content's precaution for it; none where it has none: then nothing is told.</summary>
    public static Precaution? Of(PracticeLibrary library) =>
        library.Precautions.FirstOrDefault(p => p.Means == PrecautionMeaning.LegPain);

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
        PracticeLibrary library,
        Judgement judgement
    )
    {
        if (Of(library) is not { } precaution)
        {
            return profile;
        }
        var sides = new[] { Side.Left, Side.Right }
            .Select(side =>
                (Side: side, Reach: ReachOn(side, profile, reports, remembered, precaution, judgement))
            )
            .Where(s => s.Reach is not null)
            .ToList();
        if (sides.Count == 0 && !profile.Has(precaution.Id))
        {
            return profile;
        }
        return profile with
        {
            Precautions =
            [
                .. profile.Precautions.Where(p => p.Id != precaution.Id),
                .. sides.Select(s => new ClientPrecaution(
                    precaution.Id,
                    s.Side,
                    s.Reach is { } reach && reach > LegReach.None ? OptionsOf(precaution, reach) : null
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
        Precaution precaution,
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
            p.Id == precaution.Id && (p.Side == side || p.Side == Side.Both)
        );
        if (ticked is null || recent.Count >= judgement.LegClearVisits)
        {
            return null;
        }
        return ticked.Options is [var option, ..]
            ? precaution.Options?.FirstOrDefault(o => o.Id == option)?.Reach ?? LegReach.None
            : LegReach.None;
    }

    /// <summary>The option that says so; none where the content has none: then all of them hold.</summary>
    private static List<string>? OptionsOf(Precaution precaution, LegReach reach) =>
        precaution.Options?.FirstOrDefault(o => o.Reach == reach) is { } option ? [option.Id] : null;
}
