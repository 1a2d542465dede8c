using Palaestra.Core.Agreement;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>How well a clinic sees: what its raters' clips say of the errors that findings are reckoned with.</summary>
/// <param name="Clips">All of them. <paramref name="Raters"/>: who answered any.</param>
/// <param name="Missed">Share of faults that go by; none with too few clips. <paramref name="Imagined"/>: share of clean clips that are marked.</param>
/// <param name="RepsError">Standard error of measurement of clean reps; none with too few. <paramref name="SecondsError"/>: of clean seconds.</param>
public sealed record ClinicEye(
    int Clips,
    int Raters,
    Proportion? Missed,
    Proportion? Imagined,
    double? RepsError,
    int RepsClips,
    double? SecondsError,
    int SecondsClips
)
{
    /// <summary>Half of all faults unseen is no eye, and the reckoning is not made for it.</summary>
    private const double WorstMissed = 0.45;
    private const double WorstImagined = 0.45;

    /// <param name="byRater">Answers of every rater of the clinic.</param>
    public static ClinicEye Of(IReadOnlyList<IReadOnlyList<ClipResult>> byRater, PracticeModel model)
    {
        var all = byRater.SelectMany(results => results).ToList();
        var clean = all.Count(r => !r.Faulty);
        var enough = all.Count >= model.ClinicClips && clean > 0 && clean < all.Count;
        var belief = RaterBelief.Of(all);
        var (low, high) = belief.MissedWithin;
        var reps = Errors(all, r => r.CleanReps - r.TrulyClean);
        var seconds = Errors(all, r => r.CleanSeconds - r.TrulyHeld);
        return new(
            all.Count,
            byRater.Count(results => results.Count > 0),
            enough ? new(belief.Missed, low, high) : null,
            enough ? Proportion.Of(all.Count(r => !r.Faulty && r.Marked), clean) : null,
            ErrorOf(reps, model),
            reps.Count,
            ErrorOf(seconds, model),
            seconds.Count
        );
    }

    private static List<double> Errors<T>(List<ClipResult> results, Func<ClipResult, T?> error)
        where T : struct, IConvertible =>
        [
            .. results
                .Select(error)
                .OfType<T>()
                .Select(one => one.ToDouble(System.Globalization.CultureInfo.InvariantCulture)),
        ];

    /// <summary>Root of the mean square of what was told less what was true: bias of a rater is an error too.</summary>
    private static double? ErrorOf(List<double> errors, PracticeModel model) =>
        errors.Count >= model.ClinicNumbers ? Math.Sqrt(errors.Average(one => one * one)) : null;

    /// <summary>The built-in figures with the clinic's own in their place, where there are enough.</summary>
    public AbilityModel Over(AbilityModel model) =>
        Missed is null || Imagined is null
            ? model
            : model with
            {
                Missed = Math.Round(Math.Min(WorstMissed, Missed.Value), 3),
                // None marked of fifty is not never.
                Imagined = Math.Round(Math.Min(WorstImagined, Math.Max(Imagined.Value, LeastImagined)), 3),
            };

    private const double LeastImagined = 0.005;

    /// <summary>The built-in errors of counts and holds by eye, with the clinic's own where they are larger.</summary>
    /// <remarks>
    /// Clips tell what the eye adds; what a client differs by from day to day is in the built-in figure. So the clinic's own may
    /// widen "no clear change" and never narrow it.
    /// </remarks>
    public IReadOnlyList<MeasurementError> Over(IReadOnlyList<MeasurementError> errors) =>
        [
            .. errors.Select(error =>
                error.Of switch
                {
                    "reps" => Wider(error, RepsError),
                    "seconds" => Wider(error, SecondsError),
                    _ => error,
                }
            ),
        ];

    private static MeasurementError Wider(MeasurementError error, double? own) =>
        own is { } ours && ours > error.Error
            ? error with
            {
                Sem = Math.Round(ours, 2),
                Sd = null,
                Icc = null,
                Memory = false,
                Source = OwnSource,
            }
            : error;

    /// <summary>Names where the figure is from.</summary>
    public const string OwnSource = "this clinic's own clips";
}
