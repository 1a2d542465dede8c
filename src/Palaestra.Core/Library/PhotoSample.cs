using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>A drawing to try points on.</summary>
/// <param name="RungId">Drawn at its end. <paramref name="Fault"/>: with this fault; none: as asked.</param>
/// <param name="Drawn">From where it is drawn. <paramref name="View"/>: the same, as a photograph says it.</param>
public sealed record PhotoSample(
    string Words,
    string RungId,
    Side Side,
    string? Fault,
    View Drawn,
    PhotoView View
)
{
    /// <summary>Samples nothing can be drawn of.</summary>
    public static IEnumerable<FieldError> Errors(PracticeLibrary library)
    {
        for (var i = 0; i < library.PhotoSamples.Count; i++)
        {
            var sample = library.PhotoSamples[i];
            var at = $"photo-samples.json samples[{i}]";
            if (library.FindRung(sample.RungId) is not { } rung)
            {
                yield return new($"{at}.rungId", Message.Of("content.no-rung", ("rung", sample.RungId)));
            }
            else if (sample.Fault is { } fault && library.FaultyPose(rung, fault) is null)
            {
                yield return new(
                    $"{at}.fault",
                    Message.Of("content.no-drawing", ("fault", fault), ("rung", rung.Id))
                );
            }
        }
    }
}
