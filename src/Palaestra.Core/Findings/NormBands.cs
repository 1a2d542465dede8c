using Palaestra.Core.Body;
using Palaestra.Core.Library;

namespace Palaestra.Core.Findings;

/// <summary>Who is compared with a studied group.</summary>
/// <param name="Age">Whole years; none if not known.</param>
public sealed record Person(int? Age, Sex? Sex)
{
    /// <summary>Neither sex nor age is known.</summary>
    public static readonly Person Unknown = new(null, null);
}

/// <summary>What a studied group reached, beside the client's value.</summary>
/// <param name="Low">Mean − 1 SD. <paramref name="High"/>: mean + 1 SD; both none where no spread was published.</param>
/// <param name="Inside">Whether the client belongs to the group. Outside it nothing is concluded.</param>
/// <param name="Words">What can be said, in a sentence.</param>
public sealed record NormShown(
    Side Side,
    double? Mean,
    double? Low,
    double? High,
    IReadOnlyList<NormLine> Lines,
    bool Inside,
    Message Words,
    string Source,
    bool Memory
);

/// <param name="Attention">None where the client is outside the studied group.</param>
public sealed record DifferenceShown(
    double Amount,
    double Over,
    bool? Attention,
    Message Words,
    string Source,
    bool Memory
);

/// <param name="Attention">None where the client is outside the studied group. Of a ratio of two sides only where the range of its error lies outside: otherwise most healthy people would be flagged.</param>
/// <param name="Low">The ratio less 1.96 standard errors of measurement of both parts. <paramref name="High"/>: as much more.</param>
public sealed record RatioShown(
    string Id,
    string Name,
    double Value,
    bool? Attention,
    Message Words,
    string Source,
    bool Memory,
    double? Low = null,
    double? High = null
);

/// <summary>Puts published figures beside what was measured, and says when they do not apply.</summary>
public static class NormBands
{
    /// <summary>Bands for each side that was measured; those of another group are shown as such when none fits.</summary>
    public static IReadOnlyList<NormShown> Of(TaskFinding finding, Person person, PracticeLibrary library)
    {
        var norms = library
            .Norms.Norms.Where(n =>
                n.Task == finding.TaskId && (n.Variant is null || n.Variant == finding.Variant)
            )
            .ToList();
        return
        [
            .. from side in new[] { Side.Left, Side.Right, Side.Both }
            where finding.Of(side)?.Value is not null
            let own = norms.Where(n => n.Side == Side.Both || n.Side == side).ToList()
            let fitting = own.Where(n => Fits(n.AgeFrom, n.AgeTo, n.Sex, person)).ToList()
            from norm in fitting.Count > 0 ? fitting : Nearest(own, person)
            select Shown(norm, side, finding.Of(side)!.Value!.Value, fitting.Count > 0, person),
        ];
    }

    private static bool Fits(int from, int to, Sex? sex, Person person) =>
        person.Age is { } age && age >= from && age <= to && (sex is null || sex == person.Sex);

    /// <summary>The closest group by age, of the client's sex where that is known.</summary>
    private static IEnumerable<Norm> Nearest(List<Norm> norms, Person person) =>
        norms
            .Where(n => n.Sex is null || person.Sex is null || n.Sex == person.Sex)
            .OrderBy(n => person.Age is { } age ? Math.Max(n.AgeFrom - age, age - n.AgeTo) : 0)
            .Take(1);

    private static NormShown Shown(Norm norm, Side side, double value, bool inside, Person person)
    {
        double? low = norm.Mean - norm.Sd;
        double? high = norm.Mean + norm.Sd;
        return new(
            side,
            norm.Mean,
            low,
            high,
            norm.Lines ?? [],
            inside,
            inside ? Compared(norm, value, low, high) : Outside(norm.Population, person),
            norm.Source,
            norm.Memory
        );
    }

