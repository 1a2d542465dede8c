using Palaestra.Core.Tests.Given;
using Palaestra.Words;

namespace Palaestra.Core.Tests.Words;

/// <summary>A clinic's own words of a sentence: they are said where they can be, and ours where they cannot.</summary>
public class OwnSentenceTests
{
    private static readonly Message Visits = Message.Of("pile.rescreen", ("weeks", 6));
    private static readonly Manner Manner = new(Content.Library);

    private static string Said(string words) =>
        English.Catalog.With([KeyValuePair.Create(Visits.Id, words)]).Say(Visits, Manner);

    private static readonly string Ours = English.Catalog.Say(Visits, Manner);

    [Fact]
    public void Its_words_are_said_in_the_place_of_ours()
    {
        Assert.Equal("After 6 weeks.", Said("After {{ weeks }} weeks."));
        Assert.NotEqual("After 6 weeks.", Ours);
    }

    [Theory]
    [InlineData("{{ weeks ")]
    [InlineData("{{ months }}")]
    [InlineData("{{ weeks | rounded }}")]
    [InlineData("{% for i in (1..100000000) %}x{% endfor %}")]
    [InlineData("{% include 'elsewhere' %}")]
    public void One_that_cannot_be_read_is_left_out(string words)
    {
        Assert.NotEmpty(English.Catalog.Errors(Visits.Id, words));
        Assert.Equal(Ours, Said(words));
    }

    /// <summary>Whatever it does when it is said: a letter is never lost by it.</summary>
    [Theory]
    [InlineData("{{ weeks | date }}")]
    public void One_that_fails_when_it_is_said_leaves_ours(string words)
    {
        Assert.Empty(English.Catalog.Errors(Visits.Id, words));
        Assert.NotEmpty(English.Catalog.Errors(words, Visits, Manner));
        Assert.Equal(Ours, Said(words));
    }

    /// <summary>Ours are held to the same.</summary>
    [Fact]
    public void All_of_ours_could_stand_in_their_own_places() =>
        Assert.All(English.Catalog.Texts, one => Assert.Empty(English.Catalog.Errors(one.Key, one.Value)));

    [Fact]
    public void There_is_no_sentence_that_we_do_not_have() =>
        Assert.Equal("words.none", Assert.Single(English.Catalog.Errors("pile.nothing", "x")).Id);
}
