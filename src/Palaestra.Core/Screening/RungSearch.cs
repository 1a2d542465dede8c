using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>How one trial counts when climbing a ladder.</summary>
public enum Verdict
{
    /// <summary>The start dose was met clean, without a cue.</summary>
    Clean,

    /// <summary>Met only after a cue, or trembling through most of it.</summary>
    Borderline,

    /// <summary>The trunk gave way, or the dose was not met.</summary>
    Broke,

    /// <summary>Pain went over the limit.</summary>
    Painful,
}

/// <param name="NextRungId">What to try next; none when the search is done.</param>
/// <param name="EntryRungId">The rung to train; none while searching, and none when not even the lowest is clean.</param>
/// <param name="TrialIds">The trials the entry rung rests on.</param>
public sealed record RungSearch(
    string LadderId,
    Side Side,
    bool Done,
    string? NextRungId,
    string? EntryRungId,
    string Why,
    IReadOnlyList<Guid> TrialIds
);

/// <summary>Finds the rung with few trials: start in the middle, up after clean, down after a break, stop when bracketed.</summary>
public static class RungFinder
{
    public static Verdict VerdictOf(Trial trial, Rung rung)
    {
        if (trial.PainOverLimit || trial.EndReason == EndReason.Pain)
        {
            return Verdict.Painful;
        }
        var needed = rung.Start.Reps;
        if (trial.Clean.Reps >= needed && !trial.TrembledThroughMost)
        {
            return Verdict.Clean;
        }
        var met = trial.Clean.Reps >= needed || trial.Clean.CuedReps >= needed;
        var afterCue = trial is { CueGiven: true, CueWorked: true, Clean.CuedReps: >= 2 };
        return met || afterCue ? Verdict.Borderline : Verdict.Broke;
    }

    /// <summary>
    /// Where one side of one ladder stands. Trials without a side count for both. The last trial of a rung counts.
    /// </summary>
    /// <param name="trials">Ended screen trials of the visit, in order of time.</param>
    public static RungSearch Search(
        Ladder ladder,
        Side side,
        IReadOnlyList<Trial> trials,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library
    )
    {
        var open = ladder
            .Rungs.Where(rung => !Allowance.Of(library, profile.Precautions, rung, side).Barred)
            .ToList();
        if (open.Count == 0)
        {
            var words = Allowance.Of(library, profile.Precautions, ladder.Rungs[0], side).BarWords;
            return new(ladder.Id, side, true, null, null, $"Every rung is barred ({words}).", []);
        }
        var tried = trials
            .Where(t =>
                !t.Open && (t.Side == side || t.Side == Side.Both) && open.Any(rung => rung.Id == t.RungId)
            )
            .ToList();
        var verdicts = tried
            .GroupBy(t => open.FindIndex(rung => rung.Id == t.RungId))
            .ToDictionary(group => group.Key, group => VerdictOf(group.Last(), open[group.Key]));
        var ids = tried.Select(t => t.Id).ToList();
        var next = NextIndex(open.Count, tried, verdicts, open, profile, policy);
        if (next is { } index)
        {
            return new(ladder.Id, side, false, open[index].Id, null, WhyNext(verdicts, open, index), ids);
        }
        return Entry(ladder, side, open, verdicts, ids);
    }

    private static int? NextIndex(
        int count,
        List<Trial> tried,
        Dictionary<int, Verdict> verdicts,
        List<Rung> open,
        ClientProfile profile,
        Policy policy
    )
    {
        if (tried.Count == 0)
        {
            // A sore client starts in the lower third, others in the middle.
            return StirredUpLevel.Of(profile, policy) == StirredUp.High ? (count - 1) / 3 : (count - 1) / 2;
        }
        if (tried.Count >= policy.TrialsPerSide)
        {
            return null;
        }
        var last = open.FindIndex(rung => rung.Id == tried[^1].RungId);
        return verdicts[last] switch
        {
            Verdict.Clean when last + 1 < count && !verdicts.ContainsKey(last + 1) => last + 1,
            Verdict.Broke or Verdict.Painful when last > 0 && !verdicts.ContainsKey(last - 1) => last - 1,
            Verdict.Borderline when last > 0 && !verdicts.ContainsKey(last - 1) => last - 1,
            _ => null,
        };
    }

    private static string WhyNext(Dictionary<int, Verdict> verdicts, List<Rung> open, int index)
    {
        if (verdicts.Count == 0)
        {
            return "Start here: the middle of what is allowed, lower when sore.";
        }
        return verdicts.TryGetValue(index - 1, out var below) && below == Verdict.Clean
            ? $"{open[index - 1].Name} was clean: one up."
            : $"{open[Math.Min(index + 1, open.Count - 1)].Name} was not clean: one down.";
    }

    private static RungSearch Entry(
        Ladder ladder,
        Side side,
        List<Rung> open,
        Dictionary<int, Verdict> verdicts,
        List<Guid> ids
    )
    {
        var clean = verdicts.Where(v => v.Value == Verdict.Clean).Select(v => (int?)v.Key).Max();
        var border = verdicts.Where(v => v.Value == Verdict.Borderline).Select(v => (int?)v.Key).Max();
        if (border is { } b && (clean is null || clean < b))
        {
            var entry = Math.Max(b - 1, 0);
            var why =
                b == 0
                    ? $"{open[0].Name} is clean only with a cue or while trembling: coach it there."
                    : $"{open[b].Name} was clean only with a cue or while trembling: the rung below.";
            return new(ladder.Id, side, true, null, open[entry].Id, why, ids);
        }
        if (clean is { } c)
        {
            return new(
                ladder.Id,
                side,
                true,
                null,
                open[c].Id,
                $"{open[c].Name} is the highest rung seen clean.",
                ids
            );
        }
        return new(
            ladder.Id,
            side,
            true,
            null,
            null,
            $"Not even {open[verdicts.Keys.Min()].Name} was clean.",
            ids
        );
    }
}
