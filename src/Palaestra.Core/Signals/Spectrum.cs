using System.Numerics;
using MathNet.Numerics.IntegralTransforms;

namespace Palaestra.Core.Signals;

/// <summary>Power by frequency. <paramref name="Step"/>: Hz from one line to the next; <paramref name="Density"/> in unit² per Hz.</summary>
public sealed record Spectrum(double Step, IReadOnlyList<double> Density)
{
    /// <summary>Samples of one window: 2.56 s at 100 Hz, lines 0.4 Hz apart.</summary>
    public const int Window = 256;

    private static readonly double[] Hann = MathNet.Numerics.Window.HannPeriodic(Window);
    private static readonly double HannPower = Hann.Sum(w => w * w);

    /// <summary>
    /// Welch's estimate: Hann windows that overlap by half, each without its mean, one-sided, over stretches without a gap. None
    /// where no stretch is as long as a window.
    /// </summary>
    /// <remarks>Welch 1967, IEEE Trans Audio Electroacoust 15:70–73 (from memory).</remarks>
    public static Spectrum? Welch(IEnumerable<IReadOnlyList<double>> stretches, double rate)
    {
        var power = new double[Window / 2 + 1];
        var buffer = new Complex[Window];
        var count = 0;
        foreach (var stretch in stretches)
        {
            for (var from = 0; from + Window <= stretch.Count; from += Window / 2)
            {
                AddWindow(stretch, from, buffer, power);
                count++;
            }
        }
        if (count == 0)
        {
            return null;
        }
        for (var i = 0; i < power.Length; i++)
        {
            var both = i == 0 || i == power.Length - 1 ? 1 : 2;
            power[i] *= both / (rate * HannPower * count);
        }
        return new(rate / Window, power);
    }

    private static void AddWindow(IReadOnlyList<double> values, int from, Complex[] buffer, double[] power)
    {
        var mean = 0.0;
        for (var i = 0; i < Window; i++)
        {
            mean += values[from + i] / Window;
        }
        for (var i = 0; i < Window; i++)
        {
            buffer[i] = (values[from + i] - mean) * Hann[i];
        }
        Fourier.Forward(buffer, FourierOptions.NoScaling);
        for (var i = 0; i < power.Length; i++)
        {
            power[i] += buffer[i].Real * buffer[i].Real + buffer[i].Imaginary * buffer[i].Imaginary;
        }
    }

    /// <summary>Root mean square of what lies between two frequencies (Hz), in the signal's unit.</summary>
    public double Rms(double from, double to)
    {
        var power = 0.0;
        for (var i = 0; i < Density.Count; i++)
        {
            if (i * Step >= from && i * Step <= to)
            {
                power += Density[i] * Step;
            }
        }
        return Math.Sqrt(power);
    }
}
