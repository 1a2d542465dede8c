using Palaestra.Core.Intake;
using Palaestra.Core.Library;

namespace Palaestra.Core.Planning;

/// <summary>
/// The best set of exercises for what was found, wanted, at hand and forbidden, within the minutes: an exact search over
/// every rung that may be given. See docs/planning.md.
/// </summary>
public static class Planner
{
    /// <summary>Minutes by which the other proposals differ.</summary>
    private const double Five = 5;

    /// <summary>The best plan within the minutes, with its reasons; one without exercises and with words where nothing may go in.</summary>
    public static PlanProposal Propose(PlanInput asked, PracticeLibrary library, Func<Guid> newId)
    {
        var policy = library.FindPolicy(asked.PolicyId) ?? library.DefaultPolicy;
        var input = asked with { Profile = Young.Told(asked.Profile, asked.Age, library) };
        var level = IrritabilityLevel.Of(input.Profile, policy);
        var (weighed, objective, left) = Weigh(input, level, policy, library);
        // Walking goes beside the exercises, it does not compete with them.
        var beside = weighed.Where(option => option.Candidate?.Ladder.IsTolerance == true).ToList();
        var all = weighed.Except(beside).ToList();
        var (best, second) = Search(all, objective, input.MinutesPerDay, policy);
        // The spells on the back are counted over the plan: one of its exercises is let go until they fit.
        while (best is not null && SpellAccount.TooLong(best, input.Profile, policy, library) is { } over)
        {
            all.Remove(over);
            (best, second) = Search(all, objective, input.MinutesPerDay, policy);
        }
        var nearest = best ?? Nearest(all, policy);
        var writer = new PlanWriter(input, level, policy, library, newId);
        var plan = writer.Plan([
            .. nearest?.Options ?? [],
            .. best is null ? [] : Beside(best, beside, input.MinutesPerDay * 60, policy),
        ]);
        OtherPlan? Other(FoundPlan? found, double minutes) =>
            found is null || nearest is null
                ? null
                : PlanWords.Other(nearest, found, minutes, objective, library);
        return new PlanProposal(
            plan with
            {
                Warnings = PlanCheck.Warnings(
                    plan,
                    input.Profile,
                    input.Findings,
                    input.MinutesPerDay,
                    library
                ),
            },
            level,
            Forbidden(input.Profile, library),
            [.. left, .. PlanWords.NotChosen(nearest, all, objective, input.MinutesPerDay, policy, library)],
            best is null ? null : objective.Score(best.Options),
            Other(second, input.MinutesPerDay),
            input.MinutesPerDay - Five < PlanInput.MinutesMin
                ? null
                : Other(
                    Search(all, objective, input.MinutesPerDay - Five, policy, false).Best,
                    input.MinutesPerDay - Five
                ),
            Other(
                Search(all, objective, input.MinutesPerDay + Five, policy, false).Best,
                input.MinutesPerDay + Five
            ),
            [
                .. PlanWords.Notes(input, best, nearest, all, policy, library),
                .. PlanCautions.Notes(input, library),
            ]
        );
    }

    /// <summary>Every rung the client's precautions bar, with the words to say why.</summary>
    public static IReadOnlyList<ForbiddenRung> Forbidden(ClientProfile profile, PracticeLibrary library) =>
        [
            .. from ladder in library.TrainedLadders
            from rung in ladder.Rungs
            let allowance = Allowance.Of(library, profile.Precautions, rung, Side.Both)
            where allowance.Barred
            select new ForbiddenRung(rung.Id, allowance.BarWords),
        ];

    /// <summary>Everything the search chooses from, and what each set of it is worth.</summary>
    internal static (List<PlanOption> All, PlanObjective Objective, IReadOnlyList<Reason> Left) Weigh(
        PlanInput input,
        Irritability level,
        Policy policy,
        PracticeLibrary library
    )
    {
        var candidates = new Candidates(input, level, policy, library);
        var all = new PlanOptions(input, level, policy, library).Of(candidates.All());
        return (all, new PlanObjective(input.Findings, policy), candidates.Left);
    }

    internal static (FoundPlan? Best, FoundPlan? Second) Search(
        IReadOnlyList<PlanOption> all,
        PlanObjective objective,
        double minutes,
        Policy policy,
        bool runnerUp = true
    ) =>
        new PlanSearch(
            all,
            objective,
            minutes * 60,
            policy.Seconds.PositionChange,
            policy.ExercisesMax,
            runnerUp
        ).Run();

    /// <summary>The most of what goes beside the exercises that the minutes still have room for.</summary>
    private static IEnumerable<PlanOption> Beside(
        FoundPlan best,
        IReadOnlyList<PlanOption> beside,
        double seconds,
        Policy policy
    ) =>
        beside
            .Where(option =>
                best.Seconds
                    + option.Seconds
                    + (
                        best.Options.Any(o => o.Position == option.Position)
                            ? 0
                            : policy.Seconds.PositionChange
                    )
                <= seconds
            )
            .OrderByDescending(option => option.Seconds)
            .Take(1);

    /// <summary>Where nothing fits: what is locked, else the shortest exercise there is. None where there is none.</summary>
    private static FoundPlan? Nearest(List<PlanOption> all, Policy policy)
    {
        var locked = all.Where(option => option.Locked is not null).ToList();
        var set =
            locked.Count > 0
                ? locked
                : all.OrderByDescending(option => option.Basic)
                    .ThenBy(option => option.Seconds)
                    .ThenBy(option => option.Key, StringComparer.Ordinal)
                    .Take(1)
                    .ToList();
        var changes = set.Select(option => option.Position).Distinct().Count() - 1;
        return set.Count == 0
            ? null
            : new FoundPlan(
                set,
                0,
                set.Sum(option => option.Seconds) + changes * policy.Seconds.PositionChange
            );
    }
}
