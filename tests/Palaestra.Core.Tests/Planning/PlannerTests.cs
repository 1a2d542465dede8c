using CsCheck;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

public class PlannerTests
{
    /// <summary>Screens every open ladder of a client who truly holds up to the given rung on each side.</summary>
    private static ScreenFindings Screen(
        ClientProfile who,
        IReadOnlyDictionary<string, (int Left, int Right)> truth
    )
    {
        var tape = new Tape();
        foreach (var ladder in Content.Library.Ladders.Where(l => l.Screened))
        {
            foreach (var side in new[] { Side.Left, Side.Right })
            {
                while (
                    RungFinder
                        .Search(ladder, side, tape.Trials(), who, Content.Policy, Content.Library)
                        .NextRungId
                        is { } next
                )
                {
                    var rung = Content.Library.Rung(next);
                    var holds = side == Side.Left ? truth[ladder.Id].Left : truth[ladder.Id].Right;
                    tape.Start(next, rung.Sides == RungSides.Each ? side : Side.Both);
                    _ =
                        ladder.IndexOf(next) <= holds
                            ? tape.Reps(rung.Start.Reps, rung.Start.Hold)
                            : tape.Rep(rung.Start.Hold, rung.Faults[0], 0.5)
                                .Rep(rung.Start.Hold, rung.Faults[0], 0.5);
                    tape.End();
                }
            }
        }
        return FindingsMaker.Of(tape.Trials(), who, Content.Policy, Content.Library);
    }

    private static PlanProposal Propose(
        ClientProfile who,
        int left = 4,
        int right = 4,
        double minutes = 20
    ) =>
        Propose(
            who,
            new Dictionary<string, (int, int)>
            {
                ["B"] = (left, right),
                ["D"] = (left, right),
                ["E"] = (left, right),
            },
            minutes
        );

    private static PlanProposal Propose(
        ClientProfile who,
        IReadOnlyDictionary<string, (int Left, int Right)> truth,
        double minutes
    )
    {
        var input = new PlanInput(
            who,
            Screen(who, truth),
            Content.Policy.Id,
            SpinalStrategy.Neutral,
            SwitchOn.Brace,
            minutes
        );
        return Planner.Propose(input, Content.Library, Guid.NewGuid);
    }

    private static PlanItem Item(PlanProposal proposal, string ladder) =>
        proposal.Plan.Items.Single(item => Content.Library.LadderOf(item.RungId).Id == ladder);

    [Fact]
    public void Prescribes_at_the_entry_rung_with_its_reason()
    {
        var item = Item(Propose(Someone.Calm), "B");
        Assert.Equal("B5", item.RungId);
        Assert.Contains(item.Reasons, reason => reason.RuleId == "P-ENTRY");
    }

    [Fact]
    public void A_two_sided_ladder_moves_with_its_weaker_side_which_goes_first_and_gets_more()
    {
        var item = Item(Propose(Someone.Calm, left: 2, right: 1), "B");
        Assert.Equal("B2", item.RungId);
        Assert.Equal(Side.Right, item.Doses[0].Side);
        Assert.True(item.Doses[0].Dose.TotalReps > item.Doses[1].Dose.TotalReps);
        Assert.Contains(item.Reasons, reason => reason.RuleId == "P-WEAKER");
    }

    [Fact]
    public void A_sore_client_gets_few_reps_short_holds_and_the_lower_third()
    {
        var proposal = Propose(Someone.Sore, left: 4, right: 4);
        Assert.Equal(StirredUp.High, proposal.StirredUp);
        foreach (var item in proposal.Plan.Items)
        {
            Assert.All(item.Doses, d => Assert.InRange(d.Dose.Reps, 1, 3));
            Assert.All(item.Doses, d => Assert.Equal(1, d.Dose.Sets));
            Assert.All(item.Doses, d => Assert.InRange(d.Dose.Hold, 0, 5));
        }
        Assert.Contains(Item(proposal, "B").RungId, new[] { "B1", "B2", "B3", "B4" });
    }

    [Fact]
    public void Falls_back_to_neutral_where_not_even_the_lowest_rung_is_clean()
    {
        var proposal = Propose(Someone.Calm, left: -1, right: -1);
        Assert.Contains(proposal.Plan.Items, item => item.RungId == "A3");
        Assert.DoesNotContain(proposal.Plan.Items, item => Content.Library.LadderOf(item.RungId).Screened);
    }

