namespace Palaestra.Core.Progression;

/// <summary>Decisions for numbers that were tried already, kept for one visit: what is of the whole visit is the same for both sides.</summary>
internal sealed class TriedNumbers
{
    private readonly Dictionary<(Guid, Side?, bool, NumberKind, int), IReadOnlyList<Decision>> kept = [];

    /// <param name="alone">Whether only the exercise itself is decided.</param>
    public IReadOnlyList<Decision> Of(
        Decision decision,
        bool alone,
        NumberKind kind,
        int value,
        Func<IReadOnlyList<Decision>> decide
    )
    {
        Side? side = kind is NumberKind.CleanReps or NumberKind.PainfulSets or NumberKind.HomePercent
            ? decision.Side
            : null;
        var key = (decision.PlanItemId, side, alone, kind, value);
        if (!kept.TryGetValue(key, out var found))
        {
            found = decide();
            kept[key] = found;
        }
        return found;
    }

    private readonly Dictionary<Guid, Message?> ready = [];

    /// <summary>What would have one up offered after an exercise, found once for all its sides.</summary>
    public Message? Ready(Guid item, Func<Message?> find)
    {
        if (!ready.TryGetValue(item, out var words))
        {
            words = find();
            ready[item] = words;
        }
        return words;
    }
}
