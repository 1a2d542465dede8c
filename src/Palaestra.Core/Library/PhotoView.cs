namespace Palaestra.Core.Library;

/// <summary>From where a photograph was taken.</summary>
public enum PhotoView
{
    /// <summary>From the front.</summary>
    Front,

    /// <summary>From behind.</summary>
    Back,

    /// <summary>From the side; the client faces the left edge of the picture.</summary>
    FacingLeft,

    /// <summary>From the side; the client faces the right edge of the picture.</summary>
    FacingRight,
}
