using Palaestra.Core.Library;
using Palaestra.Core.Visits;

namespace Palaestra.Core.Progression;

/// <summary>What one policy would have decided at a visit, with what was really done until then.</summary>
public sealed record ReplayedPolicy(string PolicyId, IReadOnlyList<Decision> Decisions);

/// <param name="Visit">Ordinal of the visit in the episode.</param>
public sealed record ReplayedVisit(int Visit, DateOnly Date, IReadOnlyList<ReplayedPolicy> Policies);

/// <summary>
/// A finished course under other policies: at each visit the same work and answers, other rules. It does not say what the
/// client would have done next under them; docs/policies.md does that with simulated clients.
/// </summary>
public static class Replay
{
    /// <param name="visits">What was looked at at each visit.</param>
    /// <param name="performances">The work of all visits, judged by a policy's rule for pain.</param>
    public static IReadOnlyList<ReplayedVisit> Of(
        IReadOnlyList<DecideInput> visits,
        Func<PainRule, IReadOnlyList<Performance>> performances,
        IReadOnlyList<Policy> policies,
        PracticeLibrary library
    )
    {
        var work = policies.Select(p => p.Pain).Distinct().ToDictionary(pain => pain, performances);
        return
        [
            .. visits.Select(visit => new ReplayedVisit(
                visit.Visit,
                visit.Date,
                [
                    .. policies.Select(policy => new ReplayedPolicy(
                        policy.Id,
                        DecisionEngine.Bare(
                            visit with
                            {
                                PolicyId = policy.Id,
                                Visits = [.. work[policy.Pain].Where(p => p.Visit <= visit.Visit)],
                            },
                            library
                        )
                    )),
                ]
            )),
        ];
    }
}
