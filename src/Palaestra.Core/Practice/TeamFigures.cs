using Palaestra.Core.Agreement;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>How one of a team did, without a name unless it is shared.</summary>
/// <param name="Rater">The name; none: not shared.</param>
/// <param name="Again">Clips shown a second time. <paramref name="SameAgain"/>: those that were answered the same.</param>
/// <param name="SameMirrored">Of <paramref name="Mirrored"/> clips seen in a mirror, those answered the same.</param>
/// <param name="Left">Faults of the left that were marked, as a share; none without any. <paramref name="Right"/>: likewise.</param>
public sealed record TeamMember(
    string? Rater,
    Proportion? Missed,
    Proportion? FalseMarks,
    double? DPrime,
    int Again,
    int SameAgain,
    int Mirrored,
    int SameMirrored,
    Proportion? Left,
    Proportion? Right
);

/// <summary>How far a team agrees; figures are none until two have answered enough clips alike.</summary>
/// <param name="Raters">Who answered all. <paramref name="Items"/>: clips all of them answered.</param>
/// <param name="Kappa">On what gave way: clean, or which fault. <paramref name="Fleiss"/>, <paramref name="Ac1"/>: likewise.</param>
/// <param name="Ends">Intervals of those by name.</param>
/// <param name="Reps">On clean reps. <paramref name="Seconds"/>: on clean seconds of holds.</param>
/// <param name="Hardest">Clips least agreed on with what was there, the hardest first; at most five.</param>
public sealed record TeamFigures(
    int Raters,
    int Items,
    bool Enough,
    double? Kappa,
    double? Fleiss,
    double? Ac1,
    IReadOnlyDictionary<string, Ends> Ends,
    NumbersAgreed? Reps,
    NumbersAgreed? Seconds,
    IReadOnlyList<TeamMember> Members,
    IReadOnlyList<HardClip> Hardest
)
{
    private const int HardestMost = 5;

    /// <param name="raters">Answers by rater, each in the order of the items, as many as there are items; a name where it is shared.</param>
    public static TeamFigures Of(
        IReadOnlyList<(string? Name, IReadOnlyList<ClipResult> Results)> raters,
        IReadOnlyList<TeamItem> items,
        PracticeLibrary library
    )
    {
        // Only what came first: a clip that comes again would count twice.
        var first = Enumerable.Range(0, items.Count).Where(i => items[i].Of is null).ToList();
        var enough = raters.Count >= 2 && first.Count >= library.Practice.EnoughClips;
        var members = raters.Select(rater => MemberOf(rater.Name, rater.Results, items, library)).ToList();
        var hardest = first
            .Select(i => new HardClip(
                items[i].Seed,
                raters.Count == 0 ? null : raters[0].Results[i].Spec.Truth?.Fault,
                raters.Count(rater => IsRight(rater.Results[i])),
                raters.Count
            ))
            .OrderBy(clip => clip.Right)
            .Take(HardestMost)
            .ToList();
        if (!enough)
        {
            return new(
                raters.Count,
                first.Count,
                false,
                null,
                null,
                null,
                new Dictionary<string, Ends>(),
                null,
                null,
                members,
                raters.Count == 0 ? [] : hardest
            );
        }
        var table = TableOf(raters, first, library);
        return new(
            raters.Count,
            first.Count,
            true,
            table.Kappa(),
            table.Fleiss(),
            table.Ac1(),
            table.Ends(("kappa", t => t.Kappa()), ("fleiss", t => t.Fleiss()), ("ac1", t => t.Ac1())),
            NumbersAgreed.Of(Rows(raters, first, r => r.CleanReps)),
            NumbersAgreed.Of(Rows(raters, first, r => r.CleanSeconds)),
            members,
            hardest
        );
    }

    private static bool IsRight(ClipResult result) =>
        result.Outcome is ClipOutcome.Named or ClipOutcome.RightlyClean;

    /// <summary>Clean, or the fault that was named first.</summary>
    private static CategoryTable TableOf(
        IReadOnlyList<(string? Name, IReadOnlyList<ClipResult> Results)> raters,
        List<int> items,
        PracticeLibrary library
    )
    {
        var faults = library.Faults.Select(fault => fault.Code).ToList();
        return new(
            [
                .. items.Select(i =>
                    raters
                        .Select(rater =>
                            rater.Results[i].First is { } mark ? 1 + faults.IndexOf(mark.Fault) : 0
                        )
                        .ToArray()
                ),
            ],
            faults.Count + 1
        );
    }

    private static List<double[]> Rows<T>(
        IReadOnlyList<(string? Name, IReadOnlyList<ClipResult> Results)> raters,
        List<int> items,
        Func<ClipResult, T?> number
    )
        where T : struct, IConvertible =>
        [
            .. items
                .Select(i => raters.Select(rater => number(rater.Results[i])).ToArray())
                .Where(row => row.All(value => value is not null))
                .Select(row =>
                    row.Select(value =>
                            value!.Value.ToDouble(System.Globalization.CultureInfo.InvariantCulture)
                        )
                        .ToArray()
                ),
        ];

    private static TeamMember MemberOf(
        string? name,
        IReadOnlyList<ClipResult> results,
        IReadOnlyList<TeamItem> items,
        PracticeLibrary library
    )
    {
        var figures = RaterFigures.Of(results, library);
        var again = Enumerable.Range(0, items.Count).Where(i => items[i].Of is not null).ToList();
        bool Same(int i) => results[i].First?.Fault == results[items[i].Of!.Value].First?.Fault;
        var faulty = results.Where(r => r.Faulty && r.Spec.Side != Side.Both).ToList();
        return new(
            name,
            figures.Missed,
            figures.FalseMarks,
            figures.DPrime,
            again.Count(i => !items[i].Mirrored),
            again.Count(i => !items[i].Mirrored && Same(i)),
            again.Count(i => items[i].Mirrored),
            again.Count(i => items[i].Mirrored && Same(i)),
            Marked(Side.Left),
            Marked(Side.Right)
        );

        Proportion? Marked(Side side) =>
            faulty.Count(r => r.Spec.Side == side) is > 0 and var all
                ? Proportion.Of(faulty.Count(r => r.Spec.Side == side && r.Marked), all)
                : null;
    }
}

/// <summary>A clip and how many saw what was there.</summary>
/// <param name="Fault">None: it held.</param>
public sealed record HardClip(int Seed, string? Fault, int Right, int Raters);

/// <summary>How far numbers agree.</summary>
/// <param name="Icc">ICC(2,1): these raters of many there could be. <paramref name="Sem"/>, <paramref name="Sdc"/>: in the unit of the numbers.</param>
public sealed record NumbersAgreed(int Items, Figured Icc, double Sem, double Sdc)
{
    /// <summary>Fewer tell nothing of how numbers differ.</summary>
    private const int ItemsLeast = 5;

    internal static NumbersAgreed? Of(List<double[]> rows)
    {
        if (rows.Count < ItemsLeast)
        {
            return null;
        }
        var table = TwoWayTable.Of(rows);
        return new(rows.Count, Figured.Of(IntraclassCorrelation.Of(table)?.TwoWay), table.Sem, table.Sdc);
    }
}
