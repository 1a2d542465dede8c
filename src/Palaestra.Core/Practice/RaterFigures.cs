using MathNet.Numerics.Statistics;
using Palaestra.Core.Agreement;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>What is known of one fault.</summary>
/// <param name="Shown">Clips with it. <paramref name="Marked"/>: those in which something that breaks a rep was marked; <paramref name="Named"/>: this fault.</param>
/// <param name="Missed">Share that goes by, all degrees alike, 0 to 1. <paramref name="Low"/>, <paramref name="High"/>: the middle 95 %.</param>
public sealed record FaultFigure(
    string Fault,
    int Shown,
    int Marked,
    int Named,
    double Missed,
    double Low,
    double High
);

/// <summary>How late marks come.</summary>
/// <param name="Count">Faults that were marked, at least 3.</param>
/// <param name="Median">Of late less true. <paramref name="Low"/>, <paramref name="High"/>: limits of agreement, 19 in 20 lie between.</param>
public sealed record OnsetFigure(int Count, double Median, double Low, double High);

/// <summary>How well one rater sees, from the clips answered.</summary>
/// <param name="Needed">Clips from which on figures are worth telling. <paramref name="Enough"/>: there are; without, all below are none.</param>
/// <param name="Missed">Share of faults that go by, all degrees alike. <paramref name="FalseMarks"/>: share of clean clips that are marked.</param>
/// <param name="DPrime">How well faults are told from none. <paramref name="Criterion"/>: above 0, rather lets a fault go by.</param>
/// <param name="Degrees">Chance that a fault is marked, least degree first.</param>
/// <param name="Reps">How many reps late. <paramref name="Seconds"/>: how many seconds late, in holds.</param>
/// <param name="OtherSide">Faults marked to the other side, of <paramref name="Sided"/> where a side was asked.</param>
/// <param name="LookNext">Faults to look at next, what goes by most first; at most three.</param>
public sealed record RaterFigures(
    int Clips,
    int Needed,
    bool Enough,
    Proportion? Missed,
    Proportion? FalseMarks,
    double? DPrime,
    double? Criterion,
    IReadOnlyList<double> Degrees,
    OnsetFigure? Reps,
    OnsetFigure? Seconds,
    int OtherSide,
    int Sided,
    IReadOnlyList<FaultFigure> Faults,
    IReadOnlyList<string> LookNext
)
{
    private const int LookAtMost = 3;

    /// <param name="results">Of one rater, in any order.</param>
    public static RaterFigures Of(IReadOnlyList<ClipResult> results, PracticeLibrary library)
    {
        var faulty = results.Where(r => r.Faulty).ToList();
        var clean = results.Count - faulty.Count;
        var enough = results.Count >= library.Practice.EnoughClips && faulty.Count > 0 && clean > 0;
        var belief = RaterBelief.Of(results);
        var falseMarks = results.Count(r => !r.Faulty && r.Marked);
        var told = enough
            ? new Detection(faulty.Count, faulty.Count(r => r.Marked), clean, falseMarks)
            : null;
        var faults = faulty
            .GroupBy(r => r.Spec.Truth!.Fault, StringComparer.Ordinal)
            .Select(group => FaultOf(group.Key, [.. group], belief))
            .OrderByDescending(figure => figure.Missed)
            .ThenBy(figure => figure.Fault, StringComparer.Ordinal)
            .ToList();
        var (low, high) = belief.MissedWithin;
        return new(
            results.Count,
            library.Practice.EnoughClips,
            enough,
            enough ? new(belief.Missed, low, high) : null,
            enough ? Proportion.Of(falseMarks, clean) : null,
            told?.DPrime,
            told?.Criterion,
            enough ? [.. Practice.Degrees.All.Select(belief.ChanceOf)] : [],
            enough ? OnsetOf(faulty.Select(r => (double?)r.RepsLate)) : null,
            enough ? OnsetOf(faulty.Where(r => r.Spec.Reps == 0).Select(r => r.SecondsLate)) : null,
            faulty.Count(r => r.OtherSide == true),
            faulty.Count(r => r.OtherSide is not null),
            faults,
            [.. LookAt(faults, ClipRoom.Of(library).Faults)]
        );
    }

    private static FaultFigure FaultOf(string fault, List<ClipResult> shown, RaterBelief overall)
    {
        var belief = overall.OfFault(shown);
        var (low, high) = belief.MissedWithin;
        return new(
            fault,
            shown.Count,
            shown.Count(r => r.Marked),
            shown.Count(r => r.Outcome == ClipOutcome.Named),
            belief.Missed,
            low,
            high
        );
    }

    /// <summary>What went by at least once, what goes by most first; then what was never shown.</summary>
    private static IEnumerable<string> LookAt(List<FaultFigure> faults, IReadOnlyList<string> all) =>
        faults
            .Where(f => f.Marked < f.Shown || f.Named < f.Shown)
            .Select(f => f.Fault)
            .Concat(all.Where(code => faults.All(f => f.Fault != code)))
            .Take(LookAtMost);

    private static OnsetFigure? OnsetOf(IEnumerable<double?> late)
    {
        var told = late.OfType<double>().ToList();
        if (told.Count < 3)
        {
            return null;
        }
        var limits = LimitsOfAgreement.Of([.. told.Select(one => (one, 0.0))]);
        return new(told.Count, told.Median(), limits.Low, limits.High);
    }
}
