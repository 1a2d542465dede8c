namespace Palaestra.Core.Library;

/// <summary>What a device measures. Pressure in mmHg, the angles of the sacrum in degrees.</summary>
public enum SignalChannel
{
    /// <summary>Of an air cuff under the low back: more when the back presses down, less when it lifts off.</summary>
    Pressure,

    /// <summary>Positive: the pelvis tips forward, toward an arch.</summary>
    Pitch,

    /// <summary>Positive: the right side is lower.</summary>
    Roll,

    /// <summary>Positive: turned to the right.</summary>
    Yaw,
}
