namespace Palaestra.Core.Signals;

/// <summary>A filter of second order: y = b0·x + b1·x₁ + b2·x₂ − a1·y₁ − a2·y₂.</summary>
public readonly record struct Biquad(double B0, double B1, double B2, double A1, double A2)
{
    /// <summary>
    /// Two passes, one each way, attenuate twice: the pass is designed higher by this factor so that both together have the
    /// cut-off that was asked for; (2^(1/2) − 1)^(1/4) = 0.802.
    /// </summary>
    /// <remarks>Winter, Biomechanics and Motor Control of Human Movement, chapter on signal processing (from memory).</remarks>
    public static readonly double TwoPass = Math.Pow(Math.Sqrt(2) - 1, 0.25);

    /// <summary>Butterworth low-pass of one pass: −3 dB at the cut-off, by the bilinear transform with the frequency prewarped.</summary>
    /// <param name="cutoff">Hz, more than 0 and below half of <paramref name="rate"/>.</param>
    /// <exception cref="ArgumentOutOfRangeException">The cut-off is not between 0 and half the rate.</exception>
    public static Biquad LowPass(double cutoff, double rate)
    {
        if (!(cutoff > 0 && cutoff < rate / 2))
        {
            throw new ArgumentOutOfRangeException(
                nameof(cutoff),
                $"The cut-off must lie between 0 and {rate / 2} Hz."
            );
        }
        return Of(Math.Tan(Math.PI * cutoff / rate));
    }

    /// <summary>One of two passes that together have −3 dB at the cut-off.</summary>
    public static Biquad LowPassOfTwo(double cutoff, double rate) =>
        Of(Math.Tan(Math.PI * cutoff / rate) / TwoPass);

    private static Biquad Of(double warped)
    {
        var square = warped * warped;
        var norm = 1 + Math.Sqrt(2) * warped + square;
        var b = square / norm;
        return new(b, 2 * b, b, 2 * (square - 1) / norm, (1 - Math.Sqrt(2) * warped + square) / norm);
    }

    /// <summary>What is left of a wave of a frequency (Hz) after one pass, 0 to 1.</summary>
    public double Gain(double frequency, double rate)
    {
        var z1 = System.Numerics.Complex.FromPolarCoordinates(1, -2 * Math.PI * frequency / rate);
        var z2 = z1 * z1;
        return ((B0 + B1 * z1 + B2 * z2) / (1 + A1 * z1 + A2 * z2)).Magnitude;
    }

    /// <summary>A run of the filter, as if the first value had always been there.</summary>
    public Run StartingAt(double value) => new(this, value);

    /// <summary>The filter while it runs, transposed direct form.</summary>
    public struct Run
    {
        private readonly Biquad filter;
        private double first;
        private double second;

        internal Run(Biquad filter, double value)
        {
            this.filter = filter;
            second = value * (filter.B2 - filter.A2);
            first = value * (filter.B1 - filter.A1) + second;
        }

        /// <summary>The filtered value, after this one came in.</summary>
        public double Next(double value)
        {
            var result = filter.B0 * value + first;
            first = filter.B1 * value - filter.A1 * result + second;
            second = filter.B2 * value - filter.A2 * result;
            return result;
        }
    }
}
