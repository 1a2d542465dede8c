using CsCheck;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Core.Terms;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Practice;

public class TeamTests
{
    private static readonly ClipRoom Room = ClipRoom.Of(Content.Library);

    private static IReadOnlyList<ClipResult> Rate(
        IReadOnlyList<TeamItem> items,
        Func<ClipSpec, int, IReadOnlyList<ClipMark>> answer
    ) =>
        [
            .. items.Select(
                (item, i) =>
                    ClipResult.Of(
                        new(
                            item.Seed,
                            item.Mirrored,
                            answer(item.Mirrored ? Room.Spec(item.Seed).Mirrored() : Room.Spec(item.Seed), i)
                        ),
                        Content.Library
                    )
            ),
        ];

    private static IReadOnlyList<ClipMark> AsItIs(ClipSpec spec, int _) =>
        spec.Truth is { } t ? [new(t.Fault, t.Second)] : [];

    [Fact]
    public void Some_clips_come_again_later_and_some_in_a_mirror()
    {
        Gen.Select(Gen.Int[12, 40], Gen.Int[0, 100000])
            .Sample(
                (clips, seed) =>
                {
                    var items = TeamSession.Items(clips, seed);
                    Assert.Equal(items, TeamSession.Items(clips, seed));
                    Assert.Equal(clips, items.Count(item => item.Of is null));
                    Assert.Equal(2 * (clips / 6), items.Count(item => item.Of is not null));
                    Assert.Equal(clips / 6, items.Count(item => item.Mirrored));
                    for (var i = 0; i < items.Count; i++)
                    {
                        if (items[i].Of is { } of)
                        {
                            Assert.Equal(items[of].Seed, items[i].Seed);
                            Assert.Null(items[of].Of);
                            Assert.True(of < i);
                        }
                    }
                },
                iter: 300
            );
    }

    [Fact]
    public void Who_all_see_what_is_there_agree_wholly()
    {
        var items = TeamSession.Items(24, 3);
        var all = Rate(items, AsItIs);
        var team = TeamFigures.Of([(null, all), ("Ines Marlow", all)], items, Content.Library);
        Assert.True(team.Enough);
        Assert.Equal((1, 1, 1), (team.Kappa, team.Fleiss, team.Ac1));
        Assert.Equal(0, team.Reps!.Sem);
        Assert.Equal(1, team.Reps.Icc.Value);
        Assert.All(team.Members, m => Assert.Equal((m.Again, m.Mirrored), (m.SameAgain, m.SameMirrored)));
        Assert.Equal([null, "Ines Marlow"], team.Members.Select(m => m.Rater));
        Assert.All(team.Hardest, clip => Assert.Equal(2, clip.Right));
    }

    [Fact]
    public void One_who_sees_only_the_left_is_found_out()
    {
        var items = TeamSession.Items(40, 5);
        var half = Rate(items, (spec, i) => spec.Drawn == Side.Left ? AsItIs(spec, i) : []);
        var team = TeamFigures.Of([("a", Rate(items, AsItIs)), ("b", half)], items, Content.Library);
        var one = team.Members[1];
        Assert.Equal(1, one.Left!.Value);
        Assert.Equal(0, one.Right!.Value);
        // Seen in a mirror, what was seen is not and what was not is.
        Assert.True(one.SameMirrored < one.Mirrored);
        Assert.Equal(one.Again, one.SameAgain);
        Assert.True(team.Kappa < 1 && team.Ac1 < 1);
        Assert.True(team.Ends["kappa"].Low <= team.Kappa && team.Kappa <= team.Ends["kappa"].High);
    }

    [Fact]
    public void One_alone_or_few_clips_tell_nothing_yet()
    {
        var items = TeamSession.Items(24, 3);
        Assert.False(TeamFigures.Of([("a", Rate(items, AsItIs))], items, Content.Library).Enough);
        var few = TeamSession.Items(12, 3);
        var team = TeamFigures.Of([("a", Rate(few, AsItIs)), ("b", Rate(few, AsItIs))], few, Content.Library);
        Assert.Equal((false, (double?)null), (team.Enough, team.Kappa));
        Assert.False(TeamFigures.Of([], items, Content.Library).Enough);
    }

    [Fact]
    public void A_clinic_s_own_eye_stands_for_the_built_in_one_only_with_enough_clips()
    {
        var model = Content.Library.Ability;
        var errors = Content.Library.Norms.Errors;
        IReadOnlyList<ClipResult> Results(int clips) =>
            Rate(
                [.. Enumerable.Range(0, clips).Select(i => new TeamItem(i, false, null))],
                (spec, i) => i % 5 == 0 ? [] : AsItIs(spec, i)
            );
        var few = ClinicEye.Of([Results(59)], Content.Library.Practice);
        Assert.Null(few.Missed);
        Assert.Equal(model, few.Over(model));
        var own = ClinicEye.Of([Results(40), Results(80)], Content.Library.Practice);
        Assert.Equal((120, 2), (own.Clips, own.Raters));
        var over = own.Over(model);
        // A fifth of all faults went by, drawn by lot; none was imagined, which is not never.
        Assert.InRange(over.Missed, 0.1, 0.3);
        Assert.Equal(0.005, over.Imagined);
        Assert.Equal(model with { Missed = over.Missed, Imagined = over.Imagined }, over);
        var wider = own.Over(errors);
        Assert.Equal(errors.Select(e => e.Of), wider.Select(e => e.Of));
        Assert.All(errors.Zip(wider), pair => Assert.True(pair.Second.Error >= pair.First.Error));
        Assert.Equal(ClinicEye.OwnSource, wider.First(e => e.Of == "reps").Source);
        // Whatever it is, the model stays one that can be reckoned with.
        var eighty = Enumerable.Range(0, 80).Select(i => new TeamItem(i, false, null)).ToList();
        var blind = ClinicEye.Of([Rate(eighty, (_, _) => [])], Content.Library.Practice);
        Assert.Empty(blind.Over(model).Errors());
        var marksAll = ClinicEye.Of(
            [Rate(eighty, (clip, _) => [new(clip.Sought, 1)])],
            Content.Library.Practice
        );
        Assert.Empty(marksAll.Over(model).Errors());
    }
}
