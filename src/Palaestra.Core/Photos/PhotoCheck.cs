using Palaestra.Core.Library;

namespace Palaestra.Core.Photos;

/// <summary>Refuses points that cannot be read, naming the field.</summary>
public static class PhotoCheck
{
    /// <summary>Pixels: two ends nearer than this have no direction.</summary>
    private const double LeastApart = 2;

    private const double MostPixels = 20_000;

    /// <param name="prefix">What stands before the fields' names: "events[0].photo.", or nothing.</param>
    public static IEnumerable<FieldError> Errors(PhotoReading photo, string prefix)
    {
        if (photo.Width is not (>= 1 and <= MostPixels) || photo.Height is not (>= 1 and <= MostPixels))
        {
            yield return new($"{prefix}width", $"A picture has 1 to {MostPixels} pixels each way.");
            yield break;
        }
        for (var i = 0; i < photo.Points.Count; i++)
        {
            var placed = photo.Points[i];
            var at = $"{prefix}points[{i}]";
            if (!PhotoPoints.Of(photo.View).Contains(placed.Point))
            {
                yield return new($"{at}.point", $"From there {placed.Point.Words()} is not pointed at.");
            }
            else if (photo.Points.Take(i).Any(p => p.Point == placed.Point))
            {
                yield return new($"{at}.point", $"There is already a point on {placed.Point.Words()}.");
            }
            if (!Inside(placed.At, photo))
            {
                yield return new($"{at}.at", "The point is outside the picture.");
            }
        }
        foreach (var error in SwappedErrors(photo, prefix).Concat(LineErrors(photo, prefix)))
        {
            yield return error;
        }
    }

    private static bool Inside(PhotoSpot spot, PhotoReading photo) =>
        spot.X >= 0 && spot.X <= photo.Width && spot.Y >= 0 && spot.Y <= photo.Height;

    /// <summary>From in front the client's left is to the right of the picture, from behind to the left.</summary>
    private static IEnumerable<FieldError> SwappedErrors(PhotoReading photo, string prefix)
    {
        (PhotoPoint Left, PhotoPoint Right)[] pairs =
        [
            (PhotoPoint.HipBoneLeft, PhotoPoint.HipBoneRight),
            (PhotoPoint.ShoulderLeft, PhotoPoint.ShoulderRight),
        ];
        foreach (var (left, right) in pairs)
        {
            if (photo.Of(left) is not { } l || photo.Of(right) is not { } r || photo.View.IsAside())
            {
                continue;
            }
            if (photo.View == PhotoView.Front ? l.X <= r.X : l.X >= r.X)
            {
                yield return new(
                    $"{prefix}points",
                    $"{Capital(left.Words())} and {right.Words()} are on each other's side: seen from {(photo.View == PhotoView.Front ? "in front, the client's left is on the right" : "behind, the client's left is on the left")} of the picture."
                );
            }
        }
        if (
            photo.View.IsAside()
            && photo.Of(PhotoPoint.HipBoneFront) is { } front
            && photo.Of(PhotoPoint.HipBoneBack) is { } back
            && PhotoLines.Apart(front, back) < LeastApart
        )
        {
            yield return new($"{prefix}points", "The front and the back hip bone are at the same place.");
        }
    }

    private static IEnumerable<FieldError> LineErrors(PhotoReading photo, string prefix)
    {
        if (photo.Length is { } length)
        {
            if (length.Centimetres is not (> 0 and <= 300))
            {
                yield return new($"{prefix}length.centimetres", "A known length is up to 300 cm.");
            }
            if (PhotoLines.Apart(length.From, length.To) < LeastApart)
            {
                yield return new(
                    $"{prefix}length",
                    "The two ends of the known length are at the same place."
                );
            }
        }
        if (photo.Plumb is { } plumb && !(plumb.Bottom.Y - plumb.Top.Y >= LeastApart))
        {
            yield return new($"{prefix}plumb", "The upright runs from its top down to its bottom.");
        }
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
