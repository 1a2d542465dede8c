using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>Where the neutral a trace is read against comes from.</summary>
public enum NeutralFrom
{
    /// <summary>Taken before the trial, and kept with the trace.</summary>
    Taken,

    /// <summary>The first three quiet seconds of the trace itself.</summary>
    Found,

    /// <summary>There are no three quiet seconds: nothing can be judged.</summary>
    None,
}

/// <summary>A loss as it may be marked.</summary>
/// <param name="Fault">Code of the fault it points to.</param>
/// <param name="Onset">Seconds from the start of the trace, as <paramref name="End"/>; no end: it lasts to the end.</param>
public sealed record SeenLoss(
    SignalChannel Channel,
    string Fault,
    double Onset,
    double? End,
    double Excursion
);

/// <summary>A rep as it may be counted.</summary>
/// <param name="Rushed">Done in less than half the asked time; false where no time is asked.</param>
public sealed record PacedRep(SeenRep Rep, bool Rushed);

/// <summary>What a trace shows after the fact: the same as live.</summary>
/// <param name="Analysis">None without a neutral.</param>
/// <param name="Levels">Of channels that are set to a level, such as a cuff's pressure.</param>
public sealed record TraceReading(
    NeutralFrom NeutralFrom,
    Neutral? Neutral,
    SignalAnalysis? Analysis,
    IReadOnlyList<SeenLoss> Losses,
    IReadOnlyList<PacedRep> Reps,
    IReadOnlyList<SetLevels> Levels
)
{
    /// <param name="setup">Of the trace's instrument; its rate is the trace's.</param>
    /// <param name="askedSeconds">A rep is to take; 0: it may take any time.</param>
    public static TraceReading Of(Trace trace, InstrumentSetup setup, double askedSeconds)
    {
        setup = setup with { Rate = trace.Rate };
        var neutral = trace.Neutral ?? Neutral.FirstIn(trace.Samples, setup);
        var from =
            trace.Neutral is not null ? NeutralFrom.Taken
            : neutral is not null ? NeutralFrom.Found
            : NeutralFrom.None;
        var analysis = neutral is null ? null : SignalAnalyser.Of(trace.Samples, setup, neutral);
        return new(
            from,
            neutral,
            analysis,
            [.. (analysis?.Losses ?? []).Select(loss => LossOf(loss, setup))],
            [.. (analysis?.Reps ?? []).Select(rep => new PacedRep(rep, rep.Rushed(askedSeconds)))],
            [
                .. Enumerable
                    .Range(0, setup.Channels.Count)
                    .Select(i => SetLevels.Of(trace, setup, i))
                    .OfType<SetLevels>(),
            ]
        );
    }

    private static SeenLoss LossOf(Loss loss, InstrumentSetup setup) =>
        new(
            loss.Channel,
            loss.FaultOf(setup.Channels.First(c => c.Channel == loss.Channel)),
            loss.Onset,
            loss.End,
            loss.Excursion
        );
}
