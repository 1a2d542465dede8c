using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Planning;

/// <summary>The week's bending of the trunk, added up by hand.</summary>
public class BendingAccountTests
{
    private static readonly ClientProfile Fragile = Someone.With("fragile-bone");

    private static Plan PlanOf(params (string Rung, Dose Dose)[] items) =>
        new(
            [
                .. items.Select(i => new PlanItem(
                    Guid.NewGuid(),
                    i.Rung,
                    Message.Plain(""),
                    [.. Content.Library.Rung(i.Rung).TaskSides.Select(side => new SideDose(side, i.Dose))],
                    [],
                    [],
                    ""
                )),
            ],
            SpinalStrategy.Neutral,
            Activation.Brace,
            Content.Policy.Id,
            1,
            "",
            0,
            []
        );

    private static BendingAccount? Of(
        Plan plan,
        ClientProfile profile,
        Policy? policy = null,
        int days = 5
    ) => BendingAccount.Of(plan, profile, days, policy ?? Content.Policy, Content.Library);

    /// <summary>The reach to the knees: 8° lumbar and 26° thoracic. Both sides, 5 reps a day, 5 days: 25; each held 3 s and bent half of its 5 s: 137.5 s.</summary>
    [Fact]
    public void Reps_and_seconds_of_a_week_by_hand()
    {
        var account = Of(PlanOf(("F2", new Dose(5, 1, 3))), Fragile)!;
        Assert.Equal((25, 137.5), (account.Reps, account.Seconds));
        Assert.Equal(34, account.Items[0].Degrees, 0);
    }

    [Fact]
    public void A_straight_back_and_a_head_lift_bend_nothing() =>
        Assert.Empty(
            Of(
                PlanOf(("S1", new Dose(5, 1, 0)), ("F1", new Dose(5, 1, 5)), ("E1", new Dose(5, 1, 3))),
                Fragile
            )!.Items
        );

    /// <summary>34° over the whole way: under 15° at four tenths of it, not at half.</summary>
    [Theory]
    [InlineData(0.4, 0)]
    [InlineData(0.5, 25)]
    public void A_shorter_range_bends_less(double range, double reps) =>
        Assert.Equal(reps, Of(PlanOf(("F2", new Dose(5, 1, 3, Range: range))), Fragile)!.Reps);

    [Theory]
    [InlineData("flexion", true)]
    [InlineData("fragile-bone", true)]
    [InlineData("extension", false)]
    [InlineData("knee", false)]
    public void Only_some_precautions_count_it(string precaution, bool counted) =>
        Assert.Equal(counted, Of(PlanOf(("F2", new Dose(5, 1, 3))), Someone.With(precaution)) is not null);

    [Theory]
    [InlineData("bending", true)]
    [InlineData("lifting", false)]
    public void After_surgery_where_the_note_bars_bending(string option, bool counted)
    {
        var profile = Someone.Calm with { Precautions = [new("surgery", Side.Both, [option])] };
        Assert.Equal(counted, BendingAccount.CountsFor(profile, Content.Library));
    }

    /// <summary>4 sets of 5 on 5 days is 100, the limit: none; 21 reps a day are over.</summary>
    [Theory]
    [InlineData(5, 4, false)]
    [InlineData(7, 3, true)]
    public void P_BENDING_is_said_over_the_limit_and_not_at_it(int reps, int sets, bool said)
    {
        var account = Of(
            PlanOf(("F2", new Dose(reps, sets, 0))),
            Fragile,
            Content.Policy with
            {
                Judgement = Content.Policy.Judgement with { BendingSeconds = 3600 },
            }
        )!;
        Assert.Equal(said, account.Warnings().Any(w => w.RuleId == "P-BENDING"));
    }

    [Fact]
    public void P_BENDING_minds_seconds_too() =>
        Assert.Single(Of(PlanOf(("F2", new Dose(10, 1, 5))), Fragile)!.Warnings());

    [Fact]
    public void A_resting_exercise_bends_nothing()
    {
        var plan = PlanOf(("F2", new Dose(5, 1, 3)));
        var item = plan.Items[0] with { Spell = new Spell(SpellKind.Rest, null, 2, "F2", []) };
        Assert.Equal(0, Of(plan with { Items = [item] }, Fragile)!.Reps);
    }

    [Fact]
    public void The_week_shows_it_and_the_time_on_the_back_late_in_pregnancy()
    {
        var plan = PlanOf(("B1", new Dose(5, 2, 0)));
        var pregnant = Someone.Calm with { Precautions = [new("pregnancy", Side.Both, ["third"])] };
        var work = PlanWork.Of(plan, 5, Content.Policy, Content.Library, profile: pregnant);
        var spell = Assert.Single(work.Spells!, s => s.Position == "supine");
        Assert.Equal((120, 600), (spell.Seconds, spell.Most));
        Assert.Null(work.Bending);
    }
}
