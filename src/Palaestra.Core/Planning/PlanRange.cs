using Palaestra.Core.Body;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Shorter ranges: less far, and what that is of the full load.</summary>
public static class PlanRange
{
    /// <summary>Less than this of a movement is not the exercise any more. Our own.</summary>
    public const double Least = Screening.RungFinder.LeastRange;

    /// <summary>As far as the cautions leave, with the words for it (P-RANGE).</summary>
    public static SideDose Cautious(
        SideDose dose,
        Rung rung,
        ClientProfile profile,
        BodySize body,
        PracticeLibrary library
    )
    {
        var range = Allowance.Of(library, profile.Precautions, rung, dose.Side).Range;
        var share = Math.Min(dose.Range, Math.Max(Least, range));
        return Worded(dose with { Dose = dose.Dose with { Range = share } }, rung, body, library);
    }

    /// <summary>The dose with the words and the share of load that fit its range.</summary>
    public static SideDose Worded(SideDose dose, Rung rung, BodySize body, PracticeLibrary library)
    {
        if (dose.Range >= 1)
        {
            return dose with { RangeEnds = null, RangeLoadPercent = null };
        }
        var question = new LoadQuestion(
            body,
            rung.Id,
            Side: dose.Side,
            Changes: new LoadChanges(Range: dose.Range)
        );
        var answer = LoadAnswers.Of(question, library).Value;
        return dose with
        {
            RangeEnds = Message.Of("range.ends", ("share", dose.Range), ("heel", answer?.Load.ReachedCm)),
            RangeLoadPercent = answer is { Directions: [var main, ..] } ? main.PercentOfFull : null,
        };
    }

    /// <summary>"70 % of the way, heel 31 cm up: 81 % of the full load".</summary>
    public static Message? Words(SideDose dose) =>
        dose.RangeLoadPercent is { } percent
            ? Message.Of("range.load", ("ends", dose.RangeEnds), ("percent", percent))
            : dose.RangeEnds;
}
