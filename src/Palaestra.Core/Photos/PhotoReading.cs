using Palaestra.Core.Library;

namespace Palaestra.Core.Photos;

/// <summary>A spot of the picture in pixels: x to the right, y down, from the upper left corner.</summary>
public sealed record PhotoSpot(double X, double Y);

/// <summary>A place on the body and where it lies in the picture.</summary>
public sealed record PlacedPoint(PhotoPoint Point, PhotoSpot At);

/// <summary>Something of known length in the plane of the body: what turns pixels into centimetres.</summary>
/// <param name="Centimetres">More than 0, at most 300.</param>
public sealed record PhotoLength(PhotoSpot From, PhotoSpot To, double Centimetres);

/// <summary>Something that hangs or stands upright, such as a door frame: takes out that the camera was held askew.</summary>
public sealed record PhotoPlumb(PhotoSpot Top, PhotoSpot Bottom);

/// <summary>Points put on a photograph; the picture itself need not be kept.</summary>
/// <param name="Width">Of the picture, pixels. <paramref name="Height"/>: the same.</param>
/// <param name="Length">None: nothing is told in centimetres. <paramref name="Plumb"/>: none: the picture's own edges are upright.</param>
/// <param name="Image">The kept picture; none where only points and numbers are.</param>
public sealed record PhotoReading(
    PhotoView View,
    double Width,
    double Height,
    IReadOnlyList<PlacedPoint> Points,
    PhotoLength? Length = null,
    PhotoPlumb? Plumb = null,
    Guid? Image = null
);
