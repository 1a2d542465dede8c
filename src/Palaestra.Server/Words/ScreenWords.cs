using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Palaestra.Data.Keeping;
using Palaestra.Server.Serving;

namespace Palaestra.Server.Words;

/// <summary>The clinic's own sentences of the screens, by id; what it does not say itself is said by the client's.</summary>
public sealed record ScreenWords(IReadOnlyDictionary<string, string> Own)
{
    /// <param name="own">The clinic's content folder; none, or one without words: no sentences of its own.</param>
    /// <exception cref="StartRefusedException">A file cannot be read, or a sentence that there is not is said.</exception>
    public static ScreenWords Load(string folder, string? own)
    {
        var ours = Sentences(folder).Select(sentence => sentence.Id).ToHashSet();
        var told = own is null ? [] : Sentences(own).ToList();
        Refuse("there are no such sentences of the screens", told.Where(s => !ours.Contains(s.Id)));
        Refuse(
            "these sentences of the screens stand there twice",
            told.Where(s => told.Count(t => t.Id == s.Id) > 1)
        );
        Refuse(
            "these sentences of the screens say nothing",
            told.Where(s => string.IsNullOrWhiteSpace(s.Text))
        );
        return new(told.ToDictionary(sentence => sentence.Id, sentence => sentence.Text));
    }

    private static void Refuse(string what, IEnumerable<(string File, string Id, string Text)> wrong)
    {
        var lines = wrong.Select(sentence => $"  own {sentence.File}: {sentence.Id}").ToList();
        if (lines.Count > 0)
        {
            throw new StartRefusedException(StartFault.Content, $"{what}:\n{string.Join('\n', lines)}");
        }
    }

    /// <summary>A script that stands before the client's and leaves the sentences where it finds them.</summary>
    public string Script => ScriptOf(Own);

    public static string ScriptOf(IReadOnlyDictionary<string, string> own) =>
        $"globalThis.ownWords={JsonSerializer.Serialize(own)};\n";

    /// <summary>Another one once the sentences are others.</summary>
    public string Address => $"/words.js?version={Version}";

    private string Version => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(Script)))[..16];

    /// <summary>Whether this is the version that there is now.</summary>
    public bool Is(string? version) => version == Version;

    private static IEnumerable<(string File, string Id, string Text)> Sentences(string folder)
    {
        var screens = Path.Combine(folder, "words", WordFiles.English, "screens");
        return !Directory.Exists(screens)
            ? []
            : Directory
                .EnumerateFiles(screens, "*.json")
                .Order(StringComparer.Ordinal)
                .SelectMany(path =>
                    Texts(path)
                        .Select(pair =>
                            (
                                $"words/{WordFiles.English}/screens/{Path.GetFileName(path)}",
                                pair.Key,
                                pair.Value
                            )
                        )
                );
    }

    private static Dictionary<string, string> Texts(string path)
    {
        try
        {
            return JsonSerializer.Deserialize<Dictionary<string, string>>(File.ReadAllText(path)) ?? [];
        }
        catch (JsonException problem)
        {
            throw new StartRefusedException(
                StartFault.Content,
                $"the words have errors:\n  {path}: {problem.Message}",
                problem
            );
        }
    }
}

public static class ScreenWordEndpoints
{
    /// <summary>Asked for by the page itself, before anybody has signed in.</summary>
    public static void MapScreenWords(this IEndpointRouteBuilder app) =>
        app.MapGet(
                "/words.js",
                (ScreenWords words, HttpContext http, string? version) =>
                {
                    http.Response.Headers.CacheControl = words.Is(version) ? ClientPages.Forever : "no-cache";
                    return Results.Text(words.Script, "text/javascript");
                }
            )
            .AllowAnonymous()
            .ExcludeFromDescription();
}
