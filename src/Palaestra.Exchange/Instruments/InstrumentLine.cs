using System.Text.Json;
using System.Text.Json.Serialization;

namespace Palaestra.Exchange.Instruments;

/// <summary>
/// One line of the protocol of instruments (docs/instruments.md): a JSON object with the fields its kind has, ended by a line
/// feed. From the device: device, samples, battery, gone. To it: do.
/// </summary>
/// <param name="Is">Device: what it is, by the ids of content/instruments.json.</param>
/// <param name="Rate">Device: samples a second, Hz.</param>
/// <param name="Channels">Device: their names, in the order of the values.</param>
/// <param name="Battery">Device, battery: 0 to 1.</param>
/// <param name="Scripts">Device: what a simulated one can be told to do; absent for a real one.</param>
/// <param name="First">Samples: ordinal of the first, from 0 at the device's start.</param>
/// <param name="Values">Samples: one array per sample; null where it was lost on the way.</param>
/// <param name="Script">Do: the script to begin.</param>
public sealed record InstrumentLine(
    string Kind,
    string Device,
    string? Is = null,
    double? Rate = null,
    IReadOnlyList<string>? Channels = null,
    double? Battery = null,
    IReadOnlyList<InstrumentScript>? Scripts = null,
    long? First = null,
    IReadOnlyList<double[]?>? Values = null,
    string? Script = null
)
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    public string Write() => JsonSerializer.Serialize(this, Options);

    /// <returns>None where it is no line of the protocol.</returns>
    public static InstrumentLine? Read(string text)
    {
        try
        {
            var line = JsonSerializer.Deserialize<InstrumentLine>(text, Options);
            return line is { Kind: not null, Device: not null } ? line : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }
}

public sealed record InstrumentScript(string Id, string Words);
