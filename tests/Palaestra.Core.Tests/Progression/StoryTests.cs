using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Three thousand simulated stories, six hundred of each kind: neither frozen nor overlooked.</summary>
public class StoryTests
{
    private const int OfEach = 600;

    private static IEnumerable<IReadOnlyList<DayFacts>> Of(StoryKind kind) =>
        Enumerable
            .Range(0, OfEach)
            .Select(seed => (IReadOnlyList<DayFacts>)[.. new Story(kind, seed).Days()]);

    private static double Held(StoryKind kind)
    {
        var days = Of(kind).SelectMany(d => d).ToList();
        var share = days.Count(day => day.Holds.Count > 0) / (double)days.Count;
        Soak.Tell($"- {kind}: nothing may be added at {100 * share:0.0} % of {days.Count} check-ins");
        return share;
    }

    /// <summary>A reported flare at one check-in in twenty is part of every story.</summary>
    [Theory]
    [InlineData(StoryKind.Steady)]
    [InlineData(StoryKind.NoHomeWork)]
    [InlineData(StoryKind.LegComesAndGoes)]
    public void Even_pain_is_not_frozen_by_the_rules(StoryKind kind) => Assert.InRange(Held(kind), 0, 0.35);

    [Fact]
    public void Fluctuating_pain_is_held_more_often_than_even_pain() =>
        Assert.True(Held(StoryKind.Fluctuating) > Held(StoryKind.Steady));

    [Fact]
    public void Slow_worsening_is_found_within_ten_weeks()
    {
        bool Found(IReadOnlyList<DayFacts> days, int weeks) =>
            days.Take(weeks).Any(day => day.Holds.Any(rule => rule.RuleId == "D-PAIN-DRIFT"));
        var found = Of(StoryKind.Worsening).Count(days => Found(days, 10)) / (double)OfEach;
        var falsely = Of(StoryKind.Steady).Count(days => Found(days, 10)) / (double)OfEach;
        Soak.Tell(
            $"- Worsening by 0.4 a week: D-PAIN-DRIFT within ten weeks in {100 * found:0.0} % of stories; in {100 * falsely:0.0} % of the steady ones"
        );
        Assert.InRange(found, 0.95, 1);
        Assert.InRange(falsely, 0, 0.2);
    }
}
