namespace Palaestra.Core.Agreement;

/// <summary>What raters gave the items.</summary>
public enum RatingKind
{
    /// <summary>Measured: degrees, seconds, reps.</summary>
    Numbers,

    /// <summary>Put in classes: marked or not, which fault, how hard of four.</summary>
    Categories,
}

/// <summary>How far do these raters agree?</summary>
/// <param name="Ratings">
/// A row for each item, a value for each rater, all rows as long as the first; 2 to 100 raters. Numbers: 2 to 10,000 items, each
/// finite. Categories: 1 to 10,000 items, all numbers, or all names; names are taken in the order in which they first appear.
/// </param>
/// <param name="Weights">How far categories are apart for weighted kappa; left out: by the square. Refused for numbers.</param>
public sealed record AgreementQuestion(
    RatingKind Kind,
    IReadOnlyList<IReadOnlyList<Rating>> Ratings,
    CategoryWeights? Weights = null
);

/// <summary>Of an interval of 95 %.</summary>
/// <param name="Low">Lower end. <paramref name="High"/>: upper end.</param>
public sealed record Ends(double Low, double High);

/// <summary>A figure with the ends of its interval of 95 %; none where it has no value, or an end lies nowhere.</summary>
public sealed record Figured(double? Value, double? Low, double? High)
{
    internal static Figured Of(Correlation? figure) =>
        new(Finite(figure?.Value), Finite(figure?.Low), Finite(figure?.High));

    private static double? Finite(double? value) =>
        value is { } number && double.IsFinite(number) ? number : null;
}

/// <summary>How far they agree: of numbers the correlations and errors, of categories the kappas.</summary>
/// <param name="Icc">By name: "1,1", "2,1", "3,1", and of the average of k raters "1,k" to "3,k" with k in figures.</param>
/// <param name="Kappa">Cohen's; of more than two raters the mean of all pairs. None where chance alone would always agree.</param>
/// <param name="Sem">Standard error of measurement, in the unit of the numbers. <paramref name="Sdc"/>: smallest detectable change.</param>
/// <param name="Intervals">Of the kappas and AC1, by name, items drawn again; none where there is too much to draw.</param>
public sealed record AgreementAnswer(
    int Items,
    int Raters,
    IReadOnlyDictionary<string, Figured>? Icc,
    double? Kappa,
    double? WeightedKappa,
    CategoryWeights? Weights,
    double? Fleiss,
    double? Ac1,
    double? Sem,
    double? Sdc,
    IReadOnlyDictionary<string, Ends>? Intervals
);

/// <summary>Answers how far raters agree.</summary>
public static class AgreementAnswers
{
    /// <summary>Raters there may be at once.</summary>
    public const int RatersMost = 100;

    /// <summary>Items there may be at once.</summary>
    public const int ItemsMost = 10_000;

    /// <summary>Pairs of raters times items up to which intervals are drawn: about a second's work. Our own.</summary>
    private const long DrawnMost = 50_000;

    /// <summary>The answer, or what is wrong by field; nothing is thrown for what was sent.</summary>
    public static Checked<AgreementAnswer> Of(AgreementQuestion question)
    {
        var errors = Errors(question).Take(20).ToList();
        return errors.Count > 0 ? Checked<AgreementAnswer>.Bad(errors)
            : question.Kind == RatingKind.Numbers ? Checked<AgreementAnswer>.Good(OfNumbers(question))
            : Checked<AgreementAnswer>.Good(OfCategories(question));
    }

    private static AgreementAnswer OfNumbers(AgreementQuestion question)
    {
        var table = TwoWayTable.Of([
            .. question.Ratings.Select(row => row.Select(value => value.Number!.Value).ToArray()),
        ]);
        var icc = IntraclassCorrelation.Of(table);
        var k = table.Raters.ToString(System.Globalization.CultureInfo.InvariantCulture);
        return new(
            table.Items,
            table.Raters,
            new Dictionary<string, Figured>
            {
                ["1,1"] = Figured.Of(icc?.OneWay),
                ["2,1"] = Figured.Of(icc?.TwoWay),
                ["3,1"] = Figured.Of(icc?.Fixed),
                [$"1,{k}"] = Figured.Of(icc?.OneWayAverage),
                [$"2,{k}"] = Figured.Of(icc?.TwoWayAverage),
                [$"3,{k}"] = Figured.Of(icc?.FixedAverage),
            },
            null,
            null,
            null,
            null,
            null,
            table.Sem,
            table.Sdc,
            null
        );
    }

