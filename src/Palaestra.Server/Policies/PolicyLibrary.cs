using Palaestra.Core.Library;
using Palaestra.Data.Policies;

namespace Palaestra.Server.Policies;

/// <summary>The library with the clinic's own policies laid over the built-in ones; the same for the whole server.</summary>
public sealed class PolicyLibrary(PracticeLibrary builtIn)
{
    private volatile PracticeLibrary library = builtIn;

    /// <summary>As it is now. A request keeps the one it began with.</summary>
    public PracticeLibrary Library => library;

    public PracticeLibrary BuiltIn { get; } = builtIn;

    public bool IsBuiltIn(string id) => BuiltIn.FindPolicy(id) is not null;

    /// <param name="revisions">All versions of all own policies; the highest of each is in force.</param>
    public void Put(IEnumerable<PolicyRevision> revisions) =>
        library = With([
            .. revisions
                .GroupBy(revision => revision.PolicyId)
                .Select(versions => versions.MaxBy(revision => revision.Version)!.Policy)
                .OrderBy(policy => policy.Name, StringComparer.Ordinal),
        ]);

    /// <summary>The library as it would be with other own policies.</summary>
    public PracticeLibrary With(IReadOnlyList<Policy> own) =>
        BuiltIn with
        {
            Policies = [.. BuiltIn.Policies, .. own],
        };
}
