using System.Globalization;
using Fluid;
using Fluid.Values;
using Palaestra.Core.Library;

namespace Palaestra.Words;

/// <summary>What sentences may do with their values: numbers, plurals, dates, names of the library. See docs/words.md.</summary>
internal static class WordFilters
{
    public const string MannerKey = "manner";

    /// <summary>Of one sentence: far more than any needs, far fewer than a loop without end takes.</summary>
    private const int StepsMost = 10_000;

    /// <param name="sentence">The words of an id without values; none where there are none.</param>
    public static TemplateOptions Options(Func<string, string?> sentence)
    {
        var options = new TemplateOptions
        {
            CultureInfo = CultureInfo.InvariantCulture,
            MaxSteps = StepsMost,
        };
        void Add(string name, Func<FluidValue, FilterArguments, Manner, FluidValue> filter) =>
            options.Filters.AddFilter(
                name,
                (input, arguments, context) =>
                    new ValueTask<FluidValue>(
                        filter(input, arguments, (Manner)context.AmbientValues[MannerKey])
                    )
            );
        Add("num", (value, with, _) => Text(Number(value, "0." + new string('#', Digits(with, 1)))));
        Add("fixed", (value, with, _) => Text(Number(value, "0." + new string('0', Digits(with, 1)))));
        Add(
            "share",
            (value, with, _) => Text($"{Number(value, "0." + new string('#', Digits(with, 0)), 100)} %")
        );
        Add("plural", (value, with, _) => with[value.ToNumberValue() == 1 ? "one" : "other"]);
        Add("date", (value, _, manner) => Text(manner.Dates.Long(Day(value))));
        Add("date_short", (value, _, manner) => Text(manner.Dates.Short(Day(value))));
        Add("date_near", (value, _, manner) => Text(manner.Dates.Near(Day(value))));
        Add("day", (value, _, manner) => Text(manner.Dates.InYear(Day(value))));
        Add("weekday", (value, _, _) => Text(Day(value).ToString("ddd d", CultureInfo.InvariantCulture)));
        Add(
            "name",
            (value, with, manner) =>
                Text(Name(value.ToStringValue(), with.At(0).ToStringValue(), manner.Library))
        );
        Add(
            "word",
            (value, with, _) =>
                Text(
                    sentence($"{with.At(0).ToStringValue()}.{value.ToStringValue()}") ?? value.ToStringValue()
                )
        );
        Add(
            "words",
            (value, with, _) => Each(value, text => sentence($"{with.At(0).ToStringValue()}.{text}") ?? text)
        );
        Add(
            "names",
            (value, with, manner) => Each(value, id => Name(id, with.At(0).ToStringValue(), manner.Library))
        );
        Add("centimetres", (value, _, _) => Text(Number(value, "0", 100)));
        Add("lower", (value, _, _) => Text(First(value.ToStringValue(), char.ToLowerInvariant)));
        Add("upper", (value, _, _) => Text(First(value.ToStringValue(), char.ToUpperInvariant)));
        Add("sentence", (value, _, _) => Text(Ended(value.ToStringValue().Trim())));
        Add(
            "counted",
            (value, _, _) => Text(sentence($"number.{value.ToStringValue()}") ?? value.ToStringValue())
        );
        return options;
    }

    private static StringValue Text(string words) => new(words);

    private static ArrayValue Each(FluidValue list, Func<string, string> how) =>
        new([.. ((ArrayValue)list).Values.Select(part => new StringValue(how(part.ToStringValue())))]);

    private static int Digits(FilterArguments with, int otherwise) =>
        with.Count > 0 ? (int)with.At(0).ToNumberValue() : otherwise;

    private static string Number(FluidValue value, string format, decimal times = 1) =>
        (value.ToNumberValue() * times).ToString(format, CultureInfo.InvariantCulture);

    private static DateOnly Day(FluidValue value) =>
        DateOnly.ParseExact(value.ToStringValue(), "yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string First(string words, Func<char, char> how) =>
        words.Length == 0 ? words : how(words[0]) + words[1..];

    private static string Ended(string words) =>
        words.Length == 0 || ".!?".Contains(words[^1], StringComparison.Ordinal) ? words : $"{words}.";

    /// <summary>What the library calls it; the id where it is not there, or there is no library.</summary>
    private static string Name(string id, string kind, PracticeLibrary? library) =>
        kind switch
        {
            "rung" => library?.FindRung(id)?.Name,
            "ladder" => library?.Ladders.FirstOrDefault(l => l.Id == id)?.Name,
            "task" => library?.FindTask(id)?.Name,
            "fault" => library?.FindFault(id)?.Name,
            "modifier" => library?.FindModifier(id)?.Name,
            "policy" => library?.FindPolicy(id)?.Name,
            "goal" => library?.Goals.FirstOrDefault(g => g.Id == id)?.Name,
            "equipment" => library?.Equipment.FirstOrDefault(e => e.Id == id)?.Name,
            "precaution" => library?.Precautions.FirstOrDefault(p => p.Id == id)?.Name,
            "precaution-tag" => library?.Precautions.FirstOrDefault(p => p.Id == id)?.Tag,
            "sector" => library?.Sectors.FirstOrDefault(s => Kebab(s.Sector) == id)?.Name,
            "sector-asks" => library?.Sectors.FirstOrDefault(s => Kebab(s.Sector) == id)?.Asks,
            "sector-holds" => library?.Sectors.FirstOrDefault(s => Kebab(s.Sector) == id)?.Holds,
            "red-flag" => library?.DangerSigns.FirstOrDefault(s => s.Id == id)?.Words,
            "measure" => library?.Outcomes.FirstOrDefault(m => m.Id == id)?.Name,
            "place" => library?.FeltPlaces.FirstOrDefault(p => p.Id == id)?.Words,
            _ => null,
        } ?? id;

    private static string Kebab(Enum member) =>
        System.Text.Json.JsonNamingPolicy.KebabCaseLower.ConvertName(member.ToString());
}
