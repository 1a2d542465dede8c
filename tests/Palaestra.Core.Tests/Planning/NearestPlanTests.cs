using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>Whatever cannot be met: an explanation and the nearest possible plan, never an empty page.</summary>
public class NearestPlanTests
{
    private static PlanInput Input(ClientProfile who, double minutes = 15) =>
        new(
            who,
            AnyClient.Of([.. Enumerable.Repeat(1, 60)], [40, 60, 80, 80, 50, 55, 70, 75]),
            Content.Policy.Id,
            SpinalStrategy.Neutral,
            Activation.Brace,
            minutes
        );

    private static PlanProposal Propose(PlanInput input) =>
        Planner.Propose(input, Content.Library, Guid.NewGuid);

    private static IEnumerable<string> Notes(PlanProposal proposal) =>
        (proposal.Notes ?? []).Select(note => note.RuleId);

    /// <summary>
    /// The client of docs/planning.md: irritated, bending hurts, sore wrist, a mat and ten minutes. Neutral back, nothing that
    /// bends or leans on a hand, few reps and short holds, within ten minutes, at least three exercises.
    /// </summary>
    [Fact]
    public void A_stirred_up_client_with_a_mat_and_ten_minutes_gets_a_sensible_plan()
    {
        var who = Someone.Sore with { Precautions = [new("flexion"), new("wrist")] };
        var proposal = Propose(Input(who, 10) with { Equipment = ["mat"] });
        Assert.InRange(proposal.Plan.Items.Count, 3, 6);
        Assert.InRange(proposal.Plan.TotalMinutes, 2, 10);
        Assert.Empty(proposal.Plan.Warnings);
        var rungs = proposal.Plan.Items.Select(item => Content.Library.Rung(item.RungId)).ToList();
        Assert.All(
            rungs,
            rung =>
            {
                Assert.DoesNotContain("hands-flat", rung.Features);
                Assert.DoesNotContain("loaded-flexion", rung.Features);
                Assert.DoesNotContain("straight-leg-side", rung.Features);
                Assert.All(rung.Equipment, piece => Assert.Equal("mat", piece));
            }
        );
        Assert.All(
            proposal.Plan.Items.SelectMany(item => item.Doses),
            dose =>
            {
                Assert.InRange(dose.Dose.Reps, 1, 4);
                Assert.InRange(dose.Dose.Hold, 0, 5);
            }
        );
        Assert.Contains(proposal.Plan.Items, item => item.Reasons.Any(reason => reason.RuleId == "P-WEAK"));
    }

    [Fact]
    public void Nothing_at_hand_leaves_what_needs_nothing_and_says_what_a_mat_would_open()
    {
        var proposal = Propose(Input(Someone.Calm) with { Equipment = [] });
        Assert.NotEmpty(proposal.Plan.Items);
        Assert.All(proposal.Plan.Items, item => Assert.Empty(Content.Library.Rung(item.RungId).Equipment));
        Assert.Contains("P-NEAREST-MAT", Notes(proposal));
    }

    [Fact]
    public void A_minute_a_day_gets_the_shortest_that_makes_sense_or_what_fits()
    {
        var proposal = Propose(Input(Someone.Calm, 1));
        Assert.NotEmpty(proposal.Plan.Items);
        Assert.Contains(Notes(proposal), id => id.StartsWith("P-NEAREST", StringComparison.Ordinal));
        Assert.Null(proposal.FiveLess);
    }

    [Fact]
    public void Everything_left_out_names_what_is_nearest()
    {
        var all = Content
            .Library.TrainedLadders.SelectMany(ladder => ladder.Rungs)
            .Select(rung => rung.Id)
            .ToList();
        var proposal = Propose(Input(Someone.Calm) with { LeftOut = all });
        Assert.Empty(proposal.Plan.Items);
        Assert.Equal(["P-NEAREST-NONE", "P-MAT-ONLY"], Notes(proposal));
        Assert.Null(proposal.Score);
    }

    [Fact]
    public void All_precautions_at_once_still_leave_a_plan_or_say_why_not()
    {
        var who = Someone.Calm with
        {
            Precautions = [.. Content.Library.Precautions.Select(p => new ClientPrecaution(p.Id))],
        };
        var proposal = Propose(Input(who));
        Assert.True(proposal.Plan.Items.Count > 0 || Notes(proposal).Contains("P-NEAREST-NONE"));
        Assert.DoesNotContain(proposal.Plan.Warnings, warning => warning.Blocks);
    }

    [Fact]
    public void Locks_that_contradict_each_other_or_the_minutes_are_shown_as_they_are_with_the_reason()
    {
        PlanItem Kept(string rung, int reps) =>
            new(
                Guid.NewGuid(),
                rung,
                Message.Plain(""),
                [new(Side.Left, new Dose(reps, 3, 0)), new(Side.Right, new Dose(reps, 3, 0))],
                [],
                [],
                ""
            );
        var proposal = Propose(
            Input(Someone.Calm, 5) with
            {
                Locked = [Kept("B5", 10), Kept("B1", 10)],
                LeftOut = ["B5"],
            }
        );
        Assert.Equal(["B1", "B5"], proposal.Plan.Items.Select(item => item.RungId).Order());
        Assert.Contains("P-LOCK-MINUTES", Notes(proposal));
        Assert.Contains("P-LOCK-LEFT", Notes(proposal));
        Assert.Contains("P-LOCK-TWICE", Notes(proposal));
        Assert.Contains(proposal.Plan.Warnings, warning => warning.RuleId == "P-MINUTES");
    }

    [Fact]
    public void A_barred_lock_without_a_reason_blocks() =>
        Assert.True(
            Propose(
                Input(Someone.With("wrist")) with
                {
                    Locked =
                    [
                        new(
                            Guid.NewGuid(),
                            "D1",
                            Message.Plain(""),
                            [new(Side.Left, new Dose(5, 1, 0)), new(Side.Right, new Dose(5, 1, 0))],
                            [],
                            [],
                            ""
                        ),
                    ],
                }
            )
                .Plan.Warnings.Single(warning => warning.RuleId == "P-BARRED")
                .Blocks
        );

    [Fact]
    public void Never_throws_and_never_leaves_a_page_without_words() =>
        AnyClient.Input.Sample(
            input =>
            {
                var proposal = Propose(input);
                Assert.True(
                    proposal.Plan.Items.Count >= 3 || proposal.Notes!.Count > 0,
                    $"{proposal.Plan.Items.Count} exercises and no word"
                );
            },
            iter: Soak.Cases(400)
        );
}
