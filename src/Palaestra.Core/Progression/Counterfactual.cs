using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Progression;

/// <summary>
/// What would have changed a decision: found by trying other inputs. Every number it was made from is moved, near values
/// first; then a few facts; where none alone does it, two together. Of what is found the smallest change is told, one that
/// makes it harder and one that makes it easier.
/// </summary>
internal sealed class Counterfactual(
    Decision decision,
    DecideInput input,
    PracticeLibrary library,
    OtherLadders others,
    DayFacts day,
    TriedNumbers tried
)
{
    /// <param name="Cost">How far it is from what was: share of the number's range, or 1 for a fact.</param>
    private sealed record Found(Message What, Outcome Outcome, double Cost);

    private readonly Policy policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
    private readonly bool alone = Alone(decision, input, library);
    private readonly DecideInput narrow = Narrow(decision, input, library);

    /// <summary>Only where caps look across exercises do the others matter.</summary>
    private static bool Alone(Decision decision, DecideInput input, PracticeLibrary library) =>
        IrritabilityLevel.Of(input.Profile, library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy)
            != Irritability.High
        && !decision.Rules.Contains("D-CAP-CHANGE")
        && !decision.Rules.Contains("D-PAIN-SESSION");

    private static DecideInput Narrow(Decision decision, DecideInput input, PracticeLibrary library)
    {
        return Alone(decision, input, library)
            ? input with
            {
                Items = [.. input.Items.Where(item => item.Id == decision.PlanItemId)],
                Visits = [.. input.Visits.Where(p => p.PlanItemId == decision.PlanItemId)],
            }
            : input;
    }

    public Message? Words()
    {
        var told = new Found?[2];
        // Cheapest first: the first of each kind is the smallest.
        foreach (var found in Numbers().Concat(Facts()))
        {
            told[Way(found)] ??= found;
            if (told.All(f => f is not null))
            {
                break;
            }
        }
        if (told.All(f => f is null))
        {
            var pairs = Pairs().ToList();
            told =
            [
                .. Enumerable.Range(0, 2).Select(way => pairs.Where(f => Way(f) == way).MinBy(f => f.Cost)),
            ];
        }
        var sentences = told.OfType<Found>()
            .Select(f => Message.Of("would.be", ("what", f.What), ("outcome", f.Outcome)))
            .Concat(Ready())
            .ToList();
        return sentences.Count == 0 ? null : Message.Of("would", ("ways", sentences));
    }

    /// <summary>D-READY: the least of a few things that would have one up offered, where none is; the same for every side.</summary>
    private IEnumerable<Message> Ready()
    {
        if (
            decision.Probe is null
            && decision.Outcome is Outcome.Stay or Outcome.Add
            && day.MayProbe
            && policy.MovingOn == MovingOn.Mastery
            && tried.Ready(decision.PlanItemId, FirstThatOffers) is { } what
        )
        {
            yield return Message.Of("would.try", ("what", what));
        }
    }

    private Message? FirstThatOffers()
    {
        var most = policy.Judgement.ReadyEffortMax;
        var hard = input.Visits.Any(p =>
            p.PlanItemId == decision.PlanItemId && p.Visit == input.Visit && !(p.Effort <= most)
        );
        var ways = new (Message What, bool Apt, Func<DecideInput, DecideInput> Change)[]
        {
            (
                Message.Of("would.clean-set"),
                !hard,
                of => Today(of, p => p with { Sets = [.. p.Sets, CleanSet(p)] })
            ),
            (
                Message.Of("would.effort", ("most", most)),
                hard,
                of => Today(of, p => p with { Sets = [.. p.Sets.Select(s => s with { Effort = most })] })
            ),
            (Message.Of("would.visit"), !hard, Repeated),
        };
        // First by itself, then among the others: only so many are tried at a visit.
        return ways.Where(way => way.Apt && Offers(way.Change(narrow)) && Offers(way.Change(input)))
            .Select(way => way.What)
            .FirstOrDefault();
    }

    private bool Offers(DecideInput other) =>
        DecisionEngine
            .Bare(other, library, others, day.Past)
            .Any(d => d.PlanItemId == decision.PlanItemId && d.Probe is not null);

    private DecideInput Today(DecideInput of, Func<Visits.Performance, Visits.Performance> change) =>
        of with
        {
            Visits =
            [
                .. of.Visits.Select(p =>
                    p.PlanItemId == decision.PlanItemId && p.Visit == of.Visit ? change(p) : p
                ),
            ],
        };

    private static Visits.SetDone CleanSet(Visits.Performance done) =>
        new(
            done.Prescribed.Reps,
            done.Prescribed.Reps,
            0,
            0,
            done.Prescribed.Reps * done.Prescribed.Hold,
            false,
            null,
            done.Effort,
            null
        );

    /// <summary>0 for what makes it harder, 1 for the rest.</summary>
    private int Way(Found found) => Height(found.Outcome) > Height(decision.Outcome) ? 0 : 1;

    private static int Height(Outcome outcome) =>
        outcome switch
        {
            Outcome.StepUp => 5,
            Outcome.Add => 4,
            Outcome.Stay or Outcome.Change => 3,
            Outcome.Ease => 2,
            Outcome.StepDown => 1,
            _ => 0,
        };

    private Outcome Try(DecideInput other) => Mine(DecisionEngine.Outcomes(other, library, others, day.Past));

    private Outcome Try(NumberKind kind, int value) =>
        Mine(
            tried.Of(
                decision,
                alone,
                kind,
                value,
                () => DecisionEngine.Outcomes(Set(narrow, kind, value), library, others, day.Past)
            )
        );

    private Outcome Mine(IReadOnlyList<Decision> decisions) =>
        decisions.First(d => d.PlanItemId == decision.PlanItemId && d.Side == decision.Side).Outcome;

    private DecideInput Set(DecideInput from, NumberKind kind, int value) =>
        DecisionNumbers.With(from, decision.PlanItemId, decision.Side, kind, value, library);

    private IReadOnlyList<DecisionNumber> Known =>
        [
            .. DecisionNumbers
                .Of(narrow, decision.PlanItemId, decision.Side, library)
                .Where(number => number.Now is not null),
        ];

    /// <summary>Of each number the nearest value upward and the nearest downward that give another decision, the smallest change first.</summary>
    private IEnumerable<Found> Numbers()
    {
        var done = new HashSet<(NumberKind, bool)>();
        var values =
            from number in Known
            let now = number.Now!.Value
            from value in WorthTrying(number).Where(v => v != now).OrderBy(v => v < now)
            orderby Cost(number, value)
            select (number, value, up: value > now);
        foreach (var (number, value, up) in values)
        {
            if (done.Contains((number.Kind, up)))
            {
                continue;
            }
            if (number.Kind != NumberKind.CleanReps && Nowhere(number, up))
            {
                done.Add((number.Kind, up));
                continue;
            }
            var outcome = Try(number.Kind, value);
            if (outcome != decision.Outcome)
            {
                done.Add((number.Kind, up));
                yield return new(What(number, value), outcome, Cost(number, value));
            }
        }
    }

    /// <summary>More of what eases never makes a decision harder: where the end of the scale changes nothing, nothing before it does.</summary>
    private bool Nowhere(DecisionNumber number, bool up) =>
        Try(number.Kind, up ? number.Max : number.Min) == decision.Outcome;

    /// <summary>The policy's thresholds and the values beside them; every painful set.</summary>
    private IEnumerable<int> WorthTrying(DecisionNumber number)
    {
        int[] limits = number.Kind switch
        {
            NumberKind.CleanReps => CleanLimits(number),
            NumberKind.Effort => [policy.MasteryEffortMax],
            NumberKind.NextDayPain => [day.Reference.Value + policy.NextDayRise - 1],
            NumberKind.PainNow =>
            [
                day.Reference.Value + policy.Judgement.NowRise - 1,
                policy.Judgement.NoTrainingFrom - 1,
            ],
            NumberKind.SettledHours => [(int)policy.SettleHours],
            NumberKind.DaysAway => [policy.AwayDays - 1],
            NumberKind.HomePercent =>
            [
                (int)Math.Ceiling(100 * policy.HomeLessFraction) - 1,
                (int)Math.Ceiling(100 * policy.HomeAgreesFraction) - 1,
            ],
            _ => [.. number.Values],
        };
        return limits
            .SelectMany(limit => new[] { limit, limit + 1 })
            .Append(number.Min)
            .Append(number.Max)
            .Where(value => number.Min <= value && value <= number.Max)
            .Distinct();
    }

    /// <summary>A rep or two more or fewer, all of them, and the shares at which D-DONE-LESS and D-FAULT-CAP turn.</summary>
    private int[] CleanLimits(DecisionNumber number)
    {
        var now = number.Now!.Value;
        int At(double share) => (int)Math.Ceiling(share * number.Max) - 1;
        return
        [
            now - 2,
            now,
            number.Max - 1,
            At(policy.DoneLessFraction),
            At(1 - policy.FaultCapFraction),
            At(1 - policy.FaultCapFraction) + 1,
        ];
    }

    private static double Cost(DecisionNumber number, int value) =>
        Math.Abs(value - number.Now!.Value) / (double)Math.Max(1, number.Max - number.Min);

    private IEnumerable<Found> Facts()
    {
        if (narrow.CheckIn.DangerSigns.Count > 0)
        {
            var without = narrow with { CheckIn = narrow.CheckIn with { DangerSigns = [] } };
            if (Try(without) is var calm && calm != decision.Outcome)
            {
                yield return new(Message.Of("would.no-flag"), calm, 1);
            }
        }
        if (DecisionNumbers.Today(narrow, decision.PlanItemId, decision.Side) is not { } today)
        {
            yield break;
        }
        if (today.BreakingReps > 0)
        {
            var worked = !today.CueFixed;
            var other = Try(
                DecisionNumbers.Each(
                    narrow,
                    decision.PlanItemId,
                    decision.Side,
                    p => p with { Sets = [.. p.Sets.Select(set => set with { CueFixed = worked })] }
                )
            );
            if (other != decision.Outcome)
            {
                yield return new(Message.Of("would.cue", ("worked", worked)), other, 1);
            }
        }
        if (Try(Repeated()) is var again && again != decision.Outcome)
        {
            yield return new(Message.Of("would.visit"), again, 1);
        }
    }

    /// <summary>Two numbers together, each moved as little as it takes beside the other.</summary>
    private IEnumerable<Found> Pairs()
    {
        var numbers = Known;
        for (var i = 0; i < numbers.Count; i++)
        {
            for (var j = i + 1; j < numbers.Count; j++)
            {
                var ends =
                    from a in new[] { numbers[i].Min, numbers[i].Max }
                    from b in new[] { numbers[j].Min, numbers[j].Max }
                    where Try(Set(Set(narrow, numbers[i].Kind, a), numbers[j].Kind, b)) != decision.Outcome
                    select (a, b);
                foreach (var (a, b) in ends.ToList())
                {
                    yield return Shrunk(numbers[i], a, numbers[j], b);
                }
            }
        }
    }

    private Found Shrunk(DecisionNumber one, int a, DecisionNumber two, int b)
    {
        a = Nearest(one, a, Set(narrow, two.Kind, b));
        b = Nearest(two, b, Set(narrow, one.Kind, a));
        var both = Message.Of("would.both", ("one", What(one, a)), ("two", What(two, b)));
        var outcome = Try(Set(Set(narrow, one.Kind, a), two.Kind, b));
        return new(both, outcome, Cost(one, a) + Cost(two, b));
    }

    /// <summary>The value nearest to what was, on the way to <paramref name="end"/>, that still changes the decision.</summary>
    private int Nearest(DecisionNumber number, int end, DecideInput beside)
    {
        var now = number.Now!.Value;
        return WorthTrying(number)
            .Where(v => Math.Min(now, end) <= v && v <= Math.Max(now, end))
            .OrderBy(v => Math.Abs(v - now))
            .First(v => v == end || Try(Set(beside, number.Kind, v)) != decision.Outcome);
    }

    private Message What(DecisionNumber number, int value) =>
        Message.Of(
            "would.number",
            ("kind", number.Kind),
            ("value", value),
            ("now", number.Now),
            ("by", Math.Abs(value - number.Now!.Value)),
            ("more", value > number.Now),
            ("side", decision.Side)
        );

    /// <summary>Today's work again, as a next visit a week later.</summary>
    private DecideInput Repeated() => Repeated(narrow);

    private static DecideInput Repeated(DecideInput of) =>
        of with
        {
            Visit = of.Visit + 1,
            Date = of.Date.AddDays(7),
            LastWorkDate = of.LastWorkDate?.AddDays(7),
            Visits =
            [
                .. of.Visits,
                .. of
                    .Visits.Where(p => p.Visit == of.Visit)
                    .Select(p => p with { Visit = of.Visit + 1, Date = p.Date.AddDays(7) }),
            ],
        };
}
