namespace Palaestra.Core.Planning;

/// <summary>A rung with one of its doses, as the search weighs it.</summary>
/// <param name="Ladder">One rung of a ladder at most; basics and locked exercises stand for themselves.</param>
/// <param name="Seconds">With set-up, without a change of position.</param>
/// <param name="Cover">By direction, thousandths of the most that is on offer for it.</param>
/// <param name="Own">Points for itself, thousandths: what suits the client, the entry rung.</param>
/// <param name="Goals">Bits of the goals it serves. <paramref name="Equipment"/>: bits of what it needs.</param>
/// <param name="Well">Everything it asks for was held.</param>
/// <param name="Locked">In every plan.</param>
internal sealed record PlanOption(
    Candidate? Candidate,
    PlanItem? Locked,
    string RungId,
    string Ladder,
    IReadOnlyList<SideDose> Doses,
    double Seconds,
    int[] Cover,
    int Own,
    int Goals,
    int Equipment,
    int Position,
    bool Basic,
    bool Well
)
{
    /// <summary>Canonical name, so that no result depends on the order things came in.</summary>
    public string Key { get; } =
        $"{RungId}/{string.Join('/', Doses.Select(d => $"{d.Side}{d.Dose.Sets}x{d.Dose.Reps}"))}";
}
