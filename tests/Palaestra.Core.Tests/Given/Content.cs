using Palaestra.Core.Library;

namespace Palaestra.Core.Tests.Given;

/// <summary>The real content, read as the server reads it.</summary>
public static class Content
{
    public static IReadOnlyDictionary<string, string> Texts { get; } = Read();

    public static PracticeLibrary Library { get; } = Whole(ContentFiles.Read(Texts));

    public static Policy Policy => Library.DefaultPolicy;

    /// <summary>The folder of the checkout.</summary>
    public static string Root { get; } = FindRoot();

    private static string FindRoot()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Palaestra.slnx")))
        {
            folder = folder.Parent ?? throw new InvalidOperationException("No checkout above the tests.");
        }
        return folder.FullName;
    }

    private static PracticeLibrary Whole(Checked<PracticeLibrary> read) =>
        read.Value ?? throw new InvalidOperationException(string.Join("; ", read.Errors));

    private static Dictionary<string, string> Read()
    {
        var folder = Path.Combine(AppContext.BaseDirectory, "content");
        return Directory
            .EnumerateFiles(folder, "*.json", SearchOption.AllDirectories)
            .Select(path => (Name: Path.GetRelativePath(folder, path).Replace('\\', '/'), path))
            .Where(f =>
                !f.Name.StartsWith("schema/", StringComparison.Ordinal)
                && !f.Name.StartsWith("demo/", StringComparison.Ordinal)
                && !f.Name.StartsWith("words/", StringComparison.Ordinal)
            )
            .ToDictionary(f => f.Name, f => File.ReadAllText(f.path));
    }
}
