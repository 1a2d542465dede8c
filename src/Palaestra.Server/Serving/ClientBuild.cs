using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Palaestra.Server.Words;

namespace Palaestra.Server.Serving;

/// <summary>The page of the client as it is served: with the clinic's own sentences, and the name of the build it belongs to.</summary>
/// <param name="Build">The same for as long as the client is the same: a page that knows another one is of before.</param>
public sealed record ClientPage(string Build, byte[] Html);

/// <summary>The client as it was built last, also where it is built anew while the server runs.</summary>
public sealed partial class ClientBuild(Settings settings, ScreenWords words)
{
    /// <summary>On every answer under /api: the build that a page loaded now would be of.</summary>
    public const string Header = "Palaestra-Client";

    public const string WorkerPath = "/sw.js";

    /// <summary>Stands in the worker where the build of the page comes.</summary>
    private const string WorkerMark = "__PALAESTRA_PAGE__";

    private volatile Made? made;

    private sealed record Made(DateTime WrittenAt, ClientPage Page);

    /// <summary>None: the client is not built.</summary>
    public ClientPage? Now
    {
        get
        {
            var file = new FileInfo(Path.Combine(settings.ClientFolder, "index.html"));
            if (!file.Exists)
            {
                return null;
            }
            var last = made;
            if (last is null || last.WrittenAt != file.LastWriteTimeUtc)
            {
                made = last = new(file.LastWriteTimeUtc, Make(File.ReadAllText(file.FullName)));
            }
            return last.Page;
        }
    }

    /// <summary>The script that keeps the page in the browser, of the page as it is now; none: the client is not built, or has none.</summary>
    public string? Worker
    {
        get
        {
            var file = Path.Combine(settings.ClientFolder, WorkerPath[1..]);
            return Now is { } page && File.Exists(file)
                ? File.ReadAllText(file)
                    .Replace(
                        WorkerMark,
                        words.Own.Count == 0 ? page.Build : $"{page.Build} {words.Address}",
                        StringComparison.Ordinal
                    )
                : null;
        }
    }

    private ClientPage Make(string html)
    {
        var script = words.Own.Count == 0 ? "" : $"<script src=\"{words.Address}\"></script>";
        var said = WordsTag().Replace(html, script);
        var build = Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(said)))[..16];
        return new(
            build,
            Encoding.UTF8.GetBytes(
                said.Replace(
                    "</head>",
                    $"<meta name=\"palaestra-client\" content=\"{build}\" /></head>",
                    StringComparison.Ordinal
                )
            )
        );
    }

    [GeneratedRegex("""<script[^>]* src="/words\.js"[^>]*></script>""")]
    private static partial Regex WordsTag();
}
