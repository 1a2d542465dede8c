using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Palaestra.Exchange.Calendar;

/// <summary>One day in the feed.</summary>
/// <param name="Id">The same for the same day or visit in every revision, so that a newer entry takes the older one's place.</param>
/// <param name="Sequence">0 for the first; larger wherever the entry has changed.</param>
/// <param name="At">When it begins, UTC; none: the whole day.</param>
/// <param name="Cancelled">It was in an earlier plan and is no more.</param>
/// <param name="Stamp">When this state of it was made, UTC.</param>
public sealed record FeedEntry(
    string Id,
    int Sequence,
    DateOnly Day,
    DateTime? At,
    double? Minutes,
    string Title,
    string Text,
    bool Cancelled,
    DateTime Stamp
);

/// <summary>Writes a feed of entries as iCalendar (RFC 5545).</summary>
public static class PlanFeed
{
    /// <param name="name">What calendar programs call it.</param>
    /// <param name="domain">After the @ of every UID: something only this installation has.</param>
    /// <remarks>
    /// Whole days are DATE values and end on the day after (section 3.6.1). Times of day are in UTC
    /// (section 3.3.5, form 2), so that a phone shows them right wherever it is. Lines end with CRLF and fold at 75 octets; the library does both (sections 3.1 and 3.8).
    /// </remarks>
    public static string Text(string name, string domain, IEnumerable<FeedEntry> entries)
    {
        var calendar = new Ical.Net.Calendar
        {
            ProductId = $"-//Palaestra//Plan {Product.Version}//EN",
            Method = "PUBLISH",
        };
        calendar.AddProperty("X-WR-CALNAME", name);
        calendar.AddProperty("X-PUBLISHED-TTL", "PT12H");
        foreach (var entry in entries.OrderBy(e => e.Day).ThenBy(e => e.Id, StringComparer.Ordinal))
        {
            calendar.Events.Add(EventOf(entry, domain));
        }
        return new CalendarSerializer().SerializeToString(calendar)
            ?? throw new InvalidOperationException("The calendar could not be written.");
    }

    private static CalendarEvent EventOf(FeedEntry entry, string domain)
    {
        var written = new CalendarEvent
        {
            Uid = $"{entry.Id}@{domain}",
            Sequence = entry.Sequence,
            DtStamp = new CalDateTime(DateTime.SpecifyKind(entry.Stamp, DateTimeKind.Utc)),
            Summary = entry.Title,
            Description = entry.Text,
            Status = entry.Cancelled ? EventStatus.Cancelled : EventStatus.Confirmed,
            Transparency = entry.At is null ? TransparencyType.Transparent : TransparencyType.Opaque,
        };
        if (entry.At is { } at)
        {
            var start = DateTime.SpecifyKind(at, DateTimeKind.Utc);
            written.DtStart = new CalDateTime(start);
            written.DtEnd = new CalDateTime(start.AddMinutes(entry.Minutes ?? 30));
        }
        else
        {
            written.DtStart = new CalDateTime(entry.Day);
            written.DtEnd = new CalDateTime(entry.Day.AddDays(1));
        }
        return written;
    }
}
