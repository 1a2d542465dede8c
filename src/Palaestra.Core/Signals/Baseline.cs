using Palaestra.Core.Library;

namespace Palaestra.Core.Signals;

/// <summary>
/// Follows the slow creep of a device (air that cools, a gyroscope that drifts) so that it is not taken for the client. It moves
/// at most as fast as the channel may drift, and only while the client is well inside the band: sinking slowly out of it is
/// still a loss.
/// </summary>
internal sealed class Baseline(double level, ChannelSetup setup, double rate)
{
    /// <summary>Seconds in which it would follow a step, were it not held to the drift's speed. Our own choice.</summary>
    private const double Follows = 10;

    private readonly double most = setup.DriftPerMinute / 60 / rate;

    /// <summary>Where neutral is by now.</summary>
    public double Level { get; private set; } = level;

    /// <summary>How far a value is from neutral now.</summary>
    public double Away(double value)
    {
        var away = value - Level;
        if (most > 0 && Math.Abs(away) < setup.Band / 2)
        {
            Level += Math.Clamp(away / (Follows * rate), -most, most);
        }
        return away;
    }
}
