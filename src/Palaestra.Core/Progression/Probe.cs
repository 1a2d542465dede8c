using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>One set one up, as it was tried at the end of an exercise.</summary>
/// <param name="Visit">Ordinal of the visit, <paramref name="On"/> that day.</param>
/// <param name="RungId">What was tried: a higher rung, or the same in a harder setting, at <paramref name="Dose"/>, of one set.</param>
public sealed record ProbeDone(
    Guid PlanItemId,
    Side Side,
    int Visit,
    DateOnly On,
    string RungId,
    Dose Dose,
    SetDone Set
);

/// <summary>One set one up that may be tried today, at the end of this exercise and warm.</summary>
/// <param name="RungId">The next rung, or the same where range, height, load or band grow.</param>
/// <param name="Dose">One set. <paramref name="Evidence"/>: why it is ready.</param>
public sealed record ProbeOffer(string RungId, Dose Dose, IReadOnlyList<string> Evidence);
