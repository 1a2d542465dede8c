using Palaestra.Core.Library;

namespace Palaestra.Exchange.Instruments;

/// <summary>In what a column is told. The program's own units are mmHg, degrees and seconds.</summary>
public enum TraceUnit
{
    Seconds,
    Milliseconds,
    MillimetresOfMercury,
    Kilopascal,
    Hectopascal,
    CentimetresOfWater,
    Degrees,
    Radians,
}

public static class TraceUnits
{
    /// <summary>
    /// One of the unit in the program's own. 1 mmHg = 133.322 Pa, 1 cmH2O = 98.0665 Pa: NIST Special Publication 811,
    /// appendix B (from memory).
    /// </summary>
    public static double Factor(this TraceUnit unit) =>
        unit switch
        {
            TraceUnit.Milliseconds => 0.001,
            TraceUnit.Kilopascal => 1000 / 133.322,
            TraceUnit.Hectopascal => 100 / 133.322,
            TraceUnit.CentimetresOfWater => 98.0665 / 133.322,
            TraceUnit.Radians => 180 / Math.PI,
            _ => 1,
        };

    public static bool IsTime(this TraceUnit unit) => unit is TraceUnit.Seconds or TraceUnit.Milliseconds;

    public static bool IsAngle(this TraceUnit unit) => unit is TraceUnit.Degrees or TraceUnit.Radians;

    public static bool Fits(this TraceUnit unit, SignalChannel channel) =>
        channel == SignalChannel.Pressure ? !unit.IsTime() && !unit.IsAngle() : unit.IsAngle();

    public static TraceUnit Own(SignalChannel channel) =>
        channel == SignalChannel.Pressure ? TraceUnit.MillimetresOfMercury : TraceUnit.Degrees;
}

/// <summary>Which column holds a channel.</summary>
/// <param name="Turned">Its sign is the other way about than ours.</param>
public sealed record ChannelColumn(SignalChannel Channel, string Column, TraceUnit Unit, bool Turned = false);

/// <summary>How a file of another source is read.</summary>
/// <param name="Instrument">What it is, by the ids of content/instruments.json.</param>
/// <param name="TimeColumn">None: the rows follow each other at <paramref name="Rate"/>.</param>
/// <param name="Rate">Hz; none: worked out from the times.</param>
/// <param name="LeaveOutWrong">A row that cannot be read becomes a gap instead of an error.</param>
public sealed record TraceMapping(
    string Instrument,
    string? TimeColumn,
    TraceUnit TimeUnit,
    double? Rate,
    IReadOnlyList<ChannelColumn> Channels,
    bool LeaveOutWrong = false
);
