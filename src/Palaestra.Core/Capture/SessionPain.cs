namespace Palaestra.Core.Capture;

/// <summary>Pain that moved further down a leg during a session.</summary>
/// <param name="Back">It was back within ten minutes; none: nobody asked, and it is taken to have stayed.</param>
/// <param name="PlanItemId">The exercise in which it moved; none if not known.</param>
public sealed record LegMoved(Side Side, bool? Back = null, Guid? PlanItemId = null);

/// <summary>Pain over one session.</summary>
/// <param name="Visit">Ordinal of the visit.</param>
/// <param name="Start">At check-in, 0 to 10. <paramref name="Peak"/>: the most in any set. <paramref name="End"/>: asked again at the end, or the last value told.</param>
/// <param name="EndMinutes">Minutes of rest or walking before <paramref name="End"/> was asked; none: it is the last value told.</param>
/// <param name="Legs">Where pain moved further down a leg.</param>
public sealed record SessionPain(
    int Visit,
    DateOnly Date,
    int? Start,
    int? Peak,
    int? End,
    double? EndMinutes = null,
    IReadOnlyList<LegMoved>? Legs = null
)
{
    /// <summary>The most in any set, and the end: asked again, with the minutes of rest before it, else the last value told.</summary>
    /// <param name="standing">Events that stand, in order. <paramref name="session"/>: the trials of the session.</param>
    internal static (int? Peak, int? End, double? Minutes) Told(
        IReadOnlyList<CaptureEvent> standing,
        IReadOnlyList<Trial> session
    )
    {
        var asked = standing.OfType<SessionPainAsked>().LastOrDefault();
        var last = session.OrderBy(t => t.StartedAt).LastOrDefault(t => t.PainLast is not null)?.PainLast;
        return (session.Max(t => t.PainMost), asked?.Value ?? last, asked?.Minutes);
    }

    /// <summary>From the events of a visit; none where nothing was done in a session.</summary>
    public static SessionPain? Of(
        int visit,
        DateOnly date,
        int? start,
        IReadOnlyList<CaptureEvent> log,
        IReadOnlyList<Trial> trials
    )
    {
        var session = trials.Where(t => t.Purpose == TrialPurpose.Session).ToList();
        if (session.Count == 0)
        {
            return null;
        }
        var events = TrialFold.Effective(log);
        var (peak, end, minutes) = Told(events, session);
        var answers = events.OfType<LegAsked>().ToList();
        return new SessionPain(
            visit,
            date,
            start,
            peak,
            end,
            minutes,
            [
                .. session
                    .Where(t => t.Worry == Worry.DownTheLeg)
                    .Select(t => (Trial: t, Side: t.WorrySide ?? t.Side))
                    .Select(t => new LegMoved(
                        t.Side,
                        BackAfter(t.Trial, t.Side, answers),
                        t.Trial.PlanItemId
                    )),
            ]
        );
    }

    /// <summary>
    /// Whether it went back where it was, by what was asked after that set; of two legs only where both did that were asked
    /// about. None: not asked since.
    /// </summary>
    private static bool? BackAfter(Trial trial, Side side, List<LegAsked> answers)
    {
        var legs = answers
            .Where(a => a.At >= (trial.EndedAt ?? trial.StartedAt) && (a.Side == side || side == Side.Both))
            .GroupBy(a => a.Side)
            .Select(leg => leg.Last().Back)
            .ToList();
        return legs.Count == 0 ? null : legs.TrueForAll(back => back);
    }
}
