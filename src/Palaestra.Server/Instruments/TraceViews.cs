using Palaestra.Core.Capture;
using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Data.Traces;
using Palaestra.Exchange.Instruments;

namespace Palaestra.Server.Instruments;

/// <summary>A trace that is kept with a trial.</summary>
/// <param name="Damaged">Its file is gone or is not what was written: it can only be taken away.</param>
public sealed record TraceEntry(
    Guid Id,
    Guid TrialId,
    Instrument Instrument,
    TraceSource Source,
    double Rate,
    double Seconds,
    DateTimeOffset StartedAt,
    string By
)
{
    public static TraceEntry Of(StoredTrace row) =>
        new(
            row.Id,
            row.TrialId,
            row.Instrument,
            row.Source,
            row.Rate,
            row.Samples / row.Rate,
            row.StartedAt,
            row.By
        );
}

/// <summary>A trace read after the fact, with its trial and, where there is one, the trace of the other side.</summary>
/// <param name="AskedSeconds">A rep was to take; 0: any time.</param>
/// <param name="Shapes">Of the stretch that was asked for, from <paramref name="From"/> on for <paramref name="Shown"/> seconds.</param>
/// <param name="Sides">Empty without a trace of the other side.</param>
public sealed record TraceView(
    TraceEntry Trace,
    InstrumentSetup Setup,
    Trial Trial,
    double AskedSeconds,
    TraceReading Reading,
    double From,
    double Shown,
    IReadOnlyList<TraceShape> Shapes,
    Guid? OtherSide,
    IReadOnlyList<SideMeasure> Sides
);

/// <param name="Device">Name of the device that was watched.</param>
/// <param name="Now">The tablet's clock, by which the trial was told.</param>
public sealed record KeepTraceForm(string Device, DateTimeOffset Now);

/// <param name="Csv">The text of the file.</param>
/// <param name="Mapping">None: the file says it all itself.</param>
public sealed record TraceFileForm(TraceText Csv, TraceMapping? Mapping = null)
{
    /// <summary>Bytes: an hour of a tilt sensor as text takes about 12 MB.</summary>
    public const int Most = 40_000_000;

    /// <summary>How the framework reads it from a request.</summary>
    public static async ValueTask<TraceFileForm?> BindAsync(HttpContext context) =>
        await WholeBody.Read<TraceFileForm>(context, Most);
}

/// <param name="Csv">The file, or its first lines.</param>
public sealed record TraceHeadForm(TraceText Csv);