    private static AgreementAnswer OfCategories(AgreementQuestion question)
    {
        var table = TableOf(question.Ratings);
        var weights = question.Weights ?? CategoryWeights.Quadratic;
        return new(
            table.Items,
            table.Raters,
            null,
            table.Kappa(),
            table.WeightedKappa(weights),
            weights,
            table.Fleiss(),
            table.Ac1(),
            null,
            null,
            (long)table.Items * table.Raters * (table.Raters - 1) / 2 <= DrawnMost
                ? table.Ends(
                    ("kappa", t => t.Kappa()),
                    ("weightedKappa", t => t.WeightedKappa(weights)),
                    ("fleiss", t => t.Fleiss()),
                    ("ac1", t => t.Ac1())
                )
                : null
        );
    }

    /// <summary>Only what was used is a category: of one that nobody chose nothing is known.</summary>
    private static CategoryTable TableOf(IReadOnlyList<IReadOnlyList<Rating>> ratings)
    {
        var all = ratings.SelectMany(row => row).ToList();
        if (all[0].Number is not null)
        {
            // One that stands alone is beside another that nobody chose.
            double[] used = [.. all.Select(value => value.Number!.Value).Distinct().Order()];
            double[] numbers = used.Length > 1 ? used : [used[0], used[0] + 1];
            return new(
                [
                    .. ratings.Select(row =>
                        row.Select(v => Array.IndexOf(numbers, v.Number!.Value)).ToArray()
                    ),
                ],
                numbers.Length,
                numbers
            );
        }
        string[] names = [.. all.Select(value => value.Name!).Distinct(StringComparer.Ordinal)];
        return new(
            [.. ratings.Select(row => row.Select(v => Array.IndexOf(names, v.Name)).ToArray())],
            Math.Max(2, names.Length)
        );
    }

    private static IEnumerable<FieldError> Errors(AgreementQuestion question)
    {
        var ratings = question.Ratings;
        var least = question.Kind == RatingKind.Numbers ? 2 : 1;
        if (ratings.Count < least || ratings.Count > ItemsMost)
        {
            yield return new("ratings", Message.Of("agreement.items", ("least", least), ("most", ItemsMost)));
            yield break;
        }
        if (ratings[0].Count is < 2 or > RatersMost)
        {
            yield return new("ratings[0]", Message.Of("agreement.raters", ("most", RatersMost)));
            yield break;
        }
        if (question.Kind == RatingKind.Numbers && question.Weights is not null)
        {
            yield return new("weights", Message.Of("agreement.weights"));
        }
        var numbers = question.Kind == RatingKind.Numbers || ratings[0][0].Number is not null;
        for (var i = 0; i < ratings.Count; i++)
        {
            if (ratings[i].Count != ratings[0].Count)
            {
                yield return new(
                    $"ratings[{i}]",
                    Message.Of("agreement.row", ("raters", ratings[0].Count), ("here", ratings[i].Count))
                );
            }
            for (var j = 0; j < ratings[i].Count; j++)
            {
                if (!Fits(ratings[i][j], numbers))
                {
                    yield return new(
                        $"ratings[{i}][{j}]",
                        question.Kind == RatingKind.Numbers
                            ? Message.Of("agreement.number")
                            : Message.Of("agreement.category")
                    );
                }
            }
        }
    }

    /// <summary>Squares of more than this would not be numbers any more.</summary>
    private const double NumberMost = 1e100;

    private static bool Fits(Rating value, bool numbers) =>
        numbers
            ? value.Number is { } number && Math.Abs(number) <= NumberMost
            : value.Name is { Length: > 0 and <= 200 };
}
