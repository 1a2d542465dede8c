using System.Text.Json.Serialization;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Core.Visits;

/// <summary>One set as it was done.</summary>
/// <param name="CleanReps">Without a cue. <paramref name="CuedCleanReps"/>: after one.</param>
/// <param name="BreakingReps">Reps in which the trunk gave way.</param>
/// <param name="CueFixed">True or false when a cue was given; none when not.</param>
/// <param name="PainOver">Pain went over the policy's limit, as it was judged when it was done.</param>
/// <param name="Eased">Done easier than asked: a shorter range, fewer seconds, a shorter lever, more support or a lower rung.</param>
/// <param name="PainBefore">0 to 10: as asked at the exercise's first set, else at check-in. <paramref name="PainPeak"/>, <paramref name="PainAfter"/>: while and after; none where not told.</param>
/// <param name="EndedForPain">The set was ended because of pain.</param>
/// <param name="Tremor">Share of the set in which it trembled, 0 to 1.</param>
/// <param name="Felt">Id of the place where the work was felt; none if not asked.</param>
/// <param name="Setting">Range, height, load and band as done, where they differ from what was prescribed; its reps, sets and hold are the set's own.</param>
/// <param name="RungId">What was done, where it was another rung than the plan's.</param>
/// <param name="Cue">The words that were said.</param>
public sealed record SetDone(
    int Reps,
    int CleanReps,
    int CuedCleanReps,
    int BreakingReps,
    double CleanSeconds,
    bool PainOver,
    bool? CueFixed,
    int? Effort,
    string? FirstFault,
    bool Eased = false,
    int? PainBefore = null,
    int? PainPeak = null,
    int? PainAfter = null,
    bool EndedForPain = false,
    double Tremor = 0,
    string? Felt = null,
    Dose? Setting = null,
    string? RungId = null,
    string? Cue = null
)
{
    /// <summary>
    /// A set of which each way was counted for itself: it counts as its weakest way, and as nothing where a way was left out;
    /// pain, effort and shaking are the worst of any. A way that was begun again counts with all its reps.
    /// </summary>
    /// <param name="all">Of one set, in order, each with its way; at least one. <paramref name="ways"/>: how many the rung has.</param>
    public static SetDone OfWays(IReadOnlyList<(string? Way, SetDone Set)> all, int ways)
    {
        var byWay = all.GroupBy(t => t.Way).Select(way => way.Select(t => t.Set).ToList()).ToList();
        int Least(Func<SetDone, int> count) => byWay.Count < ways ? 0 : byWay.Min(way => way.Sum(count));
        var sets = all.Select(t => t.Set).ToList();
        var painful = sets.Where(set => set.PainMost is not null).MaxBy(set => set.Rise(null) ?? -1);
        return sets[^1] with
        {
            Reps = Least(set => set.Reps),
            CleanReps = Least(set => set.CleanReps),
            CuedCleanReps = Least(set => set.CuedCleanReps),
            BreakingReps = byWay.Max(way => way.Sum(set => set.BreakingReps)),
            CleanSeconds = byWay.Count < ways ? 0 : byWay.Min(way => way.Sum(set => set.CleanSeconds)),
            PainOver = sets.Any(set => set.PainOver),
            CueFixed = sets.Any(set => set.CueFixed == false)
                ? false
                : sets.Select(set => set.CueFixed).Max(),
            Effort = sets.Select(set => set.Effort).Max(),
            FirstFault = sets.Select(set => set.FirstFault).FirstOrDefault(fault => fault is not null),
            Eased = sets.Any(set => set.Eased),
            PainBefore = painful?.PainBefore ?? sets[0].PainBefore,
            PainPeak = sets.Select(set => set.PainPeak).Max(),
            PainAfter = sets.Select(set => set.PainAfter).Max(),
            EndedForPain = sets.Any(set => set.EndedForPain),
            Tremor = sets.Max(set => set.Tremor),
            Felt = sets.Select(set => set.Felt).LastOrDefault(felt => felt is not null),
            Cue = sets.Select(set => set.Cue).LastOrDefault(cue => cue is not null),
        };
    }

    /// <summary>The most pain told; none where none was.</summary>
    [JsonIgnore]
    public int? PainMost => PainPeak is null ? PainAfter : Math.Max(PainPeak.Value, PainAfter ?? 0);

    /// <summary>How far pain rose over what was before, or over the check-in where that was not asked; none if not known, never below 0.</summary>
    public int? Rise(int? checkIn) =>
        PainMost is { } most && (PainBefore ?? checkIn) is { } from ? Math.Max(0, most - from) : null;

    /// <summary>Over the limit: as judged then, ended for pain, or by the numbers.</summary>
    public bool Over(PainRule rule, int? checkIn) =>
        PainOver || EndedForPain || (PainMost is { } most && rule.Exceeded(PainBefore ?? checkIn, most));
}

