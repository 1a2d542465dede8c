using System.Text.Json;
using Palaestra.Core.Progression;
using Palaestra.Words;

namespace Palaestra.Core.Tests.Given;

/// <summary>What the core says, in the words of the content.</summary>
public static class English
{
    public static Catalog Catalog { get; } =
        Catalog.Read(Files()).Value ?? throw new InvalidOperationException("The words cannot be read.");

    /// <summary>Empty for none.</summary>
    public static string En(this Message? message, DateOrder dates = DateOrder.DayMonthYear) =>
        message is null ? "" : Catalog.Say(message, new Manner(Content.Library, dates));

    public static string Of(Outcome outcome) =>
        Message.Of($"decision.{JsonNamingPolicy.KebabCaseLower.ConvertName(outcome.ToString())}").En();

    public static IReadOnlyList<string> En(this IEnumerable<Message> messages) =>
        [.. messages.Select(message => message.En())];

    private static Dictionary<string, string> Files() =>
        Directory
            .EnumerateFiles(Path.Combine(AppContext.BaseDirectory, "content", "words", "en"))
            .ToDictionary(path => Path.GetFileName(path), File.ReadAllText);
}
