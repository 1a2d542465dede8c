using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>Clients who are not grown up: what holds for their age, by the content. Where the age is not known nothing is added.</summary>
public static class Young
{
    /// <summary>The profile with the precautions that go with the age.</summary>
    public static ClientProfile Told(ClientProfile profile, int? age, PracticeLibrary library) =>
        profile with
        {
            Precautions =
            [
                .. profile.Precautions,
                .. library
                    .Precautions.Where(p => age < p.Below && !profile.Has(p.Id))
                    .Select(p => new ClientPrecaution(p.Id)),
            ],
        };

    /// <summary>P-GUARDIAN and P-YOUNG-ARCH: who must be there, and who is to look first.</summary>
    internal static IEnumerable<Reason> Notes(PlanInput input, PracticeLibrary library) =>
        library
            .AgeNotes.Where(note =>
                input.Age < note.Below
                && (note.Goal is not { } goal || input.Goals?.Contains(goal) == true)
                && (note.Precaution is not { } precaution || input.Profile.Has(precaution))
            )
            .Select(note => new Reason(note.RuleId, Message.Plain(note.Words)));
}
