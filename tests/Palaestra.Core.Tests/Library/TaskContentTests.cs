using System.Text.Json.Nodes;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

/// <summary>Wrong tasks and norms are refused at the start, with file and field.</summary>
public class TaskContentTests
{
    private static IReadOnlyList<string> Fields(string file, Action<JsonObject> spoil)
    {
        var json = JsonNode.Parse(Content.Texts[file])!.AsObject();
        spoil(json);
        var texts = new Dictionary<string, string>(Content.Texts) { [file] = json.ToJsonString() };
        return [.. ContentFiles.Read(texts).Errors.Select(e => e.Field)];
    }

    private static JsonObject Task(JsonObject file, string id) =>
        file["tasks"]!.AsArray().Select(t => t!.AsObject()).First(t => (string?)t["id"] == id);

    private static string At(string id) =>
        $"tasks.json tasks[{Content.Library.Tasks.ToList().FindIndex(t => t.Id == id)}]";

    public static TheoryData<string, string, string?, string> WrongTasks =>
        new()
        {
            { "stance", "rung", "\"Z9\"", ".rung" },
            { "leg-lowering", "ladder", "\"Z\"", ".ladder" },
            { "leg-lowering", "rung", "\"B5\"", "" },
            { "stance", "rung", null, "" },
            { "stance", "id", "\"fists\"", ".id" },
            { "stance", "id", "\"rung-K2\"", ".id" },
            { "roll-range", "full", null, ".full" },
            { "roll-range", "stops", "[]", ".stops" },
            { "loaded-hinge", "loads", null, ".loads" },
            { "active-leg-raise", "points", "[\"light\", \"heavy\"]", ".points" },
            { "stance", "minutes", "0", "" },
            { "stance", "priority", "4", "" },
            { "stance", "tries", "0", "" },
        };

    [Theory]
    [MemberData(nameof(WrongTasks))]
    public void A_wrong_task_is_named(string id, string field, string? value, string at)
    {
        // An id taken twice is told where it stands the second time.
        var place = value == "\"fists\"" ? At("stance") : At(id);
        var fields = Fields(
            "tasks.json",
            file =>
            {
                var task = Task(file, id);
                task.Remove(field);
                if (value is not null)
                {
                    task[field] = JsonNode.Parse(value);
                }
            }
        );
        Assert.Contains(place + at, fields);
    }

    [Fact]
    public void A_place_of_a_task_that_is_no_rung_is_named() =>
        Assert.Contains(
            $"{At("shoulder-touch")}.surfaces[1].rung",
            Fields(
                "tasks.json",
                file => Task(file, "shoulder-touch")["surfaces"]!.AsArray()[1]!.AsObject()["rung"] = "Z9"
            )
        );

    [Fact]
    public void Every_position_of_a_rung_has_its_place_in_the_order_of_a_screen() =>
        Assert.Contains(
            "tasks.json positions",
            Fields(
                "tasks.json",
                file => file["positions"] = new JsonArray(file["positions"]![0]!.DeepClone())
            )
        );

    public static TheoryData<string, int, string, string?, string> WrongNorms =>
        new()
        {
            { "norms", 0, "task", "\"moon-walk\"", "norms.json norms[0].task" },
            { "norms", 0, "sd", "-3", "norms.json norms[0]" },
            { "norms", 0, "ageFrom", "90", "norms.json norms[0]" },
            { "norms", 0, "mean", null, "norms.json norms[0]" },
            { "ratios", 1, "over", "{\"task\":\"moon-walk\"}", "norms.json ratios[1]" },
            { "errors", 0, "of", "\"moon-walk\"", "norms.json errors[0].of" },
            { "errors", 0, "icc", "1", "norms.json errors[0]" },
            { "errors", 0, "sd", null, "norms.json errors[0]" },
        };

    [Theory]
    [MemberData(nameof(WrongNorms))]
    public void A_wrong_norm_is_named(string list, int index, string field, string? value, string at) =>
        Assert.Contains(
            at,
            Fields(
                "norms.json",
                file =>
                {
                    var entry = file[list]!.AsArray()[index]!.AsObject();
                    entry.Remove(field);
                    if (value is not null)
                    {
                        entry[field] = JsonNode.Parse(value);
                    }
                }
            )
        );

    [Theory]
    [InlineData("rung")]
    [InlineData("control")]
    [InlineData("effort")]
    [InlineData("centimetres")]
    public void Every_kind_of_measure_has_its_measurement_error(string of) =>
        Assert.Contains(
            "norms.json errors",
            Fields(
                "norms.json",
                file =>
                {
                    var errors = file["errors"]!.AsArray();
                    errors.Remove(errors.First(e => (string?)e!["of"] == of));
                }
            )
        );

    [Fact]
    public void Every_outside_figure_names_its_source()
    {
        var norms = Content.Library.Norms;
        Assert.All(norms.Norms, n => Assert.NotEmpty(n.Source));
        Assert.All(norms.Ratios, r => Assert.NotEmpty(r.Source));
        Assert.All(norms.Differences, d => Assert.NotEmpty(d.Source));
        Assert.All(norms.Errors, e => Assert.NotEmpty(e.Source));
    }

    [Fact]
    public void Tests_are_drawn_but_never_planned() =>
        Assert.All(
            Content.Library.Ladders.Where(l => !l.Trained).SelectMany(l => l.Rungs),
            rung =>
            {
                Assert.NotEmpty(Content.Library.PathOf(rung));
                var item = new Core.Planning.PlanItem(
                    Guid.NewGuid(),
                    rung.Id,
                    Message.Plain(""),
                    [.. rung.TaskSides.Select(side => new Core.Planning.SideDose(side, new Dose(5, 1, 0)))],
                    [],
                    [],
                    rung.Cues[0]
                );
                Assert.Contains(
                    Core.Planning.PlanCheck.Errors([item], Content.Library, "items"),
                    e => e.Field == "items[0].rungId"
                );
            }
        );
}
