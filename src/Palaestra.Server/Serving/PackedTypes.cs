using System.Diagnostics.CodeAnalysis;
using Microsoft.AspNetCore.StaticFiles;

namespace Palaestra.Server.Serving;

/// <summary>Content types of files and of what the build packed beside them: app.js.br is a script.</summary>
public sealed class PackedTypes : IContentTypeProvider
{
    /// <summary>Best first.</summary>
    public static readonly IReadOnlyList<(string Extension, string Encoding)> Suffixes =
    [
        (".br", "br"),
        (".gz", "gzip"),
    ];

    private readonly FileExtensionContentTypeProvider plain = new();

    /// <summary>Whether a browser takes what is packed so.</summary>
    public static bool Takes(HttpRequest request, string encoding) =>
        request.GetTypedHeaders().AcceptEncoding.Any(t => t.Value == encoding && t.Quality is not 0);

    /// <summary>None for a file that is not packed.</summary>
    public static string? EncodingOf(string path) =>
        Suffixes.FirstOrDefault(s => path.EndsWith(s.Extension, StringComparison.Ordinal)).Encoding;

    public bool TryGetContentType(string subpath, [MaybeNullWhen(false)] out string contentType) =>
        plain.TryGetContentType(
            EncodingOf(subpath) is null ? subpath : subpath[..subpath.LastIndexOf('.')],
            out contentType
        );
}
