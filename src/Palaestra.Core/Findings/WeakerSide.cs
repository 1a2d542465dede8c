using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Findings;

/// <summary>Which side to begin a task on, as far as anything is known.</summary>
public static class WeakerSide
{
    /// <summary>
    /// The weaker side in this very task or climb, before or by now; else the side that was weaker most often today;
    /// else the side of a precaution that has one; else none.
    /// </summary>
    public static Side? Of(
        ScreenTask task,
        ScreenFindings? before,
        ScreenFindings? now,
        ClientProfile profile,
        PracticeLibrary library
    ) =>
        InTask(task, now, library)
        ?? InTask(task, before, library)
        ?? Mostly(now)
        ?? profile.Precautions.Where(p => p.Side != Side.Both).Select(p => (Side?)p.Side).FirstOrDefault();

    private static Side? InTask(ScreenTask task, ScreenFindings? findings, PracticeLibrary library)
    {
        if (findings is null)
        {
            return null;
        }
        if (task.Ladder is not { } id)
        {
            return findings.Tasks.FirstOrDefault(t => t.TaskId == task.Id && t.Weaker is not null)?.Weaker;
        }
        var ladder = library.Ladders.First(l => l.Id == id);
        int? Height(Side side) =>
            findings.Entries.FirstOrDefault(e => e.LadderId == id && e.Side == side)
                is { Done: true, TrialIds.Count: > 0 } entry
                ? ladder.IndexOf(entry.EntryRungId ?? "")
                : null;
        return (Height(Side.Left), Height(Side.Right)) switch
        {
            ({ } left, { } right) when left < right => Side.Left,
            ({ } left, { } right) when right < left => Side.Right,
            _ => null,
        };
    }

    private static Side? Mostly(ScreenFindings? findings)
    {
        var sides = (findings?.Tasks ?? []).Select(t => t.Weaker).OfType<Side>().ToList();
        var left = sides.Count(side => side == Side.Left);
        return left * 2 > sides.Count ? Side.Left
            : left * 2 < sides.Count ? Side.Right
            : null;
    }
}
