using System.Globalization;
using System.Text;
using Palaestra.Core.Library;
using Palaestra.Instruments;

namespace Palaestra.Simulation.Instruments;

/// <summary>The last section of docs/instruments.md, written from what was found in simulated signals.</summary>
public static class DetectionReport
{
    private const int Clients = 200;
    private const string Heading = "## Against noise";

    /// <param name="document">Whatever stands there from the heading on is written anew.</param>
    public static string Into(string document, PracticeLibrary library)
    {
        var at = document.IndexOf(Heading, StringComparison.Ordinal);
        var text = new StringBuilder(at < 0 ? document : document[..at]);
        text.AppendLine(
            I(
                $"""
                {Heading}

                Written by `./palaestra simulate`; not to be edited by hand. {Clients} simulated clients give way twice in five reps, and {Clients}
                do not, in front of the simulated devices. They give way by 1.2 to 2.5 times the band, over 0.2 to 2 s, for 0.5 to 2.5 s.
                Neutral is taken at the usual noise; then the noise is the usual or a multiple of it. A loss is found when it is told within a
                second of the moment the noiseless signal leaves its band. Asked for at the usual noise: at least 95 % found, the median onset
                within 0.2 s, under one false loss in five minutes of clean holding. These clients are tidier than real ones: they do not
                breathe, shift or sway.

                | device | noise, times the usual | found | onset off by, median, s | 95th percentile, s | false losses in 5 minutes |
                |---|---|---|---|---|---|
                """
            )
        );
        foreach (var kind in new[] { DeviceKind.Cuff, DeviceKind.Tilt })
        {
            var setup = library.Instruments.First(i => i.Id == kind.Id);
            foreach (var noise in new[] { 0.5, 1, 2, 4, 8, 16, 32, 64 })
            {
                var seen = Detection.Of(kind, setup, noise, Clients);
                text.AppendLine(
                    I(
                        $"| {setup.Name} | {noise:0.#} | {100 * seen.FoundShare:0.0} % | {seen.MedianLate:0.000} | {seen.Late[(int)(seen.Late.Count * 0.95)]:0.000} | {seen.FalsePerFiveMinutes:0.00} |"
                    )
                );
            }
        }
        return text.ToString();
    }

    private static string I(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}
