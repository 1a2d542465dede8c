using Palaestra.Core.Library;
using Palaestra.Core.Photos;

namespace Palaestra.Core.Practice;

/// <summary>What of the clinic's own is rated: nobody knows its truth.</summary>
public enum RecordedKind
{
    /// <summary>The course of an instrument: when was control first lost?</summary>
    Trace,

    /// <summary>A photograph: where are the points?</summary>
    Photo,
}

/// <summary>A recorded trace or photograph of a session that a team rates.</summary>
/// <param name="Place">In the order they are shown, from 0.</param>
/// <param name="Of">Place of the one it shows again; none: it is new.</param>
/// <param name="Seconds">Of a trace, whole; 0: a photograph.</param>
/// <param name="ByBand">Seconds until the instrument's own band was left; the whole trace where it never was. None: it has no neutral, or a photograph.</param>
/// <param name="View">Of a photograph; none: a trace. <paramref name="Width"/>, <paramref name="Height"/>: pixels, 0 of a trace.</param>
public sealed record RecordedThing(
    int Place,
    int? Of,
    RecordedKind Kind,
    double Seconds = 0,
    double? ByBand = null,
    PhotoView? View = null,
    double Width = 0,
    double Height = 0
);

/// <summary>What one rater said of a recorded trace or photograph.</summary>
/// <param name="Lost">Seconds from the start of a trace at which control was first lost; none: it held, or it is a photograph.</param>
/// <param name="Photo">Points put on a photograph; none: a trace.</param>
public sealed record RecordedReading(double? Lost = null, PhotoReading? Photo = null)
{
    /// <summary>Refuses what cannot be said of it, naming the field.</summary>
    public IEnumerable<FieldError> Errors(RecordedThing thing) =>
        thing.Kind == RecordedKind.Trace ? TraceErrors(thing) : PhotoErrors(thing);

    private IEnumerable<FieldError> TraceErrors(RecordedThing trace)
    {
        if (Photo is not null)
        {
            yield return new("photo", Message.Of("practice.recorded-trace"));
        }
        if (Lost is { } lost && !(lost >= 0 && lost <= trace.Seconds))
        {
            yield return new("lost", Message.Of("practice.recorded-lost", ("most", trace.Seconds)));
        }
    }

    private IEnumerable<FieldError> PhotoErrors(RecordedThing picture)
    {
        if (Lost is not null)
        {
            yield return new("lost", Message.Of("practice.recorded-photo"));
        }
        if (
            Photo is not { Image: null } photo
            || photo.View != picture.View
            || photo.Width != picture.Width
            || photo.Height != picture.Height
        )
        {
            yield return new("photo", Message.Of("practice.recorded-points"));
            yield break;
        }
        var errors = PhotoCheck.Errors(photo, "photo.").ToList();
        foreach (var error in errors)
        {
            yield return error;
        }
        if (errors.Count == 0 && PhotoAngles.Of(photo).Count == 0)
        {
            yield return new("photo.points", Message.Of("practice.recorded-no-angle"));
        }
    }
}
