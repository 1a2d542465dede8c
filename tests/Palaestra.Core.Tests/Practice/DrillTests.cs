using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Core.Terms;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Practice;

public class DrillTests
{
    private static readonly ClipRoom Room = ClipRoom.Of(Content.Library);
    private static readonly DrillAim All = new([], []);

    /// <summary>Who sees everything but one fault.</summary>
    private static ClipResult Rate(int seed, string blindTo)
    {
        var spec = Room.Spec(seed);
        return Answer(spec, spec.Truth is { } t && t.Fault != blindTo ? [new(t.Fault, t.Second + 0.4)] : []);
    }

    private static ClipResult Answer(ClipSpec spec, IReadOnlyList<ClipMark> marks, bool mirrored = false) =>
        ClipResult.Of(new(spec.Seed, mirrored, marks), Content.Library);

    private static List<ClipResult> Run(DrillAim aim, int clips, string blindTo, int seed = 1)
    {
        var results = new List<ClipResult>();
        while (results.Count < clips)
        {
            results.Add(Rate(Drill.Next(aim, results, seed, results.Count, Content.Library).Seed, blindTo));
        }
        return results;
    }

    [Fact]
    public void The_same_drill_chooses_the_same_and_no_clip_twice()
    {
        var (once, again) = (Run(All, 30, "arch"), Run(All, 30, "arch"));
        Assert.Equal(once.Select(r => r.Spec), again.Select(r => r.Spec));
        Assert.Equal(30, once.Select(r => r.Spec.Seed).Distinct().Count());
        Assert.InRange(once.Count(r => !r.Faulty), 6, 18);
        Assert.NotEqual(once.Select(r => r.Spec), Run(All, 30, "arch", seed: 2).Select(r => r.Spec));
    }

    [Fact]
    public void A_drill_keeps_to_its_faults_and_its_rungs()
    {
        Assert.All(
            Run(new(["twist", "drop"], []), 20, ""),
            r => Assert.Contains(r.Spec.Sought, new[] { "twist", "drop" })
        );
        Assert.All(
            Run(new([], ["D4", "E2"]), 14, ""),
            r => Assert.Contains(r.Spec.RungId, new[] { "D4", "E2" })
        );
    }

    /// <summary>A clinic's own rung may have none that can be drawn.</summary>
    [Fact]
    public void A_rung_without_clips_is_still_a_drill_of_others()
    {
        var ladder = Content.Library.Ladders[0];
        var bare = Content.Library with
        {
            Ladders =
            [
                ladder with
                {
                    Rungs = [ladder.Rungs[0] with { Faults = [] }, .. ladder.Rungs.Skip(1)],
                },
                .. Content.Library.Ladders.Skip(1),
            ],
        };
        var chosen = Drill.Next(new([], [ladder.Rungs[0].Id]), [], 1, 0, bare);
        Assert.NotEqual(ladder.Rungs[0].Id, ClipRoom.Of(bare).Spec(chosen.Seed).RungId);
    }

    /// <summary>Over several drills every fault comes, and what goes by most is what to look at next.</summary>
    [Fact]
    public void What_is_missed_is_found_and_told()
    {
        var results = Run(All, 90, "twist");
        Assert.True(results.Where(r => r.Faulty).Select(r => r.Spec.Truth!.Fault).Distinct().Count() >= 15);
        var figures = RaterFigures.Of(results, Content.Library);
        Assert.Equal("twist", figures.LookNext[0]);
        Assert.Equal("twist", figures.Faults[0].Fault);
        Assert.True(figures.Faults[0].Missed > figures.Missed!.Value);
        Assert.Equal(0, figures.FalseMarks!.Value);
        Assert.True(figures.DPrime > 2);
        Assert.Equal(0.4, figures.Seconds?.Median ?? 0.4, 2);
    }

