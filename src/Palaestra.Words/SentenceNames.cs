using System.Text.RegularExpressions;

namespace Palaestra.Words;

/// <summary>The values a sentence names.</summary>
public static partial class SentenceNames
{
    private static readonly string[] Keywords =
    [
        "if",
        "elsif",
        "else",
        "endif",
        "unless",
        "endunless",
        "case",
        "when",
        "endcase",
        "for",
        "in",
        "endfor",
        "assign",
        "capture",
        "endcapture",
        "and",
        "or",
        "contains",
        "forloop",
    ];

    /// <summary>All of them, each once; what the template makes itself is not among them.</summary>
    public static IReadOnlyList<string> In(string template)
    {
        var code = Text().Replace(string.Join(' ', Tag().Matches(template).Select(tag => tag.Value)), "''");
        var own = Own().Matches(code).Select(made => made.Groups[1].Value);
        return
        [
            .. Name()
                .Matches(Other().Replace(code, "|"))
                .Select(name => name.Value)
                .Except([.. own, .. Keywords]),
        ];
    }

    /// <summary>Those it asks for before it says them: they may be left out.</summary>
    public static IReadOnlyList<string> Optional(string template) =>
        [.. Asked().Matches(template).SelectMany(asked => In(asked.Value)).Distinct()];

    /// <summary>What it does with its values, each once.</summary>
    public static IReadOnlyList<string> Filters(string template) =>
        [
            .. Tag()
                .Matches(template)
                .SelectMany(tag => Filter().Matches(Text().Replace(tag.Value, "''")))
                .Select(filter => filter.Groups[1].Value)
                .Distinct(),
        ];

    /// <summary>It counts from one number to another: of any length, and laid out before it is looped over.</summary>
    public static bool HasRange(string template) =>
        Tag()
            .Matches(template)
            .Any(tag => Text().Replace(tag.Value, "''").Contains("..", StringComparison.Ordinal));

    [GeneratedRegex(@"\|\s*(\w+)")]
    private static partial Regex Filter();

    [GeneratedRegex(@"\{\{.*?\}\}|\{%.*?%\}", RegexOptions.Singleline)]
    private static partial Regex Tag();

    [GeneratedRegex("""\{% (?:if|elsif|unless) .*? %\}""")]
    private static partial Regex Asked();

    [GeneratedRegex("\"[^\"]*\"|'[^']*'")]
    private static partial Regex Text();

    [GeneratedRegex(@"(?:assign|capture|for)\s+(\w+)")]
    private static partial Regex Own();

    /// <summary>Filters, members, and names of arguments.</summary>
    [GeneratedRegex(@"\|\s*\w+|\.\w+|\b\w+:")]
    private static partial Regex Other();

    [GeneratedRegex("[A-Za-z_]+")]
    private static partial Regex Name();
}
