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

    /// <summary>A clinic that measured its raters says how often they miss and imagine; what is wrong is named.</summary>
    [Theory]
    [InlineData("0.04", null)]
    [InlineData("0.7", "own ability.json ability.missed")]
    [InlineData("\"often\"", "own ability.json $.ability.missed")]
    public void The_clinics_own_rater_error_takes_the_place_of_ours(string missed, string? wrong)
    {
        var text = JsonNode.Parse(Content.Texts["ability.json"])!;
        text["ability"]!["missed"] = JsonNode.Parse(missed);
        var read = ContentFiles.Read(
            Content.Texts,
            new Dictionary<string, string> { ["ability.json"] = text.ToJsonString() }
        );
        if (wrong is null)
        {
            Assert.Equal(0.04, read.Value!.Ability.Missed);
            Assert.Equal(Content.Library.Ability.Imagined, read.Value!.Ability.Imagined);
        }
        else
        {
            Assert.Equal(wrong, Assert.Single(read.Errors).Field);
        }
    }

    /// <summary>A clinic's rungs on the ladder that moved are still planned: where theirs went, after what they followed.</summary>
    [Fact]
    public void What_a_clinic_added_to_a_ladder_that_moved_goes_where_it_went()
    {
        var ladder = JsonNode.Parse(Content.Texts["ladders/n-under-load.json"])!.AsObject();
        JsonObject Like(string id, string name, string? own = null, string? after = null)
        {
            var rung = ladder["rungs"]!
                .AsArray()
                .First(r => r!["id"]!.GetValue<string>() == id)!
                .DeepClone()
                .AsObject();
            (rung["id"], rung["name"]) = (own ?? id, name);
            if (after is not null)
            {
                rung["after"] = after;
            }
            return rung;
        }
        JsonArray rungs =
        [
            Like("N3", "Squat, our way"),
            Like("N5", "Lift from the bench", "bench", "N1"),
            Like("N5", "Lift from the bench, heavy", "heavy-bench", "bench"),
            Like("N5", "Lift the crate", "crate"),
        ];
        ladder["rungs"] = rungs;
        foreach (var ours in new[] { "trained", "successors" })
        {
            ladder.Remove(ours);
        }
        ladder["offOrder"] = new JsonObject
        {
            ["N3"] = "our squat",
            ["bench"] = "close to the body",
            ["crate"] = "another thing to hold",
            ["N4"] = "a reason of ours that goes with it",
        };
        var own = new Dictionary<string, string> { ["ladders/ours.json"] = ladder.ToJsonString() };
        var read = ContentFiles.Read(Content.Texts, own);
        Assert.True(read.IsValid, string.Join(' ', read.Errors));
        var library = read.Value!;
        Assert.Equal("Squat, our way", library.Rung("Q3").Name);
        Assert.Equal(
            ["S1", "bench", "heavy-bench", "S2", "S3", "crate", "S4"],
            library.LadderOf("S1").Rungs.Take(7).Select(rung => rung.Id)
        );
        Assert.True(library.LadderOf("crate").Trained);
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
