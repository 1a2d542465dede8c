using Palaestra.Core.Charts;
using Palaestra.Core.Library;

namespace Palaestra.Core.Intake;

/// <summary>A question that what was drawn asks for at once.</summary>
/// <param name="Id">Of a red flag, or <see cref="BelowKnee"/>.</param>
/// <param name="Side">Of the leg; both where the question has no side.</param>
/// <param name="Yes">What was answered; none: it is open.</param>
public sealed record ChartQuestion(string Id, Side Side, bool? Yes)
{
    /// <summary>Whether pain or tingling runs below the knee on a side.</summary>
    public const string BelowKnee = "below-knee";

    /// <summary>All that a chart asks for, red flags first, in the order of the content.</summary>
    public static IReadOnlyList<ChartQuestion> Of(BodyChart chart, PracticeLibrary library)
    {
        ChartQuestion Asked(string id, Side side) =>
            new(id, side, chart.Answers?.LastOrDefault(a => a.Question == id && a.Side == side)?.Yes);
        return
        [
            .. library
                .DangerSigns.Where(sign => sign.Chart is { } trigger && Wanted(chart, trigger))
                .Select(sign => Asked(sign.Id, Side.Both)),
            .. ChartReading
                .ZonesOf(chart)
                .Where(zone => zone.IsBelowKnee)
                .Select(zone => zone.Side)
                .Distinct()
                .Select(side => Asked(BelowKnee, side)),
        ];
    }

    /// <summary>Ids of the red flags that the drawing speaks of and nobody has asked about: until then nothing goes on.</summary>
    public static IEnumerable<string> OpenFlags(BodyChart chart, PracticeLibrary library) =>
        Of(chart, library).Where(q => q.Id != BelowKnee && q.Yes is null).Select(q => q.Id);

    /// <summary>
    /// How far down each leg the drawing says pain goes; none for a leg it says nothing of. What is drawn below a knee counts
    /// until somebody has asked and was told no.
    /// </summary>
    public static LegReport? LegOf(BodyChart chart, PracticeLibrary library)
    {
        var told = Of(chart, library).Where(q => q.Id == BelowKnee && q.Yes != false).ToList();
        LegReach? On(Side side) => told.Exists(q => q.Side == side) ? LegReach.BelowKnee : null;
        return told.Count == 0 ? null : new(On(Side.Left), On(Side.Right));
    }

    private static bool Wanted(BodyChart chart, ChartTrigger trigger)
    {
        var zones = ChartReading.ZonesOf(chart, trigger.Kinds).Where(z => trigger.Zones.Contains(z.Zone));
        return trigger.BothSides
            ? zones.Select(z => z.Side).Where(side => side != Side.Both).Distinct().Count() == 2
            : zones.Any();
    }
}
