using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>A rung that a precaution forbids is never proposed, whatever was found, wanted and at hand.</summary>
public class BarredRungsTests
{
    public static TheoryData<string> EveryPrecaution => [.. Content.Library.Precautions.Select(p => p.Id)];

    /// <summary>Random clients who have it beside whatever else; 2,000 for each precaution in the soak.</summary>
    [Theory]
    [MemberData(nameof(EveryPrecaution))]
    public void Never_appears_for_any_client_with(string id) =>
        Gen.Select(AnyClient.Input, Gen.Int[0, 1 << 20])
            .Sample((input, ticks) => NothingForbidden(With(input, id, ticks)), iter: Soak.Histories / 10);

    private static PlanInput With(PlanInput input, string id, int ticks) =>
        input with
        {
            // Small minutes most of the time: the days on which a planner is tempted.
            MinutesPerDay = input.MinutesPerDay / 3 + 1,
            Profile = input.Profile with
            {
                Precautions =
                [
                    .. input.Profile.Precautions.Where(p => p.Id != id),
                    AnyClient.Of(Content.Library.Precaution(id), ticks),
                ],
            },
        };

    private static void NothingForbidden(PlanInput input)
    {
        var policy = Content.Library.FindPolicy(input.PolicyId)!;
        var level = IrritabilityLevel.Of(input.Profile, policy);
        var (all, objective, _) = Planner.Weigh(input, level, policy, Content.Library);
        var (best, second) = Planner.Search(all, objective, input.MinutesPerDay, policy);
        // Looked up in the data itself, not by the code under test.
        foreach (var option in (best?.Options ?? []).Concat(second?.Options ?? []))
        {
            var rung = Content.Library.Rung(option.RungId);
            var ladder = Content.Library.LadderOf(option.RungId);
            foreach (var mine in input.Profile.Precautions)
            {
                foreach (var rule in Content.Library.Precaution(mine.Id).Rules)
                {
                    if (rule.Effect == PrecautionEffect.Bar && Holds(rule, mine) && Meant(rule, rung, ladder))
                    {
                        Assert.NotNull(rule.Beyond);
                        Assert.All(
                            option.Doses,
                            dose =>
                                Assert.True(
                                    Within(rule.Beyond, dose.Dose, policy.Tempo.Seconds(rung.MoveSeconds))
                                )
                        );
                    }
                }
            }
        }
    }

    private static bool Holds(PrecautionRule rule, ClientPrecaution mine) =>
        rule.When is null
        || mine.Options is null
        || mine.Options.Count == 0
        || rule.When.Intersect(mine.Options).Any();

    private static bool Meant(PrecautionRule rule, Rung rung, Ladder ladder)
    {
        var meant = rule switch
        {
            { Everything: true } => true,
            { Ladder: { } id } => ladder.Id == id,
            { Position: { } position } => rung.Position == position,
            { Feature: { } feature } => rung.Features.Contains(feature),
            { Rungs: { } rungs } => rungs.Contains(rung.Id),
            { From: { } from } => ladder.Rungs.SkipWhile(r => r.Id != from).Any(r => r.Id == rung.Id),
            _ => false,
        };
        return meant && (rule.Unless is null || !rung.Features.Contains(rule.Unless));
    }

    /// <summary>One rep is the least a dose can be, so a limit of seconds lets one through.</summary>
    private static bool Within(DoseLimit limit, Dose dose, double move) =>
        !(dose.Hold > limit.Hold)
        && (limit.Seconds is null || dose.Reps == 1 || dose.Reps * (dose.Hold + move) <= limit.Seconds);
}
