using CsCheck;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Screening;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Screening;

public class BatteryTests
{
    private static Battery For(
        ClientProfile profile,
        double minutes = 15,
        string[]? missing = null,
        string[]? repeat = null
    ) =>
        BatteryPlanner.Propose(
            profile,
            Content.Policy,
            new BatteryQuestion(minutes, missing ?? [], repeat),
            Content.Library
        );

    private static string[] Ids(Battery battery) => [.. battery.Items.Select(i => i.TaskId)];

    private static LeftOut Left(Battery battery, string task) => battery.LeftOut.First(l => l.TaskId == task);

    [Fact]
    public void A_quarter_of_an_hour_sees_every_direction()
    {
        var battery = For(Someone.Calm);
        Assert.InRange(battery.Minutes, 10, 15);
        var seen = battery
            .Items.SelectMany(i =>
                TaskOption
                    .Of(
                        Content.Library.FindTask(i.TaskId)!,
                        Someone.Calm,
                        Content.Policy,
                        [],
                        Content.Library
                    )
                    .Covers
            )
            .Where(c => c.Value >= BatteryPlanner.Seen)
            .Select(c => c.Key)
            .Distinct();
        Assert.Equal(Enum.GetValues<Sector>().Length, seen.Count());
    }

    /// <summary>What fits to the second fits.</summary>
    [Fact]
    public void The_minutes_a_screen_takes_are_enough_for_it()
    {
        foreach (var asked in Enumerable.Range(5, 40))
        {
            var battery = For(Someone.Calm, asked);
            Assert.Equal(Ids(battery), Ids(For(Someone.Calm, battery.Minutes)));
        }
    }

    [Fact]
    public void What_was_left_for_want_of_time_or_shown_by_others_can_be_added_and_says_why()
    {
        var battery = For(Someone.Calm);
        var byTime = battery.LeftOut.Where(l => l.Rule == "S-MINUTES").ToList();
        var covered = battery.LeftOut.Where(l => l.Rule == "S-COVERED").ToList();
        Assert.NotEmpty(byTime);
        Assert.NotEmpty(covered);
        Assert.All(byTime.Concat(covered), l => Assert.True(l.CanAdd));
        // What belongs to every screen and shows nothing new says so; what belongs to a full one likewise.
        foreach (var item in For(Someone.Calm, 60).Items)
        {
            var priority = Content.Library.FindTask(item.TaskId)!.Priority;
            Assert.Contains(
                item.Why.Id,
                priority == 1 ? ["screen.always", "screen.first"] : new[] { "screen.second", "screen.first" }
            );
        }
        var whys = For(Someone.Calm, 60).Items.Select(i => i.Why.Id).ToHashSet();
        Assert.Superset(new HashSet<string> { "screen.always", "screen.second", "screen.first" }, whys);
    }

    [Fact]
    public void S_MINUTES_says_what_would_go_over_and_more_minutes_take_it_in()
    {
        var over = For(Someone.Calm, 6)
            .LeftOut.Where(l => l.Rule == "S-MINUTES")
            .Select(l => l.TaskId)
            .ToList();
        Assert.NotEmpty(over);
        var longer = For(Someone.Calm, 45).Items.Select(i => i.TaskId);
        Assert.NotEmpty(longer.Intersect(over));
    }

    [Fact]
    public void Never_takes_longer_than_the_minutes_there_are()
    {
        var profiles =
            from picks in Gen.Int[0, Content.Library.Precautions.Count - 1].List[0, 4]
            from pain in Gen.Int[0, 9]
            select new ClientProfile(
                new Pain(pain, pain, pain),
                4,
                false,
                [
                    .. picks
                        .Distinct()
                        .Select(p => new ClientPrecaution(Content.Library.Precautions[p].Id, Side.Both)),
                ]
            );
        Gen.Select(profiles, Gen.Double[5, 45])
            .Sample(
                (profile, minutes) =>
                {
                    var battery = For(profile, minutes);
                    var barred = battery
                        .LeftOut.Where(l => l.Rule == "S-BARRED")
                        .Select(l => l.TaskId)
                        .ToHashSet();
                    return battery.Minutes <= minutes
                        && !battery.Items.Any(i => barred.Contains(i.TaskId))
                        && battery.Items.All(i => i.Sides.Count > 0)
                        && battery.Items.Count + battery.LeftOut.Count
                            == Content.Library.Tasks.Count(t => !t.Retired);
                }
            );
    }

