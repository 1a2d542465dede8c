using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Net.Http.Headers;

namespace Palaestra.Server.Serving;

/// <summary>A file that the browser shows, and saves under a name that says what it is.</summary>
public static class NamedFile
{
    /// <summary>What no system of files takes in a name, and what would end a header.</summary>
    private const string Never = "/\\:*?\"<>|";

    /// <param name="name">Without its ending; every script is taken, what a name of a file cannot hold becomes a dash.</param>
    public static FileContentHttpResult Pdf(HttpResponse response, byte[] bytes, string name)
    {
        var disposition = new ContentDispositionHeaderValue("inline");
        disposition.SetHttpFileName($"{Safe(name)}.pdf");
        response.Headers.ContentDisposition = disposition.ToString();
        return TypedResults.File(bytes, "application/pdf");
    }

    public static string Safe(string name) =>
        string.Concat(
                name.Select(c => Never.Contains(c, StringComparison.Ordinal) || char.IsControl(c) ? '-' : c)
            )
            .Trim(' ', '.');
}
