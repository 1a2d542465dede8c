using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Palaestra.Core.Visits;
using Palaestra.Exchange.Tables;

namespace Palaestra.Exchange.HomeLog;

/// <summary>An exercise and side that a row of the file may name.</summary>
public sealed record LoggedExercise(Guid PlanItemId, string RungId, string Name, Side Side);

/// <param name="Planned">What the calendar asked for. <paramref name="Log"/>: none where nothing was written.</param>
public sealed record CsvDay(DateOnly Day, IReadOnlyList<LoggedExercise> Planned, HomeDay? Log);

/// <summary>
/// The home log as CSV (RFC 4180, UTF-8): one row for an exercise, side and day. See docs/sessions.md for the header.
/// </summary>
public static class HomeLogCsv
{
    public const int RowsMax = 2000;

    private static readonly string[] Header =
    [
        "day",
        "exercise",
        "side",
        "reps",
        "pain",
        "next_morning",
        "remark",
    ];

    private static readonly CsvConfiguration Format = new(CultureInfo.InvariantCulture)
    {
        PrepareHeaderForMatch = args => args.Header.Trim().ToLowerInvariant(),
        TrimOptions = TrimOptions.Trim,
        MissingFieldFound = null,
        BadDataFound = null,
    };

    /// <summary>A spreadsheet of a country where days come first writes them so; with slashes nobody can tell.</summary>
    private static readonly string[] Days = ["yyyy-MM-dd", "dd.MM.yyyy", "d.M.yyyy"];

    private sealed record Row(int Line, DateOnly Day, HomeReps? Done, int? Pain, int? Next, string? Remark);