    [Fact]
    public void Lies_down_once_and_stands_up_once()
    {
        var battery = For(Someone.Calm, 40);
        var positions = battery
            .Items.Select(i =>
                TaskOption
                    .Of(
                        Content.Library.FindTask(i.TaskId)!,
                        Someone.Calm,
                        Content.Policy,
                        [],
                        Content.Library
                    )
                    .Rung.Position
            )
            .ToList();
        Assert.Equal(positions.Distinct().Count() - 1, battery.PositionChanges);
        Assert.True(positions.LastIndexOf("supine") < positions.IndexOf("standing"));
    }

    [Fact]
    public void What_a_precaution_bars_is_left_out_with_the_word_and_cannot_be_added()
    {
        var battery = For(Someone.With("wrist"));
        var barred = Left(battery, "opposite-arm-leg");
        Assert.Equal(("S-BARRED", false), (barred.Rule, barred.CanAdd));
        Assert.Contains("wrist", barred.Why.En());
        Assert.Equal(
            "taskIds[0]",
            Assert
                .Single(
                    BatteryCheck.ItemErrors(
                        ["opposite-arm-leg"],
                        Someone.With("wrist"),
                        Content.Policy,
                        Content.Library
                    )
                )
                .Field
        );
    }

    [Fact]
    public void Endurance_holds_are_kept_from_a_sore_back_and_said_so()
    {
        foreach (var task in new[] { "flexor-hold", "extensor-hold", "side-hold" })
        {
            Assert.Equal("S-SORE", Left(For(Someone.Sore), task).Rule);
            Assert.Equal("S-COVERED", Left(For(Someone.Calm), task).Rule);
        }
    }

    [Fact]
    public void Without_a_mat_the_planks_move_to_the_counter()
    {
        var battery = For(Someone.Calm, missing: ["mat"]);
        Assert.Equal("counter", battery.Items.First(i => i.TaskId == "shoulder-touch").Surface);
        Assert.Equal("S-EQUIPMENT", Left(battery, "leg-lowering").Rule);
    }

    [Fact]
    public void When_easily_stirred_up_what_a_caution_touches_comes_last()
    {
        var sore = Someone.Moderate with { Precautions = [new("extension", Side.Both)] };
        var ids = Ids(For(sore));
        var cautious = For(sore).Items.Where(i => i.Cautions.Count > 0).Select(i => i.TaskId).ToList();
        Assert.NotEmpty(cautious);
        Assert.Equal(cautious, ids.TakeLast(cautious.Count));
    }

    [Fact]
    public void Repeats_an_earlier_screen_in_its_order_but_not_what_is_barred_by_now()
    {
        string[] before = ["stance", "rung-B5", "leg-lowering", "shoulder-touch"];
        Assert.Equal(before, Ids(For(Someone.Calm, repeat: before)));
        Assert.Equal(
            ["stance", "rung-B5", "leg-lowering", "shoulder-touch"],
            Ids(For(Someone.Calm, minutes: 5, repeat: before))
        );
        var knee = For(Someone.With("wrist"), repeat: ["stance", "rung-D4"]);
        Assert.Equal(["stance"], Ids(knee));
        Assert.Equal("S-BARRED", Left(knee, "rung-D4").Rule);
    }

    [Fact]
    public void Any_exercise_can_be_put_in_by_hand()
    {
        var battery = BatteryPlanner.ByHand(
            ["stance", "rung-L2"],
            Someone.Calm,
            Content.Policy,
            new BatteryQuestion(15, []),
            Content.Library
        );
        Assert.Equal(["stance", "rung-L2"], Ids(battery));
        Assert.Equal("S-BY-HAND", Left(battery, "leg-lowering").Rule);
        Assert.Equal("Added by hand.", battery.Items[1].Why.En());
    }

    [Theory]
    [InlineData(2, "", "", "minutes")]
    [InlineData(double.NaN, "", "", "minutes")]
    [InlineData(15, "trampoline", "", "missing[0]")]
    [InlineData(15, "", "moon-walk", "repeat[0]")]
    public void Refuses_questions_that_cannot_be(double minutes, string missing, string repeat, string field)
    {
        var question = new BatteryQuestion(
            minutes,
            missing.Length > 0 ? [missing] : [],
            repeat.Length > 0 ? [repeat] : null
        );
        Assert.Equal(field, Assert.Single(BatteryCheck.Errors(question, Content.Library)).Field);
    }

    [Fact]
    public void Refuses_a_task_twice() =>
        Assert.Equal(
            "taskIds[1]",
            Assert
                .Single(
                    BatteryCheck.ItemErrors(
                        ["stance", "stance"],
                        Someone.Calm,
                        Content.Policy,
                        Content.Library
                    )
                )
                .Field
        );

    [Theory]
    [InlineData(5, true)]
    [InlineData(4.9, false)]
    [InlineData(60, true)]
    [InlineData(60.1, false)]
    public void A_screen_has_five_to_sixty_minutes(double minutes, bool may) =>
        Assert.Equal(may, !BatteryCheck.Errors(new BatteryQuestion(minutes, []), Content.Library).Any());