    [Fact]
    public void The_weak_link_comes_before_the_others_when_minutes_are_short()
    {
        var truth = new Dictionary<string, (int, int)>
        {
            ["B"] = (10, 10),
            ["D"] = (6, 6),
            ["E"] = (0, 0),
        };
        var proposal = Propose(Someone.Calm, truth, minutes: 4);
        Assert.Contains(
            proposal.Plan.Items,
            item => item.RungId == "E1" && item.Reasons.Any(r => r.RuleId == "P-WEAK")
        );
    }

    [Fact]
    public void The_wrist_takes_hands_and_knees_out_and_says_so()
    {
        var proposal = Propose(Someone.With("wrist"));
        Assert.DoesNotContain(
            proposal.Plan.Items,
            item => Content.Library.Rung(item.RungId).Features.Contains("hands-flat")
        );
        Assert.Contains(
            proposal.Forbidden,
            f => f.RungId == "D3" && f.Why.Contains("wrist", StringComparison.Ordinal)
        );
        Assert.Contains(proposal.NotChosen, reason => reason.RuleId == "P-BARRED");
    }

    private static readonly Gen<ClientProfile> AnyProfile = Gen.Select(
        Gen.Int[0, 10],
        Gen.Double[0, 48],
        Gen.Bool,
        Gen.Int[0, 31],
        (pain, settle, night, mask) =>
            new ClientProfile(
                new Pain(pain, 10, pain),
                settle,
                night,
                [
                    .. Content
                        .Library.Precautions.Where((_, i) => (mask & (1 << i)) != 0)
                        .Select(p => new ClientPrecaution(p.Id, Side.Left)),
                ]
            )
    );

    [Fact]
    public void Forbidden_rungs_are_never_proposed_and_nothing_is_above_its_entry_or_cap() =>
        Gen.Select(AnyProfile, Gen.Int[-1, 4], Gen.Int[-1, 4], Gen.Double[5, 40])
            .Sample(
                (who, left, right, minutes) =>
                {
                    var proposal = Propose(who, left, right, minutes);
                    var forbidden = proposal.Forbidden.Select(f => f.RungId).ToHashSet();
                    Assert.DoesNotContain(proposal.Plan.Items, item => forbidden.Contains(item.RungId));
                    Assert.InRange(proposal.Plan.Items.Count, 1, Planner.ExercisesMax);
                    Assert.DoesNotContain(
                        proposal.Plan.Warnings,
                        w => w.RuleId is "P-ENTRY" or "P-CAP" or "P-BARRED" or "P-ONE-SIDED"
                    );
                    Assert.All(proposal.Plan.Items, item => Assert.NotEmpty(item.Reasons));
                },
                iter: 150
            );

    [Fact]
    public void Three_to_five_exercises_for_everybody_with_room_in_the_day() =>
        Gen.Select(AnyProfile, Gen.Int[0, 4], Gen.Int[0, 4])
            .Sample(
                (who, left, right) => Assert.InRange(Propose(who, left, right, 40).Plan.Items.Count, 3, 5),
                iter: 100
            );
}

public class PlanTimeTests
{
    private static readonly Guid Id = Guid.NewGuid();

    /// <summary>By hand: 20 set-up + left 2 × 5 × (3 + 6) = 90 + 60 rest + right 1 × 5 × 9 = 45 + 5 change of side = 220 s.</summary>
    [Fact]
    public void Adds_work_rests_sides_and_set_up()
    {
        var item = new PlanItem(
            Id,
            "B6",
            "",
            [new(Side.Left, new Dose(5, 2, 3)), new(Side.Right, new Dose(5, 1, 3))],
            [],
            [],
            ""
        );
        Assert.Equal(220, PlanTime.Seconds(item, Content.Library.Rung("B6"), Content.Policy), 6);
    }

    /// <summary>Rests are shorter where nothing is held: 20 + 2 × 5 × 6 + 30 = 110 s for one side.</summary>
    [Fact]
    public void Rests_are_shorter_without_holds()
    {
        var item = new PlanItem(Id, "B5", "", [new(Side.Left, new Dose(5, 2, 0))], [], [], "");
        Assert.Equal(110, PlanTime.Seconds(item, Content.Library.Rung("B5"), Content.Policy), 6);
    }

    [Fact]
    public void A_change_of_position_costs_its_seconds()
    {
        PlanItem One(string rung) =>
            new(Guid.NewGuid(), rung, "", [new(Side.Left, new Dose(5, 1, 0))], [], [], "");
        Plan Of(params PlanItem[] items) =>
            PlanTime.WithMinutes(
                new Plan(items, SpinalStrategy.Neutral, SwitchOn.Brace, "", 1, "", 0, []),
                Content.Library,
                Content.Policy
            );
        var same = Of(One("B5"), One("B5")).Items[1].Minutes;
        var other = Of(One("D3"), One("B5")).Items[1].Minutes;
        Assert.Equal(Content.Policy.Seconds.PositionChange / 60, other - same, 1);
    }
}

