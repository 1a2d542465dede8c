using System.Text.Json;
using Palaestra.Server.Tests.Given;

namespace Palaestra.Server.Tests;

/// <summary>The page finds a clinic's own sentences before anybody has signed in, and nothing where there are none.</summary>
public sealed class ScreenWordsTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("palaestra-words-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    [Fact]
    public async Task A_clinic_without_words_of_its_own_leaves_an_empty_list() =>
        Assert.Equal("globalThis.ownWords={};\n", await Script());

    /// <summary>Written so that no sentence can end the script it stands in.</summary>
    [Fact]
    public async Task Its_own_sentences_are_told_as_they_are_written()
    {
        const string sentence = "jetzt </script> “{n}” it's";
        var words = Path.Combine(folder, "content", "words", "en", "screens");
        Directory.CreateDirectory(words);
        await File.WriteAllTextAsync(
            Path.Combine(words, "day.json"),
            JsonSerializer.Serialize(new Dictionary<string, string> { ["day.now"] = sentence })
        );
        var script = await Script();
        Assert.DoesNotContain("</script>", script);
        var told = script["globalThis.ownWords=".Length..].TrimEnd('\n', ';');
        Assert.Equal(sentence, JsonSerializer.Deserialize<Dictionary<string, string>>(told)!["day.now"]);
    }

    private async Task<string> Script()
    {
        await using var server = new RunningServer(folder: folder);
        using var answer = await server.Browser().GetAsync("/words.js");
        Assert.Equal("text/javascript", answer.Content.Headers.ContentType?.MediaType);
        return await answer.Content.ReadAsStringAsync();
    }
}
