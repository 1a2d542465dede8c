using System.Text.Json;
using Palaestra.Core.Library;
using Palaestra.Data.Keeping;
using Palaestra.Server.Words;
using Palaestra.Words;

namespace Palaestra.Server.Library;

/// <summary>Reads the content folder at start; a wrong file stops the start with its name and field.</summary>
public static class LibraryLoader
{
    /// <param name="own">Folder of the clinic's own ladders and poses; none, or one that is not there: only ours.</param>
    /// <param name="kept">File in which loads are kept from one start to the next; none: worked out each time.</param>
    public static PracticeLibrary Load(string folder, string? own = null, string? kept = null)
    {
        var known = Known(kept);
        var library = ContentFiles.Read(
            Texts(folder),
            own is null || !Directory.Exists(own) ? null : Texts(own),
            known
        );
        if (!library.IsValid)
        {
            var words = WordFiles.Load(folder);
            var lines = library.Errors.Select(error =>
                $"  {error.Field}: {words.Say(error.Message, new Manner())}"
            );
            throw new StartRefusedException(
                StartFault.Content,
                $"the content in {own ?? folder} has errors:\n{string.Join('\n', lines)}"
            );
        }
        if (kept is not null && known?.Fits(library.Value!) != true)
        {
            Directory.CreateDirectory(Path.GetDirectoryName(kept)!);
            File.WriteAllText(
                kept,
                JsonSerializer.Serialize(KnownLoads.Of(library.Value!), CoreJson.Options)
            );
        }
        return library.Value!;
    }

    /// <summary>None where nothing was kept, or what was kept cannot be read: then it is worked out anew.</summary>
    private static KnownLoads? Known(string? kept)
    {
        try
        {
            return kept is null || !File.Exists(kept)
                ? null
                : JsonSerializer.Deserialize<KnownLoads>(File.ReadAllText(kept), CoreJson.Options);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static Dictionary<string, string> Texts(string folder) =>
        Directory
            .EnumerateFiles(folder, "*.json", SearchOption.AllDirectories)
            .Select(path => (Name: Path.GetRelativePath(folder, path).Replace('\\', '/'), path))
            .Where(file => !file.Name.StartsWith("schema/", StringComparison.Ordinal))
            .Where(file => !file.Name.StartsWith("demo/", StringComparison.Ordinal))
            .Where(file => !file.Name.StartsWith("words/", StringComparison.Ordinal))
            .ToDictionary(file => file.Name, file => File.ReadAllText(file.path));
}
