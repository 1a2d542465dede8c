using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Core.Visits;

namespace Palaestra.Simulation.Courses;

/// <summary>What came of one course.</summary>
/// <param name="TargetWeek">Week in which half of the first plan's exercises that can move were a rung higher, in the plan and truly held; none if not.</param>
/// <param name="RungsGained">True ability gained, rungs, mean over those exercises.</param>
/// <param name="StepUps">Exercises that went up a rung. <paramref name="TooEarly"/>: of those, to one above true ability.</param>
/// <param name="Probes">Exercises tried one up. <paramref name="MinutesPerWeek"/>: home days and visit together, tries among them, mean.</param>
/// <param name="Decisions">Taken in all. <paramref name="Overturned"/>: that a rater who sees everything would have taken otherwise.</param>
/// <param name="Fired">Rule to how often it decided.</param>
public sealed record CourseResult(
    int? TargetWeek,
    double RungsGained,
    int Flares,
    int StepUps,
    int TooEarly,
    int Probes,
    double MinutesPerWeek,
    int Decisions,
    int Overturned,
    IReadOnlyDictionary<string, int> Fired
);

/// <summary>Some weeks of one simulated client under one guide, from screen to last visit.</summary>
public static class Course
{
    private static readonly DateOnly First = new(2026, 3, 2);

    /// <summary>Days of training a week, as planned.</summary>
    private const int DaysPerWeek = 5;

    /// <summary>None where nothing could be planned that can move.</summary>
    public static CourseResult? Run(
        PracticeLibrary library,
        CourseGuide guide,
        CourseNature nature,
        int seed
    ) => Begin(library, guide, nature, seed)?.Live();

    /// <summary>What the rules looked at at each visit of a course; empty where nothing could be planned.</summary>
    public static IReadOnlyList<DecideInput> Visits(
        PracticeLibrary library,
        Policy policy,
        CourseNature nature,
        int seed
    )
    {
        var weeks = Begin(library, new ByRules(policy.Id, policy), nature, seed);
        weeks?.Live();
        return weeks?.Inputs ?? [];
    }

    private static Weeks? Begin(PracticeLibrary library, CourseGuide guide, CourseNature nature, int seed)
    {
        var policy = guide.Policy;
        var client = new CourseClient(library, nature, seed);
        var ids = new Random(seed);
        Guid Id()
        {
            var bytes = new byte[16];
            ids.NextBytes(bytes);
            return new Guid(bytes);
        }
        client.NextVisit(1);
        var profile = client.Profile;
        var findings = Screen(client, profile, policy, library);
        var plan = Planner
            .Propose(
                new PlanInput(
                    profile,
                    findings,
                    policy.Id,
                    SpinalStrategy.Neutral,
                    policy.Activation,
                    policy.MinutesPerDay
                ),
                library,
                Id
            )
            .Plan;
        var movable = plan.Items.Where(i => CanMove(i, policy, library)).ToList();
        return movable.Count == 0 ? null : new Weeks(client, plan, movable, findings, guide, library, nature);
    }

