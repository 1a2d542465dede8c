namespace Palaestra.Exchange.Tests.Given;

/// <summary>What the documentation says, as it stands in the repository.</summary>
public static class Docs
{
    public static string Text(params string[] path)
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Palaestra.slnx")))
        {
            folder = folder.Parent!;
        }
        return File.ReadAllText(Path.Combine([folder.FullName, "docs", .. path]));
    }
}
