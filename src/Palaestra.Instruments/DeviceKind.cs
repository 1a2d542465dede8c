namespace Palaestra.Instruments;

/// <summary>A kind of device: its channels, where they stand at rest, and how badly it behaves.</summary>
/// <param name="Rest">Level of each channel at rest, in its unit.</param>
/// <param name="Noise">Standard deviation of a sample's error, in the channel's unit.</param>
/// <param name="DriftPerMinute">How far each channel creeps by itself.</param>
/// <param name="Tremble">Size of shaking. <paramref name="Swing"/>: what a rep does. <paramref name="Gives"/>: what giving way does.</param>
public sealed record DeviceKind(
    string Id,
    double Rate,
    IReadOnlyList<string> Channels,
    IReadOnlyList<double> Rest,
    IReadOnlyList<double> Noise,
    IReadOnlyList<double> DriftPerMinute,
    IReadOnlyList<double> Tremble,
    IReadOnlyList<double> Swing,
    IReadOnlyList<double> Gives
)
{
    /// <summary>An air cuff under the low back, mmHg.</summary>
    public static readonly DeviceKind Cuff = new(
        "cuff",
        50,
        ["pressure"],
        [40],
        [0.4],
        [-0.6],
        [0.5],
        [-4],
        [-17]
    );

    /// <summary>A tilt sensor on the sacrum, degrees.</summary>
    public static readonly DeviceKind Tilt = new(
        "tilt",
        100,
        ["pitch", "roll", "yaw"],
        [4, -1, 12],
        [0.25, 0.25, 0.3],
        [0, 0, 0.8],
        [0.5, 0.3, 0.2],
        [1.5, 0.4, 0.3],
        [9, 1.5, 1]
    );

    /// <summary>What its simulated client can do.</summary>
    public IReadOnlyList<Script> Scripts { get; } = DeviceScripts.For(Swing, Gives);
}
