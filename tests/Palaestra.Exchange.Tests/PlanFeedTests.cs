using System.Text;
using CsCheck;
using Ical.Net;
using Palaestra.Exchange.Calendar;
using Palaestra.Exchange.Tests.Given;

namespace Palaestra.Exchange.Tests;

/// <summary>The feed read back by the library, and line by line against RFC 5545.</summary>
public class PlanFeedTests
{
    private static readonly DateTime Stamp = new(2026, 11, 20, 9, 30, 0, DateTimeKind.Utc);

    private static FeedEntry Day(
        string id,
        int sequence = 0,
        string text = "Heel tap: 5 reps",
        bool cancelled = false
    ) => new(id, sequence, new DateOnly(2026, 11, 26), null, 12, "Exercises", text, cancelled, Stamp);

    private static string Text(params FeedEntry[] entries) =>
        PlanFeed.Text(new FeedHead("Exercises", "quay.example"), entries);

    [Fact]
    public void A_day_reads_back_as_a_whole_day_that_ends_on_the_next()
    {
        var read = Ical.Net.Calendar.Load(Text(Day("a", sequence: 3)))!.Events.Single();
        Assert.Equal("a@quay.example", read.Uid);
        Assert.Equal(3, read.Sequence);
        Assert.True(read.IsAllDay);
        Assert.Equal(new DateOnly(2026, 11, 26), read.DtStart!.Date);
        Assert.Equal(new DateOnly(2026, 11, 27), read.DtEnd!.Date);
        Assert.Equal(EventStatus.Confirmed, read.Status);
        Assert.Equal("Heel tap: 5 reps", read.Description);
    }

    private static readonly FeedHead Berlin = new(
        "Exercises",
        "quay.example",
        "Europe/Berlin",
        "Lantern Quay",
        "desk@quay.example",
        "1 Quay Lane, Saltmere",
        60
    );

    private static FeedEntry VisitAt(string id, DateTime utc) =>
        Day(id) with
        {
            Day = DateOnly.FromDateTime(utc),
            At = utc,
            Minutes = 45,
        };

    /// <summary>Directive 2000/84/EC: clocks in the Union change at 01:00 UTC on the last Sundays of March and October (25 October 2026).</summary>
    [Fact]
    public void A_visit_is_told_on_the_clinics_wall_with_the_rules_of_its_zone_on_both_sides_of_a_clock_change()
    {
        var summer = VisitAt("s", new DateTime(2026, 10, 23, 7, 30, 0));
        var winter = VisitAt("w", new DateTime(2026, 10, 26, 8, 30, 0));
        var text = PlanFeed.Text(Berlin, [winter, summer]);
        var lines = Unfolded(text);
        Assert.Contains("DTSTART;TZID=Europe/Berlin:20261023T093000", lines);
        Assert.Contains("DTSTART;TZID=Europe/Berlin:20261026T093000", lines);
        Assert.Contains("DTEND;TZID=Europe/Berlin:20261023T101500", lines);
        Assert.Single(lines, "BEGIN:VTIMEZONE");
        Assert.Contains("TZOFFSETTO:+0200", lines);
        Assert.Contains("TZOFFSETTO:+0100", lines);
        Assert.Contains("LOCATION:1 Quay Lane\\, Saltmere", lines);
        Assert.Contains("ORGANIZER;CN=Lantern Quay:mailto:desk@quay.example", lines);
        Assert.Contains("TRIGGER:-PT60M", lines.Select(l => l.Replace("-PT1H", "-PT60M")));
        Assert.Contains("REFRESH-INTERVAL;VALUE=DURATION:PT12H", lines);
        var read = Ical.Net.Calendar.Load(text)!.Events;
        Assert.Equal(summer.At, read.Single(e => e.Uid == "s@quay.example").DtStart!.AsUtc);
        Assert.Equal(winter.At, read.Single(e => e.Uid == "w@quay.example").DtStart!.AsUtc);
        // The same file is read by two other libraries in the client's tests.
        var given = Docs.Text("..", "client", "src", "given", "visits.ics");
        Assert.Equal(
            given.ReplaceLineEndings("\n"),
            text.Replace(Product.Version, "VERSION", StringComparison.Ordinal).ReplaceLineEndings("\n")
        );
    }

    [Fact]
    public void Whole_days_alone_need_no_zone_and_a_visit_that_is_off_reminds_nobody()
    {
        Assert.DoesNotContain("BEGIN:VTIMEZONE", Unfolded(PlanFeed.Text(Berlin, [Day("a")])));
        var off = VisitAt("v", new DateTime(2026, 11, 26, 7, 30, 0)) with { Cancelled = true };
        Assert.DoesNotContain("BEGIN:VALARM", Unfolded(PlanFeed.Text(Berlin, [off])));
    }

