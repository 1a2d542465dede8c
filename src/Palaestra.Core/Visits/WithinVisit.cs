using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;

namespace Palaestra.Core.Visits;

/// <summary>One way to make an exercise easier in the middle of a session.</summary>
/// <param name="RuleId">W-CUE, W-RANGE, W-SECONDS, W-LEVER, W-SUPPORT or W-RUNG.</param>
/// <param name="Words">What to say or do.</param>
/// <param name="RungId">What is done from here on, and <paramref name="Side"/> for that rung.</param>
/// <param name="Dose">As from here on; a set's reps are those left of it, but no more than here.</param>
/// <param name="Share">Share of the movement that is asked for; none: as before.</param>
public sealed record EaseOffer(
    OneChange Change,
    string RuleId,
    Message Words,
    string RungId,
    Side Side,
    Dose Dose,
    double? Share = null
);

/// <summary>
/// Within a visit: when a set is stopped, and the one thing that is changed then. The order is cue, shorter range, fewer
/// seconds, shorter lever, more support, lower rung. Common practice.
/// </summary>
public static class WithinVisit
{
    /// <summary>A shorter range is this share of the one asked for. Common practice: about three quarters.</summary>
    public const double ShorterRange = 0.75;

    /// <summary>Everything an exercise can be made easier by, in order; what a precaution bars is not among it.</summary>
    public static IReadOnlyList<EaseOffer> Offers(
        PlanItem item,
        SideDose side,
        ClientProfile profile,
        PracticeLibrary library
    )
    {
        var rung = library.Rung(item.RungId);
        var dose = side.Dose;
        var offers = new List<EaseOffer>
        {
            new(OneChange.Cue, "W-CUE", Message.Plain(item.Cue), rung.Id, side.Side, dose),
        };
        // A single long hold has no range to shorten, nor has what does not move.
        if (rung.HasRange && dose.Reps > 1 && side.Range > PlanRange.Least)
        {
            var share = Math.Round(Math.Max(PlanRange.Least, side.Range * ShorterRange), 2);
            offers.Add(
                new(
                    OneChange.ShorterRange,
                    "W-RANGE",
                    Message.Of("within.range", ("share", share)),
                    rung.Id,
                    side.Side,
                    dose,
                    share
                )
            );
        }
        if (dose.Hold > DosePlanner.LeastHold)
        {
            var hold = Math.Max(DosePlanner.LeastHold, Math.Floor(dose.Hold / 2));
            offers.Add(
                new(
                    OneChange.FewerSeconds,
                    "W-SECONDS",
                    Message.Of("within.seconds", ("hold", hold), ("was", dose.Hold)),
                    rung.Id,
                    side.Side,
                    dose with
                    {
                        Hold = hold,
                    }
                )
            );
        }
        offers.AddRange(
            (rung.Eases ?? []).OrderBy(e => e.Change).Select(ease => Of(ease, rung, side, library))
        );
        if (Below(rung, library) is { } lower)
        {
            offers.Add(
                At(lower, OneChange.LowerRung, "W-RUNG", Message.Of("within.rung", ("rung", lower.Id)), side)
            );
        }
        return
        [
            .. offers.Where(offer =>
                offer.RungId == rung.Id
                || !Allowance.Of(library, profile.Precautions, library.Rung(offer.RungId), offer.Side).Barred
            ),
        ];
    }

    private static EaseOffer Of(Ease ease, Rung rung, SideDose side, PracticeLibrary library)
    {
        var rule = ease.Change == OneChange.ShorterLever ? "W-LEVER" : "W-SUPPORT";
        return ease.To is { } to
            ? At(library.Rung(to), ease.Change, rule, Message.Plain(ease.Words), side)
            : new(ease.Change, rule, Message.Plain(ease.Words), rung.Id, side.Side, side.Dose);
    }

    /// <summary>Another rung, at no more reps and no more seconds of holding in a set than were asked for here.</summary>
    private static EaseOffer At(Rung rung, OneChange change, string rule, Message words, SideDose side)
    {
        var reps = Math.Min(rung.Start.Reps, side.Dose.Reps);
        var hold =
            side.Dose.Hold > 0
                ? Math.Min(rung.Start.Hold, Math.Floor(side.Dose.Reps * side.Dose.Hold / reps))
                : rung.Start.Hold;
        return new(
            change,
            rule,
            words,
            rung.Id,
            rung.Sides == RungSides.Each && side.Side != Side.Both ? side.Side : rung.TaskSides[0],
            rung.Start with
            {
                Reps = reps,
                Hold = hold,
            }
        );
    }

    private static Rung? Below(Rung rung, PracticeLibrary library)
    {
        var ladder = library.LadderOf(rung.Id);
        var index = ladder.IndexOf(rung.Id);
        return ladder.Direction != Direction.None && index > 0 ? ladder.Rungs[index - 1] : null;
    }
}
