using System.Text.Json;
using Fluid;
using Fluid.Values;
using Palaestra.Core.Library;

namespace Palaestra.Words;

/// <summary>What a sentence is said with beside its own values.</summary>
/// <param name="Library">Names what messages name by id; none: the ids are shown.</param>
/// <param name="Dates">The order of day, month and year.</param>
public sealed record Manner(PracticeLibrary? Library = null, DateOrder Dates = DateOrder.DayMonthYear);

/// <summary>The sentences of one language, each a Liquid template of the values of its message.</summary>
public sealed class Catalog
{
    private static readonly FluidParser Parser = new();
    private readonly IReadOnlyDictionary<string, IFluidTemplate> templates;
    private readonly IReadOnlyDictionary<string, string> sources;
    private readonly TemplateOptions options;

    /// <summary>Says what the clinic's own words of a sentence cannot.</summary>
    private readonly Catalog? before;

    private Catalog(
        IReadOnlyDictionary<string, IFluidTemplate> templates,
        IReadOnlyDictionary<string, string> texts,
        IReadOnlyDictionary<string, string> sources,
        Catalog? before = null
    )
    {
        this.templates = templates;
        this.sources = sources;
        this.before = before;
        Texts = texts;
        options = WordFilters.Options(key => Plain(key));
    }

    /// <summary>Our file in which a sentence stands.</summary>
    public string FileOf(string id) => sources[id];

    /// <summary>The templates as they are written, by id.</summary>
    public IReadOnlyDictionary<string, string> Texts { get; }