    /// <summary>RFC 5546, 3.2: a request has an organizer and who is asked; where either is not known it is published.</summary>
    [Fact]
    public void An_invitation_asks_where_it_can_be_answered()
    {
        var visit = VisitAt("v", new DateTime(2026, 11, 26, 7, 30, 0));
        var asked = Unfolded(PlanFeed.Invitation(Berlin, visit, "ottoline@brask.example"));
        Assert.Contains("METHOD:REQUEST", asked);
        Assert.Single(
            asked,
            line =>
                line.StartsWith("ATTENDEE", StringComparison.Ordinal)
                && line.EndsWith("mailto:ottoline@brask.example", StringComparison.Ordinal)
        );
        Assert.Contains(
            "METHOD:CANCEL",
            Unfolded(PlanFeed.Invitation(Berlin, visit with { Cancelled = true }, "ottoline@brask.example"))
        );
        Assert.Contains("METHOD:PUBLISH", Unfolded(PlanFeed.Invitation(Berlin, visit, null)));
        Assert.Contains(
            "METHOD:PUBLISH",
            Unfolded(PlanFeed.Invitation(Berlin with { Mail = null }, visit, "ottoline@brask.example"))
        );
    }

    [Fact]
    public void A_visit_is_an_instant_in_utc_and_a_day_that_is_off_is_cancelled()
    {
        var visit = Day("v") with { At = new DateTime(2026, 11, 26, 7, 30, 0), Minutes = 30 };
        Assert.Contains("DTSTART:20261126T073000Z", Unfolded(Text(visit)));
        Assert.Contains("DTEND:20261126T080000Z", Unfolded(Text(visit)));
        var events = Ical.Net.Calendar.Load(Text(visit, Day("x", 2, cancelled: true)))!.Events;
        Assert.Equal(EventStatus.Confirmed, events.Single(e => e.Uid == "v@quay.example").Status);
        Assert.Equal(EventStatus.Cancelled, events.Single(e => e.Uid == "x@quay.example").Status);
    }

    /// <summary>RFC 5545, 3.6.1: UID and DTSTAMP are required; 3.6: VERSION and PRODID; 3.8.7.4: SEQUENCE is a whole number from 0.</summary>
    [Fact]
    public void Has_the_properties_the_standard_requires_once_each()
    {
        var lines = Unfolded(Text(Day("a")));
        Assert.Equal("BEGIN:VCALENDAR", lines[0]);
        Assert.Equal("END:VCALENDAR", lines[^1]);
        Assert.Single(lines, "VERSION:2.0");
        foreach (var name in new[] { "PRODID", "UID", "DTSTAMP", "SEQUENCE" })
        {
            Assert.Single(lines, line => line.StartsWith(name + ":", StringComparison.Ordinal));
        }
        Assert.Contains("DTSTAMP:20261120T093000Z", lines);
        Assert.Contains("DTSTART;VALUE=DATE:20261126", lines);
        Assert.Contains("SEQUENCE:0", lines);
    }

    /// <summary>RFC 5545, 3.1: lines end with CRLF and are at most 75 octets without it; a folded line goes on after one space.</summary>
    [Fact]
    public void Folds_every_line_at_75_octets_and_unfolds_to_what_was_written() =>
        Gen.String[Gen.Char["abc ,;:\\\nüß€←→“”xyz 0123"], 0, 400]
            .Sample(
                text =>
                {
                    var written = Text(Day("a", text: text.Trim()));
                    foreach (var line in written.Split("\r\n"))
                    {
                        Assert.DoesNotContain('\n', line);
                        Assert.InRange(Encoding.UTF8.GetByteCount(line), 0, 75);
                    }
                    Assert.Equal(
                        text.Trim(),
                        Ical.Net.Calendar.Load(written)!.Events.Single().Description ?? ""
                    );
                },
                iter: 300
            );

    /// <summary>RFC 5545, 3.8.7.4 and 3.8.4.7: the same UID with a higher SEQUENCE takes the older one's place.</summary>
    [Fact]
    public void A_newer_entry_has_the_same_id_and_a_higher_sequence()
    {
        var before = Ical.Net.Calendar.Load(Text(Day("a", 0)))!.Events.Single();
        var after = Ical.Net.Calendar.Load(Text(Day("a", 1, "Leg reach: 5 reps")))!.Events.Single();
        Assert.Equal(before.Uid, after.Uid);
        Assert.True(after.Sequence > before.Sequence);
    }

    private static string[] Unfolded(string text) =>
        text.Replace("\r\n ", "", StringComparison.Ordinal)
            .Replace("\r\n\t", "", StringComparison.Ordinal)
            .Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
}