    private static Message Compared(Norm norm, double value, double? low, double? high)
    {
        if (norm.Lines is { Count: > 0 } lines)
        {
            return Message.Of(
                "norm.lines",
                ("lines", lines.Select(l => Message.Of("norm.line", ("at", l.At), ("words", l.Words)))),
                ("group", norm.Population)
            );
        }
        if (norm.CutAt is { } cut && value >= cut)
        {
            return Message.Of("norm.cut", ("cut", cut), ("mean", norm.Mean), ("group", norm.Population));
        }
        // Cut trials pile up at the cut: their spread says nothing of thirds.
        var place =
            low is null || norm.CutAt is not null
                ? value < norm.Mean
                    ? "under-mean"
                    : "over-mean"
                : value < low
                    ? "below"
                    : value > high
                        ? "above"
                        : "within";
        return Message.Of(
            "norm.place",
            ("place", place),
            ("group", norm.Population),
            ("mean", norm.Mean),
            ("sd", norm.Sd)
        );
    }

    private static Message Outside(string population, Person person) =>
        Message.Of("norm.outside", ("group", population), ("age", person.Age));

    /// <summary>A side difference that was studied, for this task and way.</summary>
    public static DifferenceShown? DifferenceOf(TaskFinding finding, Person person, PracticeLibrary library)
    {
        var known = library.Norms.Differences.FirstOrDefault(d =>
            d.Task == finding.TaskId && d.Variant == finding.Variant
        );
        if (known is null || finding.Left?.Value is not { } left || finding.Right?.Value is not { } right)
        {
            return null;
        }
        var amount = Math.Abs(left - right);
        var inside = Fits(known.AgeFrom, known.AgeTo, null, person);
        var words = Message.Of(
            "norm.difference",
            ("amount", amount),
            ("over", known.Over),
            ("means", inside ? known.Means : null),
            ("group", known.Population),
            ("outside", inside ? null : Outside(known.Population, person))
        );
        return new(
            amount,
            known.Over,
            inside ? amount > known.Over : null,
            words,
            known.Source,
            known.Memory
        );
    }

    /// <summary>Ratios of which both parts were measured and the lower one is above zero.</summary>
    public static IReadOnlyList<RatioShown> Ratios(
        IReadOnlyList<TaskFinding> tasks,
        Person person,
        PracticeLibrary library
    ) =>
        [
            .. from ratio in library.Norms.Ratios
            let over = ValueOf(ratio.Over, tasks)
            let under = ValueOf(ratio.Under, tasks)
            where over is not null && under is > 0
            select RatioOf(ratio, over.Value, under.Value, person, library),
        ];

    private static double? ValueOf(RatioPart part, IReadOnlyList<TaskFinding> tasks) =>
        tasks.FirstOrDefault(t => t.TaskId == part.Task)?.Of(part.Side)?.Value;

    private static RatioShown RatioOf(
        NormRatio ratio,
        double over,
        double under,
        Person person,
        PracticeLibrary library
    )
    {
        var value = over / under;
        // Errors of both parts of a quotient add up as squares.
        var (above, below) = (ErrorOf(ratio.Over), value * ErrorOf(ratio.Under));
        var error = 1.96 * Math.Sqrt(above * above + below * below) / under;
        var (low, high) = (Math.Max(0, value - error), value + error);
        var sides = ratio.Over.Task == ratio.Under.Task;
        var inside = Fits(ratio.AgeFrom, ratio.AgeTo, null, person);
        bool? attention =
            !inside ? null
            : sides ? high < ratio.From || low > ratio.To
            : value < ratio.From || value > ratio.To;
        var words = Message.Of(
            "norm.ratio",
            ("from", ratio.From),
            ("to", ratio.To),
            ("clearly", sides),
            ("group", ratio.Population),
            ("outside", inside ? null : Outside(ratio.Population, person))
        );
        return new(ratio.Id, ratio.Name, value, attention, words, ratio.Source, ratio.Memory, low, high);

        double ErrorOf(RatioPart part) =>
            library.Norms.Errors.FirstOrDefault(e => e.Of == part.Task)?.Error ?? 0;
    }
}
