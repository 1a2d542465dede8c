namespace Palaestra.Core.Intake;

/// <summary>
/// Precautions that turn out to have been there at an earlier visit: forgotten then, they hold now. What stands is only ever
/// widened by it, since the worst a forgotten one can do is hurt, and the worst a doubled one can do is be asked about.
/// </summary>
public static class FoundPrecautions
{
    /// <param name="standing">As told at a later visit.</param>
    /// <param name="had">As it was known at the earlier visit until now.</param>
    /// <param name="told">As it is told of the earlier visit now.</param>
    /// <returns>What stands with what was found: one that still stands holds for both findings together; one that was known then and has been taken back since stays taken back.</returns>
    public static IReadOnlyList<ClientPrecaution> In(
        IReadOnlyList<ClientPrecaution> standing,
        IReadOnlyList<ClientPrecaution> had,
        IReadOnlyList<ClientPrecaution> told
    )
    {
        var found = told.Where(t => !had.Any(h => Same(h, t))).ToList();
        return
        [
            .. standing.Select(p => found.Where(f => f.Id == p.Id).Aggregate(p, Together)),
            .. found.Where(f => standing.All(p => p.Id != f.Id) && had.All(h => h.Id != f.Id)),
        ];
    }

    /// <summary>Lists are compared by what stands in them.</summary>
    private static bool Same(ClientPrecaution a, ClientPrecaution b) =>
        a with { Options = null } == b with { Options = null }
        && (a.Options ?? []).ToHashSet().SetEquals(b.Options ?? []);

    private static ClientPrecaution Together(ClientPrecaution a, ClientPrecaution b) =>
        a with
        {
            Side = a.Side == b.Side ? a.Side : Side.Both,
            // None ticked: every rule of it holds.
            Options =
                a.Options is { Count: > 0 } && b.Options is { Count: > 0 }
                    ? [.. a.Options.Union(b.Options)]
                    : null,
            Until =
                a.Until is null || b.Until is null ? null
                : a.Until > b.Until ? a.Until
                : b.Until,
        };
}
