using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>What was asked at an earlier visit, as far as it was asked.</summary>
/// <param name="Usual">Usual pain, 0 to 10. <paramref name="NextDay"/>: the morning after.</param>
/// <param name="SettledHours">Hours, or <paramref name="Settled"/> the word, until it was as before.</param>
public sealed record PastCheckIn(
    int Visit,
    DateOnly Date,
    int? Usual,
    int? Now = null,
    int? NextDay = null,
    double? SettledHours = null,
    Settling? Settled = null,
    LegReport? Leg = null
)
{
    internal double? Hours => Settled?.Hours() ?? SettledHours;
}

/// <summary>A reference pain that a practitioner set after a review.</summary>
/// <param name="Value">0 to 10; at most the policy's points above what it would be.</param>
public sealed record ReferenceSet(int Value, DateOnly On, string Reason, string? By = null);

/// <summary>Pain over an episode. A new episode begins anew.</summary>
/// <param name="CheckIns">Earlier check-ins, the first visit among them, in any order; never the present one.</param>
/// <param name="FirstUsual">Usual pain at the first visit; none: of the first check-in that has one.</param>
/// <param name="Set">The last time a practitioner set the reference; none: never.</param>
public sealed record PainHistory(
    IReadOnlyList<PastCheckIn> CheckIns,
    int? FirstUsual = null,
    ReferenceSet? Set = null
);

/// <summary>What present pain is compared with.</summary>
/// <param name="Value">0 to 10.</param>
/// <param name="Words">What it rests on: "median of 2, 3, 3, 4".</param>
public sealed record Reference(int Value, Message Words);

/// <summary>Works out the reference pain and the slow drift of usual pain. Common practice.</summary>
public static class ReferencePain
{
    /// <summary>Check-ins the reference is the median of.</summary>
    public const int Window = 4;

    /// <summary>
    /// The median usual pain of the last four earlier check-ins (fewer: what there is; halves rounded up), at most the first
    /// visit's usual and the policy's points more. The first visit has its own. One check-in a day counts, the latest; one
    /// without a usual is skipped. What a practitioner set stands in place of the first visit's, and what came before it is
    /// left aside.
    /// </summary>
    /// <param name="own">The visit's own usual pain: the reference of a first visit.</param>
    public static Reference Of(PainHistory? history, int own, Judgement judgement)
    {
        var earlier = Usuals(history).TakeLast(Window).ToList();
        if (history?.Set is { } set && earlier.Count == 0)
        {
            return new(set.Value, Message.Of("reference.set", ("reason", set.Reason)));
        }
        if (earlier.Count == 0)
        {
            return new(own, Message.Of("reference.own"));
        }
        return Capped(
            Median(earlier),
            Message.Of("reference.median", ("pains", earlier)),
            First(history, own) + judgement.ReferenceOverFirst
        );
    }

    private static Reference Capped(int value, Message words, int cap) =>
        value <= cap
            ? new(value, words)
            : new(cap, Message.Of("reference.capped", ("of", words), ("most", cap)));

    /// <summary>
    /// How far the median usual pain of the last three check-ins, today's among them, is over the lowest median of four
    /// running; before there are four, over the first usual. 0 or more.
    /// </summary>
    public static int Drift(PainHistory? history, int? today)
    {
        var all = Usuals(history);
        if (today is { } now)
        {
            all.Add(now);
        }
        if (all.Count == 0)
        {
            return 0;
        }
        var recent = Median([.. all.TakeLast(3)]);
        var lowest =
            all.Count < Window
                ? First(history, all[0])
                : Enumerable.Range(0, all.Count - Window + 1).Min(i => Median([.. all.Skip(i).Take(Window)]));
        return Math.Max(0, recent - lowest);
    }

    private static int First(PainHistory? history, int first) =>
        history?.Set?.Value
        ?? history?.FirstUsual
        ?? history?.CheckIns.OrderBy(c => c.Date).FirstOrDefault(c => c.Usual is not null)?.Usual
        ?? first;

    /// <summary>Usual pain by day, the earliest first, from the last time it was set on.</summary>
    private static List<int> Usuals(PainHistory? history) =>
        [
            .. (history?.CheckIns ?? [])
                .Where(c => !(c.Date < history!.Set?.On))
                .GroupBy(c => c.Date)
                .OrderBy(day => day.Key)
                .Select(day => day.OrderBy(c => c.Visit).Last().Usual)
                .OfType<int>(),
        ];

    /// <summary>Why a reference may not be set so; none when it may: a reason, at most the policy's points more, and not while leg symptoms spread.</summary>
    public static Message? SetError(
        PainHistory history,
        ReferenceSet set,
        DecideInput input,
        PracticeLibrary library
    )
    {
        var judgement = (library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy).Judgement;
        if (string.IsNullOrWhiteSpace(set.Reason))
        {
            return Message.Of("reference.needs-reason");
        }
        if (set.On > input.Date)
        {
            return Message.Of("reference.date");
        }
        var before = history with
        {
            Set = null,
            CheckIns = [.. history.CheckIns.Where(c => c.Date < set.On)],
        };
        var most =
            Of(before, input.CheckIn.UsualPain ?? input.Profile.Pain.Usual, judgement).Value
            + judgement.ReferenceSetMost;
        return set.Value is < 0 or > 10 || set.Value > most
            ? Message.Of("reference.most", ("most", Math.Min(10, most)))
            : null;
    }

    /// <summary>The middle value; of two middle ones their mean, halves rounded up.</summary>
    public static int Median(IReadOnlyList<int> values)
    {
        var sorted = values.Order().ToList();
        var middle = sorted.Count / 2;
        return sorted.Count % 2 == 1
            ? sorted[middle]
            : (int)Math.Ceiling((sorted[middle - 1] + sorted[middle]) / 2.0);
    }
}
