using System.Globalization;
using System.Text;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;

namespace Palaestra.Simulation.Courses;

/// <summary>docs/policies.md, written from what the simulated courses did.</summary>
public static class CourseReport
{
    public const int Courses = 1000;

    public static string Write(PracticeLibrary library, int courses = Courses)
    {
        var nature = CourseNature.Typical;
        var text = new StringBuilder();
        text.AppendLine(
            I(
                $"""
                # Policies on simulated courses

                Written by `./palaestra courses`; not to be edited by hand. {courses} simulated clients, each for {nature.Weeks} weeks with one
                visit a week under each built-in policy: screened, planned, run and decided by the product's own rules. The same client
                meets the same chances under every policy.

                A simulated client has a true ability by direction and side (docs/screening-simulation.md), which grows by up to {nature.Gain} rungs a
                week with clean work near it and fades without work. A rep gives way when its rung is higher than the ability that is left (SD {nature.RepNoise} rungs
                from rep to rep, {nature.DayNoise} from day to day, up to {nature.Tires} lost over a set). Work hurts by {nature.PainPerRung} points for each rung above the ability. The rater misses {nature.Missed
                    * 100:0} % of faults and imagines {nature.Imagined * 100:0} %. Work flares with a chance
                of {nature.FlareBase * 100:0.#} % a week, {nature.FlarePerRung
                    * 100:0} points more for each rung the plan is above the ability and {nature.FlarePerGrowth
                    * 100:0} for each doubling of clean time in a week.
                Most clients do most of the home work, a few little. All figures are our own choice; no data of real people stand behind them,
                and what differs between the rows says more than what stands in one.
                """
            )
        );
        text.AppendLine();
        text.AppendLine(Head(nature));
        var rules = new List<(string Policy, Dictionary<string, int> Fired, int All)>();
        foreach (var policy in library.Policies)
        {
            var results = Lived(library, policy, nature, courses);
            Row(text, policy.Name, results);
            rules.Add((policy.Name, Fired(results), results.Sum(r => r.Decisions)));
        }
        text.AppendLine();
        text.AppendLine("The first of them with one choice changed:");
        text.AppendLine();
        text.AppendLine(Head(nature));
        foreach (var (name, policy) in Variants(library.DefaultPolicy))
        {
            Row(text, name, Lived(Instead(library, policy), policy, nature, courses));
        }
        Pace(text, library);
        Rules(text, rules);
        return text.ToString();
    }

    private static IEnumerable<(string Name, Policy Policy)> Variants(Policy policy) =>
        [
            ("clean time grows by a tenth a week", policy with { WeeklyGrowth = 0.1 }),
            ("by two fifths", policy with { WeeklyGrowth = 0.4 }),
            ("one clean visit is enough", policy with { MasteryVisits = 1 }),
            ("effort up to 5 of 10", policy with { MasteryEffortMax = 5 }),
        ];

    private static PracticeLibrary Instead(PracticeLibrary library, Policy policy) =>
        library with
        {
            Policies = [policy, .. library.Policies.Skip(1)],
        };

    private static List<CourseResult> Lived(
        PracticeLibrary library,
        Policy policy,
        CourseNature nature,
        int courses
    ) =>
        [
            .. Enumerable
                .Range(1, courses)
                .AsParallel()
                .AsOrdered()
                .Select(seed => Course.Run(library, policy, nature, seed))
                .OfType<CourseResult>(),
        ];

    private static string Head(CourseNature nature) =>
        I(
            $"""
            | policy | weeks until half of the exercises are a rung up, median | got there in {nature.Weeks} weeks | ability gained, rungs | flared at least once | flares a course | steps up a course | of those too early | decisions another look would overturn |
            |---|---|---|---|---|---|---|---|---|
            """
        );

    private static void Row(StringBuilder text, string name, List<CourseResult> results)
    {
        var weeks = results.Select(r => r.TargetWeek).OfType<int>().Order().ToList();
        var reached = (double)weeks.Count / results.Count;
        // The median over all courses; those that did not get there count as later than all others.
        var median = reached >= 0.5 ? I($"{weeks[results.Count / 2]}") : "not by half";
        var ups = results.Sum(r => r.StepUps);
        text.AppendLine(
            I(
                $"| {name} | {median} | {reached * 100:0} % | {results.Average(r => r.RungsGained):0.0} | {results.Count(r => r.Flares > 0) * 100.0 / results.Count:0} % | {results.Average(r => r.Flares):0.00} | {(double)ups / results.Count:0.0} | {(ups == 0 ? 0 : 100.0 * results.Sum(r => r.TooEarly) / ups):0} % | {100.0 * results.Sum(r => r.Overturned) / results.Sum(r => r.Decisions):0} % |"
            )
        );
    }

    /// <summary>Clean visits from a rung's first dose, back calm, to the visit that earns the next rung.</summary>
    private static void Pace(StringBuilder text, PracticeLibrary library)
    {
        text.AppendLine();
        text.AppendLine(
            "What clean time may grow by sets the pace. Visits on one rung of a calm client in whom every rep is clean, from the start dose to the second visit at the target, over all trained rungs:"
        );
        text.AppendLine();
        text.AppendLine(
            "| clean time grows a week by | quickest quarter of rungs | median | slowest quarter |"
        );
        text.AppendLine("|---|---|---|---|");
        foreach (var growth in new[] { 0.1, library.DefaultPolicy.WeeklyGrowth, 0.4 })
        {
            var visits = library
                .TrainedLadders.SelectMany(ladder => ladder.Rungs)
                .Select(rung => VisitsOn(rung, growth, library.DefaultPolicy))
                .Order()
                .ToList();
            int At(double share) => visits[(int)(visits.Count * share)];
            text.AppendLine(I($"| {growth:P0} | {At(0.25)} | {At(0.5)} | {At(0.75)} |"));
        }
        text.AppendLine();
        text.AppendLine(
            "With one visit a week that is slower than the two weeks the twelve-week map gives a stage. The fifth is common practice and is kept, for each exercise: on these courses twice as much brings more of them up, with a few more flares, and a clinic can choose it in Settings."
        );
    }

    private static int VisitsOn(Rung rung, double growth, Policy policy)
    {
        var visits = policy.MasteryVisits;
        var dose = DosePlanner.Start(rung, StirredUp.Low, policy);
        while (DoseStep.Harder(dose, rung, rung.Target, growth) is { } more)
        {
            dose = more;
            visits++;
        }
        return visits;
    }

    private static Dictionary<string, int> Fired(List<CourseResult> results) =>
        results
            .SelectMany(r => r.Fired)
            .GroupBy(f => f.Key)
            .ToDictionary(g => g.Key, g => g.Sum(f => f.Value));

    private static void Rules(
        StringBuilder text,
        List<(string Policy, Dictionary<string, int> Fired, int All)> rules
    )
    {
        text.AppendLine();
        text.AppendLine("Which rule decided, of all decisions:");
        text.AppendLine();
        text.AppendLine($"| rule | {string.Join(" | ", rules.Select(r => r.Policy))} |");
        text.AppendLine($"|---|{string.Concat(rules.Select(_ => "---|"))}");
        foreach (var id in rules.SelectMany(r => r.Fired.Keys).Distinct().Order(StringComparer.Ordinal))
        {
            var shares = rules.Select(r => I($"{100.0 * r.Fired.GetValueOrDefault(id) / r.All:0.0} %"));
            text.AppendLine($"| {id} | {string.Join(" | ", shares)} |");
        }
    }

    private static string I(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
