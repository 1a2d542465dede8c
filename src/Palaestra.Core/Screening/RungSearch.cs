using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Screening;

/// <summary>How one trial counts when climbing a ladder.</summary>
public enum Verdict
{
    /// <summary>The start dose was met clean, without a cue.</summary>
    Clean,

    /// <summary>The start dose was met clean, but less far than drawn.</summary>
    Short,

    /// <summary>Met only after a cue, or trembling through most of it.</summary>
    Borderline,

    /// <summary>The trunk gave way, or the dose was not met.</summary>
    Broke,

    /// <summary>Pain went over the limit.</summary>
    Painful,
}

/// <param name="NextRungId">What to try next; none when the search is done.</param>
/// <param name="EntryRungId">The rung to train: while searching the highest clean so far; none when nothing was clean.</param>
/// <param name="TrialIds">The trials the entry rung rests on.</param>
/// <param name="Range">Share of the movement of the entry rung that was clean, above 0 to 1.</param>
/// <param name="Finished">False where the climb was left before it was bracketed: the entry is the highest clean rung so far.</param>
/// <param name="FromTask">The task it follows from, where the ladder itself was not climbed.</param>
public sealed record RungSearch(
    string LadderId,
    Side Side,
    bool Done,
    string? NextRungId,
    string? EntryRungId,
    Message Why,
    IReadOnlyList<Guid> TrialIds,
    double Range = 1,
    bool Finished = true,
    string? FromTask = null
);

/// <summary>Finds the rung with few trials: start in the middle, halve what is left, up only as many rungs at once as the policy allows (too hard too soon is the mistake to avoid), stop when bracketed.</summary>
public static class RungFinder
{
    /// <summary>Whether a trial tells which rung is the right one: done for the rung itself or for the climb, not for another measure.</summary>
    public static bool Climbs(Trial trial, PracticeLibrary library) =>
        trial.Purpose == TrialPurpose.Screen
        && (
            trial.TaskId is null
            || library.FindTask(trial.TaskId) is null or { Climbs: true }
            || trial.TaskId == ScreenTask.RungPrefix + trial.RungId
        );

    /// <param name="fullDegrees">Degrees of the whole movement, where degrees were logged; none: not known.</param>
    public static Verdict VerdictOf(Trial trial, Rung rung, double? fullDegrees = null)
    {
        if (trial.Hurt)
        {
            return Verdict.Painful;
        }
        var needed = rung.Start.Reps;
        if (trial.Clean.Reps >= needed && !trial.TrembledThroughMost)
        {
            return IsWhole(RangeOf(trial, rung, fullDegrees)) ? Verdict.Clean : Verdict.Short;
        }
        var met = trial.Clean.Reps >= needed || trial.Clean.CuedReps >= needed;
        var afterCue = trial is { CueGiven: true, CueWorked: true, Clean.CuedReps: >= 2 };
        return met || afterCue ? Verdict.Borderline : Verdict.Broke;
    }

    /// <summary>
    /// How far the movement went in as many clean reps as the start dose has: share of the drawn one, 0 to 1. A rep whose range
    /// was not told went as far as was asked.
    /// </summary>
    public static double RangeOf(Trial trial, Rung rung, double? fullDegrees = null)
    {
        var shares = trial
            .Reps.Where(rep => rep is { Clean: true, Cued: false })
            .Select(rep =>
                rep.Reach switch
                {
                    { Share: { } share } => share,
                    { Degrees: { } degrees } when fullDegrees is { } full => Math.Min(1, degrees / full),
                    _ => trial.Target.Range,
                }
            )
            .OrderDescending()
            .ToList();
        return shares.Count == 0 ? 0 : Math.Min(1, shares[Math.Min(shares.Count, rung.Start.Reps) - 1]);
    }

    /// <summary>Whether it went as far as the movement goes.</summary>
    public static bool IsWhole(Trial trial, Rung rung, PracticeLibrary library) =>
        IsWhole(RangeOf(trial, rung, library.FullDegrees(rung)));

    private static bool IsWhole(double range) => range >= 1 - 1e-9;

    /// <summary>
    /// Where one side of one ladder stands. Trials without a side count for both. The last trial of a rung counts.
    /// </summary>
    /// <param name="trials">Ended screen trials of the visit, in order of time.</param>
    /// <param name="missing">Equipment that is not at hand: rungs that need it are passed over, unless they were tried all the same.</param>
    public static RungSearch Search(
        Ladder ladder,
        Side side,
        IReadOnlyList<Trial> trials,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library,
        IReadOnlyList<string>? missing = null
    )
    {
        // What waits while the back is sore is not climbed either.
        var calm = IrritabilityLevel.Of(profile, policy) == Irritability.Low;
        var open = ladder
            .Rungs.Where(rung => !Allowance.Of(library, profile.Precautions, rung, side).Barred)
            .Where(rung =>
                missing is null
                || !rung.Equipment.Any(missing.Contains)
                || trials.Any(t => t.RungId == rung.Id)
            )
            .Where(rung =>
                calm
                || !rung.Features.Any(policy.Sore.Avoids.Contains)
                || trials.Any(t => t.RungId == rung.Id)
            )
            .ToList();
        if (open.Count == 0)
        {
            var bar = Allowance.Of(library, profile.Precautions, ladder.Rungs[0], side);
            var why = bar.Barred
                ? Message.Of("climb.all-barred", ("why", bar.BarWords))
                : Message.Of("climb.none-open");
            return new(ladder.Id, side, true, null, null, why, []);
        }
        var tried = trials
            .Where(t =>
                !t.Open
                && Climbs(t, library)
                && (t.Side == side || t.Side == Side.Both)
                && open.Any(rung => rung.Id == t.RungId)
            )
            .ToList();
        var verdicts = tried
            .GroupBy(t => open.FindIndex(rung => rung.Id == t.RungId))
            .ToDictionary(
                group => group.Key,
                group => VerdictOf(group.Last(), open[group.Key], library.FullDegrees(open[group.Key]))
            );
        var ranges = tried
            .GroupBy(t => open.FindIndex(rung => rung.Id == t.RungId))
            .ToDictionary(
                group => group.Key,
                group => RangeOf(group.Last(), open[group.Key], library.FullDegrees(open[group.Key]))
            );
        var ids = tried.Select(t => t.Id).ToList();
        var next = NextIndex(open.Count, tried, verdicts, profile, policy);
        var entry = Entry(ladder, side, open, verdicts, ranges, ids);
        return next is not { } index
            ? entry
            : new(
                ladder.Id,
                side,
                false,
                open[index].Id,
                SoFar(verdicts) is { } clean ? open[clean].Id : null,
                WhyNext(verdicts, open),
                ids,
                SoFar(verdicts) is { } at && verdicts[at] == Verdict.Short ? ranges[at] : 1,
                false
            );
    }

