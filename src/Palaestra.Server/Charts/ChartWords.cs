using Palaestra.Core.Charts;

namespace Palaestra.Server.Charts;

/// <summary>What charts say.</summary>
public static class ChartWords
{
    /// <summary>"ache, 4 of 10: low back, left".</summary>
    public static Message Of(PainArea area) =>
        Message.Of(
            "chart.area",
            ("kind", area.Kind),
            ("strength", area.Strength),
            ("zones", Zones(ChartReading.ZonesOf(area)))
        );

    /// <summary>One for each zone, with its side.</summary>
    public static IReadOnlyList<Message> Zones(IEnumerable<ZoneSide> zones) =>
        [.. zones.Select(zone => Message.Of("chart.zone", ("zone", zone.Zone), ("side", zone.Side)))];

    /// <summary>What came, what went, and by how much the whole grew or shrank.</summary>
    public static Message Of(ChartChange change, DateOnly since) =>
        Message.Of(
            "chart.change",
            ("since", since),
            ("come", Zones(change.Come)),
            ("gone", Zones(change.Gone)),
            ("before", change.Before),
            ("after", change.After)
        );
}
