namespace Palaestra.Core.Signals;

/// <summary>A stretch of a device's samples, with what is needed to read it again.</summary>
/// <param name="Instrument">What it is, by the ids of content/instruments.json.</param>
/// <param name="Rate">Samples a second, Hz.</param>
/// <param name="StartedAt">Moment of the first sample, by the clock the trial was told in.</param>
/// <param name="Samples">One array per moment in the order of the instrument's channels; a missing sample is not a number.</param>
/// <param name="Neutral">The calibration, where one was taken.</param>
public sealed record Trace(
    string Instrument,
    double Rate,
    DateTimeOffset StartedAt,
    IReadOnlyList<double[]> Samples,
    Neutral? Neutral
)
{
    /// <summary>
    /// The finest step that is kept, in every channel's unit; what comes in is rounded to it at once, so that a stored trace
    /// says to the last digit what the live one said. Far below the noise of any such instrument.
    /// </summary>
    public const double Resolution = 0.001;

    /// <summary>Hz. Below, what is slower than the smoother's cut-off is not told apart from what is faster.</summary>
    public const double LeastRate = 25;

    /// <inheritdoc cref="LeastRate"/>
    public const double MostRate = 1000;

    /// <summary>Moments in one trace: an hour and a half at 100 Hz with room to spare. Our own choice.</summary>
    public const int MostSamples = 600_000;

    /// <summary>Farther than any channel can be, in its unit: a column that was taken for another.</summary>
    public const double MostValue = 1000;

    /// <summary>Seconds.</summary>
    public double Seconds => Samples.Count / Rate;

    /// <summary>As traces are stored: in steps of <see cref="Resolution"/>; what is no number becomes NaN.</summary>
    public static double Rounded(double value) =>
        double.IsFinite(value) ? Math.Round(value / Resolution) * Resolution : double.NaN;
}
