namespace Palaestra.Core.Library;

/// <summary>Something put on top of a rung without making it another: a resisted breath out, a squeeze, help that fades.</summary>
/// <param name="Id">Written in doses; with its hyphens as spaces it stands in the words of a dose.</param>
/// <param name="Name">As it is read after "with": "a resisted breath out".</param>
/// <param name="Words">What the client does, one sentence, on the card and the home programme.</param>
/// <param name="Harder">False: it helps, and is taken away before anything else is made harder.</param>
/// <param name="Ladders">Where it suits; <paramref name="Rungs"/>: single rungs beside them.</param>
/// <param name="Equipment">What it needs, by id. <paramref name="BarredBy"/>: precautions with which it is not done.</param>
public sealed record Modifier(
    string Id,
    string Name,
    string Words,
    bool Harder,
    IReadOnlyList<string> Ladders,
    IReadOnlyList<string> Rungs,
    IReadOnlyList<string> Equipment,
    IReadOnlyList<string> BarredBy
)
{
    /// <summary>Whether it can be used on that rung.</summary>
    public bool Fits(Rung rung, Ladder ladder) => Ladders.Contains(ladder.Id) || Rungs.Contains(rung.Id);

    /// <summary>Ids that name nothing; fields of <c>modifiers.json</c>.</summary>
    public static IEnumerable<FieldError> Errors(
        IReadOnlyList<Modifier> modifiers,
        IReadOnlyCollection<Ladder> ladders,
        IReadOnlyList<Equipment> equipment,
        IReadOnlyList<Precaution> precautions
    )
    {
        var rungs = ladders.SelectMany(ladder => ladder.Rungs).Select(rung => rung.Id).ToHashSet();
        for (var i = 0; i < modifiers.Count; i++)
        {
            var at = $"modifiers.json modifiers[{i}]";
            foreach (var id in modifiers[i].Ladders.Where(id => ladders.All(ladder => ladder.Id != id)))
            {
                yield return new($"{at}.ladders", Message.Of("content.no-ladder", ("ladder", id)));
            }
            foreach (var id in modifiers[i].Rungs.Where(id => !rungs.Contains(id)))
            {
                yield return new($"{at}.rungs", Message.Of("content.no-rung", ("rung", id)));
            }
            foreach (var id in modifiers[i].Equipment.Where(id => equipment.All(piece => piece.Id != id)))
            {
                yield return new($"{at}.equipment", Message.Of("content.no-equipment", ("equipment", id)));
            }
            foreach (var id in modifiers[i].BarredBy.Where(id => precautions.All(p => p.Id != id)))
            {
                yield return new($"{at}.barredBy", Message.Of("content.no-precaution", ("precaution", id)));
            }
        }
    }
}
