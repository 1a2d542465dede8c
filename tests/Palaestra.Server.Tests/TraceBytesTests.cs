using CsCheck;
using Palaestra.Core.Signals;
using Palaestra.Data.Traces;
using Palaestra.Instruments;

namespace Palaestra.Server.Tests;

public class TraceBytesTests
{
    [Fact]
    public void Samples_come_back_as_they_were_gaps_and_all() =>
        Gen.Int[-1_000_000, 1_000_000]
            .Array[2]
            .Array[1, 200]
            .Sample(steps =>
            {
                List<double[]> samples =
                [
                    .. steps.Select(
                        (s, i) =>
                            Array.ConvertAll(s, v => i % 5 == 3 ? double.NaN : Trace.Rounded(v / 1000.0))
                    ),
                ];
                var bytes = TraceBytes.Write(samples, 2);
                Assert.Equal(samples, TraceBytes.Read(bytes, 2, samples.Count));
                Assert.Throws<InvalidDataException>(() => TraceBytes.Read(bytes, 2, samples.Count + 1));
            });

    /// <summary>Well under the four bytes a value that a plain file of single precision takes.</summary>
    [Fact]
    public void A_simulated_tilt_sensors_noise_takes_less_than_two_bytes_a_value()
    {
        var device = new SimulatedDevice(DeviceKind.Tilt, 3);
        device.Begin("gives-way");
        List<double[]> samples =
        [
            .. Enumerable
                .Range(0, 30_000)
                .Select(_ =>
                    Array.ConvertAll(device.Sample() ?? [double.NaN, double.NaN, double.NaN], Trace.Rounded)
                ),
        ];
        Assert.InRange(TraceBytes.Write(samples, 3).Length / 90_000.0, 0.5, 2);
    }
}
