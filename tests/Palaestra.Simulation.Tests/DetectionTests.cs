using Palaestra.Core.Library;
using Palaestra.Core.Signals;
using Palaestra.Core.Tests.Given;
using Palaestra.Instruments;
using Palaestra.Simulation.Instruments;

namespace Palaestra.Simulation.Tests;

/// <summary>What the analyser finds in signals of simulated devices; the whole of it stands in docs/instruments.md.</summary>
public class DetectionTests
{
    private static InstrumentSetup SetupOf(string id) => Content.Library.Instruments.First(i => i.Id == id);

    [Fact]
    public void Trembling_is_told_in_degrees_and_is_no_loss()
    {
        SignalAnalysis Watched(string script) =>
            Detection.Watch(
                new SimulatedDevice(DeviceKind.Tilt, 3),
                SetupOf("tilt"),
                DeviceKind.Tilt.Scripts.First(s => s.Id == script)
            );
        var seen = Watched("trembles");
        Assert.Empty(seen.Losses);
        // 0.5° for 20 of 51 seconds.
        Assert.Equal(0.5 / Math.Sqrt(2) * Math.Sqrt(20 / 51.0), seen.Channels[0].TremorRms!.Value, 0.05);
        Assert.InRange(Watched("clean").Channels[0].TremorRms!.Value, 0, 0.12);
    }

    /// <summary>
    /// Simulated faults at the devices' usual noise: at least 95 % found, onset within 0.2 s in the middle, under one false loss
    /// in five minutes of clean holding. What is lost, and when, is where the noiseless signal leaves the band.
    /// </summary>
    [Theory]
    [InlineData("tilt")]
    [InlineData("cuff")]
    public void Breaking_faults_are_found_and_clean_holding_is_left_alone(string id)
    {
        var kind = id == "tilt" ? DeviceKind.Tilt : DeviceKind.Cuff;
        var seen = Detection.Of(kind, SetupOf(id), noise: 1, clients: 40);
        Assert.InRange(seen.Faults, 80, 90);
        Assert.InRange(seen.FoundShare, 0.95, 1);
        Assert.InRange(seen.MedianLate!.Value, 0, 0.2);
        Assert.InRange(seen.CleanMinutes, 30, 60);
        Assert.InRange(seen.FalsePerFiveMinutes, 0, 1);
    }
}
