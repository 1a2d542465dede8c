using System.Text.Json.Nodes;
using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

/// <summary>A clinic's own files beside ours.</summary>
public class OverlayTests
{
    private static JsonObject Bridge() => JsonNode.Parse(Content.Texts["ladders/e-bridge.json"])!.AsObject();

    private static JsonObject Rung(string id, Action<JsonObject> change)
    {
        var rung = Bridge()["rungs"]!
            .AsArray()
            .First(r => r!["id"]!.GetValue<string>() == id)!
            .DeepClone()
            .AsObject();
        change(rung);
        return rung;
    }

    private static Checked<PracticeLibrary> With(
        JsonObject rung,
        Action<JsonObject>? change = null,
        string? poses = null
    )
    {
        var ladder = Bridge();
        ladder["rungs"] = new JsonArray(rung);
        ladder.Remove("offOrder");
        change?.Invoke(ladder);
        var own = new Dictionary<string, string> { ["ladders/ours.json"] = ladder.ToJsonString() };
        if (poses is not null)
        {
            own["poses.json"] = poses;
        }
        return ContentFiles.Read(Content.Texts, own);
    }

    [Fact]
    public void A_changed_rung_takes_the_place_of_ours()
    {
        var library = With(Rung("E2", r => r["name"] = "Bridge with the blue ball")).Value!;
        Assert.Equal("Bridge with the blue ball", library.Rung("E2").Name);
        Assert.Equal(1, library.LadderOf("E2").IndexOf("E2"));
        Assert.NotEqual(Content.Library.Version, library.Version);
    }

    [Fact]
    public void A_new_rung_follows_the_one_it_names()
    {
        var library = With(
            Rung(
                "E2",
                r =>
                {
                    r["id"] = "E2-cushion";
                    r["name"] = "Bridge, cushion between the knees";
                    r["after"] = "E2";
                }
            )
        ).Value!;
        var ladder = library.LadderOf("E2");
        Assert.Equal(ladder.IndexOf("E2") + 1, ladder.IndexOf("E2-cushion"));
    }

    [Fact]
    public void A_ladder_with_its_own_id_stands_for_itself()
    {
        var library = With(
            Rung("E2", r => r["id"] = "X1"),
            ladder => (ladder["id"], ladder["name"]) = ("X", "Ours")
        ).Value!;
        Assert.Equal("X", library.LadderOf("X1").Id);
    }

    [Fact]
    public void A_pose_of_the_clinic_can_be_used_and_is_checked()
    {
        const string poses = """
            { "source": "our clinic", "poses": { "high-bridge": { "base": "bridge", "root": { "pitch": 116 } } } }
            """;
        var rung = Rung("E2", r => r["poses"]!["end"] = "high-bridge");
        Assert.True(With(rung, poses: poses).IsValid);
        var broken = With(Rung("E2", r => r["poses"]!["end"] = "no-such-bridge"));
        Assert.Contains(
            broken.Errors,
            error => error.Field.EndsWith("rungs[1].poses", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_rung_that_follows_nothing_is_named_with_its_file()
    {
        var error = Assert.Single(
            With(
                Rung(
                    "E2",
                    r =>
                    {
                        r["id"] = "E99";
                        r["after"] = "E98";
                    }
                )
            ).Errors
        );
        Assert.Equal("own ladders/ours.json rungs[0].after", error.Field);
    }
}
