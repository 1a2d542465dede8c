namespace Palaestra.Data.Keeping;

/// <summary>Files that are there whole or not at all: a server that is killed meanwhile leaves no half one under the name.</summary>
public static class WholeFile
{
    private const string Unfinished = ".new";

    public static bool IsUnfinished(string path) => path.EndsWith(Unfinished, StringComparison.Ordinal);

    public static void Write(string path, string text) => Put(path, part => File.WriteAllText(part, text));

    /// <param name="write">Writes under another name, that takes the place of what was there.</param>
    public static void Put(string path, Action<string> write)
    {
        write(path + Unfinished);
        File.Move(path + Unfinished, path, overwrite: true);
    }

    public static async Task Put(string path, Func<string, Task> write)
    {
        await write(path + Unfinished);
        File.Move(path + Unfinished, path, overwrite: true);
    }
}
