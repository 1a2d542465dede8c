using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Capture;

/// <summary>
/// Turns the log of a visit into trials. The order of arrival does not matter; time and id decide. The tablet folds the same
/// (client/src/capture/fold.ts); the tapes of tests/tapes hold both to it.
/// </summary>
public static class TrialFold
{
    /// <summary>
    /// A tap comes a little early or late; a hold this much short still counts as held.
    /// Common practice (hand timing by stopwatch differs by a few tenths of a second).
    /// </summary>
    public const double HoldTolerance = 0.5;

    /// <summary>A value of pain that was put right within this time, with nothing else logged between, was a slip of the finger. Our own.</summary>
    public static readonly TimeSpan SlipTime = TimeSpan.FromSeconds(2);

    /// <summary>
    /// Seconds after which a hold is not one: the tablet's clock was set meanwhile, and nothing is known of it. Six times the
    /// longest that can be asked (600 s). Our own.
    /// </summary>
    public const double HoldMost = 3600;

    /// <param name="painAtStart">Pain when the visit began, 0 to 10: what is compared with where nothing was asked at an exercise's first set; none if not known.</param>
    /// <returns>Trials in order of their start, without discarded ones and those of rungs the library does not have.</returns>
    public static IReadOnlyList<Trial> Trials(
        IEnumerable<CaptureEvent> log,
        PracticeLibrary library,
        PainRule pain,
        int? painAtStart = null
    )
    {
        var events = Effective(log);
        var byTrial = events.ToLookup(e => e.TrialId);
        var started = events
            .OfType<TrialStarted>()
            .Where(e => library.FindRung(e.RungId) is not null)
            .Select(start => (Start: start, Own: WithoutSlips([.. byTrial[start.TrialId]])))
            .Where(trial => !trial.Own.Any(e => e is TrialDiscarded))
            .ToList();
        var asked = new Dictionary<string, int?>();
        foreach (var (start, own) in started)
        {
            asked.TryAdd(Exercise(start), BeforeIn(own));
        }
        return
        [
            .. started.Select(trial =>
            {
                var first = asked[Exercise(trial.Start)];
                var state = new Running(
                    trial.Start,
                    pain,
                    first ?? painAtStart,
                    first is not null,
                    trial.Own.Exists(e => e.At < trial.Start.At)
                );
                trial.Own.ForEach(state.Apply);
                return state.Finish(library);
            }),
        ];
    }

    /// <summary>What pain before is asked for once: an exercise of the session, a task of the screen.</summary>
    private static string Exercise(TrialStarted start) =>
        start.PlanItemId?.ToString() ?? start.TaskId ?? start.RungId;

    private static int? BeforeIn(List<CaptureEvent> own) =>
        own.OfType<PainMarked>().LastOrDefault(mark => mark.Phase == PainPhase.Before)?.Value;

    /// <summary>
    /// Without marks of pain that were put right downward within <see cref="SlipTime"/> with nothing else logged between. A
    /// higher value that stood longer was felt, and stays.
    /// </summary>
    private static List<CaptureEvent> WithoutSlips(List<CaptureEvent> own)
    {
        bool Slipped(int i)
        {
            if (own[i] is not PainMarked mark)
            {
                return false;
            }
            for (var j = i + 1; j < own.Count; j++)
            {
                if (own[j] is not PainMarked next || next.Phase != mark.Phase || next.At - mark.At > SlipTime)
                {
                    return false;
                }
                if (next.Value < mark.Value)
                {
                    return true;
                }
            }
            return false;
        }
        return [.. own.Where((_, i) => !Slipped(i))];
    }

    /// <summary>
    /// Events that stand: each id once, in order of time, without what was undone. At the same instant a fault comes before
    /// the rep it was seen in: a clean rep and a breaking fault together are a broken rep.
    /// </summary>
    public static IReadOnlyList<CaptureEvent> Effective(IEnumerable<CaptureEvent> log)
    {
        var seen = new HashSet<Guid>();
        var ordered = log.Where(e => seen.Add(e.Id)).ToList();
        ordered.Sort(InOrder);
        var undone = new HashSet<Guid>();
        // Latest first: an undo that was itself undone no longer takes anything back.
        for (var i = ordered.Count - 1; i >= 0; i--)
        {
            if (ordered[i] is Undone undo && !undone.Contains(undo.Id))
            {
                undone.Add(undo.Undoes);
            }
        }
        ordered.RemoveAll(e => e is Undone || undone.Contains(e.Id));
        return ordered;
    }

