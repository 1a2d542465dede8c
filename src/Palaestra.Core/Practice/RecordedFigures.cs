using Palaestra.Core.Agreement;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Practice;

/// <summary>How far a team agrees on recorded traces; figures are none until two have rated enough of them.</summary>
/// <param name="Items">Traces all of them rated, those that came again left out.</param>
/// <param name="Kappa">On whether control was lost at all. <paramref name="Fleiss"/>, <paramref name="Ac1"/>: likewise; <paramref name="Ends"/>: intervals of those by name.</param>
/// <param name="Seconds">On the seconds before it was.</param>
/// <param name="Again">Traces rated a second time, by all together. <paramref name="SameAgain"/>: on which they said the same of whether.</param>
/// <param name="AgainError">What one rater's seconds differ by from one time to the next, standard error in seconds; none of fewer than five.</param>
/// <param name="ByBand">The eye's seconds less those of the instrument's band; none of fewer than three.</param>
public sealed record TracesAgreed(
    int Items,
    bool Enough,
    double? Kappa,
    double? Fleiss,
    double? Ac1,
    IReadOnlyDictionary<string, Ends> Ends,
    NumbersAgreed? Seconds,
    int Again,
    int SameAgain,
    double? AgainError,
    LimitsOfAgreement? ByBand
);

/// <summary>How far a team agrees on one angle of photographs.</summary>
/// <param name="Items">Photographs in which all of them read it, those that came again left out.</param>
/// <param name="Degrees">None until two have read it often enough.</param>
/// <param name="AgainError">What one rater's readings differ by from one time to the next, standard error in degrees; none of fewer than five.</param>
public sealed record AngleAgreed(
    PhotoAngleKind Kind,
    int Items,
    bool Enough,
    NumbersAgreed? Degrees,
    double? AgainError
);

/// <summary>How far those agree who have rated all of a session on recorded traces and photographs.</summary>
/// <param name="Needed">Items from which on figures are told.</param>
/// <param name="Traces">None: there are none in it. <paramref name="Angles"/>: those that somebody read.</param>
public sealed record RecordedFigures(
    int Raters,
    int Needed,
    TracesAgreed? Traces,
    IReadOnlyList<AngleAgreed> Angles
)
{
    /// <summary>Fewer tell nothing of how somebody differs from themselves.</summary>
    private const int AgainLeast = 5;

    /// <param name="raters">By rater, by place; a place may be missing where it was not there any more.</param>
    public static RecordedFigures Of(
        IReadOnlyList<RecordedThing> things,
        IReadOnlyList<IReadOnlyDictionary<int, RecordedReading>> raters,
        PracticeModel model
    )
    {
        bool RatedByAll(RecordedThing thing) =>
            raters.Count > 0 && raters.All(rater => rater.ContainsKey(thing.Place));
        var rated = things.Where(RatedByAll).ToList();
        var traces = rated.Where(thing => thing.Kind == RecordedKind.Trace).ToList();
        var photos = rated.Where(thing => thing.Kind == RecordedKind.Photo).ToList();
        return new(
            raters.Count,
            model.EnoughClips,
            traces.Count > 0 ? OnTraces(traces, raters, model) : null,
            [
                .. Enum.GetValues<PhotoAngleKind>()
                    .Select(kind => OnAngle(kind, photos, raters, model))
                    .OfType<AngleAgreed>(),
            ]
        );
    }

    private static TracesAgreed OnTraces(
        List<RecordedThing> traces,
        IReadOnlyList<IReadOnlyDictionary<int, RecordedReading>> raters,
        PracticeModel model
    )
    {
        double SecondsOf(IReadOnlyDictionary<int, RecordedReading> rater, RecordedThing trace) =>
            rater[trace.Place].Lost ?? trace.Seconds;
        var first = traces.Where(trace => trace.Of is null).ToList();
        var byBand = raters
            .SelectMany(rater =>
                first
                    .Where(trace => trace.ByBand is not null)
                    .Select(trace => (SecondsOf(rater, trace), trace.ByBand!.Value))
            )
            .ToList();
        var twice = Twice(traces, raters);
        var enough = IsEnough(first.Count, raters.Count, model);
        var table = enough
            ? new CategoryTable(
                [
                    .. first.Select(trace =>
                        raters.Select(rater => rater[trace.Place].Lost is null ? 0 : 1).ToArray()
                    ),
                ],
                2
            )
            : null;
        return new(
            first.Count,
            enough,
            table?.Kappa(),
            table?.Fleiss(),
            table?.Ac1(),
            table?.Ends(("kappa", t => t.Kappa()), ("fleiss", t => t.Fleiss()), ("ac1", t => t.Ac1()))
                ?? new Dictionary<string, Ends>(),
            enough
                ? NumbersAgreed.Of([
                    .. first.Select(trace => raters.Select(rater => SecondsOf(rater, trace)).ToArray()),
                ])
                : null,
            twice.Count,
            twice.Count(pair =>
                pair.Rater[pair.Again.Place].Lost is null == pair.Rater[pair.First.Place].Lost is null
            ),
            AgainError(
                twice.Select(pair => SecondsOf(pair.Rater, pair.Again) - SecondsOf(pair.Rater, pair.First))
            ),
            byBand.Count >= 3 ? LimitsOfAgreement.Of(byBand) : null
        );
    }

    private static AngleAgreed? OnAngle(
        PhotoAngleKind kind,
        List<RecordedThing> photos,
        IReadOnlyList<IReadOnlyDictionary<int, RecordedReading>> raters,
        PracticeModel model
    )
    {
        double? DegreesOf(IReadOnlyDictionary<int, RecordedReading> rater, RecordedThing photo) =>
            PhotoAngles.Of(rater[photo.Place].Photo!).FirstOrDefault(angle => angle.Kind == kind)?.Degrees;
        var rows = photos
            .Where(photo => photo.Of is null)
            .Select(photo => raters.Select(rater => DegreesOf(rater, photo)).OfType<double>().ToArray())
            .Where(row => row.Length > 0)
            .ToList();
        if (rows.Count == 0)
        {
            return null;
        }
        var whole = rows.Where(row => row.Length == raters.Count).ToList();
        var enough = IsEnough(whole.Count, raters.Count, model);
        return new(
            kind,
            whole.Count,
            enough,
            enough ? NumbersAgreed.Of(whole) : null,
            AgainError(
                Twice(photos, raters)
                    .Select(pair => DegreesOf(pair.Rater, pair.Again) - DegreesOf(pair.Rater, pair.First))
                    .OfType<double>()
            )
        );
    }

    private static bool IsEnough(int items, int raters, PracticeModel model) =>
        raters >= 2 && items >= model.EnoughClips;

    private sealed record Pair(
        IReadOnlyDictionary<int, RecordedReading> Rater,
        RecordedThing First,
        RecordedThing Again
    );

    private static List<Pair> Twice(
        List<RecordedThing> things,
        IReadOnlyList<IReadOnlyDictionary<int, RecordedReading>> raters
    ) =>
        [
            .. from again in things
            where again.Of is not null
            join first in things on again.Of equals first.Place
            from rater in raters
            select new Pair(rater, first, again),
        ];

    /// <summary>Half of what two readings differ by in square is what one errs by (Dahlberg's formula, from memory).</summary>
    private static double? AgainError(IEnumerable<double> differences)
    {
        var all = differences.ToList();
        return all.Count >= AgainLeast ? Math.Sqrt(all.Sum(d => d * d) / (2 * all.Count)) : null;
    }
}
