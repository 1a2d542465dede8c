using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

public class ContentFilesTests
{
    private static Checked<PracticeLibrary> With(string file, string find, string replace)
    {
        Assert.Contains(find, Content.Texts[file], StringComparison.Ordinal);
        var texts = new Dictionary<string, string>(Content.Texts);
        var at = texts[file].IndexOf(find, StringComparison.Ordinal);
        texts[file] = texts[file][..at] + replace + texts[file][(at + find.Length)..];
        return ContentFiles.Read(texts);
    }

    [Fact]
    public void The_shipped_content_has_no_errors() => Assert.Empty(ContentFiles.Read(Content.Texts).Errors);

    [Theory]
    [InlineData("ladders/b-limb-lowering.json", "\"reps\": 5", "\"reps\": \"five\"", "rungs[0].start.reps")]
    [InlineData("ladders/b-limb-lowering.json", "\"limit\"", "\"limits\"", "rungs[0]")]
    [InlineData("faults.json", "\"kind\": \"breaking\"", "\"kind\": \"shattering\"", "faults[0].kind")]
    [InlineData("policies.json", "\"evenPercent\": 10", "\"evenPercent\": null", "policies[0].evenPercent")]
    public void A_wrong_field_is_named_with_its_file(string file, string find, string replace, string path)
    {
        var error = Assert.Single(With(file, find, replace).Errors);
        Assert.StartsWith(file, error.Field, StringComparison.Ordinal);
        Assert.Contains(path, error.Field, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("ladders/b-limb-lowering.json", "\"rib-flare\"", "\"rib-flair\"", "rungs[0].faults")]
    [InlineData(
        "ladders/b-limb-lowering.json",
        "\"end\": \"foot-float\"",
        "\"end\": \"foot-boat\"",
        "rungs[0].poses"
    )]
    [InlineData("ladders/b-limb-lowering.json", "\"fallback\": \"A1\"", "\"fallback\": \"A9\"", "fallback")]
    [InlineData("ladders/e-bridge.json", "\"reps\": 12", "\"reps\": 9", "rungs[0].cap")]
    [InlineData("ladders/b-limb-lowering.json", "\"B3\": \"one arm", "\"B4\": \"one arm", "rungs.B3")]
    [InlineData("ladders/g-side-plank.json", "\"the load of the held plank", "\"\", \"G99\": \"", "offOrder")]
    [InlineData(
        "precautions.json",
        "\"ladder\": \"D\"",
        "\"ladder\": \"ZZ\"",
        "precautions[0].rules[5].ladder"
    )]
    [InlineData("poses.json", "\"kneeLeft\": {", "\"kneeMiddle\": {", ".joints")]
    [InlineData("photo-samples.json", "\"rungId\": \"K2\"", "\"rungId\": \"ZZ2\"", "samples[0].rungId")]
    [InlineData("photo-samples.json", "\"fault\": \"round\"", "\"fault\": \"rush\"", "samples[2].fault")]
    public void What_does_not_fit_together_is_named(string file, string find, string replace, string path) =>
        Assert.Contains(
            With(file, find, replace).Errors,
            error =>
                error.Field.StartsWith(file, StringComparison.Ordinal)
                && error.Field.Contains(path, StringComparison.Ordinal)
        );

    [Fact]
    public void A_missing_file_is_named()
    {
        var texts = new Dictionary<string, string>(Content.Texts);
        texts.Remove("faults.json");
        Assert.Contains(ContentFiles.Read(texts).Errors, error => error.Field == "faults.json");
    }

    [Fact]
    public void The_version_changes_with_any_word_of_the_content() =>
        Assert.NotEqual(
            Content.Library.Version,
            With("ladders/b-limb-lowering.json", "Foot float", "Foot afloat").Value!.Version
        );

    /// <summary>Whoever reads a sheet, a calendar or a letter is told all of them.</summary>
    [Theory]
    [InlineData("numbness")]
    [InlineData("bladder or bowel")]
    [InlineData("new weakness")]
    [InlineData("down a leg")]
    [InlineData("fever")]
    public void Every_caution_handed_out_names_the_sign(string sign)
    {
        var cautions = Content.Library.Cautions;
        Assert.All(
            [cautions.OnSheet, cautions.OnCalendar, cautions.SeenAtOnce],
            words => Assert.Contains(sign, words, StringComparison.Ordinal)
        );
    }
}
