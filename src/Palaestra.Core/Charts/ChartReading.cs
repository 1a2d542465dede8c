namespace Palaestra.Core.Charts;

/// <summary>A square centimetre of the chart's body.</summary>
public readonly record struct ChartCell(ChartView View, int X, int Y);

/// <summary>How two charts differ.</summary>
/// <param name="Come">Zones with pain on the later one alone. <paramref name="Gone"/>: on the earlier one alone.</param>
/// <param name="Before">Square centimetres with pain, of a typical body, over all views. <paramref name="After"/>: likewise.</param>
public sealed record ChartChange(
    IReadOnlyList<ZoneSide> Come,
    IReadOnlyList<ZoneSide> Gone,
    int Before,
    int After
);

/// <summary>Reads from a chart where it hurts and how much of the body.</summary>
public static class ChartReading
{
    /// <summary>Millimetres.</summary>
    private const int CellSide = 10;

    /// <summary>Square centimetres of the body that lie in an area.</summary>
    public static IReadOnlyList<ChartCell> CellsOf(PainArea area) => [.. Places(area).Select(p => p.Cell)];

    /// <summary>Zones an area lies in, most of it first: by two square centimetres at least, or all there is; of the saddle area the least counts.</summary>
    public static IReadOnlyList<ZoneSide> ZonesOf(PainArea area)
    {
        var places = Places(area).ToList();
        return
        [
            .. places
                .GroupBy(p => p.Zone)
                .Where(zone => zone.Count() >= Math.Min(2, places.Count) || zone.Key.Zone == ChartZone.Saddle)
                .OrderByDescending(zone => zone.Count())
                .ThenBy(zone => zone.Key.Zone)
                .ThenBy(zone => zone.Key.Side)
                .Select(zone => zone.Key),
        ];
    }

    /// <summary>Zones of all areas of some kinds, each once, in the order of the body from the head down.</summary>
    /// <param name="kinds">None: all.</param>
    public static IReadOnlyList<ZoneSide> ZonesOf(BodyChart chart, IReadOnlyList<PainKind>? kinds = null) =>
        [
            .. chart
                .Areas.Where(area => kinds is null || kinds.Contains(area.Kind))
                .SelectMany(ZonesOf)
                .Distinct()
                .OrderBy(zone => zone.Zone)
                .ThenBy(zone => zone.Side),
        ];

    /// <summary>Square centimetres with pain of any kind; what is drawn twice counts once.</summary>
    public static int SizeOf(BodyChart chart) => chart.Areas.SelectMany(CellsOf).Distinct().Count();

    /// <summary>From an earlier chart to a later one.</summary>
    public static ChartChange Between(BodyChart before, BodyChart after)
    {
        var (was, @is) = (ZonesOf(before), ZonesOf(after));
        return new([.. @is.Except(was)], [.. was.Except(@is)], SizeOf(before), SizeOf(after));
    }

    private static IEnumerable<(ChartCell Cell, ZoneSide Zone)> Places(PainArea area)
    {
        var (xs, ys) = (
            area.Outline.Where((_, i) => i % 2 == 0).ToList(),
            area.Outline.Where((_, i) => i % 2 == 1).ToList()
        );
        var figure = ChartFigure.Of(area.View);
        // Nothing beside the body is looked at, however far an outline runs.
        var (left, right) = (Math.Max(xs.Min(), figure.Left), Math.Min(xs.Max(), figure.Left + figure.Width));
        var (top, bottom) = (Math.Max(ys.Min(), figure.Top), Math.Min(ys.Max(), figure.Top + figure.Height));
        for (var y = Cell(top); y * CellSide <= bottom; y++)
        {
            for (var x = Cell(left); x * CellSide <= right; x++)
            {
                var (mx, my) = ((x + 0.5) * CellSide, (y + 0.5) * CellSide);
                if (Polygon.Holds(area.Outline, mx, my) && figure.At(mx, my) is { } zone)
                {
                    yield return (new(area.View, x, y), zone);
                }
            }
        }
    }

    private static int Cell(int millimetres) => (int)Math.Floor(millimetres / (double)CellSide);
}
