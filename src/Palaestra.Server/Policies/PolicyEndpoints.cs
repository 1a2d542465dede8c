using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using NodaTime;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Data.Policies;
using Palaestra.Server.Description;
using Palaestra.Server.Keeping;
using Palaestra.Server.People;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Policies;

public sealed record PolicyVersionView(int Version, Instant ChangedAt, string ChangedBy);

/// <param name="BasedOn">The built-in policy whose values stand beside; itself where it is one.</param>
/// <param name="Versions">Oldest first; empty for a built-in one.</param>
/// <param name="Clients">How many episodes are treated by it.</param>
public sealed record PolicyView(
    Policy Policy,
    bool BuiltIn,
    string BasedOn,
    IReadOnlyList<PolicyVersionView> Versions,
    int Clients
);

/// <param name="Simulated">What simulated courses came to with other values of the choices.</param>
public sealed record PoliciesView(
    IReadOnlyList<PolicyView> Policies,
    IReadOnlyList<SchoolGroup> Groups,
    Simulated Simulated
);

public sealed record CopyPolicyForm(string From, string Name, string Why);

/// <param name="Version">The version this change is based on.</param>
public sealed record ChangePolicyForm(Policy Policy, int Version);

public sealed record PolicyDraft(Policy Policy);

public static class PolicyEndpoints
{
    public static void MapPolicies(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/policies").WithTags("Policies");
        group.MapGet("", Get).Described("GetPolicies", "The policies of the clinic.");
        group.MapPost("", Copy).Described("CopyPolicy", "Makes a policy of the clinic’s own from another.");
        group
            .MapPut("/{id}", Change)
            .Described(
                "ChangePolicy",
                "Changes a policy of the clinic’s own, on the version that was read.",
                404,
                409
            );
        group
            .MapPost("/{id}/effects", Effects)
            .Described(
                "GetPolicyEffects",
                "What a changed policy would decide otherwise in open episodes. Nothing is stored.",
                404
            );
    }

    private static async Task<Ok<PoliciesView>> Get(
        ClinicPolicies clinicPolicies,
        PolicyLibrary policyLibrary,
        PalaestraDb db
    )
    {
        var revisions = await clinicPolicies.Revisions();
        var clients = await db
            .Episodes.GroupBy(e => e.PolicyId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count);
        return TypedResults.Ok(
            new PoliciesView(
                [
                    .. policyLibrary.Library.Policies.Select(policy =>
                        ViewOf(
                            policy,
                            [.. revisions.Where(r => r.PolicyId == policy.Id)],
                            clients.GetValueOrDefault(policy.Id)
                        )
                    ),
                ],
                policyLibrary.BuiltIn.Schools,
                policyLibrary.BuiltIn.Simulated
            )
        );
    }

    private static PolicyView ViewOf(Policy policy, IReadOnlyList<PolicyRevision> versions, int clients) =>
        new(
            policy,
            versions.Count == 0,
            versions is [var first, ..] ? first.BasedOn : policy.Id,
            [.. versions.Select(v => new PolicyVersionView(v.Version, v.ChangedAt, v.ChangedBy))],
            clients
        );

    private static async Task<Results<Created<Policy>, ProblemHttpResult>> Copy(
        CopyPolicyForm form,
        ClinicPolicies clinicPolicies,
        PolicyLibrary policyLibrary,
        WhoIsHere who
    )
    {
        if (policyLibrary.Library.FindPolicy(form.From) is not { } from)
        {
            return Problem.Field("from", Message.Of("no.policy", ("policy", form.From)));
        }
        var errors = ClinicPolicies.NameErrors(form.Name, form.Why, "").ToList();
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var stored = await clinicPolicies.Copy(from, form.Name, form.Why, who.Name);
        return TypedResults.Created($"/api/policies/{stored.PolicyId}", stored.Policy);
    }

    private static async Task<Results<Ok<Policy>, ProblemHttpResult>> Change(
        string id,
        ChangePolicyForm form,
        ClinicPolicies clinicPolicies,
        PolicyLibrary policyLibrary,
        WhoIsHere who
    )
    {
        if (policyLibrary.IsBuiltIn(id))
        {
            return Problem.Field("policy.id", Message.Of("policy.built-in"));
        }
        if ((await clinicPolicies.Revisions()).LastOrDefault(r => r.PolicyId == id) is not { } latest)
        {
            return Problem.NotFound("policy");
        }
        var errors = clinicPolicies.Errors(form.Policy);
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var conflict = Message.Of("policy.meanwhile");
        if (form.Version != latest.Version)
        {
            return Problem.Conflict(conflict, latest.Policy);
        }
        try
        {
            return TypedResults.Ok((await clinicPolicies.Change(latest, form.Policy, who.Name)).Policy);
        }
        catch (DbUpdateException problem) when (!StoreFault.Is(problem))
        {
            return Problem.Conflict(conflict);
        }
    }

    private static async Task<Results<Ok<IReadOnlyList<PolicyEffect>>, ProblemHttpResult>> Effects(
        string id,
        PolicyDraft draft,
        ClinicPolicies clinicPolicies,
        PolicyLibrary policyLibrary
    )
    {
        if (policyLibrary.Library.FindPolicy(id) is null)
        {
            return Problem.NotFound("policy");
        }
        var errors = clinicPolicies.Errors(draft.Policy);
        return errors.Count > 0
            ? Problem.Fields(errors)
            : TypedResults.Ok(await clinicPolicies.Effects(draft.Policy with { Id = id }));
    }
}
