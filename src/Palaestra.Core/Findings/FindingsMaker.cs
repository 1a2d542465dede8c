using Palaestra.Core.Abilities;
using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Findings;

/// <summary>From the trials of a screen to what they say.</summary>
public static class FindingsMaker
{
    /// <summary>A fault seen only in the second half of the target is fading, not failing. Common practice.</summary>
    public const double FadesAfter = 0.5;

    /// <param name="person">Whom to compare with studied groups; none: nobody is compared.</param>
    /// <param name="missing">Equipment that was not at hand in this screen.</param>
    /// <param name="others">Trials of other visits, sessions included: abilities rest on them too. None: abilities are not asked for.</param>
    public static ScreenFindings Of(
        IReadOnlyList<Trial> trials,
        ClientProfile profile,
        Policy policy,
        PracticeLibrary library,
        Person? person = null,
        IReadOnlyList<string>? missing = null,
        IEnumerable<Trial>? others = null
    )
    {
        var screen = trials
            .Where(t => t is { Open: false, Purpose: TrialPurpose.Screen })
            .OrderBy(t => t.StartedAt)
            .ToList();
        var entries = library
            .MeasuredLadders.Where(ladder =>
                ladder.Screened
                || screen.Any(t => RungFinder.Climbs(t, library) && ladder.IndexOf(t.RungId) >= 0)
            )
            .SelectMany(ladder =>
                new[] { Side.Left, Side.Right }.Select(side =>
                    RungFinder.Search(ladder, side, screen, profile, policy, library, missing)
                )
            )
            .ToList();
        var tasks = TaskScores.Of(screen, policy, person ?? Person.Unknown, library);
        var control = ControlEstimate.Of(screen, entries, profile, library);
        var climbed = entries.Where(e => e.TrialIds.Count > 0).Select(e => e.LadderId).ToHashSet();
        var fed = TaskFeeds.Of(screen, climbed, library);
        entries =
        [
            .. entries.Where(e => !fed.Any(f => f.LadderId == e.LadderId && f.Side == e.Side)),
            .. fed,
        ];
        var weak = WeakestOf(control, tasks, screen, library);
        return new ScreenFindings(
            SentenceOf(screen, weak, tasks, library),
            tasks,
            GaveWayIn(screen, library),
            entries,
            control,
            weak,
            screen.Count,
            screen.Count(t => t.CueGiven),
            NormBands.Ratios(tasks, person ?? Person.Unknown, library),
            others is null ? null : AbilityFindings.Of([.. others, .. trials], entries, library)
        );
    }

    private static List<GaveWay> GaveWayIn(List<Trial> screen, PracticeLibrary library) =>
        [
            .. from trial in screen
            let mark = trial.FirstBreak
            where mark is not null
            let fault = library.FindFault(mark.Fault)
            select new GaveWay(
                trial.Id,
                trial.RungId,
                trial.Side,
                mark.Fault,
                mark.Rep,
                mark.Second,
                Words(mark, trial.Side)
            ),
        ];

    private static Message Words(FaultMark mark, Side side) =>
        Message.Of(
            "seen.fault",
            ("fault", mark.Fault),
            ("second", mark.Second),
            ("rep", mark.Rep),
            ("side", side)
        );

    /// <summary>
    /// The lowest direction with evidence and below full; within five points the one with the larger side difference.
    /// </summary>
    private static WeakLink? WeakestOf(
        IReadOnlyList<SectorControl> control,
        IReadOnlyList<TaskFinding> tasks,
        List<Trial> screen,
        PracticeLibrary library
    )
    {
        const double tiePoints = 5; // common practice: closer than a repeat of the same screen would be
        var seen = control
            .Where(c => c is { Percent: < 100, Trials.Count: > 0 })
            .OrderBy(c => c.Percent)
            .ToList();
        if (seen.Count == 0)
        {
            return null;
        }
        var pick = seen.Where(c => c.Percent <= seen[0].Percent + tiePoints)
            .OrderByDescending(c => SideGap(c, control))
            .ThenBy(c => c.Percent)
            .First();
        var type = TypeOf(pick, screen, library);
        return new WeakLink(
            pick.Sector,
            pick.Percent!.Value,
            type,
            library.Words(pick.Sector).Yields,
            TypeWords(type)
        );
    }

    private static double SideGap(SectorControl control, IReadOnlyList<SectorControl> all)
    {
        var other = all.First(c => c.Sector == control.Sector.Mirror());
        return Math.Abs((control.Percent ?? 0) - (other.Percent ?? control.Percent ?? 0));
    }

