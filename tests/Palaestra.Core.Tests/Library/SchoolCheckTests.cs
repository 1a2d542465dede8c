using Palaestra.Core.Library;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Library;

/// <summary>A clinic's own policy stays within what can be chosen; the field is named by its path.</summary>
public class SchoolCheckTests
{
    private static IEnumerable<string> Fields(Policy policy) =>
        SchoolCheck.Errors(policy, Content.Library.Schools, "policy.").Select(error => error.Field);

    [Fact]
    public void Every_built_in_policy_is_within_its_bounds() =>
        Assert.All(Content.Library.Policies, policy => Assert.Empty(Fields(policy)));

    public static TheoryData<string, Policy> Wrong =>
        new()
        {
            { "policy.evenPercent", Content.Policy with { EvenPercent = 31 } },
            { "policy.weeklyGrowth", Content.Policy with { WeeklyGrowth = 0 } },
            { "policy.tempo.out", Content.Policy with { Tempo = new Tempo(0.5, 3) } },
            { "policy.pain.limit", Content.Policy with { Pain = new PainRule(PainRuleKind.Tolerable, 11) } },
            { "policy.sore.avoids", Content.Policy with { Sore = new SoreRules(["no-such-feature"], 10) } },
            { "policy.exercisesMin", Content.Policy with { ExercisesMin = 6, ExercisesMax = 3 } },
            {
                "policy.stirredUp.high.reps",
                Content.Policy with
                {
                    Irritability = Content.Policy.Irritability with
                    {
                        High = Content.Policy.Irritability.High with { Reps = 0 },
                    },
                }
            },
        };

    [Theory]
    [MemberData(nameof(Wrong))]
    public void A_value_out_of_bounds_is_named_by_its_path(string field, Policy policy) =>
        Assert.Contains(field, Fields(policy));

    /// <summary>Every value of a policy can be seen and changed: a choice nobody describes is an error of the content.</summary>
    [Fact]
    public void A_choice_that_is_not_described_is_an_error_of_the_content()
    {
        var without = Content.Library.Schools.Select(group =>
            group with
            {
                Choices = [.. group.Choices.Where(choice => choice.Path != "tempo.out")],
            }
        );
        Assert.Contains(
            SchoolCheck.Errors(
                new SchoolsFile("", [.. without]),
                new PoliciesFile("", Content.Library.Policies)
            ),
            error => error.Message.En().Contains("tempo.out", StringComparison.Ordinal)
        );
    }
}
