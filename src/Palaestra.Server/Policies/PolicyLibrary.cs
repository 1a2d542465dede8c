using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Data.Policies;

namespace Palaestra.Server.Policies;

/// <summary>
/// The library with the clinic's own policies laid over the built-in ones, and the errors of its own eye where it took them on; the
/// same for the whole server.
/// </summary>
public sealed class PolicyLibrary(PracticeLibrary builtIn)
{
    private readonly Lock changing = new();
    private IReadOnlyList<Policy> own = [];
    private ClinicEye? eye;
    private volatile PracticeLibrary library = builtIn;

    /// <summary>As it is now. A request keeps the one it began with.</summary>
    public PracticeLibrary Library => library;

    public PracticeLibrary BuiltIn { get; } = builtIn;

    public bool IsBuiltIn(string id) => BuiltIn.FindPolicy(id) is not null;

    /// <param name="revisions">All versions of all own policies; the highest of each is in force.</param>
    public void Put(IEnumerable<PolicyRevision> revisions)
    {
        lock (changing)
        {
            own =
            [
                .. revisions
                    .GroupBy(revision => revision.PolicyId)
                    .Select(versions => versions.MaxBy(revision => revision.Version)!.Policy)
                    .OrderBy(policy => policy.Name, StringComparer.Ordinal),
            ];
            library = Made(own, eye);
        }
    }

    /// <param name="taken">None: the built-in errors hold.</param>
    public void See(ClinicEye? taken)
    {
        lock (changing)
        {
            eye = taken;
            library = Made(own, eye);
        }
    }

    /// <summary>The library as it would be with other own policies.</summary>
    public PracticeLibrary With(IReadOnlyList<Policy> policies) => Made(policies, eye);

    /// <summary>The library as it would be with another eye.</summary>
    public PracticeLibrary Seen(ClinicEye? taken) => Made(own, taken);

    private PracticeLibrary Made(IReadOnlyList<Policy> policies, ClinicEye? seen) =>
        BuiltIn with
        {
            Policies = [.. BuiltIn.Policies, .. policies],
            Ability = seen?.Over(BuiltIn.Ability) ?? BuiltIn.Ability,
            Norms = seen is null
                ? BuiltIn.Norms
                : BuiltIn.Norms with
                {
                    Errors = seen.Over(BuiltIn.Norms.Errors),
                },
        };
}