    /// <summary>Days as they were written down; a planned exercise of which nothing was written stands with its reps open.</summary>
    public static string Write(IEnumerable<CsvDay> days, IReadOnlyList<LoggedExercise> exercises)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        text.Write(SpreadsheetText.Mark);
        using (var csv = new CsvWriter(text, SpreadsheetText.Written))
        {
            foreach (var name in Header)
            {
                csv.WriteField(name);
            }
            csv.NextRecord();
            foreach (var day in days)
            {
                WriteDay(csv, day, exercises);
            }
        }
        return text.ToString();
    }

    private static void WriteDay(CsvWriter csv, CsvDay day, IReadOnlyList<LoggedExercise> exercises)
    {
        var done = day.Log?.Done ?? [];
        // An exercise keeps its id when it moves to another rung: one row for it, under the rung that was planned.
        var rows = exercises
            .GroupBy(e => (e.PlanItemId, e.Side))
            .Select(same => same.FirstOrDefault(day.Planned.Contains) ?? same.Last())
            .Select(e =>
                (
                    Exercise: e,
                    Done: done.FirstOrDefault(d => d.PlanItemId == e.PlanItemId && d.Side == e.Side)
                )
            )
            .Where(row => row.Done is not null || day.Planned.Contains(row.Exercise))
            .Select(row => ((LoggedExercise?)row.Exercise, row.Done?.Reps))
            .ToList();
        // A day on which only pain or a remark was written has one row without an exercise.
        foreach (var (exercise, reps) in rows.Count == 0 ? [(null, null)] : rows)
        {
            csv.WriteField(day.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
            csv.WriteField(SpreadsheetText.Escaped(exercise?.Name));
            csv.WriteField(exercise is null || exercise.Side == Side.Both ? "" : exercise.Side.Word());
            csv.WriteField(reps);
            csv.WriteField(day.Log?.Pain);
            csv.WriteField(day.Log?.NextMorning);
            csv.WriteField(SpreadsheetText.Escaped(day.Log?.Remark));
            csv.NextRecord();
        }
    }

    /// <summary>Days, the earliest first; or every row that is wrong, by its line in the file.</summary>
    public static Checked<IReadOnlyList<HomeDay>> Read(string text, IReadOnlyList<LoggedExercise> exercises)
    {
        var plain = text.TrimStart(SpreadsheetText.Mark[0]);
        var header = plain.Split(['\r', '\n'], 2)[0];
        using var csv = new CsvReader(
            new StringReader(plain),
            Format with
            {
                Delimiter = $"{SpreadsheetText.DelimiterOf(header)}",
            }
        );
        if (!csv.Read() || !csv.ReadHeader())
        {
            return Bad("line 1", Message.Of("file.empty"));
        }
        var missing = Header
            .Take(4)
            .Except(csv.HeaderRecord!.Select(h => h.Trim().ToLowerInvariant()))
            .ToList();
        if (missing.Count > 0)
        {
            return Bad("line 1", Message.Of("csv.header", ("header", Header), ("missing", missing)));
        }
        var errors = new List<FieldError>();
        var rows = new List<Row>();
        while (csv.Read())
        {
            var line = csv.Parser.RawRow;
            if (rows.Count >= RowsMax)
            {
                return Bad($"line {line}", Message.Of("csv.rows", ("most", RowsMax)));
            }
            if (RowOf(csv, line, exercises, errors) is { } row)
            {
                rows.Add(row);
            }
        }
        var days = rows.Where(row => row is not { Done: null, Pain: null, Next: null, Remark: null })
            .GroupBy(row => row.Day)
            .OrderBy(g => g.Key)
            .Select(g => DayOf([.. g], errors))
            .ToList();
        return errors.Count > 0
            ? Checked<IReadOnlyList<HomeDay>>.Bad([.. errors])
            : Checked<IReadOnlyList<HomeDay>>.Good(days);
    }

    private static Checked<IReadOnlyList<HomeDay>> Bad(string field, Message message) =>
        Checked<IReadOnlyList<HomeDay>>.Bad(new FieldError(field, message));

    private static Row? RowOf(
        CsvReader csv,
        int line,
        IReadOnlyList<LoggedExercise> exercises,
        List<FieldError> errors
    )
    {
        var before = errors.Count;
        void Wrong(string column, Message message) => errors.Add(new($"line {line}, {column}", message));

        var day = csv.GetField("day") ?? "";
        if (!DateOnly.TryParseExact(day, Days, CultureInfo.InvariantCulture, default, out var on))
        {
            Wrong("day", Message.Of("csv.day", ("text", day)));
        }
        var reps = Whole(csv, "reps", HomeDayCheck.RepsMax, Wrong);
        var pain = Whole(csv, "pain", 10, Wrong);
        var next = Whole(csv, "next_morning", 10, Wrong);
        var exercise = Exercise(csv, exercises, Wrong);
        csv.TryGetField<string>("remark", out var remark);
        return errors.Count > before
            ? null
            : new(
                line,
                on,
                // Reps left open: nothing was written of this exercise.
                exercise is null
                || reps is null
                    ? null
                    : new HomeReps(exercise.PlanItemId, exercise.Side, reps.Value),
                pain,
                next,
                string.IsNullOrWhiteSpace(remark) ? null : SpreadsheetText.Unescaped(remark)
            );
    }

    private static int? Whole(CsvReader csv, string column, int most, Action<string, Message> wrong)
    {
        if (!csv.TryGetField<string>(column, out var text) || string.IsNullOrWhiteSpace(text))
        {
            return null;
        }
        if (
            int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value)
            && value <= most
        )
        {
            return value;
        }
        wrong(column, Message.Of("csv.number", ("text", text), ("most", most)));
        return null;
    }

    /// <summary>By name or by the rung's short id, in any case; the side where the exercise has two.</summary>
    private static LoggedExercise? Exercise(
        CsvReader csv,
        IReadOnlyList<LoggedExercise> exercises,
        Action<string, Message> wrong
    )
    {
        var name = SpreadsheetText.Unescaped(csv.GetField("exercise")) ?? "";
        var side = (csv.GetField("side") ?? "").ToLowerInvariant();
        if (name.Length == 0)
        {
            return null;
        }
        var named = exercises
            .Where(e =>
                e.Name.Equals(name, StringComparison.OrdinalIgnoreCase)
                || e.RungId.Equals(name, StringComparison.OrdinalIgnoreCase)
            )
            .ToList();
        if (named.Count == 0)
        {
            wrong("exercise", Message.Of("csv.exercise", ("text", name)));
            return null;
        }
        if (named.All(e => e.Side == Side.Both) && side.Length == 0)
        {
            return named[^1];
        }
        var mine = named.LastOrDefault(e => e.Side.Word().Equals(side, StringComparison.OrdinalIgnoreCase));
        if (mine is null)
        {
            wrong(
                "side",
                named.All(e => e.Side == Side.Both)
                    ? Message.Of("csv.no-side", ("text", name))
                    : Message.Of("csv.side", ("text", name), ("side", side))
            );
        }
        return mine;
    }

    private static HomeDay DayOf(List<Row> rows, List<FieldError> errors)
    {
        T? Only<T>(string column, Func<Row, T?> of)
        {
            var told = rows.Where(row => of(row) is not null).ToList();
            foreach (var row in told.Where(row => !Equals(of(row), of(told[0]))))
            {
                errors.Add(
                    new(
                        $"line {row.Line}, {column}",
                        Message.Of("csv.other-line", ("line", told[0].Line), ("value", of(told[0])))
                    )
                );
            }
            return told.Count == 0 ? default : of(told[0]);
        }
        foreach (
            var twice in rows.Where(r => r.Done is not null).GroupBy(r => (r.Done!.PlanItemId, r.Done.Side))
        )
        {
            errors.AddRange(
                twice
                    .Skip(1)
                    .Select(row => new FieldError(
                        $"line {row.Line}, exercise",
                        Message.Of("csv.twice", ("line", twice.First().Line))
                    ))
            );
        }
        return new(
            rows[0].Day,
            [.. rows.Select(row => row.Done).OfType<HomeReps>()],
            Only("pain", row => row.Pain),
            Only("next_morning", row => row.Next),
            Only("remark", row => row.Remark)
        );
    }
}
