namespace Palaestra.Core.Library;

/// <summary>From where a photograph was taken.</summary>
public enum PhotoView
{
    Front,
    Back,

    /// <summary>From the side; the client faces the left edge of the picture.</summary>
    FacingLeft,

    /// <summary>From the side; the client faces the right edge of the picture.</summary>
    FacingRight,
}
