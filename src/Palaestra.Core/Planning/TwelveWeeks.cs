using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Planning;

/// <summary>One ladder of the twelve-week map beside what was earned.</summary>
/// <param name="Earned">The entry rung of the weaker side; none where the ladder was not climbed or nothing was clean.</param>
/// <param name="Ahead">The map is further than the client: only clean work grants a rung.</param>
public sealed record MapLine(string LadderName, string Proposed, string? Earned, bool Ahead);

/// <param name="Week">Week of the episode, 1 for the first; the map ends with its last week.</param>
public sealed record WeekOfMap(int Week, string Stage, IReadOnlyList<MapLine> Lines);

/// <summary>The calendar school's map: it proposes, clean work grants.</summary>
public static class TwelveWeeks
{
    /// <summary>Week and stage of the map on a day; none before it was opened.</summary>
    public static WeekOfMap? On(
        DateOnly opened,
        DateOnly day,
        IReadOnlyList<RungSearch> entries,
        PracticeLibrary library
    )
    {
        if (library.TwelveWeeks is not [.., var last])
        {
            return null;
        }
        var week = Math.Clamp((day.DayNumber - opened.DayNumber) / 7 + 1, 1, last.To);
        var now = library.TwelveWeeks.First(stage => stage.From <= week && week <= stage.To);
        var proposed = library
            .TwelveWeeks.Where(stage => stage.From <= week)
            .SelectMany(stage => stage.Rungs)
            .GroupBy(library.LadderOf)
            .OrderBy(group => group.Key.Id, StringComparer.Ordinal)
            .Select(group => Line(group.Key, group.MaxBy(group.Key.IndexOf)!, entries));
        return new(week, now.Name, [.. proposed]);
    }

    private static MapLine Line(Ladder ladder, string proposed, IReadOnlyList<RungSearch> entries)
    {
        var mine = entries.Where(entry => entry.LadderId == ladder.Id && entry.TrialIds.Count > 0).ToList();
        var earned =
            mine.Count == 0 || mine.Any(entry => entry.EntryRungId is null)
                ? -1
                : mine.Min(entry => ladder.IndexOf(entry.EntryRungId!));
        return new(
            ladder.Name,
            ladder.Rungs[ladder.IndexOf(proposed)].Name,
            earned < 0 ? null : ladder.Rungs[earned].Name,
            earned < ladder.IndexOf(proposed)
        );
    }
}