/// <summary>What one side of one exercise did in one visit, against what was asked.</summary>
/// <param name="Visit">Ordinal of the visit in the episode, 1 or more; later visits have larger ones.</param>
public sealed record Performance(
    int Visit,
    DateOnly Date,
    Guid PlanItemId,
    string RungId,
    Side Side,
    Dose Prescribed,
    IReadOnlyList<SetDone> Sets
)
{
    /// <summary>Sets done as they were asked for: only these speak for or against the dose.</summary>
    private IEnumerable<SetDone> AsAsked => Sets.Where(AsPrescribed);

    /// <summary>Not eased, and as far, as low and as heavy as prescribed.</summary>
    private bool AsPrescribed(SetDone set) =>
        !set.Eased && (set.Setting is not { } done || done.SettingCovers(Prescribed));

    /// <summary>Reps finished, in sets done as prescribed.</summary>
    public int Reps => AsAsked.Sum(set => set.Reps);

    /// <summary>Of those, clean without a cue.</summary>
    public int CleanReps => AsAsked.Sum(set => set.CleanReps);

    /// <summary>Of those, clean with or without a cue.</summary>
    public int AllCleanReps => AsAsked.Sum(set => set.CleanReps + set.CuedCleanReps);

    /// <summary>Reps in which the trunk gave way, in sets done as prescribed.</summary>
    public int BreakingReps => AsAsked.Sum(set => set.BreakingReps);

    /// <summary>Reps begun: one that gave way and was never finished is among them.</summary>
    public int Tried => AsAsked.Sum(set => Math.Max(set.Reps, set.BreakingReps));

    /// <summary>Seconds held before the trunk gave way, in sets done as prescribed.</summary>
    public double CleanSeconds => AsAsked.Sum(set => set.CleanSeconds);

    /// <summary>Some set was done easier than prescribed.</summary>
    public bool Eased => Sets.Any(set => !AsPrescribed(set));

    /// <summary>Sets in which pain went over the limit.</summary>
    public int PainSets => Sets.Count(set => set.PainOver);

    /// <summary>The most effort told, 0 to 10; none if not asked.</summary>
    public int? Effort => Sets.Select(set => set.Effort).Max();

    /// <summary>The longest part of any set in which it trembled, 0 to 1.</summary>
    public double Tremor => Sets.Select(set => set.Tremor).DefaultIfEmpty(0).Max();

    /// <summary>Clean reps, cued ones included, over those asked for; 0 or more.</summary>
    public double DoneFraction => (double)AllCleanReps / Prescribed.TotalReps;

    /// <summary>Some cue was given and every cue given held.</summary>
    public bool CueFixed => Sets.Any(set => set.CueFixed == true) && Sets.All(set => set.CueFixed != false);

    /// <summary>Every set and rep asked for was clean, without a cue or a painful set.</summary>
    public bool AllClean => CleanEnough(int.MaxValue);

    /// <summary>
    /// Every set was done and all reps but one in so many asked were clean, without a cue or a painful set. Below so many
    /// reps every one has to be.
    /// </summary>
    /// <param name="brokenPer">10: one broken rep in ten asked still counts as clean.</param>
    public bool CleanEnough(int brokenPer)
    {
        var grace = Prescribed.TotalReps / brokenPer;
        return PainSets == 0
            && Sets.All(set => !set.EndedForPain)
            && AsAsked.Count() >= Prescribed.Sets
            && CleanReps >= Prescribed.TotalReps - grace
            && BreakingReps <= grace;
    }

    /// <summary>Clean enough at a dose that covers the target.</summary>
    public bool Meets(Dose target, int brokenPer = int.MaxValue) =>
        CleanEnough(brokenPer) && Prescribed.Covers(target);

    /// <summary>One for each exercise and side that was done at a visit, in the plan's order; sets in the order they were done. Screens, probes and open trials are left out.</summary>
    public static IReadOnlyList<Performance> FromTrials(
        int visit,
        DateOnly date,
        IReadOnlyList<Planning.PlanItem> items,
        IReadOnlyList<Trial> trials,
        PracticeLibrary library
    ) =>
        [
            .. from item in items
            let ways = library.FindRung(item.RungId)?.Ways ?? []
            from side in item.Doses
            let sets = trials
                .Where(t =>
                    t is { Open: false, Purpose: TrialPurpose.Session, Probe: false }
                    && t.PlanItemId == item.Id
                    && t.For == side.Side
                )
                .OrderBy(t => t.StartedAt)
                .GroupBy(t => ways.Any(way => way.Id == t.Variant) ? t.Set.ToString(Invariant) : $"{t.Id}")
                .Select(same => SetOf([.. same], ways.Count, item.RungId, side.Dose))
                .ToList()
            where sets.Count > 0
            select new Performance(visit, date, item.Id, item.RungId, side.Side, side.Dose, sets),
        ];

    /// <summary>One set; of a rung with ways that were counted apart, the trials of all of them.</summary>
    private static SetDone SetOf(IReadOnlyList<Trial> trials, int ways, string asked, Dose prescribed) =>
        trials is [{ Variant: null } one] || ways == 0
            ? Set(trials[0], asked, prescribed)
            : SetDone.OfWays([.. trials.Select(t => (t.Variant, Set(t, asked, prescribed)))], ways);

    private static readonly System.Globalization.CultureInfo Invariant = System
        .Globalization
        .CultureInfo
        .InvariantCulture;

    /// <summary>One trial as a set of what was asked.</summary>
    internal static SetDone Set(Trial trial, string asked, Dose prescribed)
    {
        var reach = trial.Clean.Reach?.Share ?? trial.Target.Range;
        var setting = trial.Target with { Range = Math.Min(reach, trial.Target.Range), Load = trial.Load };
        return new(
            trial.Total,
            trial.Clean.Reps,
            trial.Clean.CuedReps,
            trial.BreakingReps,
            trial.Clean.Seconds,
            trial.Hurt,
            trial.CueGiven ? trial.CueWorked ?? false : null,
            trial.Effort,
            trial.FirstBreak?.Fault,
            trial.RungId != asked || trial.Eased.Count > 0,
            trial.PainBefore,
            trial.PainPeak,
            trial.PainAfter,
            trial.EndReason == EndReason.Pain,
            trial.TremorShare,
            trial.Felt,
            setting.WithSettingOf(prescribed) == setting ? null : setting,
            trial.RungId == asked ? null : trial.RungId,
            trial.Cue
        );
    }
}
