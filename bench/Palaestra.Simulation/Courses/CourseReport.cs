using System.Globalization;
using System.Text;

namespace Palaestra.Simulation.Courses;

/// <summary>A table of courses in words: what `./palaestra courses` writes.</summary>
public static class CourseReport
{
    public static string Write(CourseTable table)
    {
        var text = new StringBuilder();
        var nature = table.Nature;
        text.AppendLine(
            I(
                $"""
                ## Nature: {nature.Name}

                {nature.About}

                {table.Clients} simulated clients (seed {table.Seed}), each for {nature.Weeks} weeks with one visit a week under each policy: screened, planned,
                run and decided by the product's own rules. The same client meets the same chances in every row. ± is one standard error.

                """
            )
        );
        Rows(text, table);
        Rules(text, table);
        return text.ToString();
    }

    private static void Rows(StringBuilder text, CourseTable table)
    {
        text.AppendLine(
            I(
                $"""
                | policy | half the exercises a rung up in {table.Nature.Weeks} weeks | median weeks until then | flared at least once | flares a course | steps up a course | of those too early | tries a course | decisions another look would overturn | ability gained, rungs | minutes a week |
                |---|---|---|---|---|---|---|---|---|---|---|
                """
            )
        );
        foreach (var row in table.Rows)
        {
            var (figures, errors) = (row.Figures, row.Errors);
            text.AppendLine(
                I(
                    $"| {row.Name} | {Percent(figures.Up12, errors.Up12)} | {(figures.WeeksToHalf is { } weeks ? I($"{weeks:0}") : "not by half")} | {Percent(figures.Flared, errors.Flared)} | {figures.FlaresPerCourse:0.00} ± {errors.FlaresPerCourse:0.00} | {row.StepsUp:0.0} | {Percent(figures.TooEarly, errors.TooEarly)} | {row.Probes:0.0} | {Percent(figures.Overturned, errors.Overturned)} | {figures.Gain:0.00} ± {errors.Gain:0.00} | {figures.MinutesPerWeek:0} |"
                )
            );
        }
    }

    private static void Rules(StringBuilder text, CourseTable table)
    {
        var rows = table.Rows.Where(row => row.Rules.Count > 0).ToList();
        text.AppendLine();
        text.AppendLine("Which rule decided, of all decisions:");
        text.AppendLine();
        text.AppendLine($"| rule | {string.Join(" | ", rows.Select(row => row.Name))} |");
        text.AppendLine($"|---|{string.Concat(rows.Select(_ => "---|"))}");
        foreach (var id in rows.SelectMany(row => row.Rules.Keys).Distinct().Order(StringComparer.Ordinal))
        {
            text.AppendLine(
                $"| {id} | {string.Join(" | ", rows.Select(row => I($"{100 * row.Rules.GetValueOrDefault(id):0.0} %")))} |"
            );
        }
        text.AppendLine();
    }

    private static string Percent(double? share, double? error) =>
        share is { } value ? I($"{100 * value:0.0} ± {100 * error:0.0} %") : "–";

    private static string I(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
