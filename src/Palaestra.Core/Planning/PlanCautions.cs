using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>What a supervisor would say of a plan before it begins: what was not asked, what pulls apart, who must be there.</summary>
internal static class PlanCautions
{
    public static IEnumerable<Reason> Notes(PlanInput input, PracticeLibrary library)
    {
        if (input.Equipment is null)
        {
            yield return new("P-MAT-ONLY", Message.Of("plan.mat-only", ("piece", library.MatOnly[0])));
        }
        foreach (var conflict in Conflicts(input.Profile, library))
        {
            yield return conflict;
        }
        foreach (var note in Young.Notes(input, library))
        {
            yield return note;
        }
    }

    /// <summary>One precaution wants a side to work that another one spares.</summary>
    private static IEnumerable<Reason> Conflicts(ClientProfile profile, PracticeLibrary library)
    {
        foreach (var ladder in library.TrainedLadders)
        {
            var pulled =
                from rung in ladder.Rungs
                from side in rung.TaskSides
                let notes = Allowance.Of(library, profile.Precautions, rung, side).Notes
                from wants in notes
                where wants.WorkingSide == side
                from spares in notes
                where
                    spares.PrecautionId != wants.PrecautionId
                    && spares.Effect != PrecautionEffect.Prefer
                    && profile.Precautions.Any(p => p.Id == spares.PrecautionId && p.Side == side)
                select (Side: side, Wants: wants.Tag, Spares: spares.Tag);
            if (pulled.Distinct().FirstOrDefault() is { Wants: not null } pair)
            {
                yield return new(
                    "P-CONFLICT",
                    Message.Of(
                        "plan.conflict",
                        ("ladder", ladder.Id),
                        ("wants", pair.Wants),
                        ("side", pair.Side),
                        ("spares", pair.Spares)
                    )
                );
            }
        }
    }
}
