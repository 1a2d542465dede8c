using System.Collections.Concurrent;
using Palaestra.Core.Capture;
using Palaestra.Core.Library;

namespace Palaestra.Server.Intake;

/// <summary>The taps of one visit as of today's library, and what they fold into.</summary>
/// <param name="clockOff">Trials with taps that came more than a day off their own time.</param>
public sealed class VisitTaps(
    IReadOnlyList<CaptureEvent> events,
    IReadOnlySet<Guid> clockOff,
    PracticeLibrary library
)
{
    private readonly Lazy<IReadOnlyList<CaptureEvent>> effective = new(() =>
        [.. TrialFold.Effective(events)]
    );
    private readonly ConcurrentDictionary<(PainRule, int?), IReadOnlyList<Trial>> trials = [];

    public IReadOnlyList<CaptureEvent> Events => events;

    /// <summary>Without what was undone.</summary>
    public IReadOnlyList<CaptureEvent> Effective => effective.Value;
    public IReadOnlySet<Guid> ClockOff => clockOff;

    /// <summary>Folded once for each rule of pain and each pain the visit began with.</summary>
    public IReadOnlyList<Trial> Trials(PainRule pain, int? painAtStart) =>
        trials.GetOrAdd((pain, painAtStart), key => TrialFold.Trials(events, library, key.Item1, key.Item2));
}
