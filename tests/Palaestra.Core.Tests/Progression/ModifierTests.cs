using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>What is put on top of a rung: on last, off first, never where a precaution bars it.</summary>
public class ModifierTests
{
    private static readonly PracticeLibrary Library = Content.Library;

    private static Decision Of(Work work, int visit = 2) =>
        DecisionEngine.Bare(work.Input(visit), Library)[0];

    private static Work Target(string rung, string? modifier) =>
        new(rung, Library.Rung(rung).Target with { Modifier = modifier });

    [Fact]
    public void Help_comes_off_before_anything_else_is_made_harder()
    {
        var decision = Of(Target("B5", "helping-hand").BothSides(1).BothSides(2));
        Assert.Equal((Outcome.Add, "B5", null), (decision.Outcome, decision.RungId, decision.Dose.Modifier));
    }

    [Fact]
    public void What_was_put_on_top_comes_off_first_when_it_is_eased()
    {
        var decision = Of(Target("B5", "quicker").BothSides(1).BothSides(2, 0.2));
        Assert.Equal(
            ("D-FAULT-CAP", Outcome.Ease, "B5", null),
            (decision.RuleId, decision.Outcome, decision.RungId, decision.Dose.Modifier)
        );
        Assert.Equal(Library.Rung("B5").Target.TotalReps, decision.Dose.TotalReps);
    }

    [Fact]
    public void At_the_top_the_same_is_made_harder_by_something_on_top()
    {
        var decision = Of(Work.AtTarget("E8").BothSides(1).BothSides(2));
        Assert.Equal(("D-MASTER", Outcome.Add, "E8"), (decision.RuleId, decision.Outcome, decision.RungId));
        Assert.Equal("resisted-breath-out", decision.Dose.Modifier);
    }

    [Fact]
    public void Never_a_resisted_breath_out_with_high_blood_pressure()
    {
        var work = Work.AtTarget("E8") with { Profile = Someone.With("pressure") };
        Assert.NotEqual("resisted-breath-out", Of(work.BothSides(1).BothSides(2)).Dose.Modifier);
    }

    [Fact]
    public void D_BARRED_takes_off_what_a_precaution_bars_by_now()
    {
        var work = Target("E1", "resisted-breath-out") with { Profile = Someone.With("pressure") };
        var decision = Of(work.BothSides(1).BothSides(2));
        Assert.Equal(
            ("D-BARRED", Outcome.Ease, null),
            (decision.RuleId, decision.Outcome, decision.Dose.Modifier)
        );
    }

    [Fact]
    public void Done_without_it_is_not_done_as_asked()
    {
        var asked = new Dose(5, 1, 0, Modifier: "squeeze");
        Assert.False(new Dose(5, 1, 0).SettingCovers(asked));
        Assert.True(asked.SettingCovers(new Dose(5, 1, 0)));
        Assert.False((asked with { Modifier = "quicker" }).SettingCovers(asked));
    }

    [Fact]
    public void The_dose_says_it() =>
        Assert.Equal(
            "5 reps, with a resisted breath out",
            new Dose(5, 1, 0, Modifier: "resisted-breath-out").Said().En()
        );

    private static PlanItem Item(string rung, string modifier) =>
        new(
            Guid.NewGuid(),
            rung,
            Message.Plain(""),
            [
                .. Library
                    .Rung(rung)
                    .TaskSides.Select(s => new SideDose(s, new Dose(5, 1, 0, Modifier: modifier))),
            ],
            [],
            [],
            ""
        );

    [Theory]
    [InlineData("E1", "no-such-thing")]
    [InlineData("K2", "squeeze")]
    public void A_plan_with_one_that_does_not_go_with_the_rung_is_refused(string rung, string modifier) =>
        Assert.Contains(
            PlanCheck.Errors([Item(rung, modifier)], Library, "items"),
            e => e.Field == "items[0].doses[0].dose.modifier"
        );

    [Fact]
    public void P_BARRED_blocks_one_that_a_precaution_bars()
    {
        var plan = new Plan(
            [Item("E1", "resisted-breath-out")],
            SpinalStrategy.Neutral,
            Activation.Brace,
            Content.Policy.Id,
            1,
            "",
            0,
            []
        );
        var warning = Assert.Single(
            PlanCheck.Warnings(plan, Someone.With("pressure"), null, 60, Library),
            w => w.RuleId == "P-BARRED"
        );
        Assert.True(warning.Blocks);
        Assert.Contains("resisted breath out", warning.Words.En(), StringComparison.Ordinal);
    }

    [Fact]
    public void Every_modifier_suits_some_rung_and_ids_that_name_nothing_are_refused()
    {
        Assert.All(
            Library.Modifiers,
            m =>
                Assert.Contains(
                    Library.TrainedLadders,
                    ladder => ladder.Rungs.Any(rung => m.Fits(rung, ladder))
                )
        );
        var wrong = Library.Modifiers[0] with
        {
            Ladders = ["?"],
            Equipment = ["?"],
            BarredBy = ["?"],
            Rungs = ["?"],
        };
        Assert.Equal(
            4,
            Modifier.Errors([wrong], Library.Ladders, Library.Equipment, Library.Precautions).Count()
        );
    }
}
