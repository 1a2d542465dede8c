using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;

namespace Palaestra.Simulation.Courses;

/// <summary>What came of one course.</summary>
/// <param name="TargetWeek">Week in which half of the first plan's exercises were a rung higher, in the plan and truly held; none if not.</param>
/// <param name="RungsGained">True ability gained, rungs, mean over the first plan's exercises.</param>
/// <param name="StepUps">Exercises that went up a rung. <paramref name="TooEarly"/>: of those, to one above true ability.</param>
/// <param name="Decisions">Taken in all. <paramref name="Overturned"/>: that a rater who sees everything would have taken otherwise.</param>
/// <param name="Fired">Rule to how often it decided.</param>
public sealed record CourseResult(
    int? TargetWeek,
    double RungsGained,
    int Flares,
    int StepUps,
    int TooEarly,
    int Decisions,
    int Overturned,
    IReadOnlyDictionary<string, int> Fired
);

/// <summary>Twelve weeks of one simulated client under one policy, by the product's own rules from screen to last visit.</summary>
public static class Course
{
    private static readonly DateOnly First = new(2026, 3, 2);

    public static CourseResult? Run(PracticeLibrary library, Policy policy, CourseNature nature, int seed) =>
        Begin(library, policy, nature, seed)?.Live();

    /// <summary>What the rules looked at at each visit of a course; empty where nothing could be planned.</summary>
    public static IReadOnlyList<DecideInput> Visits(
        PracticeLibrary library,
        Policy policy,
        CourseNature nature,
        int seed
    )
    {
        var weeks = Begin(library, policy, nature, seed);
        weeks?.Live();
        return weeks?.Inputs ?? [];
    }

    private static Weeks? Begin(PracticeLibrary library, Policy policy, CourseNature nature, int seed)
    {
        var client = new CourseClient(library, nature, seed);
        var ids = new Random(seed);
        Guid Id()
        {
            var bytes = new byte[16];
            ids.NextBytes(bytes);
            return new Guid(bytes);
        }
        var profile = ProfileOf(client);
        var findings = Screen(client, profile, policy, library);
        var plan = Planner
            .Propose(
                new PlanInput(
                    profile,
                    findings,
                    policy.Id,
                    SpinalStrategy.Neutral,
                    policy.SwitchOn,
                    policy.MinutesPerDay
                ),
                library,
                Id
            )
            .Plan;
        if (plan.Items.Count == 0)
        {
            return null;
        }
        return new Weeks(client, plan, findings, policy, library, nature);
    }

    private static ClientProfile ProfileOf(CourseClient client) =>
        new(new Pain(client.UsualPain, Math.Min(10, client.UsualPain + 2), client.UsualPain), 4, false, []);

    /// <summary>Every third ladder, in an order of the seed's own, both sides.</summary>
    private static ScreenFindings Screen(
        CourseClient client,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    )
    {
        foreach (var id in new[] { "B", "D", "E", "G", "H" })
        {
            var ladder = library.Ladders.First(l => l.Id == id);
            foreach (var side in new[] { Side.Left, Side.Right })
            {
                while (Next(ladder, side, client, profile, policy, library) is { } next)
                {
                    client.Born.Do(library.Rung(next), side, policy);
                }
            }
        }
        var trials = TrialFold.Trials([.. client.Born.Events], library, policy.Pain);
        return FindingsMaker.Of(trials, profile, policy, library);
    }

    private static string? Next(
        Ladder ladder,
        Side side,
        CourseClient client,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    ) =>
        RungFinder
            .Search(
                ladder,
                side,
                TrialFold.Trials([.. client.Born.Events], library, policy.Pain),
                profile,
                policy,
                library
            )
            .NextRungId;

