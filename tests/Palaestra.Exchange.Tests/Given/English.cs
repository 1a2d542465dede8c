using Palaestra.Words;

namespace Palaestra.Exchange.Tests.Given;

/// <summary>What files say, in the words of the content.</summary>
public static class English
{
    public static Speech Speech { get; } =
        new(
            Catalog
                .Read(
                    Directory
                        .EnumerateFiles(Path.Combine(AppContext.BaseDirectory, "content", "words", "en"))
                        .ToDictionary(path => Path.GetFileName(path), File.ReadAllText)
                )
                .Value!,
            new Manner()
        );

    public static string En(this Message message) => Speech.Say(message);
}
