namespace Palaestra.Core.Library;

/// <summary>What the practice room goes by. Data: <c>content/practice.json</c>.</summary>
/// <param name="CleanShare">Share of clips in which the trunk holds, 0.1 to 0.9.</param>
/// <param name="LeastMillimetres">What is off in the picture at the least degree, of a body of 1.70 m, 1 to 50.</param>
/// <param name="DegreeStep">Ratio of a degree to the one before it, 1.1 to 3.</param>
/// <param name="FairView">A fault is shown from where at least this share of what its best view shows is seen, 0 to 1: nobody looks for a sag from above.</param>
/// <param name="FairAxis">And from along what turns, by at least this share of the view that is most so, 0 to 1: nobody looks for a hollow back from in front, or for a hitched hip from the side.</param>
/// <param name="TopBelow">One looks down on bodies whose hips are lower than this share of stature, 0 to 1: on who lies, bridges or is on hands and knees.</param>
/// <param name="Narrow">A share known within this to either side is known well enough to end a drill, 0.02 to 0.5.</param>
/// <param name="EnoughClips">Clips from which on a rater's and a team's figures are told, 10 to 200.</param>
/// <param name="ClinicClips">Clips from which on a clinic's own misses may stand in the place of the built-in ones, 20 to 2,000.</param>
/// <param name="ClinicNumbers">Counts of reps, or of seconds, from which on its own errors may, 10 to 2,000.</param>
/// <param name="RefreshDays">Days without a clip after which it is time again, 7 to 3,650.</param>
public sealed record PracticeModel(
    double CleanShare,
    double LeastMillimetres,
    double DegreeStep,
    double FairView,
    double FairAxis,
    double TopBelow,
    double Narrow,
    int EnoughClips,
    int ClinicClips,
    int ClinicNumbers,
    int RefreshDays
)
{
    /// <summary>What is wrong with it, with file and field.</summary>
    public IEnumerable<FieldError> Errors() =>
        new (string Field, double Value, double Low, double High)[]
        {
            ("cleanShare", CleanShare, 0.1, 0.9),
            ("leastMillimetres", LeastMillimetres, 1, 50),
            ("degreeStep", DegreeStep, 1.1, 3),
            ("fairView", FairView, 0, 1),
            ("fairAxis", FairAxis, 0, 1),
            ("topBelow", TopBelow, 0, 1),
            ("narrow", Narrow, 0.02, 0.5),
            ("enoughClips", EnoughClips, 10, 200),
            ("clinicClips", ClinicClips, 20, 2000),
            ("clinicNumbers", ClinicNumbers, 10, 2000),
            ("refreshDays", RefreshDays, 7, 3650),
        }
            .Where(of => !(of.Value >= of.Low && of.Value <= of.High))
            .Select(of => new FieldError(
                $"practice.json practice.{of.Field}",
                Message.Of("content.between", ("low", of.Low), ("high", of.High))
            ));
}