    private sealed class Weeks(
        CourseClient client,
        Plan first,
        ScreenFindings findings,
        Policy policy,
        PracticeLibrary library,
        CourseNature nature
    )
    {
        private readonly List<Performance> seen = [];
        private readonly List<Performance> real = [];
        private readonly Dictionary<string, int> fired = [];
        private readonly Dictionary<Guid, int> reached = [];
        private int flares;
        private int stepUps;
        private int tooEarly;
        private int decisions;
        private int overturned;

        public List<DecideInput> Inputs { get; } = [];

        public CourseResult Live()
        {
            var plan = first;
            var began = first.Items.ToDictionary(
                i => i.Id,
                i => client.Margin(library.Rung(i.RungId), Side.Both)
            );
            var growth = 1.0;
            for (var visit = 2; visit <= nature.Weeks + 1 && plan.Items.Count > 0; visit++)
            {
                var (check, home, flared) = client.Week(plan.Items, growth);
                flares += flared ? 1 : 0;
                var next = Decide(plan, visit, check, home);
                growth = Seconds(next) / Math.Max(1, Seconds(plan));
                plan = next;
                Note(plan, visit);
            }
            var gains = first.Items.Select(i =>
                client.Margin(library.Rung(i.RungId), Side.Both) - began[i.Id]
            );
            var half = (first.Items.Count + 1) / 2;
            return new(
                reached.Count >= half ? reached.Values.Order().ElementAt(half - 1) : null,
                gains.Average(),
                flares,
                stepUps,
                tooEarly,
                decisions,
                overturned,
                fired
            );
        }

        private double Seconds(Plan plan) => PlanWork.Of(plan, 5, policy, library).WeekSeconds;

        private Plan Decide(Plan plan, int visit, CheckIn check, IReadOnlyList<HomeWork> home)
        {
            client.NextDay();
            var on = First.AddDays(7 * (visit - 1));
            foreach (var item in plan.Items)
            {
                foreach (var dose in item.Doses)
                {
                    var (truly, told) = client.Do(visit, on, item, dose, policy.Pain);
                    real.Add(truly);
                    seen.Add(told);
                }
            }
            var profile = ProfileOf(client);
            var input = new DecideInput(
                visit,
                on,
                profile,
                policy.Id,
                plan.Items,
                check,
                [.. seen],
                on.AddDays(-1),
                home,
                First,
                findings.Entries,
                null,
                plan.Strategy,
                plan.SwitchOn
            );
            Inputs.Add(input);
            var chosen = DecisionEngine.Bare(input, library);
            // The same history but for today, and today seen by somebody who misses and imagines nothing.
            var clear = input with
            {
                Visits = [.. seen.Where(p => p.Visit < visit), .. real.Where(p => p.Visit == visit)],
            };
            Count(plan, chosen, DecisionEngine.Bare(clear, library));
            return NextPlan.Apply(plan, chosen, library, policy, profile);
        }

        private void Count(Plan plan, IReadOnlyList<Decision> chosen, IReadOnlyList<Decision> clear)
        {
            decisions += chosen.Count;
            overturned += chosen.Zip(clear).Count(pair => pair.First.Outcome != pair.Second.Outcome);
            foreach (var decision in chosen)
            {
                fired[decision.RuleId] = fired.GetValueOrDefault(decision.RuleId) + 1;
            }
            foreach (var item in plan.Items)
            {
                var mine = chosen.Where(d => d.PlanItemId == item.Id).ToList();
                if (mine.Count == 0 || mine.Any(d => d.Outcome != Outcome.StepUp))
                {
                    continue;
                }
                stepUps++;
                tooEarly += client.Margin(library.Rung(mine[0].RungId), Side.Both) < 0 ? 1 : 0;
            }
        }

        /// <summary>A rung above where an exercise began, in the plan and truly held. A stalled one that went to another ladder does not count.</summary>
        private void Note(Plan plan, int visit)
        {
            foreach (var item in first.Items.Where(i => !reached.ContainsKey(i.Id)))
            {
                var ladder = library.LadderOf(item.RungId);
                var now = plan.Items.FirstOrDefault(i => i.Id == item.Id);
                var goal = Math.Min(ladder.Rungs.Count - 1, ladder.IndexOf(item.RungId) + 1);
                if (
                    now is not null
                    && ladder.IndexOf(now.RungId) >= goal
                    && client.Margin(library.Rung(now.RungId), Side.Both) >= 0
                )
                {
                    reached[item.Id] = visit - 1;
                }
            }
        }
    }
}