    /// <summary>A rung of a ladder of difficulty with one above it that the school leaves open and a mat is enough for.</summary>
    private static bool CanMove(PlanItem item, Policy policy, PracticeLibrary library)
    {
        var ladder = library.LadderOf(item.RungId);
        return ladder.Direction != Direction.None
            && ladder.Rungs.Skip(ladder.IndexOf(item.RungId) + 1).Any(rung => !policy.Closes(rung));
    }

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
                var trials = new List<Trial>();
                while (
                    RungFinder.Search(ladder, side, trials, profile, policy, library).NextRungId is { } next
                )
                {
                    trials.Add(client.Born.Do(library.Rung(next), side, policy));
                }
            }
        }
        var all = TrialFold.Trials([.. client.Born.Events], library, policy.Pain);
        return FindingsMaker.Of(all, profile, policy, library);
    }

    private sealed class Weeks(
        CourseClient client,
        Plan first,
        IReadOnlyList<PlanItem> movable,
        ScreenFindings findings,
        CourseGuide guide,
        PracticeLibrary library,
        CourseNature nature
    )
    {
        private readonly Policy policy = guide.Policy;
        private readonly List<Performance> seen = [];
        private readonly List<Performance> real = [];
        private readonly List<ProbeDone> probesSeen = [];
        private readonly List<ProbeDone> probesReal = [];
        private readonly List<PastCheckIn> checks = [];
        private readonly List<SessionPain> sessions = [];
        private readonly List<Raise> raises = [];
        private readonly Dictionary<string, int> fired = [];
        private readonly Dictionary<Guid, int> reached = [];
        private IReadOnlyList<HomeWork>? lastHome;
        private int flares;
        private int stepUps;
        private int tooEarly;
        private int tries;
        private double minutes;
        private int decisions;
        private int overturned;

        public List<DecideInput> Inputs { get; } = [];

        public CourseResult Live()
        {
            var plan = first;
            var began = movable.ToDictionary(
                i => i.Id,
                i => client.Margin(library.Rung(i.RungId), Side.Both)
            );
            var firstUsual = client.UsualPain;
            checks.Add(new(1, First, firstUsual, client.PainNow));
            var asked = new List<double> { Seconds(first), Seconds(first) };
            IReadOnlyList<ProbeDone> tried = [];
            for (var visit = 2; visit <= nature.Weeks + 1 && plan.Items.Count > 0; visit++)
            {
                minutes += Minutes(plan);
                asked.Add(Seconds(plan));
                var week = client.Week(plan.Items, asked[^1] / Math.Max(1, asked[^3]), tried);
                flares += week.Flared ? 1 : 0;
                client.NextVisit(visit);
                var on = First.AddDays(7 * (visit - 1));
                var today = plan with { Items = [.. plan.Items.Select(item => item.On(on))] };
                var input = Session(today, visit, on, week, firstUsual);
                tried = [.. probesSeen.Where(p => p.Visit == visit)];
                plan = Decide(today, input);
                Note(plan, visit);
                checks.Add(Past(visit, on, week.CheckIn));
            }
            var gains = movable.Select(i => client.Margin(library.Rung(i.RungId), Side.Both) - began[i.Id]);
            var half = (movable.Count + 1) / 2;
            return new(
                reached.Count >= half ? reached.Values.Order().ElementAt(half - 1) : null,
                gains.Average(),
                flares,
                stepUps,
                tooEarly,
                tries,
                minutes / nature.Weeks,
                decisions,
                overturned,
                fired
            );
        }

        private static PastCheckIn Past(int visit, DateOnly on, CheckIn check) =>
            new(visit, on, check.UsualPain, check.PainNow, check.NextDayPain, check.SettledHours);

        private double Seconds(Plan plan) => PlanWork.Of(plan, DaysPerWeek, policy, library).WeekSeconds;

        private static double Minutes(Plan plan) =>
            DaysPerWeek * plan.Items.Where(item => !item.Resting).Sum(item => item.Minutes);

        /// <summary>The work of a visit, what is tried one up, and all that the rules look at then.</summary>
        private DecideInput Session(Plan plan, int visit, DateOnly on, WeekLived week, int firstUsual)
        {
            DecideInput Known(IReadOnlyList<SessionPain> pain) =>
                new(
                    visit,
                    on,
                    client.Profile,
                    policy.Id,
                    plan.Items,
                    week.CheckIn,
                    [.. seen],
                    on.AddDays(-1),
                    week.Home,
                    First,
                    findings.Entries,
                    null,
                    plan.Strategy,
                    plan.Activation,
                    new PainHistory([.. checks], firstUsual),
                    pain,
                    [.. raises],
                    Probes: [.. probesSeen],
                    HomeLong: lastHome is null ? null : HomeWork.Together([lastHome, week.Home])
                );
            foreach (var item in plan.Items.Where(item => !item.Resting))
            {
                foreach (var dose in item.Doses)
                {
                    var (truly, told) = client.Do(on, item, dose, policy.Pain);
                    real.Add(truly);
                    seen.Add(told);
                }
                if (guide.Tries)
                {
                    Try(Known([.. sessions, SessionNow(visit, on)]), item, on);
                }
            }
            sessions.Add(SessionNow(visit, on));
            var input = Known([.. sessions]);
            lastHome = week.Home;
            return input;
        }

        private void Try(DecideInput sofar, PlanItem item, DateOnly on)
        {
            var ready = DecisionEngine
                .Bare(sofar, library)
                .Where(d => d.PlanItemId == item.Id && d.Probe is not null)
                .ToList();
            var offer = ready.FirstOrDefault()?.Probe;
            foreach (var side in offer is null ? [] : library.Rung(offer.RungId).TaskSides)
            {
                var own = ready.FirstOrDefault(d => d.Side == side)?.Probe ?? offer!;
                var (truly, told) = client.Try(on, item.Id, side, own, policy.Pain);
                probesReal.Add(truly);
                probesSeen.Add(told);
                minutes += nature.Probe.Minutes;
            }
            tries += ready.Count > 0 ? 1 : 0;
        }

        private SessionPain SessionNow(int visit, DateOnly on)
        {
            var sets = seen.Where(p => p.Visit == visit)
                .SelectMany(p => p.Sets)
                .Concat(probesSeen.Where(p => p.Visit == visit).Select(p => p.Set))
                .ToList();
            var start = client.PainNow;
            var rises = sets.Select(s => (s.PainMost ?? start) - start).DefaultIfEmpty(0).ToList();
            var end = Math.Min(10, start + (int)Math.Round(rises.Average() * nature.Pain.Stays));
            return new(visit, on, start, start + rises.Max(), end, 10);
        }

        private Plan Decide(Plan plan, DecideInput input)
        {
            Inputs.Add(input);
            var chosen = DecisionEngine.Bare(input, library);
            var next = guide.Next(new(plan, input, chosen, client, library));
            if (next is null)
            {
                return plan;
            }
            if (guide is ByRules)
            {
                // The same history but for today, and today seen by somebody who misses and imagines nothing.
                var clear = input with
                {
                    Visits =
                    [
                        .. seen.Where(p => p.Visit < input.Visit),
                        .. real.Where(p => p.Visit == input.Visit),
                    ],
                    Probes =
                    [
                        .. probesSeen.Where(p => p.Visit < input.Visit),
                        .. probesReal.Where(p => p.Visit == input.Visit),
                    ],
                };
                Count(chosen, DecisionEngine.Bare(clear, library));
            }
            Compare(plan, next, input);
            return next;
        }

        private void Count(IReadOnlyList<Decision> chosen, IReadOnlyList<Decision> clear)
        {
            decisions += chosen.Count;
            overturned += chosen.Zip(clear).Count(pair => pair.First.Outcome != pair.Second.Outcome);
            foreach (var decision in chosen)
            {
                fired[decision.RuleId] = fired.GetValueOrDefault(decision.RuleId) + 1;
            }
        }

        /// <summary>What the next plan raised: kept for the rules, and steps up for the table.</summary>
        private void Compare(Plan plan, Plan next, DecideInput input)
        {
            foreach (var item in next.Items)
            {
                if (plan.Items.FirstOrDefault(i => i.Id == item.Id) is not { } old)
                {
                    continue;
                }
                var ladder = library.LadderOf(old.RungId);
                if (ladder.IndexOf(item.RungId) > ladder.IndexOf(old.RungId))
                {
                    stepUps++;
                    tooEarly += client.Margin(library.Rung(item.RungId), Side.Both) < 0 ? 1 : 0;
                }
                raises.AddRange(
                    from dose in item.Doses
                    let was = old.Doses.FirstOrDefault(d => d.Side == dose.Side) ?? old.Doses[0]
                    where Raise.Raised(library, old.RungId, was.Dose, item.RungId, dose.Dose)
                    select new Raise(item.Id, dose.Side, input.Visit, input.Date, old.RungId, was.Dose)
                );
            }
        }

        /// <summary>A rung above where an exercise began, in the plan and truly held. A stalled one that went to another ladder does not count.</summary>
        private void Note(Plan plan, int visit)
        {
            foreach (var item in movable.Where(i => !reached.ContainsKey(i.Id)))
            {
                var ladder = library.LadderOf(item.RungId);
                var now = plan.Items.FirstOrDefault(i => i.Id == item.Id);
                if (
                    now is not null
                    && ladder.IndexOf(now.RungId) > ladder.IndexOf(item.RungId)
                    && client.Margin(library.Rung(now.RungId), Side.Both) >= 0
                )
                {
                    reached[item.Id] = visit - 1;
                }
            }
        }
    }
}
