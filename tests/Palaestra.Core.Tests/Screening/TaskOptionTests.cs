using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

/// <summary>A task as one client can do it: where it is set up, on which sides, how long, what it shows, or why not.</summary>
public class TaskOptionTests
{
    private static ScreenTask Task(string id) => Content.Library.FindTask(id)!;

    private static TaskOption Of(ScreenTask task, ClientProfile? profile = null, params string[] missing) =>
        TaskOption.Of(task, profile ?? Someone.Calm, Content.Policy, missing, Content.Library);

    [Theory]
    [InlineData(new[] { Side.Left }, 0.5)]
    [InlineData(new[] { Side.Right }, 0.5)]
    [InlineData(new[] { Side.Both }, 1.0)]
    [InlineData(new[] { Side.Left, Side.Right }, 1.0)]
    [InlineData(new Side[0], 1.0)]
    public void One_side_of_two_takes_half_the_time(Side[] sides, double share)
    {
        var option = Of(Task("kick-back")) with { Sides = sides };
        Assert.Equal(option.Task.Minutes * share, option.Minutes, 9);
    }

    [Theory]
    [InlineData("leg-lowering")]
    [InlineData("bridge")]
    [InlineData("opposite-arm-leg")]
    [InlineData("side-plank")]
    [InlineData("front-plank")]
    public void A_climb_begins_in_the_middle_of_the_ladder_and_is_of_sides_where_any_rung_is(string id)
    {
        var ladder = Content.Library.Ladders.First(l => l.Id == Task(id).Ladder);
        var option = Of(Task(id));
        Assert.Equal(ladder.Rungs[(ladder.Rungs.Count - 1) / 2].Id, option.Rung.Id);
        Assert.Equal(
            ladder.Rungs.Any(r => r.Sides == RungSides.Each) ? [Side.Left, Side.Right] : [Side.Both],
            option.Sides
        );
        Assert.Null(option.Surface);
        Assert.Null(option.Out);
        // It shows what its rungs in that position ask for at most, on whichever side.
        var there = ladder.Rungs.Where(r => r.Position == option.Rung.Position).ToList();
        foreach (var sector in Enum.GetValues<Sector>())
        {
            var most = there.Max(r => r.TaskSides.Max(s => Content.Library.WeightOf(r, sector, s)));
            Assert.Equal(most, option.Covers.GetValueOrDefault(sector), 9);
        }
        Assert.DoesNotContain(option.Covers, c => c.Value <= 0);
    }

    [Fact]
    public void One_rung_shows_what_it_asks_for_itself_and_a_reading_shows_no_direction()
    {
        foreach (var task in Content.Library.Tasks.Where(t => t is { Retired: false, Ladder: null }))
        {
            var option = Of(task);
            if (!task.TellsControl)
            {
                Assert.Empty(option.Covers);
                continue;
            }
            foreach (var (sector, share) in option.Covers)
            {
                var most = option.Rung.TaskSides.Max(s => Content.Library.WeightOf(option.Rung, sector, s));
                Assert.Equal(most, share, 9);
            }
        }
        Assert.Contains(Content.Library.Tasks, t => !t.TellsControl && Of(t).Covers.Count == 0);
        Assert.NotEmpty(Of(Task("kick-back")).Covers);
    }

    /// <summary>Where all places lack something it is said what is lacking at the first.</summary>
    [Fact]
    public void Without_its_equipment_a_task_says_what_it_lacks()
    {
        var pieces = Content.Library.Equipment.Select(e => e.Id).ToArray();
        var lacking = 0;
        foreach (var task in Content.Library.Tasks.Where(t => !t.Retired))
        {
            var whole = Of(task);
            var without = Of(task, null, pieces);
            if (without.Out is { Rule: "S-EQUIPMENT" } lacks)
            {
                Assert.True(lacks.CanAdd);
                Assert.Equal(whole.Rung.Id, without.Rung.Id);
                Assert.Equal(
                    without.Rung.Equipment.First(pieces.Contains),
                    lacks.Why.Values["pieces"] as string
                );
                lacking++;
            }
            else
            {
                Assert.Null(without.Out);
                Assert.DoesNotContain(without.Rung.Equipment, pieces.Contains);
            }
        }
        Assert.True(lacking > 0);
    }

    [Fact]
    public void What_is_barred_everywhere_is_out_and_cannot_be_added()
    {
        var outs = (
            from precaution in Content.Library.Precautions
            from task in Content.Library.Tasks.Where(t => !t.Retired)
            let option = Of(task, Someone.With(precaution.Id))
            where option.Out?.Rule == "S-BARRED"
            select option
        ).ToList();
        Assert.NotEmpty(outs);
        Assert.All(
            outs,
            option =>
            {
                Assert.False(option.Out!.CanAdd);
                Assert.Empty(option.Sides);
            }
        );
    }

    [Fact]
    public void What_only_a_calm_back_does_is_left_out_of_the_others_and_can_be_added()
    {
        foreach (var profile in new[] { Someone.Moderate, Someone.Sore })
        {
            var option = Of(Task("flexor-hold"), profile);
            Assert.Equal(("S-SORE", true), (option.Out!.Rule, option.Out.CanAdd));
        }
        Assert.Null(Of(Task("flexor-hold")).Out);
    }

    /// <summary>A caution of the task itself is for everybody; one that a precaution brings makes the task sore.</summary>
    [Fact]
    public void Cautions_of_a_precaution_come_first_and_make_it_sore()
    {
        var cautious = (
            from precaution in Content.Library.Precautions
            from task in Content.Library.Tasks.Where(t => !t.Retired)
            let option = Of(task, Someone.With(precaution.Id))
            where option.Sore
            select (Task: task, Option: option)
        ).ToList();
        Assert.NotEmpty(cautious);
        foreach (var (task, option) in cautious)
        {
            var plain = Of(task);
            Assert.False(plain.Sore);
            Assert.Equal(task.Caution is null ? [] : [task.Caution], plain.Cautions);
            Assert.True(option.Cautions.Count > plain.Cautions.Count);
            Assert.Equal(plain.Cautions, option.Cautions.TakeLast(plain.Cautions.Count));
        }
    }
}
