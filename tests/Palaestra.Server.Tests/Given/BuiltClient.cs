namespace Palaestra.Server.Tests.Given;

/// <summary>A folder as the client's build leaves it, with scripts of a line each for the page of the home programme.</summary>
public sealed class BuiltClient : IDisposable
{
    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("palaestra-client-");

    public BuiltClient()
    {
        var home = folder.CreateSubdirectory("home").FullName;
        File.WriteAllText(Path.Combine(home, "home.js"), "document.title;");
        File.WriteAllText(Path.Combine(home, "home-own.js"), "document.URL;");
        File.WriteAllText(Path.Combine(home, "home.css"), "body{margin:0}");
    }

    public string FullName => folder.FullName;

    public void Dispose() => folder.Delete(recursive: true);
}
