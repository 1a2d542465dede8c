using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Outcomes;

/// <summary>A screen with its day.</summary>
public sealed record DatedFindings(DateOnly Day, ScreenFindings Findings);

/// <summary>What a letter is written from: the record, and nothing else.</summary>
/// <param name="Precautions">Each with side and note. <paramref name="DangerSigns"/>: what was reported and what was done.</param>
/// <param name="Decisions">Everything that was decided, the earliest first.</param>
/// <param name="Flares">Visits at which pain was over its reference the day after, in the home log or over the weeks.</param>
/// <param name="Sessions">Pain over each session. <paramref name="FlagsAsked"/>: visits at which the red flags were asked about.</param>
/// <param name="Chart">None where nothing was drawn. <paramref name="Discharge"/>: none while the episode is open.</param>
/// <param name="HomeShare">Home work done of what was planned, where it was written down; none where it never was.</param>
public sealed record LetterInput(
    string ClientName,
    int Age,
    DateOnly OpenedOn,
    string Complaint,
    ClientProfile AtFirst,
    IReadOnlyList<Message> Precautions,
    IReadOnlyList<Message> DangerSigns,
    int Visits,
    DateOnly LastVisit,
    DatedFindings? First,
    DatedFindings? Last,
    Plan? FirstPlan,
    Plan? Plan,
    IReadOnlyList<Performance> Work,
    IReadOnlyList<Decision> Decisions,
    int Flares,
    double? HomeShare,
    IReadOnlyList<OutcomeSeries> Outcomes,
    Policy Policy,
    IReadOnlyList<SessionPain>? Sessions = null,
    int FlagsAsked = 0,
    DateOrder Dates = DateOrder.DayMonthYear,
    ChartTold? Chart = null,
    DischargeTold? Discharge = null
);

/// <summary>What was drawn last on a body chart.</summary>
/// <param name="Areas">One for each; empty: nothing hurts any more.</param>
/// <param name="Change">Against the first; none: there is only one.</param>
public sealed record ChartTold(DateOnly Day, IReadOnlyList<Message> Areas, Message? Change);

/// <summary>The discharge that holds.</summary>
public sealed record DischargeTold(DateOnly Day, Discharge Summary);

/// <summary>
/// Writes a letter to a referrer from the record. What is not in the record is not in the letter: a sentence whose figures are
/// missing is left out.
/// </summary>
public sealed class LetterWriter(LetterInput input, PracticeLibrary library)
{
    /// <summary>What the letter says, as messages in the order of its parts; parts with nothing to say are left out.</summary>
    public LetterOutline Write() =>
        new(
            Message.Of(
                "letter.about-line",
                ("name", input.ClientName),
                ("age", input.Age),
                ("complaint", input.Complaint)
            ),
            [
                .. new[]
                {
                    new DraftPart(Message.Of("letter.problem"), [.. Problem()]),
                    new DraftPart(Message.Of("letter.screens"), [.. Screens()]),
                    new DraftPart(Message.Of("letter.done"), [.. Done()]),
                    new DraftPart(Message.Of("letter.status"), [.. Stand()]),
                    input.Discharge is { } discharge
                        ? new DraftPart(
                            Message.Of("letter.discharge"),
                            [.. Discharged(discharge), Message.Plain(library.Cautions.SeenAtOnce)]
                        )
                        : new DraftPart(Message.Of("letter.advice"), [.. Advice()]),
                }.Where(part => part.Paragraphs.Count > 0),
            ]
        );

    /// <summary>How the client does now, as messages.</summary>
    public IEnumerable<Message> Status() => Stand();

    /// <summary>What was reached, what was not and why, and what the client goes on with.</summary>
    private static IEnumerable<Message> Discharged(DischargeTold told)
    {
        yield return Message.Of("letter.discharged", ("day", told.Day));
        var goals = told.Summary.Goals;
        if (goals.Any(goal => goal.Reached))
        {
            yield return Message.Of(
                "letter.reached",
                (
                    "goals",
                    goals.Where(g => g.Reached).Select(g => Message.Of("letter.goal", ("goal", g.Goal)))
                )
            );
        }
        foreach (var goal in goals.Where(g => !g.Reached))
        {
            yield return Message.Of("letter.not-reached", ("goal", goal.Goal), ("why", goal.Why));
        }
        yield return Message.Of("letter.goes-on", ("with", told.Summary.GoOn));
        if (!string.IsNullOrWhiteSpace(told.Summary.Note))
        {
            yield return Message.Plain(told.Summary.Note);
        }
    }

