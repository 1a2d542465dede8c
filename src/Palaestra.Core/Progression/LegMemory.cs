using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Core.Progression;

/// <summary>Pain that moved further down a leg in a session is remembered, although it was back within ten minutes.</summary>
public static class LegMemory
{
    /// <summary>
    /// Sides on which it moved, at this visit or one before it, until the policy's visits and days are both over.
    /// </summary>
    public static IEnumerable<Side> Sides(
        IReadOnlyList<SessionPain> sessions,
        int visit,
        DateOnly day,
        Judgement judgement
    ) =>
        sessions
            .Where(s =>
                s.Visit <= visit
                && (
                    visit - s.Visit <= judgement.LegVisits
                    || day.DayNumber - s.Date.DayNumber <= judgement.LegDays
                )
            )
            .SelectMany(s => s.Legs ?? [])
            .Select(leg => leg.Side)
            .Distinct();
}
