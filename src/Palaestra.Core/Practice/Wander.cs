using MathNet.Numerics.Random;

namespace Palaestra.Core.Practice;

/// <summary>A small wandering to and fro of one angle: three slow waves that never meet the same way twice.</summary>
internal sealed class Wander
{
    private readonly (double Amplitude, double Speed, double Phase)[] waves;

    /// <param name="size">Root of the mean square, in whatever is moved.</param>
    /// <param name="slow">Lowest frequency, Hz. <paramref name="fast"/>: the highest.</param>
    public Wander(RandomSource random, double size, double slow, double fast) =>
        waves = [
            .. Enumerable
                .Range(0, 3)
                .Select(_ =>
                    (
                        size * Math.Sqrt(2.0 / 3),
                        2 * Math.PI * (slow + (fast - slow) * random.NextDouble()),
                        2 * Math.PI * random.NextDouble()
                    )
                ),
        ];

    /// <param name="seconds">Since the beginning.</param>
    public double At(double seconds)
    {
        var sum = 0.0;
        foreach (var (amplitude, speed, phase) in waves)
        {
            sum += amplitude * Math.Sin(speed * seconds + phase);
        }
        return sum;
    }
}