    private static int InOrder(CaptureEvent a, CaptureEvent b)
    {
        var order = a.At.UtcTicks.CompareTo(b.At.UtcTicks);
        order = order != 0 ? order : Rank(a).CompareTo(Rank(b));
        return order != 0 ? order : a.Id.CompareTo(b.Id);
    }

    private static int Rank(CaptureEvent e) =>
        e switch
        {
            TrialStarted => 0,
            RepDone or MeasureTaken => 2,
            TrialEnded => 3,
            Undone => 4,
            _ => 1,
        };

    /// <summary>The trial while its events are read in order.</summary>
    /// <param name="before">Pain that later values are compared with; none if nothing is known.</param>
    /// <param name="beforeAsked">It was asked at the exercise's first set.</param>
    /// <param name="orderLost">Something of the trial is older than its start: the clock was set back in the middle, and nobody knows what came before what.</param>
    private sealed class Running(
        TrialStarted start,
        PainRule pain,
        int? before,
        bool beforeAsked,
        bool orderLost
    )
    {
        private readonly Dose target = start.Target;
        private readonly List<RawRep> reps = [];
        private readonly List<Instrument> instruments = [];
        private readonly List<MeasuredPhoto> photos = [];
        private Side side = start.Side;
        private Side? askedSide = start.AskedSide;
        private Reach? reach = start.Share is { } share ? new Reach(share, null) : null;
        private bool paused;
        private readonly List<(FaultMarked Event, int Rep, double? Second, bool AfterCue)> marks = [];
        private DateTimeOffset? holdSince;
        private DateTimeOffset? endedAt;
        private EndReason? reason;
        private int? peak;
        private int? after;
        private int? last;
        private bool overLimit;
        private string? felt;
        private int? effort;
        private bool cueGiven;
        private bool? cueWorked;
        private string? cue;
        private Worry? worry;
        private Side? worrySide;
        private readonly List<string> amended = [];
        private Guid lastId = start.Id;

        private readonly record struct RawRep(
            int Number,
            double Held,
            DateTimeOffset At,
            bool Cued,
            bool Painful,
            double? Amount,
            Reach? Reach,
            Instrument? SeenBy
        );

        private int RepInProgress => reps.Count + 1;

        public void Apply(CaptureEvent told)
        {
            // Ids are made in order: what was told last is taken back first, also where it tells of a moment before.
            lastId = told.Id.CompareTo(lastId) > 0 || lastId == start.Id ? told.Id : lastId;
            switch (told)
            {
                case HoldStarted e:
                    holdSince = e.At;
                    paused = false;
                    break;
                case RepDone e:
                    AddRep(e.At, null, e.Instrument);
                    break;
                case MeasureTaken e:
                    AddRep(e.At, e.Amount, e.Instrument);
                    break;
                case RangeReached e:
                    reach = new Reach(e.Share, e.Degrees);
                    break;
                case InstrumentUsed e:
                    instruments.Add(e.Instrument);
                    break;
                case PhotoMeasured e:
                    photos.Add(new(e.Id, e.Photo, PhotoAngles.Of(e.Photo)));
                    break;
                case TrialPaused:
                    holdSince = null;
                    paused = true;
                    break;
                case TrialResumed:
                    paused = false;
                    break;
                case SideCorrected e:
                    side = e.Side;
                    askedSide = null;
                    break;
                case FaultMarked e:
                    double? second = holdSince is { } holding ? Seconds(holding, e.At) : null;
                    // Marked after the last rep was counted and the trial ended: it belongs to that rep.
                    marks.Add(
                        (e, endedAt is null ? RepInProgress : Math.Max(1, reps.Count), second, cueGiven)
                    );
                    break;
                case CueGiven e:
                    cueGiven = true;
                    cue = e.Cue ?? cue;
                    break;
                case CueAnswered e:
                    cueWorked = e.Worked;
                    break;
                case PainMarked e:
                    ApplyPain(e);
                    break;
                case FeltMarked e:
                    felt = e.Place;
                    break;
                case EffortMarked e:
                    effort = e.Value;
                    break;
                case WorryTold e:
                    worry = e.Worry;
                    worrySide = e.Side;
                    break;
                case TrialAmended e:
                    amended.Add(e.Reason);
                    break;
                case TrialEnded e:
                    endedAt = e.At;
                    reason = e.Reason;
                    break;
            }
        }

        private void AddRep(DateTimeOffset at, double? amount, Instrument? seenBy)
        {
            var held = holdSince is { } since ? Seconds(since, at) : 0;
            reps.Add(new(RepInProgress, held, at, cueGiven, overLimit, amount, reach, seenBy));
            holdSince = null;
            paused = false;
        }

        private static double Seconds(DateTimeOffset since, DateTimeOffset at) =>
            (at - since).TotalSeconds is var seconds && seconds <= HoldMost ? seconds : 0;

        private void ApplyPain(PainMarked e)
        {
            if (e.Phase == PainPhase.Before)
            {
                return;
            }
            last = e.Value;
            if (e.Phase == PainPhase.Peak)
            {
                peak = Math.Max(peak ?? 0, e.Value);
            }
            else
            {
                after = e.Value;
            }
            overLimit |= pain.Exceeded(before, e.Value);
        }

        public Trial Finish(PracticeLibrary library)
        {
            var total = reps.Count;
            var judged = marks.Select(mark => Judge(mark, library, total)).ToList();
            var done = reps.Select(rep => ToRep(rep, judged, library)).ToList();
            var unfinished = judged.Where(mark => mark.Rep > total).ToList();
            return new Trial(
                start.TrialId,
                start.RungId,
                side,
                start.Purpose,
                start.PlanItemId,
                start.Set ?? 1,
                target,
                start.At,
                endedAt,
                reason,
                done,
                judged,
                CleanOf(done, unfinished, library.FindTask(start.TaskId)),
                total,
                reps.Sum(rep => rep.Held),
                before,
                peak,
                after,
                overLimit,
                felt,
                effort,
                cueGiven,
                cueWorked,
                endedAt is null ? holdSince : null,
                lastId,
                start.TaskId,
                start.Variant,
                start.Load ?? target.Load,
                start.LegLength,
                [.. instruments.Distinct().Order()],
                paused && endedAt is null,
                start.By,
                start.Eased,
                askedSide,
                photos.Count > 0 ? photos : null,
                beforeAsked,
                last,
                TremorShare(done, judged, library),
                start.Probe == true,
                worry,
                worrySide,
                cue,
                amended.Count > 0 ? amended : null
            );
        }

        /// <summary>Share of the set in which it trembled: of one long hold from the second it was marked, else of its reps.</summary>
        private static double TremorShare(List<Rep> done, List<FaultMark> judged, PracticeLibrary library)
        {
            var tremor = judged.Where(mark => library.Means(mark.Fault, FaultMeaning.Tremor)).ToList();
            if (tremor.Count == 0)
            {
                return 0;
            }
            double Of(Rep rep) =>
                tremor
                    .Where(mark => mark.ShowsIn(rep.Number))
                    .Select(mark =>
                        done.Count == 1 && mark.Second is { } second && rep.Held > 0
                            ? Math.Clamp(1 - second / rep.Held, 0, 1)
                            : 1
                    )
                    .DefaultIfEmpty(0)
                    .Max();
            return done.Count == 0 ? 1 : done.Average(Of);
        }

        /// <summary>
        /// Kind first; a quality fault seen at least twice and in more than half of the reps breaks those reps.
        /// </summary>
        private FaultMark Judge(
            (FaultMarked Event, int Rep, double? Second, bool AfterCue) mark,
            PracticeLibrary library,
            int total
        )
        {
            var fault = library.FindFault(mark.Event.Fault);
            var own = marks.Where(m => m.Event.Fault == mark.Event.Fault).ToList();
            var seenIn = Enumerable
                .Range(1, Math.Max(total, mark.Rep))
                .Count(rep => own.Any(m => m.Rep == rep || (m.Event.Persists == true && m.Rep < rep)));
            var inMost = seenIn >= 2 && seenIn * 2 > total;
            var kind = fault is null ? FaultKind.Information : library.Rung(start.RungId).KindOf(fault);
            var breaks = kind switch
            {
                FaultKind.Breaking => true,
                FaultKind.Quality => inMost,
                _ => false,
            };
            return new FaultMark(
                mark.Event.Id,
                mark.Event.Fault,
                mark.Rep,
                mark.Second,
                breaks,
                mark.Event.Persists == true,
                mark.AfterCue,
                mark.Event.Instrument
            );
        }

        private Rep ToRep(RawRep rep, List<FaultMark> judged, PracticeLibrary library)
        {
            IReadOnlyList<FaultMark> own =
                judged.Count == 0 ? [] : [.. judged.Where(mark => mark.ShowsIn(rep.Number))];
            IReadOnlyList<FaultMark> broken = own.Count == 0 ? [] : [.. own.Where(mark => mark.Breaks)];
            var spoiled = own.Any(mark => library.FindFault(mark.Fault)?.SpoilsRep == true);
            // A hold started anew within the rep is counted from its last start; a mark of the first try cannot outlast it.
            var cleanHeld =
                broken.Count == 0
                    ? rep.Held
                    : Math.Min(rep.Held, broken.Min(mark => mark.Rep == rep.Number ? mark.Second ?? 0 : 0));
            var heldEnough = target.Hold <= 0 || cleanHeld >= target.Hold - HoldTolerance;
            // A fault or pain of the first rep may stand behind the last: none is known to be clean.
            var unsure = rep.Painful || orderLost;
            var clean = broken.Count == 0 && !spoiled && !unsure && heldEnough;
            return new Rep(
                rep.Number,
                rep.Held,
                unsure ? 0 : cleanHeld,
                clean,
                rep.Cued,
                rep.At,
                rep.Amount,
                rep.Reach,
                rep.SeenBy
            );
        }

        private Clean CleanOf(List<Rep> done, List<FaultMark> unfinished, ScreenTask? task)
        {
            var uncued = done.Where(rep => !rep.Cued).ToList();
            var clean = uncued.Where(rep => rep.Clean).ToList();
            // A hold that broke and was never counted as a rep still had its clean seconds.
            var tail =
                cueGiven || overLimit || orderLost
                    ? 0
                    : unfinished.Where(m => m.Breaks).Select(m => m.Second ?? 0).DefaultIfEmpty(0).Min();
            var longest = Math.Max(tail, uncued.Select(rep => rep.CleanHeld).DefaultIfEmpty(0).Max());
            var farthest = clean.Aggregate((Reach?)null, (far, rep) => Reach.Larger(far, rep.Reach));
            var amount = AmountOf(task, uncued, clean);
            return new Clean(
                clean.Count,
                done.Count(rep => rep.Clean && rep.Cued),
                uncued.Sum(rep => rep.CleanHeld) + tail,
                Math.Clamp(Fraction(task, uncued, tail, longest, farthest, amount), 0, 1),
                longest,
                farthest,
                amount
            );
        }

        /// <summary>
        /// Of reaches the largest clean one. A yes or no told again replaces the first, and is no when a fault broke it;
        /// so does effort, which is the client's own word, whatever was seen.
        /// </summary>
        private static double? AmountOf(ScreenTask? task, List<Rep> uncued, List<Rep> clean) =>
            task?.Measure switch
            {
                MeasureKind.Effort => uncued.LastOrDefault()?.Amount,
                MeasureKind.YesNo => uncued.LastOrDefault() is { Clean: true } last ? last.Amount : null,
                _ => clean.Max(rep => rep.Amount),
            };

        /// <summary>Clean over asked, of whatever the task is measured in.</summary>
        private double Fraction(
            ScreenTask? task,
            List<Rep> uncued,
            double tail,
            double longest,
            Reach? farthest,
            double? amount
        ) =>
            task switch
            {
                { Measure: MeasureKind.Degrees, Full: { } full } => (farthest?.Degrees ?? 0) / full,
                { Measure: MeasureKind.YesNo } => amount ?? 0,
                { Measure: MeasureKind.Effort, Full: { } full } => amount is { } effort
                    ? 1 - effort / full
                    : 0,
                { Measure: MeasureKind.Seconds } when target.Hold > 0 => longest / target.Hold,
                _ when target.Hold > 0 => CappedSeconds(uncued, tail) / (target.Reps * target.Hold),
                _ => (double)uncued.Count(rep => rep.Clean) / target.Reps,
            };

        /// <summary>Holding one rep long does not make up for a rep not done: each counts to its target at most.</summary>
        private double CappedSeconds(List<Rep> uncued, double tail) =>
            uncued.Sum(rep => Math.Min(rep.CleanHeld + (rep.Clean ? HoldTolerance : 0), target.Hold))
            + Math.Min(tail, target.Hold);
    }
}
