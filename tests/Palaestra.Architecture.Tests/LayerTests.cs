using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using ArchUnitNET.xUnitV3;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Palaestra.Architecture.Tests;

/// <summary>Each layer knows only those before it: core, data, exchange, server.</summary>
public class LayerTests
{
    private static readonly ArchUnitNET.Domain.Architecture Everything = new ArchLoader()
        .LoadAssembliesIncludingDependencies(
            typeof(Core.Terms.FieldError).Assembly,
            typeof(Data.PalaestraDb).Assembly,
            typeof(Exchange.Sheets.Sheet).Assembly,
            typeof(Palaestra.Words.Catalog).Assembly,
            typeof(Server.Settings).Assembly
        )
        .Build();

    private static readonly IObjectProvider<IType> Core = Types()
        .That()
        .ResideInNamespaceMatching(@"^Palaestra\.Core")
        .As("the core");
    private static readonly IObjectProvider<IType> Data = Types()
        .That()
        .ResideInNamespaceMatching(@"^Palaestra\.Data")
        .As("the data layer");
    private static readonly IObjectProvider<IType> Server = Types()
        .That()
        .ResideInNamespaceMatching(@"^Palaestra\.Server")
        .As("the server");

    private static readonly IObjectProvider<IType> Exchange = Types()
        .That()
        .ResideInNamespaceMatching(@"^Palaestra\.Exchange")
        .As("the open formats");

    private static readonly IObjectProvider<IType> Words = Types()
        .That()
        .ResideInNamespaceMatching(@"^Palaestra\.Words")
        .As("the words");

    private static readonly IObjectProvider<IType> OutsideTheCore = Types()
        .That()
        .ResideInNamespaceMatching(
            @"^(Microsoft\.(EntityFrameworkCore|AspNetCore|Data|Extensions)|System\.(IO|Net)($|\.))"
        )
        .As("storage, web and files");

    [Fact]
    public void The_core_knows_neither_data_nor_server() =>
        Types()
            .That()
            .Are(Core)
            .Should()
            .NotDependOnAny(Data)
            .AndShould()
            .NotDependOnAny(Server)
            .AndShould()
            .NotDependOnAny(Words)
            .Check(Everything);

    [Fact]
    public void The_words_know_only_the_core() =>
        Types()
            .That()
            .Are(Words)
            .Should()
            .NotDependOnAny(Data)
            .AndShould()
            .NotDependOnAny(Exchange)
            .AndShould()
            .NotDependOnAny(Server)
            .Check(Everything);

    [Fact]
    public void The_core_reads_no_files_and_knows_no_storage_and_no_web() =>
        Types().That().Are(Core).Should().NotDependOnAny(OutsideTheCore).Check(Everything);

    [Fact]
    public void The_data_layer_does_not_know_the_server() =>
        Types().That().Are(Data).Should().NotDependOnAny(Server).Check(Everything);

    [Fact]
    public void The_open_formats_know_only_the_core_and_its_words() =>
        Types()
            .That()
            .Are(Exchange)
            .Should()
            .NotDependOnAny(Data)
            .AndShould()
            .NotDependOnAny(Server)
            .Check(Everything);

    /// <summary>Folders of the core, lowest first: each knows only those before it.</summary>
    private static readonly string[] Rooms =
    [
        "Terms",
        "Body",
        "Charts",
        "Library",
        "Photos",
        "Capture",
        "Intake",
        "Signals",
        "Screening",
        "Abilities",
        "Findings",
        "Planning",
        "Visits",
        "Progression",
        "Outcomes",
        "Agreement",
        "Practice",
    ];

    public static TheoryData<string> EveryRoom => [.. Rooms];

    [Theory]
    [MemberData(nameof(EveryRoom))]
    public void A_folder_of_the_core_knows_only_those_before_it(string room)
    {
        var later = string.Join('|', Rooms.SkipWhile(r => r != room).Skip(1));
        if (later.Length > 0)
        {
            Types()
                .That()
                .ResideInNamespaceMatching($@"^Palaestra\.Core\.{room}$")
                .Should()
                .NotDependOnAny(
                    Types()
                        .That()
                        .ResideInNamespaceMatching($@"^Palaestra\.Core\.({later})$")
                        .As("later folders")
                )
                .Check(Everything);
        }
    }

    [Fact]
    public void Every_folder_of_the_core_has_its_place_in_the_order() =>
        Assert.Equal(
            Rooms.Order(),
            Directory
                .GetDirectories(SourceFolder("Palaestra.Core"))
                .Select(Path.GetFileName)
                .Where(name => name is not ("bin" or "obj"))
                .Order()
        );

    [Fact]
    public void The_core_asks_no_clock()
    {
        var source = Directory.EnumerateFiles(
            SourceFolder("Palaestra.Core"),
            "*.cs",
            SearchOption.AllDirectories
        );
        var clocks = source.Where(file =>
            System.Text.RegularExpressions.Regex.IsMatch(
                File.ReadAllText(file),
                @"\b(DateTime|DateTimeOffset)\.(Utc)?Now\b|\bTimeProvider\b"
            )
        );
        Assert.Empty(clocks);
    }

    /// <summary>Exercise names are content; code has none.</summary>
    [Fact]
    public void The_code_of_the_core_names_no_rung()
    {
        var source = Directory.EnumerateFiles(
            SourceFolder("Palaestra.Core"),
            "*.cs",
            SearchOption.AllDirectories
        );
        var named = source.Where(file =>
            System.Text.RegularExpressions.Regex.IsMatch(
                File.ReadAllText(file),
                "\"[A-N](-[fr])?[0-9]{1,2}\""
            )
        );
        Assert.Empty(named);
    }

    [Theory]
    [InlineData("Intake")]
    [InlineData("Screening")]
    [InlineData("Findings")]
    [InlineData("Planning")]
    [InlineData("Visits")]
    [InlineData("Progression")]
    public void A_feature_has_the_same_name_in_core_server_and_client(string feature)
    {
        Assert.True(Directory.Exists(Path.Combine(SourceFolder("Palaestra.Core"), feature)));
        Assert.True(Directory.Exists(Path.Combine(SourceFolder("Palaestra.Server"), feature)));
        Assert.True(Directory.Exists(Path.Combine(Root(), "client", "src", feature.ToLowerInvariant())));
    }

    private static string SourceFolder(string project) => Path.Combine(Root(), "src", project);

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Palaestra.slnx")))
        {
            folder =
                folder.Parent
                ?? throw new DirectoryNotFoundException("The repository is not above the test output.");
        }
        return folder.FullName;
    }
}
