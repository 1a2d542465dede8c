using Palaestra.Core;
using Palaestra.Core.Library;

namespace Palaestra.Server.Library;

/// <summary>Reads the content folder at start; a wrong file stops the start with its name and field.</summary>
public static class LibraryLoader
{
    /// <param name="own">Folder of the clinic's own ladders and poses; none, or one that is not there: only ours.</param>
    public static PracticeLibrary Load(string folder, string? own = null)
    {
        var library = ContentFiles.Read(
            Texts(folder),
            own is null || !Directory.Exists(own) ? null : Texts(own)
        );
        if (!library.IsValid)
        {
            var lines = library.Errors.Select(error => $"  {error.Field}: {error.Message}");
            throw new InvalidOperationException(
                $"The content in {folder} has errors:\n{string.Join('\n', lines)}"
            );
        }
        return library.Value!;
    }

    private static Dictionary<string, string> Texts(string folder) =>
        Directory
            .EnumerateFiles(folder, "*.json", SearchOption.AllDirectories)
            .Select(path => (Name: Path.GetRelativePath(folder, path).Replace('\\', '/'), path))
            .Where(file => !file.Name.StartsWith("schema/", StringComparison.Ordinal))
            .Where(file => !file.Name.StartsWith("demo/", StringComparison.Ordinal))
            .ToDictionary(file => file.Name, file => File.ReadAllText(file.path));
}
