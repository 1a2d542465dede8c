using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Primitives;

namespace Palaestra.Server.Serving;

/// <summary>
/// Files of the client's build before this one: a page that stays open on a tablet while the server is renewed still finds the
/// parts it has not loaded yet. They lie in the data folder, since a new version comes in a folder of its own.
/// </summary>
public sealed class KeptFiles(Settings settings) : IFileProvider
{
    /// <summary>In the data folder: one folder a build, each with its assets.</summary>
    public const string FolderName = "client";

    private const string Assets = "assets";

    /// <summary>The one that is served now and the one before.</summary>
    private const int Builds = 2;

    /// <summary>Of a build that is being copied; one that was broken off is begun again.</summary>
    private const string Part = ".part";

    private readonly string folder = Path.Combine(settings.DataFolder, FolderName);

    public IFileInfo GetFileInfo(string subpath) =>
        subpath.StartsWith($"/{Assets}/", StringComparison.Ordinal)
        && Path.GetFileName(subpath) is { Length: > 0 } name
        && Kept()
            .Select(build => new FileInfo(Path.Combine(build.FullName, Assets, name)))
            .FirstOrDefault(f => f.Exists)
            is { } file
            ? new Microsoft.Extensions.FileProviders.Physical.PhysicalFileInfo(file)
            : new NotFoundFileInfo(subpath);

    public IDirectoryContents GetDirectoryContents(string subpath) => NotFoundDirectoryContents.Singleton;

    public IChangeToken Watch(string filter) => NullChangeToken.Singleton;

    /// <summary>Keeps a build and lets go of those before the last; what cannot be kept is no reason not to serve.</summary>
    public void Keep(string build)
    {
        var from = Path.Combine(settings.ClientFolder, Assets);
        var to = Path.Combine(folder, build);
        if (!Directory.Exists(from))
        {
            return;
        }
        if (!Directory.Exists(to))
        {
            foreach (var left in Directory.Exists(folder) ? Directory.GetDirectories(folder, $"*{Part}") : [])
            {
                Directory.Delete(left, recursive: true);
            }
            var part = $"{to}{Part}";
            Directory.CreateDirectory(Path.Combine(part, Assets));
            foreach (var file in Directory.EnumerateFiles(from))
            {
                File.Copy(file, Path.Combine(part, Assets, Path.GetFileName(file)));
            }
            Directory.Move(part, to);
        }
        Directory.SetLastWriteTimeUtc(to, DateTime.UtcNow);
        foreach (var old in Kept().Skip(Builds))
        {
            old.Delete(recursive: true);
        }
    }

    /// <summary>Newest first.</summary>
    private IEnumerable<DirectoryInfo> Kept() =>
        Directory.Exists(folder)
            ? new DirectoryInfo(folder)
                .EnumerateDirectories()
                .Where(d => d.Extension != Part)
                .OrderByDescending(d => d.LastWriteTimeUtc)
            : [];
}
