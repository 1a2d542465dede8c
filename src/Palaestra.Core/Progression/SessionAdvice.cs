using Palaestra.Core.Library;

namespace Palaestra.Core.Progression;

/// <summary>One line of what to mind before the first set.</summary>
public sealed record AdviceLine(string RuleId, Message Words);

/// <summary>An exercise that is begun easier today, on one side.</summary>
public sealed record EasedStart(Guid PlanItemId, Side Side, string RungId, Dose Dose);

/// <summary>What is known before the first set: it is said then, and not only when the visit is decided.</summary>
/// <param name="Reference">What pain is compared with.</param>
/// <param name="NoTraining">Pain today is too much to train at all.</param>
/// <param name="Half">Half the session is offered.</param>
/// <param name="Eased">Time away: begin each exercise so; empty where nothing is to be eased.</param>
public sealed record SessionAdvice(
    Reference Reference,
    bool NoTraining,
    bool Half,
    IReadOnlyList<AdviceLine> Lines,
    IReadOnlyList<EasedStart> Eased
)
{
    /// <param name="input">The visit as it stands; work of today is not looked at.</param>
    public static SessionAdvice Of(DecideInput input, PracticeLibrary library)
    {
        var before = input with
        {
            Visits = [.. input.Visits.Where(p => p.Visit < input.Visit)],
            Sessions = [.. (input.Sessions ?? []).Where(s => s.Visit < input.Visit)],
        };
        var day = new DayFacts(before, library);
        var away = Away(before, day, library);
        // Pain that nobody asked about is asked for, and is no reason to halve anything.
        var now = before.CheckIn.PainNow is not null && day.Holds.Any(rule => rule.RuleId == "D-PAIN-NOW");
        var none = day.Holds.Any(rule => rule.RuleId == "D-NO-TRAINING");
        return new SessionAdvice(
            day.Reference,
            none,
            now && !none,
            [
                .. day.Refer.Select(words => new AdviceLine("D-REFER", words)),
                .. day.Holds.Select(rule => new AdviceLine(rule.RuleId, rule.Words)),
                .. now
                    ? [new AdviceLine("D-PAIN-NOW", Message.Of("advice.half"))]
                    : Array.Empty<AdviceLine>(),
                .. Remembered(day),
                .. Home(input),
                .. away.Select(d => d.Evidence[0])
                    .Distinct()
                    .Select(words => new AdviceLine("D-AWAY", words)),
                .. away.Select(d => d.Todo)
                    .OfType<Message>()
                    .Distinct()
                    .Select(words => new AdviceLine("D-AWAY", words)),
            ],
            [
                .. away.Where(d => d.Outcome is Outcome.Ease or Outcome.StepDown)
                    .Select(d => new EasedStart(d.PlanItemId, d.Side, d.RungId, d.Dose)),
            ]
        );
    }

    private static List<Decision> Away(DecideInput before, DayFacts day, PracticeLibrary library)
    {
        var others = new OtherLadders(before, library);
        return
        [
            .. before
                .Items.Where(item => !item.Resting)
                .SelectMany(item =>
                    item.Doses.Select(d =>
                        StallRules.Away(new DecisionCase(before, item, d.Side, library, others, day))
                    )
                )
                .OfType<Decision>(),
        ];
    }

    private static IEnumerable<AdviceLine> Remembered(DayFacts day)
    {
        if (day.Remembered.Count > 0)
        {
            yield return new("D-LEG-MEMORY", Message.Of("advice.leg", ("sides", day.Remembered)));
        }
    }

    /// <summary>Unknown is asked, and never counted as time away.</summary>
    private static IEnumerable<AdviceLine> Home(DecideInput input)
    {
        if (input.LastWorkDate is null && input.CheckIn.Home is null)
        {
            yield return new("D-HOME", Message.Of("advice.home"));
        }
    }
}
