using System.Text;
using Palaestra.Core.Library;

namespace Palaestra.Words;

/// <summary>All sentences with an example each, for reading them through: <c>docs/reasons.md</c>.</summary>
public static class SentenceList
{
    /// <param name="samples">As <see cref="SentenceSamples"/> reads them.</param>
    public static string Text(Catalog catalog, PracticeLibrary library, string samples)
    {
        var values = new SentenceSamples(catalog, samples);
        var text = new StringBuilder(
            """
            # Everything that is said

            Made by `./palaestra generate` from `content/words/en` with the values of `content/words/samples.json`.
            The first part of an id names the group. How sentences are written: [words.md](words.md).

            | id | example |
            |---|---|

            """
        );
        foreach (var id in catalog.Texts.Keys.Order(StringComparer.Ordinal))
        {
            var said = catalog.Say(values.Of(id), new Manner(library));
            text.Append("| `").Append(id).Append("` | ").Append(said.Replace("|", "\\|")).Append(" |\n");
        }
        return text.ToString();
    }
}
