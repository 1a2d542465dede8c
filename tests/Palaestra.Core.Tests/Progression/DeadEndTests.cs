using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Where there is nowhere to go by the ladder there is an advice at once, and something changes within three visits.</summary>
public class DeadEndTests
{
    private static readonly PracticeLibrary Library = Content.Library;

    /// <summary>A client who does the same share of it clean at every visit, a week apart; each plan is the last one's decision.</summary>
    private static List<Decision> Live(string rungId, Dose dose, double clean, int visits = 4)
    {
        var first = new Work(rungId, dose).Input();
        var items = first.Items;
        var done = new List<Performance>();
        var decisions = new List<Decision>();
        for (var visit = 1; visit <= visits && items.Count > 0; visit++)
        {
            var day = new DateOnly(2026, 3, 2).AddDays(7 * visit);
            done.AddRange(
                from item in items
                where !item.Resting
                from side in item.Doses
                select new Performance(
                    visit,
                    day,
                    item.Id,
                    item.RungId,
                    side.Side,
                    side.Dose,
                    Sets(side.Dose, clean)
                )
            );
            var input = first with
            {
                Visit = visit,
                Date = day,
                Items = items,
                Visits = [.. done],
                LastWorkDate = day.AddDays(-1),
                OpenedOn = day.AddDays(-7 * visit),
            };
            var now = DecisionEngine.Bare(input, Library);
            decisions.Add(now[0]);
            var plan = new Plan(
                items,
                SpinalStrategy.Neutral,
                Activation.Brace,
                Content.Policy.Id,
                1,
                "",
                10,
                []
            );
            items = NextPlan.Apply(plan, now, Library, Content.Policy, first.Profile).Items;
        }
        return decisions;
    }

    private static List<SetDone> Sets(Dose dose, double share) =>
        [
            .. Enumerable
                .Range(0, dose.Sets)
                .Select(i =>
                {
                    var reps = dose.RepsOf(i);
                    var clean = (int)Math.Floor(reps * share + 1e-9);
                    return new SetDone(
                        reps,
                        clean,
                        0,
                        reps - clean,
                        clean * dose.Hold,
                        false,
                        null,
                        5,
                        clean < reps ? "arch" : null
                    );
                }),
        ];

    private static bool Moves(Decision d) => d.Outcome != Outcome.Stay;

    public static TheoryData<string> Tops => [.. Library.TrainedLadders.Select(l => l.Rungs[^1].Id)];
    public static TheoryData<string> Lowests => [.. Library.TrainedLadders.Select(l => l.Rungs[0].Id)];
    public static TheoryData<string> All =>
        [.. Library.TrainedLadders.SelectMany(l => l.Rungs).Select(r => r.Id)];

    [Theory]
    [MemberData(nameof(Tops))]
    public void The_top_of_a_ladder_leads_on(string rung)
    {
        var decisions = Live(rung, Library.Rung(rung).Target, 1);
        Assert.Contains(decisions.Take(3), d => Moves(d) || d.Todo is not null);
    }

    [Theory]
    [MemberData(nameof(Lowests))]
    public void The_lowest_level_that_fails_leads_on(string rung)
    {
        var decisions = Live(rung, Library.Rung(rung).Start, 0.3);
        Assert.True(Moves(decisions[0]), decisions[0].ToString());
        Assert.Contains(decisions.Skip(1).Take(2), d => Moves(d) || d.Todo is not null);
    }

    [Theory]
    [MemberData(nameof(All))]
    public void Standing_still_is_seen_and_something_is_done_about_it(string rung)
    {
        // Three in ten broken, at every visit the same.
        var decisions = Live(rung, Library.Rung(rung).Target, 0.7);
        Assert.True(
            decisions.Any(d => Moves(d) || d.Todo is not null),
            string.Join(" | ", decisions.Select(d => $"{d.RuleId} {string.Join(' ', d.Evidence)}"))
        );
    }

    [Theory]
    [MemberData(nameof(All))]
    public void One_broken_rep_in_ten_is_not_held_for_ever(string rung)
    {
        var target = Library.Rung(rung).Target;
        var dose = target with { Reps = Math.Max(10, target.Reps), Sets = 1, Fewer = 0 };
        var decisions = Live(rung, dose, 0.9);
        Assert.True(
            decisions.Any(d => Moves(d) || d.Todo is not null),
            string.Join(" | ", decisions.Select(d => $"{d.RuleId} {string.Join(' ', d.Evidence)}"))
        );
    }
}
