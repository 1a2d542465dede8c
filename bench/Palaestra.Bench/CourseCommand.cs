using System.Globalization;
using System.Text.Json;
using Palaestra.Core.Library;
using Palaestra.Simulation.Courses;

namespace Palaestra.Bench;

/// <summary>
/// <c>./palaestra courses --nature FILE --clients N --seed S --out FILE</c>: the text report, and beside it with the ending
/// .json the same as a table. Without --out docs/policies.md from all natures of the project.
/// </summary>
public static class CourseCommand
{
    /// <returns>0; 2 where an option or the nature is wrong, with a line that names it.</returns>
    public static int Run(IReadOnlyList<string> options, PracticeLibrary library, string from)
    {
        var given = new Dictionary<string, string>();
        for (var i = 0; i < options.Count; i += 2)
        {
            if (
                !Known.Contains(options[i])
                || i + 1 == options.Count
                || !given.TryAdd(options[i], options[i + 1])
            )
            {
                return Wrong(
                    $"{options[i]}: not an option with a value, or given twice. Options: {string.Join(", ", Known)}."
                );
            }
        }
        if (!Number(given, "--clients", 1000, 1, 1_000_000, out var clients))
        {
            return Wrong("--clients: a whole number from 1 to 1000000.");
        }
        if (!Number(given, "--seed", 1, 0, 20_000, out var seed))
        {
            return Wrong("--seed: a whole number from 0 to 20000.");
        }
        if (!given.TryGetValue("--out", out var file))
        {
            if (given.ContainsKey("--nature"))
            {
                return Wrong("--out: say where the report goes.");
            }
            var simulated = PolicyPages.Choices(library, Natures()[0], PolicyPages.Fewer(clients), seed);
            File.WriteAllText(
                "docs/policies.md",
                PolicyPages.Write(library, Natures(), clients, seed, simulated)
            );
            File.WriteAllText(
                Path.Combine("content", "simulated.json"),
                JsonSerializer.Serialize(
                    new SimulatedFile(
                        "our own: written by ./palaestra courses, see docs/policies.md",
                        simulated,
                        "schema/simulated.schema.json"
                    ),
                    Indented
                ) + "\n"
            );
            return 0;
        }
        var natureFile = given.TryGetValue("--nature", out var named)
            ? Path.Combine(from, named)
            : Path.Combine("bench", "natures", "typical.json");
        CourseNature nature;
        try
        {
            nature = CourseNature.Read(File.ReadAllText(natureFile));
        }
        catch (InvalidDataException wrong)
        {
            return Wrong($"--nature {natureFile}: {wrong.Message}");
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            return Wrong($"--nature {natureFile}: {wrong.Message}");
        }
        var table = CourseTable.Of(library, nature, clients, seed);
        var report = Path.Combine(from, file);
        File.WriteAllText(report, CourseReport.Write(table));
        File.WriteAllText(Path.ChangeExtension(report, ".json"), table.Json());
        return 0;
    }

    private static readonly JsonSerializerOptions Indented = new(CoreJson.Options) { WriteIndented = true };

    private static readonly string[] Known = ["--nature", "--clients", "--seed", "--out"];

    private static IReadOnlyList<CourseNature> Natures() =>
        [
            .. new[] { "typical", "half-gain", "steep-flares", "mixed" }.Select(name =>
                CourseNature.Read(File.ReadAllText(Path.Combine("bench", "natures", $"{name}.json")))
            ),
        ];

    private static bool Number(
        Dictionary<string, string> given,
        string option,
        int otherwise,
        int least,
        int most,
        out int value
    )
    {
        value = otherwise;
        return !given.TryGetValue(option, out var text)
            || int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out value)
                && value >= least
                && value <= most;
    }

    private static int Wrong(string why)
    {
        Console.Error.WriteLine(why);
        return 2;
    }
}
