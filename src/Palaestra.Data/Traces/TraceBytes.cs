using System.IO.Compression;
using Palaestra.Core.Signals;

namespace Palaestra.Data.Traces;

/// <summary>
/// Samples as bytes: channel after channel, each value in steps of <see cref="Trace.Resolution"/> as the change from the one
/// before, lowest bytes first and the rest by planes, so that Brotli finds little to keep in the upper ones. A missing sample is
/// the lowest number there is.
/// </summary>
public static class TraceBytes
{
    private const int Missing = int.MinValue;

    public static byte[] Write(IReadOnlyList<double[]> samples, int channels)
    {
        var count = samples.Count;
        var planes = new byte[4 * channels * count];
        for (var channel = 0; channel < channels; channel++)
        {
            var before = 0;
            for (var i = 0; i < count; i++)
            {
                var step = StepOf(samples[i][channel]);
                var change = step == Missing ? Missing : step - before;
                before = step == Missing ? before : step;
                for (var plane = 0; plane < 4; plane++)
                {
                    planes[At(plane, channel, i)] = (byte)(change >> (8 * plane));
                }
            }
        }
        using var packed = new MemoryStream();
        using (var brotli = new BrotliStream(packed, CompressionLevel.Optimal))
        {
            brotli.Write(planes);
        }
        return packed.ToArray();

        int At(int plane, int channel, int i) => (channel * 4 + plane) * count + i;
    }

    /// <exception cref="InvalidDataException">These are not the bytes of so many samples.</exception>
    public static IReadOnlyList<double[]> Read(byte[] bytes, int channels, int count)
    {
        var planes = new byte[4 * channels * count];
        using (var brotli = new BrotliStream(new MemoryStream(bytes), CompressionMode.Decompress))
        {
            try
            {
                brotli.ReadExactly(planes);
            }
            catch (Exception bad) when (bad is EndOfStreamException or InvalidOperationException)
            {
                throw new InvalidDataException("The samples end early.", bad);
            }
        }
        var samples = new double[count][];
        for (var i = 0; i < count; i++)
        {
            samples[i] = new double[channels];
        }
        for (var channel = 0; channel < channels; channel++)
        {
            var before = 0;
            for (var i = 0; i < count; i++)
            {
                var change = 0;
                for (var plane = 0; plane < 4; plane++)
                {
                    change |= planes[(channel * 4 + plane) * count + i] << (8 * plane);
                }
                before = change == Missing ? before : before + change;
                samples[i][channel] = change == Missing ? double.NaN : before * Trace.Resolution;
            }
        }
        return samples;
    }

    private static int StepOf(double value) =>
        double.IsNaN(value) ? Missing : (int)Math.Round(value / Trace.Resolution);
}
