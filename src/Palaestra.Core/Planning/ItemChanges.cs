using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>What the cautions change about a rung for this client, in words; one-sided changes name their side.</summary>
public static class ItemChanges
{
    /// <summary>What a client's precautions change about the exercise; empty where nothing.</summary>
    public static IReadOnlyList<Message> Of(Rung rung, ClientProfile profile, PracticeLibrary library) =>
        [
            .. (
                from side in rung.TaskSides
                from note in Allowance.Of(library, profile.Precautions, rung, side).Cautions
                where note.Change is not null
                let oneSided = profile.Precautions.Any(p => p.Id == note.PrecautionId && p.Side != Side.Both)
                select Message.Of("change", ("side", oneSided ? side : Side.Both), ("change", note.Change))
            ).Distinct(),
        ];
}