    private static WeakType? TypeOf(SectorControl weak, List<Trial> screen, PracticeLibrary library)
    {
        var broken = screen
            .Where(t => weak.Trials.Contains(t.Id))
            .Where(t =>
                t.Marks.Any(m =>
                    m.Breaks
                    && t.PointsAt(m, library) is var at
                    && (at.Count == 0 || at.Contains(weak.Sector))
                )
            )
            .ToList();
        if (broken.Count == 0)
        {
            return null;
        }
        // What gives way in pain may hold without it: that goes before what a cue did.
        if (broken.Count(t => t.Hurt) * 2 > broken.Count)
        {
            return WeakType.PainLimited;
        }
        if (broken.Any(t => t is { CueGiven: true, CueWorked: true }))
        {
            return WeakType.Awareness;
        }
        var fading = broken.Count(Fades);
        return fading * 2 > broken.Count ? WeakType.Endurance : WeakType.Capacity;
    }

    /// <summary>It broke in the second half of what was asked: of the reps, or of the seconds where one hold is all.</summary>
    private static bool Fades(Trial trial) =>
        trial.FirstBreak is { } mark
        && (
            trial.Target is { Reps: 1, Hold: > 0 and var hold }
                ? mark.Second > hold * FadesAfter
                : mark.Rep > trial.Target.Reps * FadesAfter
        );

    private static Message? TypeWords(WeakType? type) =>
        type switch
        {
            WeakType.Awareness => Message.Of("type.awareness"),
            WeakType.Endurance => Message.Of("type.endurance"),
            WeakType.Capacity => Message.Of("type.capacity"),
            WeakType.PainLimited => Message.Of("type.pain"),
            _ => null,
        };

    private static Message SentenceOf(
        List<Trial> screen,
        WeakLink? weak,
        IReadOnlyList<TaskFinding> tasks,
        PracticeLibrary library
    )
    {
        if (screen.Count == 0)
        {
            return Message.Of("findings.nothing");
        }
        var hurt = screen.Where(TaskFeeds.PainLimited).Select(t => NameOf(t, library)).Distinct().ToList();
        if (weak is null)
        {
            var short_ = screen
                .Where(t => t.Clean.Fraction < 1 && !TaskFeeds.PainLimited(t))
                .Where(t =>
                    library.FindTask(t.TaskId)
                        is not { Measure: MeasureKind.Effort or MeasureKind.Centimetres }
                )
                .Select(t => NameOf(t, library))
                .Distinct()
                .ToList();
            var less = RangeLess(screen, library);
            return short_.Count + less.Count + hurt.Count == 0
                ? Message.Of("findings.all")
                : Message.Of(
                    "findings.none-weak",
                    ("not_held", short_.Count > 0 ? short_ : null),
                    ("less", less.Count > 0 ? less : null),
                    ("hurt", hurt.Count > 0 ? hurt : null)
                );
        }
        var uneven = tasks
            .Where(t => t.Weaker is not null)
            .OrderByDescending(t => t.DifferencePercent)
            .FirstOrDefault();
        return Message.Of(
            "findings.weak",
            ("weak", weak.Words),
            ("sides", uneven is null ? null : SidesOf(uneven)),
            ("hurt", hurt.Count > 0 ? hurt : null)
        );
    }

    /// <summary>"Left: 2 of 5 clean, right: 5 of 5 (opposite arm and leg)."</summary>
    private static Message SidesOf(TaskFinding task)
    {
        Message Of(SideScore score) =>
            Message.Of(
                "score",
                ("measure", task.Measure),
                ("value", score.Value),
                ("clean", score.CleanReps),
                ("reps", score.Reps)
            );
        return Message.Of(
            "findings.sides",
            ("left", Of(task.Left!)),
            ("right", Of(task.Right!)),
            ("task", task.Name)
        );
    }

    private static Message NameOf(Trial trial, PracticeLibrary library)
    {
        var climbed = RungFinder.Climbs(trial, library) || library.FindTask(trial.TaskId) is null;
        return Message.Of(
            "findings.trial",
            ("task", climbed ? null : trial.TaskId),
            ("rung", trial.RungId),
            ("side", trial.Side)
        );
    }

    private static List<Message> RangeLess(List<Trial> screen, PracticeLibrary library) =>
        [
            .. screen
                .Where(t => RungFinder.Climbs(t, library) && VerdictOf(t, library) == Verdict.Short)
                .Select(t =>
                    Message.Of(
                        "findings.range",
                        ("trial", NameOf(t, library)),
                        ("share", RangeOf(t, library))
                    )
                )
                .Distinct(),
        ];

    private static Verdict VerdictOf(Trial trial, PracticeLibrary library)
    {
        var rung = library.Rung(trial.RungId);
        return RungFinder.VerdictOf(trial, rung, library.FullDegrees(rung));
    }

    private static double RangeOf(Trial trial, PracticeLibrary library)
    {
        var rung = library.Rung(trial.RungId);
        return RungFinder.RangeOf(trial, rung, library.FullDegrees(rung));
    }
}
