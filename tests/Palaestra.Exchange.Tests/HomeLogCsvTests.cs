using CsCheck;
using Palaestra.Core.Visits;
using Palaestra.Exchange.HomeLog;
using Palaestra.Exchange.Tests.Given;

namespace Palaestra.Exchange.Tests;

/// <summary>The home log out and in again, and every wrong row by its line.</summary>
public class HomeLogCsvTests
{
    private static readonly Guid Tap = Guid.Parse("11111111-1111-1111-1111-111111111111");
    private static readonly Guid Bridge = Guid.Parse("22222222-2222-2222-2222-222222222222");

    private static readonly LoggedExercise[] Exercises =
    [
        new(Tap, "B5", "Heel tap", Side.Left),
        new(Tap, "B5", "Heel tap", Side.Right),
        new(Bridge, "E1", "Bridge, with \"quotes\"", Side.Both),
    ];

    private const string Header = "day,exercise,side,reps,pain,next_morning,remark";

    private static string File(params string[] rows) => string.Join("\r\n", [Header, .. rows]);

    private static HomeDay Only(params string[] rows) =>
        Assert.Single(HomeLogCsv.Read(File(rows), Exercises).Value!);

    [Fact]
    public void What_is_written_reads_back_the_same()
    {
        HomeDay[] days =
        [
            new(
                new(2026, 3, 2),
                [new(Tap, Side.Left, 16), new(Tap, Side.Right, 12), new(Bridge, Side.Both, 8)],
                2,
                3,
                "tired, but \"good\"\nslept well"
            ),
            new(new(2026, 3, 3), [], 4, null, null),
        ];
        var text = HomeLogCsv.Write(days.Select(d => new CsvDay(d.Day, [], d)), Exercises);
        var read = HomeLogCsv.Read(text, Exercises).Value!;
        Assert.Equal(
            days.Select(d => (d.Day, d.Pain, d.NextMorning, d.Remark)),
            read.Select(d => (d.Day, d.Pain, d.NextMorning, d.Remark))
        );
        Assert.Equal(days[0].Done, read[0].Done);
        Assert.Empty(read[1].Done);
    }

    private static readonly string[] Odd =
    [
        "=HYPERLINK(\"http://x.example\")",
        "+1 set",
        "-2 at night, better by day",
        "@home; then rest",
        "'=quoted before",
        "''",
        "'plain",
        "semi;colon, and comma",
    ];

    /// <summary>A cell that a spreadsheet would work out comes back as it was written, also where it looked escaped before.</summary>
    [Fact]
    public void What_looks_like_a_formula_is_none_and_comes_back()
    {
        var days = Odd.Select((remark, i) => new HomeDay(new(2026, 3, 2 + i), [], i, null, remark)).ToList();
        var text = HomeLogCsv.Write(days.Select(d => new CsvDay(d.Day, [], d)), Exercises);
        Assert.Equal(Odd, HomeLogCsv.Read(text, Exercises).Value!.Select(d => d.Remark));
        Assert.StartsWith("\uFEFF", text, StringComparison.Ordinal);
        // The same file is read by two other libraries in the client's tests.
        Assert.Equal(
            Docs.Text("..", "client", "src", "given", "homeLog.csv").ReplaceLineEndings("\n"),
            text.TrimStart('\uFEFF').ReplaceLineEndings("\n")
        );
    }

    [Fact]
    public void Any_text_comes_back_and_never_begins_as_a_formula() =>
        Gen.String.Sample(text =>
        {
            var cell = Exchange.Tables.SpreadsheetText.Escaped(text)!;
            Assert.Equal(text, Exchange.Tables.SpreadsheetText.Unescaped(cell));
            Assert.False(cell.Length > 0 && "=+-@\t\r".Contains(cell[0], StringComparison.Ordinal));
        });

    [Theory]
    [InlineData(';')]
    [InlineData('\t')]
    public void A_spreadsheet_of_another_country_parts_otherwise(char with)
    {
        var text = string.Join("\r\n", Header, "2026-03-02,B5,left,5,2,1,\"well, better\"")
            .Replace("\"well, better\"", "~", StringComparison.Ordinal)
            .Replace(',', with)
            .Replace("~", "well, better", StringComparison.Ordinal);
        var day = Assert.Single(HomeLogCsv.Read(text, Exercises).Value!);
        Assert.Equal((2, 1, "well, better"), (day.Pain, day.NextMorning, day.Remark));
        Assert.Equal(5, day.Done.Single().Reps);
    }

