using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Screening;

/// <summary>Turns the log of a visit into trials. The order of arrival does not matter; time and id decide.</summary>
public static class TrialFold
{
    /// <summary>
    /// A tap comes a little early or late; a hold this much short still counts as held.
    /// Common practice (hand timing by stopwatch differs by a few tenths of a second).
    /// </summary>
    public const double HoldTolerance = 0.5;

    public static IReadOnlyList<Trial> Trials(
        IEnumerable<CaptureEvent> log,
        PracticeLibrary library,
        PainRule pain
    )
    {
        var events = Effective(log);
        var byTrial = events.ToLookup(e => e.TrialId);
        return
        [
            .. from e in events
            where
                e.Kind == CaptureKind.TrialStarted
                && e.RungId is not null
                && library.FindRung(e.RungId) is not null
            let own = byTrial[e.TrialId].ToList()
            where own.All(other => other.Kind != CaptureKind.TrialDiscarded)
            select Fold(e, own, library, pain),
        ];
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
            var e = ordered[i];
            if (e.Kind == CaptureKind.Undone && !undone.Contains(e.Id) && e.Undoes is { } target)
            {
                undone.Add(target);
            }
        }
        ordered.RemoveAll(e => e.Kind == CaptureKind.Undone || undone.Contains(e.Id));
        return ordered;
    }

    private static int InOrder(CaptureEvent a, CaptureEvent b)
    {
        var order = a.At.UtcTicks.CompareTo(b.At.UtcTicks);
        order = order != 0 ? order : Rank(a).CompareTo(Rank(b));
        return order != 0 ? order : a.Id.CompareTo(b.Id);
    }

    private static int Rank(CaptureEvent e) =>
        e.Kind switch
        {
            CaptureKind.TrialStarted => 0,
            CaptureKind.RepDone or CaptureKind.MeasureTaken => 2,
            CaptureKind.TrialEnded => 3,
            CaptureKind.Undone => 4,
            _ => 1,
        };

    private static Trial Fold(
        CaptureEvent start,
        IReadOnlyList<CaptureEvent> events,
        PracticeLibrary library,
        PainRule pain
    )
    {
        var state = new Running(start, pain);
        foreach (var e in events)
        {
            state.Apply(e);
        }
        return state.Finish(library);
    }

    /// <summary>The trial while its events are read in order.</summary>
    private sealed class Running(CaptureEvent start, PainRule pain)
    {
        private readonly Dose target = start.Target ?? new Dose(1, 1, 0);
        private readonly List<RawRep> reps = [];
        private readonly List<Instrument> instruments = [];
        private readonly List<MeasuredPhoto> photos = [];
        private Side side = start.Side ?? Side.Both;
        private Reach? reach = start.Share is { } share ? new Reach(share, null) : null;
        private bool paused;
        private readonly List<(CaptureEvent Event, int Rep, double? Second, bool AfterCue)> marks = [];
        private DateTimeOffset? holdSince;
        private DateTimeOffset? endedAt;
        private EndReason? reason;
        private int? before;
        private int? peak;
        private int? after;
        private bool overLimit;
        private string? felt;
        private int? effort;
        private bool cueGiven;
        private bool? cueWorked;
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

        public void Apply(CaptureEvent e)
        {
            lastId = e.Id;
            switch (e.Kind)
            {
                case CaptureKind.HoldStarted:
                    holdSince = e.At;
                    paused = false;
                    break;
                case CaptureKind.RepDone or CaptureKind.MeasureTaken:
                    var held = holdSince is { } since ? (e.At - since).TotalSeconds : 0;
                    reps.Add(
                        new(RepInProgress, held, e.At, cueGiven, overLimit, e.Amount, reach, e.Instrument)
                    );
                    holdSince = null;
                    paused = false;
                    break;
                case CaptureKind.RangeReached:
                    reach = new Reach(e.Share, e.Degrees);
                    break;
                case CaptureKind.InstrumentUsed:
                    instruments.Add(e.Instrument ?? Instrument.Eye);
                    break;
                case CaptureKind.PhotoMeasured when e.Photo is { } photo:
                    photos.Add(new(e.Id, photo, PhotoAngles.Of(photo)));
                    break;
                case CaptureKind.TrialPaused:
                    holdSince = null;
                    paused = true;
                    break;
                case CaptureKind.TrialResumed:
                    paused = false;
                    break;
                case CaptureKind.SideCorrected:
                    side = e.Side ?? side;
                    break;
                case CaptureKind.FaultMarked:
                    double? second = holdSince is { } holding ? (e.At - holding).TotalSeconds : null;
                    // Marked after the last rep was counted and the trial ended: it belongs to that rep.
                    marks.Add(
                        (e, endedAt is null ? RepInProgress : Math.Max(1, reps.Count), second, cueGiven)
                    );
                    break;
                case CaptureKind.CueGiven:
                    cueGiven = true;
                    break;
                case CaptureKind.CueAnswered:
                    cueWorked = e.Worked;
                    break;
                case CaptureKind.PainMarked:
                    ApplyPain(e);
                    break;
                case CaptureKind.FeltMarked:
                    felt = e.Place;
                    break;
                case CaptureKind.EffortMarked:
                    effort = e.Value;
                    break;
                case CaptureKind.TrialEnded:
                    endedAt = e.At;
                    reason = e.Reason;
                    break;
            }
        }

        private void ApplyPain(CaptureEvent e)
        {
            var value = e.Value ?? 0;
            switch (e.Phase)
            {
                case PainPhase.Before:
                    before = value;
                    break;
                case PainPhase.Peak:
                    peak = Math.Max(peak ?? 0, value);
                    break;
                case PainPhase.After:
                    after = value;
                    break;
            }
            overLimit |= e.Phase != PainPhase.Before && pain.Exceeded(before, value);
        }

        public Trial Finish(PracticeLibrary library)
        {
            var total = reps.Count;
            var judged = marks.Select(mark => Judge(mark, library, total)).ToList();
            var done = reps.Select(rep => ToRep(rep, judged, library)).ToList();
            var unfinished = judged.Where(mark => mark.Rep > total).ToList();
            return new Trial(
                start.TrialId,
                start.RungId!,
                side,
                start.Purpose ?? TrialPurpose.Screen,
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
                start.Load,
                start.LegLength,
                [.. instruments.Distinct().Order()],
                paused && endedAt is null,
                start.By,
                start.Eased,
                start.AskedSide,
                photos.Count > 0 ? photos : null
            );
        }

        /// <summary>
        /// Kind first; a quality fault seen at least twice and in more than half of the reps breaks those reps.
        /// </summary>
        private FaultMark Judge(
            (CaptureEvent Event, int Rep, double? Second, bool AfterCue) mark,
            PracticeLibrary library,
            int total
        )
        {
            var fault = library.FindFault(mark.Event.Fault ?? "");
            var own = marks.Where(m => m.Event.Fault == mark.Event.Fault).ToList();
            var seenIn = Enumerable
                .Range(1, Math.Max(total, mark.Rep))
                .Count(rep => own.Any(m => m.Rep == rep || (m.Event.Persists == true && m.Rep < rep)));
            var inMost = seenIn >= 2 && seenIn * 2 > total;
            var kind = fault is null ? FaultKind.Information : library.Rung(start.RungId!).KindOf(fault);
            var breaks = kind switch
            {
                FaultKind.Breaking => true,
                FaultKind.Quality => inMost,
                _ => false,
            };
            return new FaultMark(
                mark.Event.Id,
                mark.Event.Fault ?? "",
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
            var clean = broken.Count == 0 && !spoiled && !rep.Painful && heldEnough;
            return new Rep(
                rep.Number,
                rep.Held,
                rep.Painful ? 0 : cleanHeld,
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
                cueGiven || overLimit
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
