using System.Text.Json;
using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Progression;

/// <summary>What a tablet without the server is given, what was answered on it, and what the core says of the answers.</summary>
/// <param name="Unasked">What is to be minded whatever is answered. <paramref name="LegBefore"/>: of the last check-in; none: not asked.</param>
public sealed record AdviceCase(
    string PolicyId,
    int NoTrainingFrom,
    SessionAdvice Unasked,
    CheckIn CheckIn,
    LegReport? LegBefore,
    bool NoTraining,
    bool Half
);

/// <summary>
/// A tablet that cannot ask says by itself how to begin (client/src/frame/adviceAlone.ts): it is held to the same file, and is
/// never less careful than the core. Where the core is changed on purpose the file is written anew (PALAESTRA_WRITE_TAPES=1).
/// </summary>
public class AdviceAloneTests
{
    private const int Cases = 400;

    private static readonly ClientProfile[] Someones = [Someone.Calm, Someone.Moderate, Someone.Sore];

    private static string File => Path.Combine(Content.Root, "tests", "advice", "advice.json");

    private static IEnumerable<AdviceCase> Written() =>
        Enumerable.Range(0, Cases).Select(seed => Of(new Random(seed)));

    private static AdviceCase Of(Random dice)
    {
        var input = AnyDay.Of(Someones[dice.Next(Someones.Length)], dice);
        var policy = Content.Library.FindPolicy(input.PolicyId)!;
        var unasked = input with { CheckIn = new CheckIn(null, null, null, null, []) };
        var said = SessionAdvice.Of(input, Content.Library);
        return new(
            input.PolicyId,
            policy.Judgement.NoTrainingFrom,
            SessionAdvice.Of(unasked, Content.Library),
            input.CheckIn,
            input.Pain?.CheckIns.LastOrDefault(c => c.Leg is not null)?.Leg,
            said.NoTraining,
            said.Half
        );
    }

    private static string Json() => JsonSerializer.Serialize(Written().ToList(), TapeWriter.Options) + "\n";

    [Fact]
    public void The_file_is_what_the_core_says()
    {
        if (Environment.GetEnvironmentVariable("PALAESTRA_WRITE_TAPES") == "1")
        {
            Directory.CreateDirectory(Path.GetDirectoryName(File)!);
            System.IO.File.WriteAllText(File, Json());
        }
        Assert.Equal(Json(), System.IO.File.ReadAllText(File));
    }

    [Fact]
    public void It_holds_days_on_which_nobody_trains_days_that_are_halved_and_others()
    {
        var cases = Written().ToList();
        Assert.True(cases.Count(c => c.NoTraining) >= 15);
        Assert.True(cases.Count(c => c.Half) >= 20);
        Assert.True(cases.Count(c => c is { Half: false, NoTraining: false }) >= 50);
        Assert.True(cases.Count(c => c.Unasked.Eased.Count > 0) >= 5);
    }

    /// <summary>What pain is compared with is never below what was known before today and what was said to be usual today.</summary>
    [Fact]
    public void What_today_is_compared_with_is_bounded_by_what_a_tablet_knows() =>
        AnyDay.Input.Sample(
            input =>
            {
                var unasked = input with { CheckIn = new CheckIn(null, null, null, null, []) };
                var before = SessionAdvice.Of(unasked, Content.Library).Reference.Value;
                Assert.True(
                    SessionAdvice.Of(input, Content.Library).Reference.Value
                        >= Math.Min(before, input.CheckIn.UsualPain ?? before)
                );
            },
            iter: Soak.Cases(500)
        );
}
