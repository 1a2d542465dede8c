using CsCheck;
using Palaestra.Core.Outcomes;

namespace Palaestra.Core.Tests.Outcomes;

/// <summary>When an episode was open: whatever is done to it, in whatever order, its timeline stays right.</summary>
public class CareTimelineTests
{
    private static readonly DateOnly First = new(2026, 1, 5);

    private static DateOnly Day(int n) => First.AddDays(n);

    /// <summary>So many days pass, then something is tried: a discharge, taking it up again, a visit, a red flag noted or dealt with.</summary>
    private static readonly Gen<(int Days, int What)[]> AnyLife = Gen.Select(
        Gen.Int[0, 20],
        Gen.Int[0, 4]
    ).Array[0, 40];

    /// <summary>Lives a life: only what is allowed is done.</summary>
    private static (CareTimeline Timeline, List<DateOnly> Visits, List<(DateOnly Day, bool Open)> Told) Live(
        (int Days, int What)[] life
    )
    {
        var timeline = new CareTimeline(First, []);
        var (visits, told, flag, today) = (
            new List<DateOnly> { First },
            new List<(DateOnly, bool)>(),
            false,
            First
        );
        foreach (var (days, what) in life)
        {
            today = today.AddDays(days);
            switch (what)
            {
                case 0 when timeline.WhyNotDischarged(today, today, visits, flag) is null:
                    Assert.False(flag);
                    timeline = timeline with { Closings = [.. timeline.Closings, new(today)] };
                    break;
                case 1 when !timeline.IsOpen:
                    timeline = timeline with
                    {
                        Closings =
                        [
                            .. timeline.Closings.SkipLast(1),
                            timeline.Closings[^1] with
                            {
                                ReopenedOn = today,
                            },
                        ],
                    };
                    break;
                case 2 when timeline.WhyNotAt(today) is null:
                    visits.Add(today);
                    break;
                case 3:
                    flag = !flag;
                    break;
            }
            told.Add((today, timeline.IsOpen));
        }
        return (timeline, visits, told);
    }

    [Fact]
    public void Spans_are_in_order_apart_and_open_at_most_at_the_end() =>
        AnyLife.Sample(life =>
        {
            var (timeline, _, _) = Live(life);
            var spans = timeline.Spans;
            return spans[0].From == First
                && spans.SkipLast(1).All(s => s.To is not null)
                && spans[^1].To is null == timeline.IsOpen
                && spans.All(s => s.To is null || s.From <= s.To)
                && spans.Zip(spans.Skip(1)).All(p => p.First.To!.Value.AddDays(1) < p.Second.From);
        });

    [Fact]
    public void Every_visit_lies_in_a_span() =>
        AnyLife.Sample(life =>
        {
            var (timeline, visits, _) = Live(life);
            return visits.All(day => timeline.Spans.Any(span => span.Holds(day)));
        });

    /// <summary>Every day on which it was open at its end lies in a span; whatever came later does not change that.</summary>
    [Fact]
    public void What_was_open_stays_known_as_open() =>
        AnyLife.Sample(life =>
        {
            var (timeline, _, told) = Live(life);
            return told.Where(t => t.Open).All(t => timeline.Spans.Any(span => span.Holds(t.Day)));
        });

    [Fact]
    public void It_is_discharged_once_and_not_before_its_last_visit_nor_in_the_future_nor_with_a_flag()
    {
        var open = new CareTimeline(First, []);
        string? Why(CareTimeline timeline, int day, bool flag = false, int today = 30) =>
            timeline.WhyNotDischarged(Day(day), Day(today), [Day(0), Day(14)], flag)?.Id;
        Assert.Null(Why(open, 14));
        Assert.Null(Why(open, 30));
        Assert.Equal("discharge.before-visit", Why(open, 13));
        Assert.Equal("discharge.before-opened", Why(open, -1));
        Assert.Equal("discharge.future", Why(open, 31));
        Assert.Equal("discharge.flag", Why(open, 30, flag: true));
        var closed = open with { Closings = [new(Day(20))] };
        Assert.Equal("discharge.closed", Why(closed, 30));
        // Taken up again, it is not closed before that day.
        var again = open with
        {
            Closings = [new(Day(20), Day(26))],
        };
        Assert.Equal("discharge.before-opened", Why(again, 22));
        Assert.Null(Why(again, 26));
    }

    [Fact]
    public void A_visit_between_a_discharge_and_the_next_beginning_is_refused_and_one_before_all_is_not()
    {
        var again = new CareTimeline(First, [new(Day(20), Day(26))]);
        Assert.Equal("visit.between", again.WhyNotAt(Day(22))?.Id);
        Assert.Null(again.WhyNotAt(Day(20)));
        Assert.Null(again.WhyNotAt(Day(26)));
        Assert.Null(again.WhyNotAt(Day(-40)));
        Assert.Equal("visit.discharged", new CareTimeline(First, [new(Day(20))]).WhyNotAt(Day(21))?.Id);
    }

    [Fact]
    public void Taken_up_the_same_day_or_the_next_it_was_never_closed()
    {
        Assert.Single(new CareTimeline(First, [new(Day(20), Day(20))]).Spans);
        Assert.Single(new CareTimeline(First, [new(Day(20), Day(21))]).Spans);
        Assert.Equal(2, new CareTimeline(First, [new(Day(20), Day(22))]).Spans.Count);
    }

    [Fact]
    public void A_summary_answers_every_goal_once_and_says_why_not_and_what_goes_on()
    {
        IEnumerable<string> Wrong(Discharge summary) =>
            Discharge
                .Errors(summary, ["lift", "sit"], "summary")
                .Select(e => e.Field)
                .Order(StringComparer.Ordinal);
        Assert.Empty(Wrong(new([new("lift", true), new("sit", false, "Pain")], "Walks")));
        Assert.Equal(["summary.goals"], Wrong(new([new("lift", true)], "Walks")));
        Assert.Equal(
            ["summary.goals[1].why"],
            Wrong(new([new("lift", true), new("sit", false, " ")], "Walks"))
        );
        Assert.Equal(
            ["summary.goOn", "summary.goals[2].goal"],
            Wrong(new([new("lift", true), new("sit", true), new("sit", true)], ""))
        );
        Assert.Equal(
            ["summary.goals[2].goal"],
            Wrong(new([new("lift", true), new("sit", true), new("fly", true)], "x"))
        );
        Assert.Equal(
            ["summary.note"],
            Wrong(new([new("lift", true), new("sit", true)], "x", new string('n', 2001)))
        );
    }
}
