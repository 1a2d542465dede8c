using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Data;
using Palaestra.Data.Policies;
using Palaestra.Server.Clinics;
using Palaestra.Server.Intake;
using Palaestra.Server.Planning;

namespace Palaestra.Server.Policies;

/// <summary>What a changed policy would do to one open plan.</summary>
/// <param name="Proposal">How a plan proposed today would differ; empty where it would not.</param>
/// <param name="Present">What would be different about the plan in force: its minutes and warnings.</param>
public sealed record PolicyEffect(
    Guid EpisodeId,
    Guid VisitId,
    string ClientName,
    IReadOnlyList<Message> Proposal,
    IReadOnlyList<Message> Present
);

/// <summary>Copies and changes a clinic's own policies, and says what a change would do.</summary>
public sealed class ClinicPolicies(
    PalaestraDb db,
    PolicyLibrary policyLibrary,
    CaseFiles files,
    ClinicClock clock
)
{
    public async Task<IReadOnlyList<PolicyRevision>> Revisions() =>
        await db.Policies.AsNoTracking().OrderBy(p => p.PolicyId).ThenBy(p => p.Version).ToListAsync();

    /// <summary>A copy under a new name, at version 1; stored.</summary>
    public async Task<PolicyRevision> Copy(Policy model, string name, string why, string by)
    {
        var id = $"own-{Guid.CreateVersion7():N}";
        var basedOn = policyLibrary.IsBuiltIn(model.Id)
            ? model.Id
            : await db.Policies.Where(p => p.PolicyId == model.Id).Select(p => p.BasedOn).FirstAsync();
        return await Store(
            new PolicyRevision
            {
                PolicyId = id,
                Version = 1,
                BasedOn = basedOn,
                Policy = model with { Id = id, Version = 1, Name = name.Trim(), Why = why.Trim() },
                ChangedAt = clock.Now,
                ChangedBy = by,
            }
        );
    }

    /// <summary>The next version; stored. The caller has checked the values and the version.</summary>
    /// <exception cref="DbUpdateException">Somebody else stored the same version at the same moment.</exception>
    public async Task<PolicyRevision> Change(PolicyRevision latest, Policy policy, string by) =>
        await Store(
            new PolicyRevision
            {
                PolicyId = latest.PolicyId,
                Version = latest.Version + 1,
                BasedOn = latest.BasedOn,
                Policy = policy with { Id = latest.PolicyId, Version = latest.Version + 1 },
                ChangedAt = clock.Now,
                ChangedBy = by,
            }
        );

    /// <summary>Bounds and options of every choice; a name and a reason are needed.</summary>
    public IReadOnlyList<FieldError> Errors(Policy policy) =>
        [
            .. SchoolCheck.Errors(policy, policyLibrary.BuiltIn.Schools, "policy."),
            .. NameErrors(policy.Name, policy.Why, "policy."),
        ];

    public static IEnumerable<FieldError> NameErrors(string name, string why, string prefix)
    {
        if (string.IsNullOrWhiteSpace(name) || name.Length > 80)
        {
            yield return new($"{prefix}name", Message.Of("policy.name"));
        }
        if (string.IsNullOrWhiteSpace(why) || why.Length > 400)
        {
            yield return new($"{prefix}why", Message.Of("policy.why"));
        }
    }

    /// <summary>Open plans by this policy that a change would touch.</summary>
    public async Task<IReadOnlyList<PolicyEffect>> Effects(Policy changed)
    {
        var others = policyLibrary.Library.Policies.Where(p =>
            !policyLibrary.IsBuiltIn(p.Id) && p.Id != changed.Id
        );
        var library = policyLibrary.With([.. others, changed]);
        var effects = new List<PolicyEffect>();
        var ids = await db
            .Episodes.Where(e => e.PolicyId == changed.Id)
            .OrderBy(e => e.Client!.Name)
            .Select(e => e.Id)
            .ToListAsync();
        foreach (var id in ids)
        {
            var file = (await files.OfEpisode(id))!;
            if (
                file.CurrentPlan is { } revision
                && EffectOn(file, revision.Plan, library, changed) is { } effect
            )
            {
                effects.Add(effect);
            }
        }
        return effects;
    }

    private PolicyEffect? EffectOn(CaseFile file, Plan plan, PracticeLibrary library, Policy changed)
    {
        var proposal = new List<Message>();
        if (new PlanProposals(db, policyLibrary.Library, clock).InputOf(file) is { } input)
        {
            var now = Planner.Propose(input, policyLibrary.Library, Guid.CreateVersion7).Plan;
            var then = Planner.Propose(input, library, Guid.CreateVersion7).Plan;
            proposal.AddRange(PlanComparison.ByRung(now, then, library).Words());
        }
        var present = PlanTime.WithMinutes(plan with { PolicyId = changed.Id }, library, changed);
        var before = PlanTime.WithMinutes(plan, policyLibrary.Library, file.Policy);
        var words = new List<Message>();
        if (Math.Abs(present.TotalMinutes - before.TotalMinutes) >= 0.05)
        {
            words.Add(
                Message.Of(
                    "compare.minutes",
                    ("before", before.TotalMinutes),
                    ("after", present.TotalMinutes)
                )
            );
        }
        words.AddRange(
            WarningsOf(file, present, library).Except(WarningsOf(file, before, policyLibrary.Library))
        );
        return proposal.Count + words.Count == 0
            ? null
            : new(file.Episode.Id, file.Visits[^1].Id, file.Episode.Client!.Name, proposal, words);
    }

    private static IEnumerable<Message> WarningsOf(CaseFile file, Plan plan, PracticeLibrary library) =>
        PlanCheck
            .Warnings(plan, file.Profile, file.Findings(), file.Episode.MinutesPerDay, library)
            .Select(warning =>
                plan.Items.FirstOrDefault(item => item.Id == warning.ItemId) is { } item
                    ? Message.Of("compare.of", ("rung", item.RungId), ("change", warning.Words))
                    : warning.Words
            );

    private async Task<PolicyRevision> Store(PolicyRevision revision)
    {
        db.Policies.Add(revision);
        await db.SaveChangesAsync();
        // What is due, and after how long, follows from the policy.
        await db.Standings.ExecuteUpdateAsync(set => set.SetProperty(s => s.Stale, true));
        policyLibrary.Put(await Revisions());
        return revision;
    }
}
