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

    /// <summary>A page to be saved and passed on, not to be shown here.</summary>
    /// <param name="name">As for <see cref="Pdf"/>.</param>
    public static FileContentHttpResult Html(HttpResponse response, string html, string name)
    {
        Attach(response, name, ".html");
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(html), "text/html; charset=utf-8");
    }

    /// <summary>Says under which name it is to be saved.</summary>
    /// <param name="name">As for <see cref="Pdf"/>.</param>
    public static void Attach(HttpResponse response, string name, string ending)
    {
        var disposition = new ContentDispositionHeaderValue("attachment");
        disposition.SetHttpFileName($"{Safe(name)}{ending}");
        response.Headers.ContentDisposition = disposition.ToString();
    }

    public static string Safe(string name) =>
        string.Concat(
                name.Select(c => Never.Contains(c, StringComparison.Ordinal) || char.IsControl(c) ? '-' : c)
            )
            .Trim(' ', '.');
}
