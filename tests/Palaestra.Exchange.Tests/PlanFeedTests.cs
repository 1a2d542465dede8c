using System.Text;
using CsCheck;
using Ical.Net;
using Palaestra.Exchange.Calendar;

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
        PlanFeed.Text("Exercises", "quay.example", entries);

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
