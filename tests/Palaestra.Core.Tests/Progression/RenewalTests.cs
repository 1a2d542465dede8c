using Palaestra.Core.Capture;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Progression;

/// <summary>Records that name rungs of the ladder that moved go on under the new names.</summary>
public class RenewalTests
{
    private static PracticeLibrary Library => Content.Library;

    [Theory]
    [InlineData("N1", "S1")]
    [InlineData("N2", "Q2")]
    [InlineData("N3", "Q3")]
    [InlineData("N4", "S6")]
    [InlineData("N5", "S3")]
    [InlineData("B6", "B6")]
    public void A_rung_is_read_under_the_id_it_has_today(string then, string now)
    {
        Assert.Equal(now, Library.Today(then));
        Assert.NotNull(Library.FindRung(then));
        Assert.True(Library.LadderOf(now).Trained);
    }

    [Fact]
    public void Nothing_new_is_planned_on_the_ladder_that_moved()
    {
        Assert.DoesNotContain(Library.TrainedLadders, ladder => ladder.Id == "N");
        Assert.DoesNotContain(Library.Goals, goal => goal.Ladders.Contains("N"));
        Assert.DoesNotContain(Library.TwelveWeeks, stage => stage.Rungs.Any(id => id[0] == 'N'));
    }

    /// <summary>Two clean visits under the old name, two under the new: the same decision, with all four behind it.</summary>
    [Fact]
    public void History_goes_on_over_the_move()
    {
        var target = Library.Rung("S2").Target with { Load = 20 };
        var old = new Work("S3", target).BothSides(1).BothSides(2);
        var input = old.Input() with
        {
            Visits = [.. old.Input().Visits.Select(done => done with { RungId = "N5" })],
            Items = [.. old.Input().Items.Select(item => item with { RungId = "N5" })],
        };
        var renewed = Renewal.Of(input, Library);
        Assert.All(renewed.Visits, done => Assert.Equal("S3", done.RungId));
        Assert.Equal(
            DecisionEngine.Bare(old.Input(), Library).Select(d => (d.Outcome, d.RungId, d.Dose)),
            DecisionEngine.Bare(renewed, Library).Select(d => (d.Outcome, d.RungId, d.Dose))
        );
    }

    [Fact]
    public void What_was_raised_tried_and_lifted_under_the_old_name_goes_on_too()
    {
        var work = new Work("S3", Library.Rung("S3").Start).BothSides(1);
        var done = work.Input().Visits[0].Sets[0];
        var renewed = Renewal.Of(
            work.Input() with
            {
                Raises = [new Raise(Work.ItemId, Side.Left, 1, work.Input().Date, "N5", new Dose(5, 1, 0))],
                Broke = [new BrokeLoad("N5", 8)],
                Probes =
                [
                    new ProbeDone(
                        Work.ItemId,
                        Side.Left,
                        1,
                        work.Input().Date,
                        "N5",
                        new Dose(5, 1, 0),
                        done
                    ),
                ],
            },
            Library
        );
        Assert.Equal(
            ["S3", "S3", "S3"],
            [renewed.Raises![0].RungId, renewed.Broke![0].RungId, renewed.Probes![0].RungId]
        );
    }

    [Fact]
    public void A_plan_keeps_its_exercise_its_dose_and_what_it_goes_back_to()
    {
        var dose = new Dose(5, 1, 0);
        var rest = new Spell(SpellKind.Rest, null, 1, "N1", [new(Side.Both, dose)]);
        var item = new PlanItem(
            Guid.NewGuid(),
            "N1",
            Message.Plain(""),
            [new(Side.Both, dose)],
            [],
            [],
            "",
            Spell: rest
        );
        var plan = Renewal.Of(
            new Plan([item], SpinalStrategy.Neutral, Activation.Brace, Content.Policy.Id, 1, "", 0, []),
            Library
        );
        var now = Assert.Single(plan.Items);
        Assert.Equal((item.Id, "S1", "S1"), (now.Id, now.RungId, now.Spell!.RungId));
        Assert.Equal(item.Doses, now.Doses);
    }

    [Theory]
    [InlineData("N1", "rung-N1", "rung-S1")]
    [InlineData("N3", "under-load", "rung-Q3")]
    [InlineData("N1", "loaded-hinge", "loaded-hinge")]
    [InlineData("N3", null, null)]
    public void A_trial_keeps_its_task_or_becomes_a_rung_for_itself(string then, string? task, string? now)
    {
        var started = new TrialStarted(
            Guid.NewGuid(),
            Guid.NewGuid(),
            DateTimeOffset.UnixEpoch,
            then,
            Side.Both,
            TrialPurpose.Screen,
            new Dose(5, 1, 0),
            TaskId: task
        );
        var read = Assert.IsType<TrialStarted>(Renewal.Of(started, Library));
        Assert.Equal((Library.Today(then), now), (read.RungId, read.TaskId));
    }
}