    [Fact]
    public void At_most_forty_tasks_are_put_together_by_hand()
    {
        var rungs = Content
            .Library.TrainedLadders.SelectMany(l => l.Rungs)
            .Select(r => "rung-" + r.Id)
            .Take(BatteryCheck.TasksMax + 1)
            .ToList();
        IEnumerable<string> Fields(int count) =>
            BatteryCheck
                .ItemErrors([.. rungs.Take(count)], Someone.Calm, Content.Policy, Content.Library)
                .Select(e => e.Field);
        Assert.Empty(Fields(BatteryCheck.TasksMax));
        Assert.Equal(["taskIds"], Fields(BatteryCheck.TasksMax + 1));
    }

    [Fact]
    public void Put_together_by_hand_a_task_keeps_the_reason_it_had()
    {
        var question = new BatteryQuestion(15, []);
        Battery Hand(string[] ids, Battery? before = null) =>
            BatteryPlanner.ByHand(ids, Someone.Calm, Content.Policy, question, Content.Library, before);
        var proposed = For(Someone.Calm);
        var first = proposed.Items[0];
        Assert.Equal(first.Why.Id, Hand([first.TaskId]).Items[0].Why.Id);
        // A reason of the battery it is made from goes before that of a proposal.
        var before = Hand([first.TaskId]) with
        {
            Items = [Hand([first.TaskId]).Items[0] with { Why = Message.Of("screen.repeated") }],
        };
        Assert.Equal("screen.repeated", Hand([first.TaskId], before).Items[0].Why.Id);
        // What was proposed and is not in it can be put back; what is in it is not told as left out.
        var left = Hand([first.TaskId]).LeftOut;
        Assert.DoesNotContain(left, l => l.TaskId == first.TaskId);
        Assert.All(left.Where(l => l.Rule == "S-BY-HAND"), l => Assert.True(l.CanAdd));
        Assert.Equal(
            proposed.Items.Skip(1).Select(i => i.TaskId),
            left.Where(l => l.Rule == "S-BY-HAND").Select(l => l.TaskId)
        );
    }

    [Fact]
    public void Repeated_it_tells_what_else_there_is_and_lets_it_be_added()
    {
        var again = For(Someone.Calm, repeat: ["stance"]);
        Assert.Equal("screen.repeated", again.Items[0].Why.Id);
        Assert.DoesNotContain(again.LeftOut, l => l.TaskId == "stance");
        var other = Left(again, "leg-lowering");
        Assert.Equal(("S-COVERED", "screen.not-repeated", true), (other.Rule, other.Why.Id, other.CanAdd));
    }

    [Fact]
    public void Minutes_are_those_of_the_tasks_and_of_lying_down_and_standing_up()
    {
        var battery = BatteryPlanner.ByHand(
            ["stance", "let-go", "fists"],
            Someone.Calm,
            Content.Policy,
            new BatteryQuestion(15, []),
            Content.Library
        );
        var positions = battery.Items.Select(i =>
            Content.Library.Rung(Content.Library.FindTask(i.TaskId)!.Rung!).Position
        );
        Assert.Equal(
            battery.Items.Sum(i => i.Minutes)
                + positions.Distinct().Count() * Content.Policy.Seconds.PositionChange / 60,
            battery.Minutes,
            9
        );
    }

    /// <summary>A precaution of one side leaves the other, in half the time.</summary>
    [Fact]
    public void A_task_barred_on_one_side_is_done_on_the_other_in_half_the_time()
    {
        foreach (var precaution in Content.Library.Precautions)
        {
            foreach (
                var task in Content.Library.Tasks.Where(t =>
                    !t.Retired && t.Rung is not null && t.Surfaces is null
                )
            )
            {
                var whole = TaskOption.Of(task, Someone.Calm, Content.Policy, [], Content.Library);
                var half = TaskOption.Of(
                    task,
                    Someone.With(precaution.Id, Side.Left),
                    Content.Policy,
                    [],
                    Content.Library
                );
                if (half.Sides is [Side.Left or Side.Right])
                {
                    Assert.Equal(whole.Minutes / 2, half.Minutes, 9);
                    Assert.Null(half.Out);
                }
                else if (half.Out is null)
                {
                    Assert.Equal(whole.Minutes, half.Minutes, 9);
                }
            }
        }
    }

    [Fact]
    public void What_tires_comes_last_and_is_not_proposed_by_itself()
    {
        var tiring = Content.Library.Tasks.First(t => t is { Tires: true, Retired: false, Priority: > 2 });
        Assert.Equal("screen.tiring", Left(For(Someone.Calm), tiring.Id).Why.Id);
    }
}
