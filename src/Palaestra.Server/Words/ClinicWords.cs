using Palaestra.Server.Clinics;
using Palaestra.Server.Policies;
using Palaestra.Words;

namespace Palaestra.Server.Words;

/// <summary>Says messages as this clinic says them: its sentences, its names of things, its order of dates.</summary>
public sealed class ClinicWords(ClinicCatalog words, PolicyLibrary policyLibrary, ClinicClock clock)
{
    /// <summary>By the library and the order of dates as they are now.</summary>
    public Speech Speech => new(words.Now, Manner);

    public Manner Manner => new(policyLibrary.Library, clock.Order);

    public string Say(Message message) => Speech.Say(message);

    /// <summary>None for none.</summary>
    public string? SayAny(Message? message) => message is null ? null : Say(message);

    public IReadOnlyList<string> SayAll(IEnumerable<Message> messages) => [.. messages.Select(Say)];

    private const string Rule = "rule.";

    /// <summary>What each rule of decisions is about, by its id.</summary>
    public IReadOnlyDictionary<string, string> Rules() =>
        words
            .Now.Texts.Keys.Where(id => id.StartsWith(Rule, StringComparison.Ordinal))
            .ToDictionary(id => id[Rule.Length..], id => Say(Message.Of(id)));

    /// <summary>The same with other words of one sentence.</summary>
    public ClinicWords Trying(string id, string text) =>
        new(new ClinicCatalog(words.Now.With([KeyValuePair.Create(id, text)])), policyLibrary, clock);
}