    [Fact]
    public void It_ends_when_all_is_shown_when_time_is_up_or_when_enough_is_known()
    {
        var few = Run(All, 13, "");
        Assert.Equal(
            DrillEnd.AllShown,
            Drill.Over(All, few, 20, TimeSpan.FromMinutes(1), Content.Library.Practice)
        );
        Assert.Equal(
            DrillEnd.TimeUp,
            Drill.Over(All, few, 3, TimeSpan.FromMinutes(8), Content.Library.Practice)
        );
        Assert.Null(Drill.Over(All, few, 5, TimeSpan.FromMinutes(1), Content.Library.Practice));
        // Sixty clips more of a rater who misses nothing: narrow.
        Assert.Equal(
            DrillEnd.Narrow,
            Drill.Over(All, Run(All, 90, ""), 12, TimeSpan.FromMinutes(1), Content.Library.Practice)
        );
        Assert.Null(Drill.Over(All, Run(All, 90, ""), 11, TimeSpan.FromMinutes(1), Content.Library.Practice));
    }

    [Fact]
    public void An_answer_stands_beside_the_truth()
    {
        // Of an exercise with a fault that only coaches, and with another that breaks a rep.
        var faulty = Enumerable
            .Range(0, 400)
            .Select(Room.Spec)
            .First(s => s.Truth is { Rep: 2 } && Coaching(s) is not null && Other(s) is not null);
        var t = faulty.Truth!;
        var named = Answer(faulty, [new(t.Fault, t.Second + 0.3, t.Side)]);
        Assert.Equal(
            (ClipOutcome.Named, 0, 0.3, false),
            (named.Outcome, named.RepsLate, named.SecondsLate, named.OtherSide)
        );
        Assert.Equal((1, 1), (named.CleanReps, named.TrulyClean));
        var missed = Answer(faulty, []);
        Assert.Equal(
            (ClipOutcome.Missed, faulty.Reps, 1),
            (missed.Outcome, missed.CleanReps, missed.TrulyClean)
        );
        Assert.Equal(ClipOutcome.Missed, Answer(faulty, [new(Coaching(faulty)!, 1)]).Outcome);
        Assert.Equal(ClipOutcome.OtherName, Answer(faulty, [new(Other(faulty)!, t.Second)]).Outcome);
        // In a mirror the right answer is the other side.
        Assert.True(Answer(faulty, [new(t.Fault, t.Second, t.Side)], mirrored: true).OtherSide);
        var clean = Enumerable.Range(0, 400).Select(Room.Spec).First(s => s.Truth is null && s.Reps > 0);
        Assert.Equal(
            (ClipOutcome.RightlyClean, clean.Reps),
            (Answer(clean, []).Outcome, Answer(clean, []).CleanReps)
        );
        Assert.Equal(ClipOutcome.FalseMark, Answer(clean, [new(clean.Sought, 0.1)]).Outcome);
    }

    private static Rung RungOf(ClipSpec spec) => Content.Library.FindRung(spec.RungId)!;

    private static string? Coaching(ClipSpec spec) =>
        RungOf(spec)
            .Faults.FirstOrDefault(code =>
                RungOf(spec).KindOf(Content.Library.FindFault(code)!) != FaultKind.Breaking
            );

    private static string? Other(ClipSpec spec) =>
        Room.FaultsOf(RungOf(spec)).FirstOrDefault(code => code != spec.Truth!.Fault);

    [Fact]
    public void Bad_answers_and_aims_name_their_field()
    {
        Assert.Equal(
            ["marks[0].fault", "marks[1].second", "marks[2].side"],
            ClipResult
                .Errors(
                    [new("nothing", 1), new("arch", double.NaN), new("arch", 1, Side.Both)],
                    Content.Library
                )
                .Select(e => e.Field)
        );
        Assert.Equal(
            ["clips", "minutes", "faults[0]", "rungs[0]"],
            new DrillAim(["tremor"], ["Z9"], 11, 31).Errors(Content.Library).Select(e => e.Field)
        );
    }
}
