using System.Globalization;
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
/// <param name="Precautions">In words. <paramref name="DangerSigns"/>: what was reported and what was done.</param>
/// <param name="Decisions">Everything that was decided, the earliest first.</param>
/// <param name="Flares">Visits at which pain was over its reference the day after, in the home log or over the weeks.</param>
/// <param name="Sessions">Pain over each session. <paramref name="FlagsAsked"/>: visits at which the red flags were asked about.</param>
/// <param name="HomeShare">Home work done of what was planned, where it was written down; none where it never was.</param>
public sealed record LetterInput(
    string ClientName,
    int Age,
    DateOnly OpenedOn,
    string Complaint,
    ClientProfile AtFirst,
    IReadOnlyList<string> Precautions,
    IReadOnlyList<string> DangerSigns,
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
    DateOrder Dates = DateOrder.DayMonthYear
);

/// <summary>
/// Writes a letter to a referrer from the record, in plain clinical English. What is not in the record is not in the letter:
/// a sentence whose figures are missing is left out.
/// </summary>
public sealed class LetterWriter(LetterInput input, PracticeLibrary library)
{
    public Letter Write() =>
        new(
            "",
            $"{input.ClientName}, aged {input.Age}: {Sentence(input.Complaint)}",
            [
                .. new[]
                {
                    new LetterPart("The problem", [.. Problem()]),
                    new LetterPart("What the screens showed", [.. Screens()]),
                    new LetterPart("What was done", [.. Done()]),
                    new LetterPart("Current status", [.. Stand()]),
                    new LetterPart("Advice", [.. Advice()]),
                }.Where(part => part.Paragraphs.Count > 0),
            ]
        );

    private IEnumerable<string> Problem()
    {
        var pain = input.AtFirst.Pain;
        yield return $"First seen on {Day(input.OpenedOn)}: {Lower(Sentence(input.Complaint))} Pain then was {pain.Now} of 10, usually {pain.Usual}, at worst {pain.Worst}; once raised, it settled {Settled(input.AtFirst.SettleHours)}{(input.AtFirst.WakesAtNight ? ", and it woke them at night" : "")}.";
        if (input.Precautions.Count > 0)
        {
            yield return $"Precautions: {string.Join("; ", input.Precautions)}.";
        }
        yield return input.DangerSigns.Count > 0 ? string.Join(" ", input.DangerSigns)
        : input.FlagsAsked == 0 ? "Red flags not recorded."
        : input.FlagsAsked < input.Visits
            ? $"No red flags identified at the {Count(input.FlagsAsked, "visit")} at which they were asked about; not recorded at the others."
        : "No red flags identified; asked at each visit.";
    }

    /// <summary>Never more precise than what was asked.</summary>
    private static string Settled(double hours) =>
        hours <= 1 ? "within an hour"
        : hours <= 12 ? "the same day"
        : hours <= 24 ? "by the next morning"
        : "after more than a day";

    private IEnumerable<string> Screens()
    {
        if (input.First is not { } first)
        {
            yield break;
        }
        yield return $"{Day(first.Day)}: {Sentence(first.Findings.Sentence)} {Control(first.Findings)}".TrimEnd();
        if (input.Last is not { } last || last.Day == first.Day)
        {
            yield break;
        }
        yield return $"{Day(last.Day)}: {Sentence(last.Findings.Sentence)} {Control(last.Findings)}".TrimEnd();
        var changes = Changes.Between(first.Findings, last.Findings, library);
        var better = Told(changes, ChangeVerdict.Better);
        var worse = Told(changes, ChangeVerdict.Worse);
        if (better.Count > 0)
        {
            yield return $"Improved beyond measurement error: {string.Join("; ", better)}.";
        }
        if (worse.Count > 0)
        {
            yield return $"Worse beyond measurement error: {string.Join("; ", worse)}.";
        }
        var same = changes.Count(c => c.Verdict == ChangeVerdict.NoClearChange);
        if (same > 0)
        {
            yield return $"No clear change in {same} of {changes.Count} measures compared.";
        }
    }

    private const int ChangesTold = 6;

    /// <summary>The largest first, each with the change that counts.</summary>
    private List<string> Told(IReadOnlyList<Change> changes, ChangeVerdict verdict) =>
        [
            .. changes
                .Where(c => c.Verdict == verdict)
                .OrderByDescending(c => Math.Abs(c.Now - c.Before) / Math.Max(1e-9, c.Smallest))
                .Take(ChangesTold)
                .Select(c => ChangeWords(c)),
        ];

    private string ChangeWords(Change c)
    {
        var side = c.Side == Side.Both ? "" : $", {c.Side.Word()}";
        if (c.Unit == "rungs" && library.Ladders.FirstOrDefault(l => l.Id == c.Of) is { } ladder)
        {
            return $"{Lower(c.What)}{side}, from {RungAt(ladder, c.Before)} to {RungAt(ladder, c.Now)}";
        }
        var unit = c.Unit.Length == 0 ? "" : $" {c.Unit}";
        return $"{Lower(c.What)}{side}, {Number(c.Before)} to {Number(c.Now)}{unit} (a change counts from {Number(c.Smallest)})";
    }

    /// <summary>Heights are told from 1; 0 is below the lowest rung.</summary>
    private static string RungAt(Ladder ladder, double height) =>
        height < 1 ? "below the lowest level" : ladder.Rungs[(int)height - 1].Name.ToLowerInvariant();

