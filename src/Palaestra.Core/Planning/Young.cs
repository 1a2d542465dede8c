using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Clients who are not grown up: planks and loads are held back, somebody answers for them. Common practice.</summary>
public static class Young
{
    public const string Precaution = "under-16";
    private const int HeldBack = 16;
    private const int Minor = 18;

    /// <summary>The profile with the precaution that goes with the age; as it is where the age is not known.</summary>
    public static ClientProfile Told(ClientProfile profile, int? age, PracticeLibrary library) =>
        age < HeldBack && !profile.Has(Precaution) && library.Precautions.Any(p => p.Id == Precaution)
            ? profile with
            {
                Precautions = [.. profile.Precautions, new ClientPrecaution(Precaution)],
            }
            : profile;

    internal static IEnumerable<Reason> Notes(PlanInput input, PracticeLibrary library)
    {
        if (input.Age < HeldBack)
        {
            yield return new(
                "P-GUARDIAN",
                "Under 16: name a guardian; planks by their targets up to 30 s, loads that leave three reps in hand."
            );
        }
        if (input.Age < Minor && input.Goals?.Contains("sport") == true && input.Profile.Has("extension"))
        {
            yield return new(
                "P-YOUNG-ARCH",
                "Under 18, in sport, with pain on arching: a medical look first, before this plan begins."
            );
        }
    }
}