    private static int? NextIndex(
        int count,
        List<Trial> tried,
        Dictionary<int, Verdict> verdicts,
        ClientProfile profile,
        Policy policy
    )
    {
        if (tried.Count == 0)
        {
            // A sore client starts in the lower third, others in the middle.
            return IrritabilityLevel.Of(profile, policy) == Irritability.High
                ? (count - 1) / 3
                : (count - 1) / 2;
        }
        var (clean, broken) = Bracket(count, verdicts);
        if (tried.Count >= policy.TrialsPerSide || broken - clean <= 1)
        {
            return null;
        }
        return broken == count
            ? Math.Min(clean + policy.RungsUpAtOnce, count - 1)
            : Math.Min((clean + broken) / 2, clean + policy.RungsUpAtOnce);
    }

    /// <summary>The lowest rung that was not clean and the highest clean one below it; one past the ends where there is none.</summary>
    private static (int Clean, int Broken) Bracket(int count, Dictionary<int, Verdict> verdicts)
    {
        var broken = verdicts
            .Where(v => v.Value != Verdict.Clean)
            .Select(v => v.Key)
            .DefaultIfEmpty(count)
            .Min();
        var clean = verdicts
            .Where(v => v.Value == Verdict.Clean && v.Key < broken)
            .Select(v => v.Key)
            .DefaultIfEmpty(-1)
            .Max();
        return (clean, broken);
    }

    private static Message WhyNext(Dictionary<int, Verdict> verdicts, List<Rung> open)
    {
        if (verdicts.Count == 0)
        {
            return Message.Of("climb.start");
        }
        var (clean, broken) = Bracket(open.Count, verdicts);
        return (clean, broken) switch
        {
            (-1, var b) => Message.Of("climb.down", ("rung", open[b].Id)),
            (var c, var b) when b == open.Count => Message.Of("climb.up", ("rung", open[c].Id)),
            var (c, b) => Message.Of("climb.between", ("clean", open[c].Id), ("broke", open[b].Id)),
        };
    }

    /// <summary>The highest rung clean so far, over whatever range; none where nothing was.</summary>
    private static int? SoFar(Dictionary<int, Verdict> verdicts) =>
        verdicts
            .Where(v => v.Value is Verdict.Clean or Verdict.Short)
            .Where(v => !verdicts.Any(o => o.Key < v.Key && o.Value is not Verdict.Clean))
            .Select(v => (int?)v.Key)
            .Max();

    /// <summary>
    /// The highest clean rung below any that was not; a rung that was clean less far, over that range; where none was clean,
    /// the one below a borderline rung, or that rung itself when it is the lowest.
    /// </summary>
    private static RungSearch Entry(
        Ladder ladder,
        Side side,
        List<Rung> open,
        Dictionary<int, Verdict> verdicts,
        Dictionary<int, double> ranges,
        List<Guid> ids
    )
    {
        var (clean, broken) = Bracket(open.Count, verdicts);
        var at = broken < open.Count ? verdicts[broken] : Verdict.Clean;
        if (at == Verdict.Short && ranges[broken] >= LeastRange)
        {
            var share = ranges[broken];
            return new(
                ladder.Id,
                side,
                true,
                null,
                open[broken].Id,
                Message.Of("entry.range", ("rung", open[broken].Id), ("share", share)),
                ids,
                share
            );
        }
        var borderline = at == Verdict.Borderline;
        var (entry, why) = (clean, borderline) switch
        {
            (>= 0, true) when clean == broken - 1 => (
                clean,
                Message.Of("entry.below", ("rung", open[broken].Id))
            ),
            (>= 0, _) => (clean, Message.Of("entry.highest", ("rung", open[clean].Id))),
            (_, true) when broken == 0 => (0, Message.Of("entry.coach", ("rung", open[0].Id))),
            (_, true) => (broken - 1, Message.Of("entry.below", ("rung", open[broken].Id))),
            _ => (-1, NothingClean(open, verdicts)),
        };
        return new(ladder.Id, side, true, null, entry < 0 ? null : open[entry].Id, why, ids);
    }

    /// <summary>Less of a movement than this is not the exercise any more. Our own.</summary>
    public const double LeastRange = 0.2;

    private static Message NothingClean(List<Rung> open, Dictionary<int, Verdict> verdicts)
    {
        if (verdicts.Count == 0)
        {
            return Message.Of("entry.untried");
        }
        var lowest = verdicts.Keys.Min();
        return verdicts[lowest] == Verdict.Painful
            ? Message.Of("entry.pain", ("rung", open[lowest].Id))
            : Message.Of("entry.none", ("rung", open[lowest].Id));
    }
}
