using System.Text.Json;
using System.Text.Json.Serialization;
using Palaestra.Core.Library;

namespace Palaestra.Simulation.Courses;

/// <summary>All guides on the same clients, and the table as JSON.</summary>
public sealed record CourseTable(CourseNature Nature, int Clients, int Seed, IReadOnlyList<CourseRow> Rows)
{
    public static CourseTable Of(PracticeLibrary library, CourseNature nature, int clients, int seed) =>
        new(
            nature,
            clients,
            seed,
            [
                .. Guides(library)
                    .Select(guide =>
                        CourseRow.Of(
                            guide.Guide,
                            guide.Name,
                            Lived(library, guide.Guide, nature, clients, seed)
                        )
                    ),
            ]
        );

    /// <summary>The built-in policies, and what stands beside them under the first of them.</summary>
    private static IEnumerable<(CourseGuide Guide, string Name)> Guides(PracticeLibrary library) =>
        library
            .Policies.Select(policy => ((CourseGuide)new ByRules(policy.Id, policy), policy.Name))
            .Append((new Oracle(library.DefaultPolicy), "Oracle: knows true ability, same rules of safety"))
            .Append((new FrozenPlan(library.DefaultPolicy), "The first plan for all the weeks"))
            .Append((new PlainCalendar(library.DefaultPolicy), "A twelve-week map without any rule"));

    public static IReadOnlyList<CourseResult> Lived(
        PracticeLibrary library,
        CourseGuide guide,
        CourseNature nature,
        int clients,
        int seed
    ) =>
        [
            .. Enumerable
                .Range(0, clients)
                .AsParallel()
                .AsOrdered()
                .Select(client => Course.Run(library, guide, nature, unchecked(seed * 100_003 + client)))
                .OfType<CourseResult>(),
        ];

    private static readonly JsonSerializerOptions Format = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        DefaultIgnoreCondition = JsonIgnoreCondition.Never,
    };

    /// <returns>nature, clients, seed and rows, each with its figures and their standard errors in se.</returns>
    public string Json() =>
        JsonSerializer.Serialize(
            new
            {
                Nature = Nature.Name,
                Clients,
                Seed,
                Rows = Rows.Select(row => new
                {
                    row.Policy,
                    row.Name,
                    row.Figures.Up12,
                    row.Figures.WeeksToHalf,
                    row.Figures.Flared,
                    row.Figures.FlaresPerCourse,
                    row.Figures.TooEarly,
                    row.Figures.Overturned,
                    row.Figures.Gain,
                    row.Figures.MinutesPerWeek,
                    Se = row.Errors,
                }),
            },
            Format
        );
}
