using Palaestra.Data.Keeping;
using Palaestra.Words;

namespace Palaestra.Server.Words;

/// <summary>Reads the sentences at start; one that cannot be read stops the start with its file and id.</summary>
public static class WordFiles
{
    public const string English = "en";

    /// <param name="own">The clinic's content folder; none, or one that is not there: only our sentences.</param>
    /// <exception cref="StartRefusedException">A file cannot be read; each is named with what is wrong.</exception>
    public static Catalog Load(string folder, string? own = null)
    {
        var ours = Catalog.Read(Texts(folder));
        var read = ours.IsValid && own is not null ? Catalog.Read(Texts(folder), Texts(own)) : ours;
        if (read.IsValid)
        {
            return read.Value!;
        }
        var lines = read.Errors.Select(error =>
            $"  {error.Field}: {ours.Value?.Say(error.Message, new Manner()) ?? error.Message.ToString()}"
        );
        throw new StartRefusedException(
            StartFault.Content,
            $"the words have errors:\n{string.Join('\n', lines)}"
        );
    }

    private static Dictionary<string, string> Texts(string folder)
    {
        var words = Path.Combine(folder, "words", English);
        return !Directory.Exists(words)
            ? []
            : Directory
                .EnumerateFiles(words, "*.json")
                .ToDictionary(
                    path => $"words/{English}/{Path.GetFileName(path)}",
                    path => File.ReadAllText(path)
                );
    }
}
