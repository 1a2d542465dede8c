using System.Text.Json;

namespace Palaestra.Server.Problems;

/// <summary>An enumeration in an address, written in the same words as in JSON: <c>large-arch</c>, <c>left</c>.</summary>
public readonly record struct Word<T>(T Value)
    where T : struct, Enum
{
    public static bool TryParse(string? text, out Word<T> word)
    {
        foreach (var value in Enum.GetValues<T>())
        {
            if (JsonNamingPolicy.KebabCaseLower.ConvertName(value.ToString()) == text)
            {
                word = new Word<T>(value);
                return true;
            }
        }
        word = default;
        return false;
    }
}
