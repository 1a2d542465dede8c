using System.Text.RegularExpressions;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

/// <summary>Exercises, faults, precautions, tasks, positions, goals and equipment are content: code names none of them.</summary>
public partial class NoIdsInCodeTests
{
    private static readonly HashSet<string> Ids =
    [
        .. Content.Library.Ladders.SelectMany(ladder => ladder.Rungs).Select(rung => rung.Id),
        .. Content.Library.Faults.Select(fault => fault.Code),
        .. Content.Library.Precautions.Select(precaution => precaution.Id),
        .. Content.Library.Tasks.Select(task => task.Id),
        .. Content.Library.Positions.Select(position => position.Id),
        .. Content.Library.Goals.Select(goal => goal.Id),
        .. Content.Library.Equipment.Select(piece => piece.Id),
    ];

    /// <summary>Words of the code that some content happens to be called by: decisions, paper, a feature, kinds of faults.</summary>
    private static readonly HashSet<string> OtherThings =
    [
        "step-up",
        "step-down",
        "A4",
        "rounded-reach",
        "breath-hold",
    ];

    /// <summary>Ids of one plain word, such as "box", are words of the body model and of styles too: they are not looked for.</summary>
    private static bool IsTelling(string id) => id.Contains('-') || id.Any(char.IsDigit);

    [Theory]
    [InlineData("src/Palaestra.Core", "*.cs")]
    [InlineData("src/Palaestra.Server", "*.cs")]
    [InlineData("client/src", "*.ts*")]
    public void Code_names_nothing_of_the_content(string folder, string files)
    {
        var named =
            from path in Directory.EnumerateFiles(
                Path.Combine(Content.Root, folder),
                files,
                SearchOption.AllDirectories
            )
            where !Other().IsMatch(path)
            from text in Literal().Matches(File.ReadAllText(path)).Select(m => m.Groups[1].Value)
            where IsTelling(text) && Ids.Contains(text) && !OtherThings.Contains(text)
            select $"{Path.GetRelativePath(Content.Root, path)}: {text}";
        Assert.True(!named.Any(), string.Join('\n', named.Distinct()));
    }

    [GeneratedRegex("\"([A-Za-z][A-Za-z0-9-]*)\"")]
    private static partial Regex Literal();

    /// <summary>Tests, what is generated, and the demo, which is made of content.</summary>
    [GeneratedRegex(@"/(obj|bin|Demo)/|\.test\.|schema\.d\.ts|testLibrary|/given/")]
    private static partial Regex Other();
}
