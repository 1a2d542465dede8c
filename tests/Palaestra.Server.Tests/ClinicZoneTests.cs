using CsCheck;
using NodaTime;
using Palaestra.Data.Clinics;

namespace Palaestra.Server.Tests;

/// <summary>Against the rules of the IANA database for days that are known: changes of clock, and days that begin late.</summary>
public sealed class ClinicZoneTests
{
    private static ClinicZone Zone(string id) => ClinicZone.Find(id)!;

    private static DateTimeOffset At(string text) =>
        DateTimeOffset.Parse(text, System.Globalization.CultureInfo.InvariantCulture);

    private static DateTime Wall(string text) =>
        DateTime.Parse(text, System.Globalization.CultureInfo.InvariantCulture);

    [Theory]
    [InlineData("Europe/Berlin", "2026-01-15 09:00", "2026-01-15T08:00Z")]
    [InlineData("Europe/Berlin", "2026-07-15 09:00", "2026-07-15T07:00Z")]
    [InlineData("America/New_York", "2026-11-01 00:30", "2026-11-01T04:30Z")]
    [InlineData("Asia/Kathmandu", "2026-11-01 00:30", "2026-10-31T18:45Z")]
    // Twice on the wall: the earlier. Left out: as much later as the clock is set.
    [InlineData("Europe/Berlin", "2026-10-25 02:30", "2026-10-25T00:30Z")]
    [InlineData("Europe/Berlin", "2026-03-29 02:30", "2026-03-29T01:30Z")]
    public void A_time_on_the_wall_is_an_instant(string id, string wall, string instant) =>
        Assert.Equal(At(instant), Zone(id).At(Wall(wall)).ToDateTimeOffset());

    [Theory]
    [InlineData("Europe/Berlin", "2026-03-29 02:30", false)]
    [InlineData("Europe/Berlin", "2026-03-29 03:00", true)]
    [InlineData("Europe/Berlin", "2026-10-25 02:30", true)]
    [InlineData("America/New_York", "2026-03-08 02:30", false)]
    [InlineData("UTC", "2026-03-29 02:30", true)]
    public void A_time_that_is_left_out_is_known(string id, string wall, bool there) =>
        Assert.Equal(there, Zone(id).Has(Wall(wall)));

    [Theory]
    [InlineData("Africa/Cairo", "2023-04-28", "2023-04-27T22:00Z")]
    [InlineData("Europe/Berlin", "2026-03-29", "2026-03-28T23:00Z")]
    [InlineData("Pacific/Auckland", "2026-11-29", "2026-11-28T11:00Z")]
    public void A_day_begins_when_it_does_there(string id, string day, string instant) =>
        Assert.Equal(
            At(instant),
            Zone(id)
                .StartOf(DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture))
                .ToDateTimeOffset()
        );

    [Theory]
    [InlineData("Nowhere/Land")]
    [InlineData("")]
    [InlineData(null)]
    public void A_name_that_is_no_zone_is_none(string? id) => Assert.Null(ClinicZone.Find(id));

    /// <summary>44 minutes and 30 seconds behind, until 1972; as the tz database has it.</summary>
    [Fact]
    public void An_instant_is_told_exactly_where_the_distance_had_seconds() =>
        Assert.Equal(
            Instant.FromUtc(1970, 7, 2, 5, 49, 41).ToDateTimeOffset(),
            Zone("Africa/Monrovia").Tell(Instant.FromUtc(1970, 7, 2, 5, 49, 41))
        );

    /// <summary>In every zone and at every instant: it lies in its own day, and the way over the wall leads back but for the second of two.</summary>
    [Fact]
    public void Every_instant_lies_between_the_beginnings_of_its_day_and_the_next() =>
        Gen.Select(Gen.Int[0, ClinicZone.Ids.Count - 1], Gen.Long[0, 2_000_000_000])
            .Sample(
                (which, seconds) =>
                {
                    var zone = Zone(ClinicZone.Ids[which]);
                    var at = Instant.FromUnixTimeSeconds(seconds);
                    var day = zone.DayOf(at);
                    Assert.True(zone.StartOf(day) <= at && at < zone.StartOf(day.AddDays(1)));
                    Assert.Equal(at.ToDateTimeOffset(), zone.Tell(at));
                    var back = at - zone.At(zone.Local(at));
                    Assert.InRange(back.TotalHours, 0, 24);
                    Assert.Equal(zone.Local(at), zone.Local(zone.At(zone.Local(at))));
                },
                iter: 2000
            );
}
