using Palaestra.Core.Body;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Planning;

/// <summary>
/// Chooses three to five exercises at entry rungs: the switch-on, the weak link, every direction below even, and
/// something done well when minutes allow.
/// </summary>
public static class Planner
{
    public const int ExercisesMin = 3;
    public const int ExercisesMax = 5;

    public static PlanProposal Propose(PlanInput input, PracticeLibrary library, Func<Guid> newId)
    {
        var policy = library.FindPolicy(input.PolicyId) ?? library.DefaultPolicy;
        var level = StirredUpLevel.Of(input.Profile, policy);
        var left = new List<Reason>();
        var candidates = library
            .Ladders.Where(ladder => ladder.Screened)
            .Select(ladder => Candidate.Of(ladder, input, level, policy, library, left))
            .OfType<Candidate>()
            .OrderByDescending(candidate => candidate.Score)
            .ToList();
        var chosen = Basics(input, candidates, library)
            .Concat(candidates)
            .DistinctBy(c => c.Rung.Id)
            .ToList();
        var items = new List<PlanItem>();
        foreach (var candidate in chosen)
        {
            var item = ItemOf(candidate, input, level, policy, library, newId);
            var trial = Make([.. items, item], input, policy, library);
            if (trial.TotalMinutes > input.MinutesPerDay)
            {
                trial = Make([.. items, WithFewerSets(item)], input, policy, library);
            }
            if (items.Count >= ExercisesMin && trial.TotalMinutes > input.MinutesPerDay)
            {
                left.Add(
                    new(
                        "P-MINUTES",
                        $"{candidate.Rung.Name} would go over {input.MinutesPerDay:0.#} minutes."
                    )
                );
                continue;
            }
            if (items.Count >= ExercisesMax)
            {
                left.Add(new("P-FEW", $"{candidate.Rung.Name}: {ExercisesMax} exercises are enough."));
                continue;
            }
            items.Add(trial.Items[^1]);
        }
        var plan = Make(FewPositionChanges(items, library), input, policy, library);
        plan = plan with
        {
            Warnings = PlanCheck.Warnings(plan, input.Profile, input.Findings, input.MinutesPerDay, library),
        };
        return new PlanProposal(plan, level, Forbidden(input.Profile, library), left);
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

    /// <summary>Neutral and switch-on rungs come first; a position that fails altogether gets its neutral too (P-BASE).</summary>
    private static IEnumerable<Candidate> Basics(
        PlanInput input,
        List<Candidate> candidates,
        PracticeLibrary library
    )
    {
        var switchOn = library
            .Ladders.SelectMany(l => l.Rungs)
            .Where(r =>
                r.Features.Contains(Rung.NeutralFeature) || r.Features.Contains(Rung.SwitchOnFeature)
            );
        var allowed = switchOn
            .Where(r => !Allowance.Of(library, input.Profile.Precautions, r, Side.Both).Barred)
            .ToList();
        // The last basic rung joins breath and switch-on; the earlier ones fill a plan that precautions leave short.
        var wanted =
            candidates.Count + 1 >= ExercisesMin ? allowed.TakeLast(1) : allowed.AsEnumerable().Reverse();
        return wanted
            .Take(Math.Max(1, ExercisesMin - candidates.Count))
            .Select(rung => new Candidate(
                rung,
                double.MaxValue,
                "switching the trunk on while breathing",
                [new("P-BASE", "Neutral and switch-on come before any load.")],
                null
            ));
    }

    private static PlanItem ItemOf(
        Candidate candidate,
        PlanInput input,
        StirredUp level,
        Policy policy,
        PracticeLibrary library,
        Func<Guid> newId
    )
    {
        var rung = candidate.Rung;
        var dose = DosePlanner.Start(rung, level, policy);
        var reasons = candidate.Reasons.ToList();
        reasons.Add(new($"P-DOSE-{level.ToString().ToUpperInvariant()}", DoseWords(level, dose)));
        var doses = rung.TaskSides.Select(side => new SideDose(side, dose)).ToList();
        if (candidate.Weaker is { } weaker && rung.Sides == RungSides.Each)
        {
            var more = DosePlanner.ForWeakerSide(dose, rung, level, policy);
            doses = [new(weaker, more), new(weaker.Other(), dose)];
            reasons.Add(
                new("P-WEAKER", $"The {weaker.Word()} is weaker: it goes first and gets {more.Words()}.")
            );
        }
        var body = input.Body ?? BodySize.Typical;
        doses = [.. doses.Select(d => PlanRange.Cautious(d, rung, input.Profile, body, library))];
        if (doses.Where(d => d.Range < 1).ToList() is { Count: > 0 } shorter)
        {
            reasons.Add(
                new(
                    "P-RANGE",
                    string.Join(
                        "; ",
                        shorter.Select(d => $"Shorter range, {d.Side.Word()}: {PlanRange.Words(d)}")
                    ) + "."
                )
            );
        }
        return new PlanItem(
            newId(),
            rung.Id,
            candidate.For,
            doses,
            reasons,
            ItemChanges.Of(rung, input.Profile, library),
            rung.Cues[0]
        );
    }

    /// <summary>One set a side, two for the weaker one if it had more: rather less of an exercise than none (P-FEWER-SETS).</summary>
    private static PlanItem WithFewerSets(PlanItem item)
    {
        var least = item.Doses.Min(d => d.Dose.Sets);
        if (item.Doses.All(d => d.Dose.Sets == 1))
        {
            return item;
        }
        var doses = item.Doses.Select(d => d with { Dose = d.Dose with { Sets = 1 + d.Dose.Sets - least } });
        return item with
        {
            Doses = [.. doses],
            Reasons = [.. item.Reasons, new("P-FEWER-SETS", "Fewer sets, to fit the minutes.")],
        };
    }

    private static string DoseWords(StirredUp level, Dose dose) =>
        level switch
        {
            StirredUp.High => $"Easily stirred up: few reps, short holds ({dose.Words()}).",
            StirredUp.Moderate => $"Moderately stirred up: {dose.Words()}.",
            _ => $"Calm: the rung's own start, {dose.Words()}.",
        };

    private static Plan Make(
        IReadOnlyList<PlanItem> items,
        PlanInput input,
        Policy policy,
        PracticeLibrary library
    ) =>
        PlanTime.WithMinutes(
            new Plan(
                items,
                input.Strategy,
                input.SwitchOn,
                policy.Id,
                policy.Version,
                library.Version,
                0,
                []
            ),
            library,
            policy
        );

    /// <summary>Items of the same position stand together, in the order in which the positions first appear (P-ORDER).</summary>
    private static List<PlanItem> FewPositionChanges(List<PlanItem> items, PracticeLibrary library)
    {
        var positions = items.Select(item => library.Rung(item.RungId).Position).Distinct().ToList();
        return [.. items.OrderBy(item => positions.IndexOf(library.Rung(item.RungId).Position))];
    }
}