    private IEnumerable<Message> Problem()
    {
        var pain = input.AtFirst.Pain;
        yield return Message.Of(
            "letter.first-seen",
            ("day", input.OpenedOn),
            ("complaint", input.Complaint),
            ("now", pain.Now),
            ("usual", pain.Usual),
            ("worst", pain.Worst),
            ("settling", Settled(input.AtFirst.SettleHours)),
            ("woke", input.AtFirst.WakesAtNight)
        );
        if (input.Precautions.Count > 0)
        {
            yield return Message.Of("letter.precautions", ("precautions", input.Precautions));
        }
        yield return input.DangerSigns.Count > 0
            ? Message.Of("letter.flags", ("signs", input.DangerSigns))
            : Message.Of("letter.no-flags", ("asked", input.FlagsAsked), ("visits", input.Visits));
    }

    /// <summary>Never more precise than what was asked.</summary>
    private static Settling Settled(double hours) =>
        hours <= 1 ? Settling.WithinAnHour
        : hours <= 12 ? Settling.SameDay
        : hours <= 24 ? Settling.NextMorning
        : Settling.LongerThanADay;

    private IEnumerable<Message> Screens()
    {
        if (input.First is not { } first)
        {
            yield break;
        }
        yield return Screen(first);
        if (input.Last is not { } last || last.Day == first.Day)
        {
            yield break;
        }
        yield return Screen(last);
        var changes = Changes.Between(first.Findings, last.Findings, library);
        var better = Told(changes, ChangeVerdict.Better);
        var worse = Told(changes, ChangeVerdict.Worse);
        if (better.Count > 0)
        {
            yield return Message.Of("letter.improved", ("changes", better));
        }
        if (worse.Count > 0)
        {
            yield return Message.Of("letter.worse", ("changes", worse));
        }
        var same = changes.Count(c => c.Verdict == ChangeVerdict.NoClearChange);
        if (same > 0)
        {
            yield return Message.Of("letter.same", ("same", same), ("all", changes.Count));
        }
    }

    private const int SectorsTold = 3;

    private static Message Screen(DatedFindings screen) =>
        Message.Of(
            "letter.screen",
            ("day", screen.Day),
            ("sentence", screen.Findings.Sentence),
            (
                "least",
                screen
                    .Findings.Control.Where(c => c.Percent is not null)
                    .OrderBy(c => c.Percent)
                    .Take(SectorsTold)
                    .Select(c => Message.Of("letter.sector", ("sector", c.Sector), ("percent", c.Percent)))
                    .ToList()
                    is { Count: > 0 } least
                    ? least
                    : null
            )
        );

    private const int ChangesTold = 6;

    /// <summary>The largest first, each with the change that counts.</summary>
    private List<Message> Told(IReadOnlyList<Change> changes, ChangeVerdict verdict) =>
        [
            .. changes
                .Where(c => c.Verdict == verdict)
                .OrderByDescending(c => Math.Abs(c.Now - c.Before) / Math.Max(1e-9, c.Smallest))
                .Take(ChangesTold)
                .Select(ChangeOf),
        ];

    private Message ChangeOf(Change c) =>
        c.Unit.Equals(Changes.Rungs) && library.Ladders.FirstOrDefault(l => l.Id == c.Of) is { } ladder
            ? Message.Of(
                "letter.change-level",
                ("what", c.What),
                ("side", c.Side),
                ("before", RungAt(ladder, c.Before)),
                ("now", RungAt(ladder, c.Now))
            )
            : Message.Of(
                "letter.change",
                ("what", c.What),
                ("side", c.Side),
                ("before", c.Before),
                ("now", c.Now),
                ("unit", c.Unit.Text is "" ? null : c.Unit),
                ("smallest", c.Smallest)
            );

    /// <summary>Heights are told from 1; 0 is below the lowest rung.</summary>
    private static Message RungAt(Ladder ladder, double height) =>
        Message.Of("letter.level", ("rung", height < 1 ? null : ladder.Rungs[(int)height - 1].Id));