    /// <summary>
    /// Reads <c>words/&lt;language&gt;/*.json</c>, each an object of sentences by id; files of the clinic take the place of ours,
    /// sentence by sentence.
    /// </summary>
    /// <returns>Errors name file and sentence: broken JSON, a sentence that cannot be read, one that stands twice, one of the clinic that there is not.</returns>
    public static Checked<Catalog> Read(
        IReadOnlyDictionary<string, string> files,
        IReadOnlyDictionary<string, string>? own = null
    )
    {
        var errors = new List<FieldError>();
        var read = new Dictionary<string, IFluidTemplate>(StringComparer.Ordinal);
        var texts = new Dictionary<string, string>(StringComparer.Ordinal);
        var sources = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var (file, id, words, template) in Sentences(files, errors))
        {
            sources[id] = file;
            if (!read.TryAdd(id, template))
            {
                errors.Add(new(At(file, id), Message.Of("words.twice")));
            }
            texts[id] = words;
        }
        var ours = new Catalog(read, texts, sources);
        var told = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var (file, id, words) in Told(own ?? new Dictionary<string, string>(), errors))
        {
            errors.AddRange(
                ours.Errors(id, words).Select(problem => new FieldError($"own {At(file, id)}", problem))
            );
            told[id] = words;
        }
        return errors.Count > 0 ? Checked<Catalog>.Bad(errors)
            : told.Count > 0 ? Checked<Catalog>.Good(ours.With(told))
            : Checked<Catalog>.Good(ours);
    }

    /// <summary>The same sentences with others in the place of some; those that cannot be said are left out of it.</summary>
    public Catalog With(IEnumerable<KeyValuePair<string, string>> own)
    {
        var fit = own.Where(sentence => Errors(sentence.Key, sentence.Value).Count == 0).ToDictionary();
        return new(
            Merged(templates, fit.Select(s => KeyValuePair.Create(s.Key, Parser.Parse(s.Value)))),
            Merged(Texts, fit),
            sources,
            this
        );
    }

    private static Dictionary<string, T> Merged<T>(
        IReadOnlyDictionary<string, T> all,
        IEnumerable<KeyValuePair<string, T>> some
    )
    {
        var merged = new Dictionary<string, T>(all, StringComparer.Ordinal);
        foreach (var (id, one) in some)
        {
            merged[id] = one;
        }
        return merged;
    }

    /// <summary>Why a sentence cannot stand in the place of ours: what cannot be read is told with its line and column.</summary>
    public IReadOnlyList<Message> Errors(string id, string words)
    {
        if (!Texts.TryGetValue(id, out var ours))
        {
            return [Message.Of("words.none")];
        }
        if (!Parser.TryParse(words, out _, out var problem))
        {
            return [Message.Of("words.unreadable", ("problem", problem))];
        }
        return
        [
            .. SentenceNames
                .In(words)
                .Except(SentenceNames.In(ours))
                .Select(name => Message.Of("words.unknown-value", ("name", name))),
            .. SentenceNames
                .Filters(words)
                .Where(name => !options.Filters.TryGetValue(name, out _))
                .Select(name => Message.Of("words.unknown-filter", ("name", name))),
            .. SentenceNames.HasRange(words) ? [Message.Of("words.range")] : Array.Empty<Message>(),
        ];
    }

    /// <summary>The same, and what goes wrong when it is said once.</summary>
    public IReadOnlyList<Message> Errors(string words, Message sample, Manner manner)
    {
        if (Errors(sample.Id, words) is { Count: > 0 } errors)
        {
            return errors;
        }
        try
        {
            Rendered(Parser.Parse(words), sample, manner);
            return [];
        }
        catch (Exception problem)
        {
            return [Message.Of("words.fails", ("problem", problem.Message))];
        }
    }

    private static IEnumerable<(string File, string Id, string Words, IFluidTemplate Template)> Sentences(
        IReadOnlyDictionary<string, string> files,
        List<FieldError> errors
    )
    {
        foreach (var (file, id, words) in Told(files, errors))
        {
            if (Parser.TryParse(words, out var template, out var problem))
            {
                yield return (file, id, words, template);
            }
            else
            {
                errors.Add(new(At(file, id), Message.Of("words.unreadable", ("problem", problem))));
            }
        }
    }

    private static IEnumerable<(string File, string Id, string Words)> Told(
        IReadOnlyDictionary<string, string> files,
        List<FieldError> errors
    ) =>
        from file in files.OrderBy(pair => pair.Key, StringComparer.Ordinal)
        from sentence in Parsed(file.Key, file.Value, errors)
        select (file.Key, sentence.Key, sentence.Value ?? "");

    private static Dictionary<string, string> Parsed(string file, string text, List<FieldError> errors)
    {
        try
        {
            return JsonSerializer.Deserialize<Dictionary<string, string>>(text) ?? [];
        }
        catch (JsonException problem)
        {
            errors.Add(new($"{file} {problem.Path ?? "$"}", Message.Plain(problem.Message)));
            return [];
        }
    }

    private static string At(string file, string id) => $"{file} {id}";

    /// <summary>
    /// The sentence in words. A plain message is what it says; one without words, or with values its words cannot say (it came from
    /// outside, or from another version), shows its id: what was stored can always be read.
    /// </summary>
    public string Say(Message message, Manner manner)
    {
        if (message.Text is { } text)
        {
            return text;
        }
        if (!templates.TryGetValue(message.Id, out var template))
        {
            return Unsaid(message);
        }
        try
        {
            return Rendered(template, message, manner);
        }
        catch (Exception) when (before is not null)
        {
            // A clinic's own template may do what no check of it foresaw; a letter is not lost by that.
            return before.Say(message, manner);
        }
        catch (Exception unfit)
            when (unfit is FormatException or InvalidCastException or OverflowException or ArgumentException)
        {
            return Unsaid(message);
        }
    }

    private string Rendered(IFluidTemplate template, Message message, Manner manner)
    {
        var context = new TemplateContext(options);
        context.AmbientValues[WordFilters.MannerKey] = manner;
        foreach (var (name, value) in message.Values)
        {
            context.SetValue(name, Spoken(value, manner));
        }
        return template.Render(context, NullEncoder.Default);
    }

    private static string Unsaid(Message message) => $"[{message.Id}]";

    private FluidValue Spoken(object value, Manner manner) =>
        value switch
        {
            Message message => new StringValue(Say(message, manner)),
            double number => NumberValue.Create((decimal)number),
            bool flag => BooleanValue.Create(flag),
            object[] list => new ArrayValue([.. list.Select(part => Spoken(part, manner))]),
            _ => new StringValue((string)value),
        };

    private string? Plain(string id) =>
        templates.TryGetValue(id, out var template)
            ? template.Render(new TemplateContext(options), NullEncoder.Default)
            : null;
}