    [Fact]
    public void Days_first_with_points_are_days() =>
        Assert.Equal(new DateOnly(2026, 3, 2), Only("02.03.2026,B5,left,5,,,").Day);

    [Theory]
    [InlineData("\n")]
    [InlineData("\r\n")]
    [InlineData("\r")]
    public void Any_line_end_will_do(string end)
    {
        var text = $"\uFEFF{Header}{end}2026-03-02,B5,left,5,,,{end}2026-03-03,B5,left,6,,,{end}";
        Assert.Equal(2, HomeLogCsv.Read(text, Exercises).Value!.Count);
    }

    [Fact]
    public void A_planned_day_that_was_not_filled_in_says_nothing()
    {
        var text = HomeLogCsv.Write([new CsvDay(new(2026, 3, 2), Exercises, null)], Exercises);
        Assert.Equal(4, text.TrimEnd().Split("\r\n").Length);
        Assert.Empty(HomeLogCsv.Read(text, Exercises).Value!);
    }

    [Fact]
    public void An_exercise_is_found_by_name_or_short_id_in_any_case() =>
        Assert.Equal(
            [new HomeReps(Tap, Side.Left, 5), new HomeReps(Tap, Side.Right, 6)],
            Only("2026-03-02,HEEL TAP,Left,5,,,", "2026-03-02,b5,right,6,,,").Done
        );

    [Fact]
    public void Columns_may_stand_in_any_order_and_those_not_needed_be_missing()
    {
        var read = HomeLogCsv.Read("reps,side,exercise,day\r\n8,left,B5,2026-03-02", Exercises);
        Assert.Equal(8, read.Value![0].Done[0].Reps);
    }

    [Theory]
    [InlineData("3/31/2026,B5,left,5,,,", "line 2, day")]
    [InlineData("2026-02-30,B5,left,5,,,", "line 2, day")]
    [InlineData("2026-03-02,Somersault,left,5,,,", "line 2, exercise")]
    [InlineData("2026-03-02,B5,up,5,,,", "line 2, side")]
    [InlineData("2026-03-02,B5,,5,,,", "line 2, side")]
    [InlineData("2026-03-02,E1,left,5,,,", "line 2, side")]
    [InlineData("2026-03-02,B5,left,many,,,", "line 2, reps")]
    [InlineData("2026-03-02,B5,left,-1,,,", "line 2, reps")]
    [InlineData("2026-03-02,B5,left,5,11,,", "line 2, pain")]
    [InlineData("2026-03-02,B5,left,5,,2.5,", "line 2, next_morning")]
    public void A_wrong_cell_is_named_by_its_line_and_column(string row, string field) =>
        Assert.Equal(field, Assert.Single(HomeLogCsv.Read(File(row), Exercises).Errors).Field);

    [Fact]
    public void Every_wrong_row_is_told_and_nothing_is_taken()
    {
        var read = HomeLogCsv.Read(
            File("2026-03-02,B5,left,5,,,", "never,B5,left,5,,,", "2026-03-03,B5,left,x,y,,"),
            Exercises
        );
        Assert.False(read.IsValid);
        Assert.Equal(["line 3, day", "line 4, reps", "line 4, pain"], read.Errors.Select(e => e.Field));
    }

    [Fact]
    public void The_same_exercise_twice_and_two_pains_of_one_day_are_told()
    {
        var twice = HomeLogCsv.Read(File("2026-03-02,B5,left,5,2,,", "2026-03-02,B5,left,6,3,,"), Exercises);
        Assert.Contains(twice.Errors, e => e.Field == "line 3, exercise");
        Assert.Contains(twice.Errors, e => e.Field == "line 3, pain");
    }

    [Theory]
    [InlineData("")]
    [InlineData("date;what\r\n1;2")]
    public void A_file_that_is_something_else_says_what_the_header_is(string text) =>
        Assert.Equal("line 1", HomeLogCsv.Read(text, Exercises).Errors[0].Field);
}
