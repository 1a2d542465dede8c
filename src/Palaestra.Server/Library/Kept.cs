namespace Palaestra.Server.Library;

/// <summary>How long a browser keeps an answer about the library.</summary>
public sealed class Kept(WrittenLibrary written, IHttpContextAccessor http)
{
    /// <summary>By the version of now: for good. Without: an hour, since a browser cannot know when it changes.</summary>
    /// <param name="version">As the last answer's header told it; none: whoever asks does not know it.</param>
    public void By(string? version) =>
        http.HttpContext!.Response.Headers.CacheControl =
            version is null ? "private, max-age=3600"
            : version == written.Version ? "private, max-age=31536000, immutable"
            : "no-store";
}