    private static string Control(ScreenFindings findings)
    {
        var seen = findings
            .Control.Where(c => c.Percent is not null)
            .OrderBy(c => c.Percent)
            .Take(3)
            .ToList();
        return seen.Count == 0
            ? ""
            : $"Least control: {string.Join(", ", seen.Select(c => $"{Lower(c.Name)} {c.Percent:0} %"))}.";
    }

    private IEnumerable<string> Done()
    {
        if (input.FirstPlan is not { } first)
        {
            yield break;
        }
        var weeks = Math.Max(1, (input.LastVisit.DayNumber - input.OpenedOn.DayNumber + 6) / 7);
        var home = input.HomeShare is { } share
            ? $" At home about {share * 100:0} % of the planned repetitions were written down as done."
            : "";
        yield return $"{Count(input.Visits, "visit")} in {Count(weeks, "week")}. The plan began with {Names(first)}.{home}";
        var ups = input
            .Decisions.Where(d => d.Outcome == Outcome.StepUp)
            .Select(d => d.PlanItemId)
            .Distinct()
            .Count();
        var eased = input
            .Decisions.Where(d => d.Outcome is Outcome.Ease or Outcome.StepDown)
            .Select(d => d.PlanItemId)
            .Distinct()
            .Count();
        if (input.Decisions.Count > 0)
        {
            yield return $"{Count(ups, "exercise")} moved up a level, {eased} had to be eased at some time. The rule: {Lower(input.Policy.Name)}.";
        }
        if (input.Flares > 0)
        {
            yield return $"Pain was still up the next day or had risen over the weeks at {Count(input.Flares, "visit")}; what had been raised was taken back then.";
        }
        if (SessionWords() is { } sessions)
        {
            yield return sessions;
        }
        var sides = CleanWork.BySide(input.Work);
        if (sides.Count > 1)
        {
            yield return $"The clean work of the sides differed by {sides[0].DifferencePercent:0} % at the first session and by {sides[^1].DifferencePercent:0} % at the last; under {input.Policy.EvenPercent:0} % counts as even.";
        }
    }

    /// <summary>Peak pain of the sessions, and those in which it rose; none where it was never told.</summary>
    private string? SessionWords()
    {
        var told = (input.Sessions ?? []).Where(s => s.Peak is not null).ToList();
        if (told.Count == 0)
        {
            return null;
        }
        var rose = told.Where(s => s.Peak - s.Start >= input.Policy.Pain.Rise).ToList();
        var legs = told.SelectMany(s => s.Legs ?? []).Select(l => l.Side.Word()).Distinct().ToList();
        var peak = $"Peak pain in the sessions was {told.Max(s => s.Peak)} of 10.";
        var rises =
            rose.Count == 0
                ? ""
                : $" It rose in {Count(rose.Count, "session")}: {string.Join("; ", rose.Select(s => $"{Day(s.Date)}, from {s.Start} to {s.Peak}{(s.End is { } end ? $", {end} at the end" : "")}"))}.";
        return peak
            + rises
            + (
                legs.Count > 0
                    ? $" Pain moved further down the {string.Join(" and ", legs)} leg in a session."
                    : ""
            );
    }

    private IEnumerable<string> Stand()
    {
        foreach (var series in input.Outcomes)
        {
            var (measure, points) = (series.Measure, series.Points);
            if (points.Count == 1)
            {
                yield return $"{measure.Name}: {Number(points[0].Value)} {measure.Unit}, asked once, on {Day(points[0].Day)}.";
                continue;
            }
            var trend = series.Trend is { Clear: true } t ? $" Trend: {t.Words}." : "";
            yield return $"{measure.Name}: {Number(points[0].Value)} to {Number(points[^1].Value)} {measure.Unit}, {series.Words} (a change counts from {Number(series.Meaningful)}; {measure.Source}).{trend}";
        }
        if (input.Plan is { Items.Count: > 0 } plan)
        {
            yield return $"The present plan: {Names(plan)}; about {plan.TotalMinutes:0} minutes a day.";
        }
    }

    private IEnumerable<string> Advice()
    {
        if (input.Plan is { Items.Count: > 0 })
        {
            yield return $"Continue the current plan; review in {Count(input.Policy.ReviewWeeks, "week")}. {library.Cautions.NoPain}";
        }
        yield return library.Cautions.SeenAtOnce;
    }

    private string Names(Plan plan) =>
        string.Join(
            ", ",
            plan.Items.Select(item =>
                $"{library.Rung(item.RungId).Name.ToLowerInvariant()} ({item.Doses[0].Dose.Words()})"
            )
        );

    private static string Count(int number, string what) => $"{number} {what}{(number == 1 ? "" : "s")}";

    private string Day(DateOnly day) => input.Dates.Long(day);

    private static string Number(double value) => value.ToString("0.#", CultureInfo.InvariantCulture);

    private static string Sentence(string words)
    {
        var trimmed = words.Trim();
        return trimmed.Length == 0 || ".!?".Contains(trimmed[^1]) ? trimmed : $"{trimmed}.";
    }

    private static string Lower(string words) =>
        words.Length == 0 ? words : char.ToLowerInvariant(words[0]) + words[1..];
}
