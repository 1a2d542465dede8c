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
            yield return new($"{prefix}width", Message.Of("photo.size", ("most", MostPixels)));
            yield break;
        }
        for (var i = 0; i < photo.Points.Count; i++)
        {
            var placed = photo.Points[i];
            var at = $"{prefix}points[{i}]";
            if (!PhotoPoints.Of(photo.View).Contains(placed.Point))
            {
                yield return new($"{at}.point", Message.Of("photo.not-pointed", ("point", placed.Point)));
            }
            else if (photo.Points.Take(i).Any(p => p.Point == placed.Point))
            {
                yield return new($"{at}.point", Message.Of("photo.point-twice", ("point", placed.Point)));
            }
            if (!Inside(placed.At, photo))
            {
                yield return new($"{at}.at", Message.Of("photo.outside"));
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
                    Message.Of(
                        "photo.swapped",
                        ("left", left),
                        ("right", right),
                        ("front", photo.View == PhotoView.Front)
                    )
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
            yield return new($"{prefix}points", Message.Of("photo.same-place"));
        }
    }

    private static IEnumerable<FieldError> LineErrors(PhotoReading photo, string prefix)
    {
        if (photo.Length is { } length)
        {
            if (length.Centimetres is not (> 0 and <= 300))
            {
                yield return new($"{prefix}length.centimetres", Message.Of("photo.length"));
            }
            if (PhotoLines.Apart(length.From, length.To) < LeastApart)
            {
                yield return new($"{prefix}length", Message.Of("photo.length-ends"));
            }
        }
        if (photo.Plumb is { } plumb && !(plumb.Bottom.Y - plumb.Top.Y >= LeastApart))
        {
            yield return new($"{prefix}plumb", Message.Of("photo.plumb"));
        }
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