public class DosePlannerTests
{
    [Theory]
    [InlineData(StirredUp.Low, 5, 1, 3)]
    [InlineData(StirredUp.Moderate, 5, 2, 3)]
    [InlineData(StirredUp.High, 3, 1, 3)]
    public void Follows_how_stirred_up_the_client_is(StirredUp level, int reps, int sets, double hold) =>
        Assert.Equal(
            new Dose(reps, sets, hold),
            DosePlanner.Start(Content.Library.Rung("B6"), level, Content.Policy)
        );

    [Theory]
    [InlineData(StirredUp.Low, 5, 1, 5, 2)]
    [InlineData(StirredUp.High, 3, 1, 4, 1)]
    [InlineData(StirredUp.Low, 8, 3, 10, 3)]
    [InlineData(StirredUp.Low, 10, 3, 10, 3)]
    public void The_weaker_side_gets_a_set_or_a_quarter_more_reps_within_the_cap(
        StirredUp level,
        int reps,
        int sets,
        int moreReps,
        int moreSets
    ) =>
        Assert.Equal(
            new Dose(moreReps, moreSets, 3),
            DosePlanner.ForWeakerSide(
                new Dose(reps, sets, 3),
                Content.Library.Rung("B6"),
                level,
                Content.Policy
            )
        );
}

public class PlanCheckTests
{
    private static PlanItem Item(string rung, params SideDose[] doses) =>
        new(Guid.NewGuid(), rung, "", doses, [], [], "");

    private static SideDose On(Side side, int reps = 5, int sets = 1, double hold = 3) =>
        new(side, new Dose(reps, sets, hold));

    [Theory]
    [InlineData(0, 1, 3, "items[0].doses[0].dose.reps")]
    [InlineData(51, 1, 3, "items[0].doses[0].dose.reps")]
    [InlineData(5, 0, 3, "items[0].doses[0].dose.sets")]
    [InlineData(5, 1, -1, "items[0].doses[0].dose.hold")]
    [InlineData(5, 1, 121, "items[0].doses[0].dose.hold")]
    public void Refuses_doses_that_are_none(int reps, int sets, double hold, string field) =>
        Assert.Equal(
            field,
            Assert
                .Single(
                    PlanCheck.Errors([Item("B6", On(Side.Left, reps, sets, hold))], Content.Library, "items")
                )
                .Field
        );

    [Fact]
    public void Refuses_unknown_rungs_and_sides_that_do_not_belong()
    {
        Assert.Equal(
            "items[0].rungId",
            Assert.Single(PlanCheck.Errors([Item("Q1", On(Side.Left))], Content.Library, "items")).Field
        );
        Assert.Equal(
            "items[0].doses[0].side",
            Assert.Single(PlanCheck.Errors([Item("B6", On(Side.Both))], Content.Library, "items")).Field
        );
    }

    private static IReadOnlyList<PlanWarning> Warn(PlanItem item, ClientProfile who, double minutes = 20)
    {
        var plan = PlanTime.WithMinutes(
            new Plan([item], SpinalStrategy.Neutral, SwitchOn.Brace, "", 1, "", 0, []),
            Content.Library,
            Content.Policy
        );
        return PlanCheck.Warnings(plan, who, null, minutes, Content.Library);
    }

    [Fact]
    public void A_barred_rung_blocks_until_a_reason_is_written_and_stays_marked()
    {
        var barred = Item("D3", On(Side.Left), On(Side.Right));
        Assert.True(Warn(barred, Someone.With("wrist")).Single(w => w.RuleId == "P-BARRED").Blocks);
        var reasoned = Warn(barred with { BarOverride = "on fists, pain free" }, Someone.With("wrist"))
            .Single(w => w.RuleId == "P-BARRED");
        Assert.False(reasoned.Blocks);
        Assert.Contains("on fists", reasoned.Words, StringComparison.Ordinal);
        Assert.True(
            Warn(barred with { BarOverride = "  " }, Someone.With("wrist"))
                .Single(w => w.RuleId == "P-BARRED")
                .Blocks
        );
    }

    [Fact]
    public void Warns_over_the_cap_over_the_minutes_and_of_one_side_only()
    {
        var warnings = Warn(Item("B6", On(Side.Left, reps: 11)), Someone.Calm, minutes: 1);
        Assert.Equal(["P-CAP", "P-ONE-SIDED", "P-MINUTES"], warnings.Select(w => w.RuleId));
    }
}
