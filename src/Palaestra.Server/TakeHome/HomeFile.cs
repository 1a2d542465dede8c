using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using Palaestra.Server.Words;

namespace Palaestra.Server.TakeHome;

/// <param name="Policy">What may run in it and what may be asked for: nothing but what is in it.</param>
public sealed record HomeDocument(string Html, string Policy);

/// <summary>Puts a home programme into one file that opens without network: its page, its script, its letters and its drawings.</summary>
public sealed class HomeFile(Settings settings, ClinicWords words, ScreenWords screens)
{
    /// <summary>How the page's own sentences begin.</summary>
    private const string OfPage = "phone.";

    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters =
        {
            new System.Text.Json.Serialization.JsonStringEnumConverter(JsonNamingPolicy.KebabCaseLower),
        },
    };

    /// <summary>Where the client's build puts the script and the styles of the page.</summary>
    private string Built(string name) => Path.Combine(settings.ClientFolder, "home", name);

    /// <summary>False where the client was built without it, or not at all.</summary>
    public bool IsBuilt => File.Exists(Built("home.js")) && File.Exists(Built("home.css"));

    public HomeDocument Of(HomePage page)
    {
        var own = screens
            .Own.Where(sentence => sentence.Key.StartsWith(OfPage, StringComparison.Ordinal))
            .ToDictionary();
        // What reads sentences is only in the script that is given some.
        var script = File.ReadAllText(Built(own.Count > 0 ? "home-own.js" : "home.js"));
        var said = own.Count > 0 ? ScreenWords.ScriptOf(own) : "";
        var title = words.Say(Message.Of("home.page-title", ("clinic", page.ClinicName)));
        return Document(
            page.Language,
            title,
            [said, script],
            $"""
            <div id="root">{Written(page, title)}</div>
            <script type="application/json" id="programme">{JsonSerializer.Serialize(page, Json)}</script>
            {(said.Length > 0 ? $"<script>{said}</script>" : "")}
            <script type="module">{script}</script>
            """
        );
    }

    /// <summary>A page that only says something: an address that leads nowhere, or exercises that must wait.</summary>
    /// <param name="contact">Whom to call; empty: nobody is named.</param>
    public HomeDocument Saying(string language, Message message, string contact)
    {
        var said = words.Say(message);
        return Document(
            language,
            said,
            [],
            $"<main class=\"written\"><h1>{WebUtility.HtmlEncode(said)}</h1><p>{WebUtility.HtmlEncode(contact)}</p></main>"
        );
    }

    private HomeDocument Document(string language, string title, IEnumerable<string> scripts, string body)
    {
        var style = IsBuilt ? File.ReadAllText(Built("home.css")) : "";
        var run = scripts.Where(script => script.Length > 0).Select(script => $"'{Hash(script)}'").ToList();
        // Nothing but what is in the file is run or asked for, and nothing is sent anywhere.
        var policy =
            $"default-src 'none'; script-src {(run.Count > 0 ? string.Join(' ', run) : "'none'")}; style-src '{Hash(style)}'; img-src data:; font-src data:; form-action 'none'; base-uri 'none'";
        var html = $"""
            <!doctype html>
            <html lang="{language}">
            <head>
            <meta charset="utf-8">
            <meta http-equiv="Content-Security-Policy" content="{policy}">
            <meta name="viewport" content="width=device-width, initial-scale=1, viewport-fit=cover">
            <meta name="robots" content="noindex">
            <title>{WebUtility.HtmlEncode(title)}</title>
            <style>{style}</style>
            </head>
            <body>
            {body}
            </body>
            </html>

            """;
        return new(html, policy);
    }

    /// <summary>All of it to read, where no script runs.</summary>
    private static string Written(HomePage page, string title)
    {
        var text = new StringBuilder();
        void Line(string tag, string words) =>
            _ =
                words.Length == 0
                    ? text
                    : text.Append(
                        System.Globalization.CultureInfo.InvariantCulture,
                        $"<{tag}>{WebUtility.HtmlEncode(words)}</{tag}>"
                    );
        text.Append("<main class=\"written\">");
        Line("h1", title);
        Line("p", page.Line);
        foreach (var exercise in page.Exercises)
        {
            text.Append("<section>");
            Line("h2", exercise.Name);
            text.Append(HomeSvg.Of(exercise.Sides[0].Drawing, exercise.Name));
            foreach (var side in exercise.Sides)
            {
                Line(
                    "p",
                    side.Side == Side.Both
                        ? side.Written
                        : $"{side.Side.Word()} ({side.SideMeans}): {side.Written}"
                );
            }
            foreach (
                var line in exercise
                    .Lines.Append(exercise.Feel)
                    .Append(exercise.NotFeel)
                    .Concat(exercise.Changes)
            )
            {
                Line("p", line);
            }
            text.Append("</section>");
        }
        Line("p", page.Stop);
        Line("p", page.Contact);
        Line("p", page.NextVisit);
        return text.Append("</main>").ToString();
    }

    private static string Hash(string of) =>
        $"sha256-{Convert.ToBase64String(SHA256.HashData(Encoding.UTF8.GetBytes(of)))}";
}
