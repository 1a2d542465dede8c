namespace Palaestra.Core.Outcomes;

/// <summary>A stretch of days in which an episode was open, both ends among them.</summary>
/// <param name="To">None: it goes on.</param>
public sealed record CareSpan(DateOnly From, DateOnly? To)
{
    /// <summary>Whether a day lies in it.</summary>
    public bool Holds(DateOnly day) => From <= day && (To is null || day <= To);
}

/// <summary>A discharge, and when the episode was taken up again.</summary>
/// <param name="ReopenedOn">None: it holds.</param>
public sealed record Closing(DateOnly Day, DateOnly? ReopenedOn = null);

/// <summary>When an episode was open: opened, discharged, taken up again, discharged again.</summary>
/// <param name="Closings">In the order they were made; all but the last were taken up again.</param>
public sealed record CareTimeline(DateOnly OpenedOn, IReadOnlyList<Closing> Closings)
{
    /// <summary>No discharge holds.</summary>
    public bool IsOpen => Closings.All(closing => closing.ReopenedOn is not null);

    /// <summary>The days it was open, in order, with at least a day between two; the last goes on where it is open.</summary>
    public IReadOnlyList<CareSpan> Spans
    {
        get
        {
            var spans = new List<CareSpan>();
            var from = OpenedOn;
            foreach (var closing in Closings)
            {
                // Taken up again by the next day, it was never closed for a day.
                if (closing.ReopenedOn <= closing.Day.AddDays(1))
                {
                    continue;
                }
                spans.Add(new(from, closing.Day));
                if (closing.ReopenedOn is not { } again)
                {
                    return spans;
                }
                from = again;
            }
            return [.. spans, new(from, null)];
        }
    }

    /// <summary>Since when it is open without a break; for a closed one, since when it was.</summary>
    public DateOnly Since => Spans[^1].From;

    /// <summary>Why it cannot be discharged on a day; none: it can.</summary>
    /// <param name="visits">Days of the visits that took place.</param>
    /// <param name="flagOpen">A red flag is open: it does not leave the list by a discharge.</param>
    public Message? WhyNotDischarged(
        DateOnly day,
        DateOnly today,
        IReadOnlyCollection<DateOnly> visits,
        bool flagOpen
    ) =>
        !IsOpen ? Message.Of("discharge.closed")
        : flagOpen ? Message.Of("discharge.flag")
        : day > today ? Message.Of("discharge.future")
        : day < Since ? Message.Of("discharge.before-opened", ("day", Since))
        : visits.Count > 0 && day < visits.Max() ? Message.Of("discharge.before-visit", ("day", visits.Max()))
        : null;

    /// <summary>Why a visit cannot be at a day; none: it can. Before it was opened is no hindrance: from paper, it was opened earlier than was known.</summary>
    public Message? WhyNotAt(DateOnly day) =>
        day < OpenedOn || Spans.Any(span => span.Holds(day)) ? null
        : IsOpen ? Message.Of("visit.between", ("day", day))
        : Message.Of("visit.discharged", ("day", Closings[^1].Day));
}
