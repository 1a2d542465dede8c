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

/// <summary>Whose calendar it is.</summary>
/// <param name="Name">What calendar programs call it.</param>
/// <param name="Domain">After the @ of every UID: something only this installation has.</param>
/// <param name="Zone">Of the clinic, by its name in the IANA database: times of day are told in it.</param>
/// <param name="Clinic">Its name; empty: it has none yet.</param>
/// <param name="Mail">Where an answer would go; none: ORGANIZER, which must have one, is left out.</param>
/// <param name="Place">Where visits are, on one line; empty: not known.</param>
/// <param name="Alarm">Minutes before a visit at which to remind, 1 to 10080; none: not at all.</param>
public sealed record FeedHead(
    string Name,
    string Domain,
    string Zone = "UTC",
    string Clinic = "",
    string? Mail = null,
    string Place = "",
    int? Alarm = null
);

/// <summary>Writes a feed of entries as iCalendar (RFC 5545, with RFC 7986's name and interval).</summary>
public static class PlanFeed
{
    private const int UsualMinutes = 30;

    /// <summary>How often to ask again.</summary>
    private const string Interval = "PT12H";

    /// <remarks>
    /// Whole days are DATE values and end on the day after (section 3.6.1). Times of day are in the clinic's zone, which comes with
    /// its rules (sections 3.3.5, form 3, and 3.6.5): a program that knows no zones shows them right. Lines end with CRLF and fold at
    /// 75 octets; the library does both (sections 3.1 and 3.8).
    /// </remarks>
    public static string Text(FeedHead head, IEnumerable<FeedEntry> entries) =>
        Written(head, [.. entries.OrderBy(e => e.Day).ThenBy(e => e.Id, StringComparer.Ordinal)], "PUBLISH");

    /// <summary>One visit to be taken into a calendar: asked for where the clinic can be answered, else told.</summary>
    /// <param name="guest">Mail address of whom it is for; none: it is not known.</param>
    public static string Invitation(FeedHead head, FeedEntry visit, string? guest)
    {
        var asks = head.Mail is not null && guest is not null;
        return Written(
            head,
            [visit],
            !asks ? "PUBLISH"
                : visit.Cancelled ? "CANCEL"
                : "REQUEST",
            asks ? guest : null
        );
    }

    private static string Written(
        FeedHead head,
        IReadOnlyList<FeedEntry> entries,
        string method,
        string? guest = null
    )
    {
        var calendar = new Ical.Net.Calendar
        {
            ProductId = $"-//Palaestra//Plan {Product.Version}//EN",
            Method = method,
        };
        calendar.AddProperty("X-WR-CALNAME", head.Name);
        calendar.AddProperty("NAME", head.Name);
        calendar.AddProperty("X-PUBLISHED-TTL", Interval);
        var refresh = new CalendarProperty("REFRESH-INTERVAL", Interval);
        refresh.AddParameter("VALUE", "DURATION");
        calendar.Properties.Add(refresh);
        var timed = entries.Where(e => e.At is not null).Select(e => e.At!.Value).ToList();
        if (timed.Count > 0 && head.Zone != "UTC")
        {
            // From the first change of the clocks before the first visit on.
            calendar.AddTimeZone(VTimeZone.FromDateTimeZone(head.Zone, timed.Min().AddYears(-1), false));
        }
        foreach (var entry in entries)
        {
            calendar.Events.Add(EventOf(entry, head, guest));
        }
        return new CalendarSerializer().SerializeToString(calendar)
            ?? throw new InvalidOperationException("The calendar could not be written.");
    }

    private static CalendarEvent EventOf(FeedEntry entry, FeedHead head, string? guest)
    {
        var written = new CalendarEvent
        {
            Uid = $"{entry.Id}@{head.Domain}",
            Sequence = entry.Sequence,
            DtStamp = new CalDateTime(DateTime.SpecifyKind(entry.Stamp, DateTimeKind.Utc)),
            Summary = entry.Title,
            Description = entry.Text,
            Status = entry.Cancelled ? EventStatus.Cancelled : EventStatus.Confirmed,
            Transparency = entry.At is null ? TransparencyType.Transparent : TransparencyType.Opaque,
        };
        if (entry.At is not { } at)
        {
            written.DtStart = new CalDateTime(entry.Day);
            written.DtEnd = new CalDateTime(entry.Day.AddDays(1));
            return written;
        }
        var start = new CalDateTime(DateTime.SpecifyKind(at, DateTimeKind.Utc));
        var end = start.AddMinutes((int)(entry.Minutes ?? UsualMinutes));
        (written.DtStart, written.DtEnd) = (start.ToTimeZone(head.Zone), end.ToTimeZone(head.Zone));
        if (head.Place.Length > 0)
        {
            written.Location = head.Place;
        }
        if (head.Mail is { } mail)
        {
            written.Organizer = new Organizer($"mailto:{mail}") { CommonName = head.Clinic };
        }
        if (guest is not null)
        {
            written.Attendees.Add(
                new Attendee($"mailto:{guest}")
                {
                    Role = ParticipationRole.RequiredParticipant,
                    ParticipationStatus = EventParticipationStatus.NeedsAction,
                    Rsvp = true,
                }
            );
        }
        if (head.Alarm is { } minutes && !entry.Cancelled)
        {
            written.Alarms.Add(
                new Alarm
                {
                    Action = AlarmAction.Display,
                    Description = entry.Title,
                    Trigger = new Trigger(Duration.FromMinutes(-minutes)),
                }
            );
        }
        return written;
    }
}
