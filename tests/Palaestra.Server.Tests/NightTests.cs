using Palaestra.Data.Keeping;
using Palaestra.Server.Keeping;

namespace Palaestra.Server.Tests;

/// <summary>When a backup is made by itself, and which are kept.</summary>
public class NightTests
{
    [Fact]
    public void Kept_are_a_week_of_days_then_weeks_then_months()
    {
        var last = new DateTime(2026, 11, 28, 2, 30, 0);
        var nights = Enumerable.Range(0, 400).Select(day => last.AddDays(-day)).ToList();
        var kept = nights.Except(Generations.Past(nights)).ToList();
        Assert.Equal(nights.Take(7), kept.Take(7));
        // The days of five weeks and twelve months, each by its last night; some are the same night.
        Assert.InRange(kept.Count, 7 + 4 + 10, 7 + 5 + 12);
        Assert.All(kept.Skip(11), at => Assert.Equal(1, at.AddDays(1).Day));
        Assert.Empty(Generations.Past([last]));
    }

    [Theory]
    [InlineData(null, "2026-11-28 09:00", "2026-11-28 09:00")]
    [InlineData("2026-11-28 02:30", "2026-11-28 09:00", "2026-11-29 02:30")]
    [InlineData("2026-11-27 23:00", "2026-11-28 01:00", "2026-11-28 02:30")]
    [InlineData("2026-11-26 02:30", "2026-11-28 09:00", "2026-11-28 09:00")] // it was off for a night
    [InlineData("2026-12-24 02:30", "2026-11-28 09:00", "2026-11-28 09:00")] // the clock was set back
    public void The_next_is_due_at_night_or_at_once(string? last, string now, string due)
    {
        static DateTimeOffset At(string text) =>
            DateTimeOffset.Parse(text + " +01:00", System.Globalization.CultureInfo.InvariantCulture);
        Assert.Equal(At(due), NightlyBackup.Due(last is null ? null : At(last), At(now)));
    }
}
