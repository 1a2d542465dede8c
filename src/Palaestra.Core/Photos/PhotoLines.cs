using System.Numerics;
using Palaestra.Core.Library;

namespace Palaestra.Core.Photos;

/// <summary>Spots of a picture in a plane with y upward along the plumb line and x forward (from the side) or to the client's right.</summary>
internal sealed class PhotoLines
{
    private readonly PhotoReading photo;
    private readonly Complex upright;
    private readonly int forward;

    public PhotoLines(PhotoReading photo)
    {
        this.photo = photo;
        var plumb = photo.Plumb is { } line ? Plain(line.Bottom, line.Top) : Complex.ImaginaryOne;
        upright = Complex.ImaginaryOne / (plumb / plumb.Magnitude);
        forward = photo.View is PhotoView.FacingRight or PhotoView.Back ? 1 : -1;
    }

    /// <summary>Centimetres of a pixel; none without a known length.</summary>
    public double? Scale =>
        photo.Length is { } length ? length.Centimetres / Apart(length.From, length.To) : null;

    public static double Apart(PhotoSpot a, PhotoSpot b) => Plain(a, b).Magnitude;

    /// <summary>From one point to the other, pixels; none where one is missing or both are at the same place.</summary>
    public Complex? Between(PhotoPoint from, PhotoPoint to) =>
        photo.Of(from) is { } a && photo.Of(to) is { } b ? Between(a, b) : null;

    public Complex? Between(PhotoSpot from, PhotoSpot to)
    {
        var line = Plain(from, to);
        if (line.Magnitude == 0)
        {
            return null;
        }
        line *= upright;
        return new Complex(forward * line.Real, line.Imaginary);
    }

    private static Complex Plain(PhotoSpot from, PhotoSpot to) => new(to.X - from.X, from.Y - to.Y);
}

/// <summary>Marked points of a picture.</summary>
public static class PhotoSpots
{
    /// <summary>Where a point was marked; none where it was not.</summary>
    public static PhotoSpot? Of(this PhotoReading photo, PhotoPoint point) =>
        photo.Points.FirstOrDefault(p => p.Point == point)?.At;
}