    private IEnumerable<Message> Done()
    {
        if (input.FirstPlan is not { } first)
        {
            yield break;
        }
        yield return Message.Of(
            "letter.visits",
            ("visits", input.Visits),
            ("weeks", Math.Max(1, (input.LastVisit.DayNumber - input.OpenedOn.DayNumber + 6) / 7)),
            ("exercises", Names(first)),
            ("home", input.HomeShare)
        );
        if (input.Decisions.Count > 0)
        {
            yield return Message.Of(
                "letter.decisions",
                ("up", Exercises(Outcome.StepUp)),
                ("eased", Exercises(Outcome.Ease, Outcome.StepDown)),
                ("policy", input.Policy.Id)
            );
        }
        if (input.Flares > 0)
        {
            yield return Message.Of("letter.flares", ("visits", input.Flares));
        }
        if (Sessions() is { } sessions)
        {
            yield return sessions;
        }
        var sides = CleanWork.BySide(input.Work);
        if (sides.Count > 1)
        {
            yield return Message.Of(
                "letter.sides",
                ("first", sides[0].DifferencePercent),
                ("last", sides[^1].DifferencePercent),
                ("even", input.Policy.EvenPercent)
            );
        }
    }

    /// <summary>How many exercises had one of these outcomes at some time.</summary>
    private int Exercises(params IReadOnlyCollection<Outcome> outcomes) =>
        input.Decisions.Where(d => outcomes.Contains(d.Outcome)).Select(d => d.PlanItemId).Distinct().Count();

    /// <summary>Peak pain of the sessions, and those in which it rose; none where it was never told.</summary>
    private Message? Sessions()
    {
        var told = (input.Sessions ?? []).Where(s => s.Peak is not null).ToList();
        if (told.Count == 0)
        {
            return null;
        }
        var rose = told.Where(s => s.Peak - s.Start >= input.Policy.Pain.Rise).ToList();
        var legs = told.SelectMany(s => s.Legs ?? []).Select(l => l.Side).Distinct().ToList();
        return Message.Of(
            "letter.sessions",
            ("peak", told.Max(s => s.Peak)),
            ("count", rose.Count),
            (
                "rises",
                rose.Select(s =>
                    Message.Of(
                        "letter.rise",
                        ("day", s.Date),
                        ("from", s.Start),
                        ("to", s.Peak),
                        ("end", s.End)
                    )
                )
            ),
            ("legs", legs.Count > 0 ? legs : null)
        );
    }

    private IEnumerable<Message> Stand()
    {
        if (input.Chart is { } chart)
        {
            yield return Message.Of("letter.chart", ("day", chart.Day), ("areas", chart.Areas));
            if (chart.Change is { } change)
            {
                yield return change;
            }
        }
        foreach (var series in input.Outcomes)
        {
            var points = series.Points;
            yield return points.Count == 1
                ? Message.Of(
                    "letter.measure-once",
                    ("measure", series.Measure.Id),
                    ("value", points[0].Value),
                    ("unit", series.Measure.Unit),
                    ("day", points[0].Day)
                )
                : Message.Of(
                    "letter.measure",
                    ("measure", series.Measure.Id),
                    ("first", points[0].Value),
                    ("last", points[^1].Value),
                    ("unit", series.Measure.Unit),
                    ("verdict", series.Words),
                    ("smallest", series.Meaningful),
                    ("source", series.Measure.Source),
                    ("trend", series.Trend is { Clear: true } t ? t.Words : null)
                );
        }
        if (input.Plan is { Items.Count: > 0 } plan)
        {
            yield return Message.Of(
                "letter.plan",
                ("exercises", Names(plan)),
                ("minutes", plan.TotalMinutes)
            );
        }
    }

    private IEnumerable<Message> Advice()
    {
        if (input.Plan is { Items.Count: > 0 })
        {
            yield return Message.Of("letter.continue", ("weeks", input.Policy.ReviewWeeks));
        }
        yield return Message.Plain(library.Cautions.SeenAtOnce);
    }

    private static IEnumerable<Message> Names(Plan plan) =>
        plan.Items.Select(item =>
            Message.Of("letter.exercise", ("rung", item.RungId), ("dose", item.Doses[0].Dose.Said()))
        );
}
