using System.Numerics;
using System.Text.Json;
using Palaestra.Core.Body;
using Palaestra.Core.Library;
using Palaestra.Core.Practice;
using Palaestra.Core.Terms;
using Palaestra.Core.Tests.Given;

namespace Palaestra.Core.Tests.Practice;

public class ClipRoomTests
{
    private static readonly ClipRoom Room = ClipRoom.Of(Content.Library);
    private static readonly IReadOnlyList<ClipSpec> Specs = [.. Enumerable.Range(0, 3000).Select(Room.Spec)];

    private static string Json<T>(T value) => JsonSerializer.Serialize(value, CoreJson.Options);

    /// <summary>Another reading of the same files is another machine, as far as a clip can tell.</summary>
    [Fact]
    public void The_same_seed_is_the_same_clip()
    {
        var elsewhere = ClipRoom.Of(ContentFiles.Read(Content.Texts).Value!);
        Assert.All(Specs.Take(200), spec => Assert.Equal(spec, elsewhere.Spec(spec.Seed)));
        foreach (var spec in Specs.Take(6))
        {
            Assert.Equal(Json(Room.Pictures(spec, "a")), Json(elsewhere.Pictures(spec, "a")));
        }
        Assert.NotEqual(Json(Room.Pictures(Specs[0], "a")), Json(Room.Pictures(Specs[1], "a")));
    }

    [Fact]
    public void Four_in_ten_are_clean_and_every_fault_side_view_and_degree_is_shown()
    {
        var faulty = Specs.Where(spec => spec.Truth is not null).ToList();
        // 3,000 clips: four in ten within three standard errors.
        Assert.InRange(1 - faulty.Count / 3000.0, 0.373, 0.427);
        foreach (var fault in Room.Faults)
        {
            var here = faulty.Where(spec => spec.Truth!.Fault == fault).ToList();
            Assert.Contains(here, spec => spec.Drawn == Side.Left);
            Assert.Contains(here, spec => spec.Drawn == Side.Right);
        }
        Assert.All(Degrees.All, degree => Assert.Contains(faulty, spec => spec.Truth!.Degree == degree));
        Assert.All(Enum.GetValues<View>(), view => Assert.Contains(faulty, spec => spec.View == view));
        // First, middle and last reps, and holds.
        Assert.Equal([1, 2, 3, 4, 5], faulty.Select(s => s.Truth!.Rep).OfType<int>().Distinct().Order());
        Assert.Contains(faulty, spec => spec.Reps == 0 && spec.Truth!.Rep is null);
    }

    /// <summary>The same clip, from where any other of its fault and exercise is taken, never shows twice as much.</summary>
    [Fact]
    public void Faults_are_looked_at_from_where_they_show()
    {
        var taken = Specs.ToLookup(spec => (spec.RungId, spec.Sought), spec => spec.View);
        var shares = Specs
            .Where(spec => spec.Truth is { Degree: Degree.Plain or Degree.Gross })
            .Take(60)
            .AsParallel()
            .Select(spec =>
                Seen(spec)
                / taken[(spec.RungId, spec.Sought)].Distinct().Max(view => Seen(spec with { View = view }))
            )
            .ToList();
        // The outline at its end, by which views are chosen, tells a little otherwise than the most of all pictures.
        Assert.All(shares, share => Assert.InRange(share, 0.5, 1));
        Assert.Contains(shares, share => share < 1);
    }

    /// <summary>The same degree of a fault is drawn the farther, the less of it a view shows: by no more than a third.</summary>
    [Fact]
    public void From_no_view_a_fault_has_to_go_much_farther_to_be_seen()
    {
        var alike = Specs
            .Select(spec => (spec, spec.Truth))
            .Where(clip => clip.Truth is not null)
            .GroupBy(clip => (clip.spec.RungId, clip.Truth!.Fault, clip.Truth.Degree))
            .Where(group => group.Select(clip => clip.spec.View).Distinct().Count() > 1)
            .Select(group =>
                (group.Key, Least: group.Min(c => c.Truth!.Amount), Most: group.Max(c => c.Truth!.Amount))
            )
            .ToList();
        Assert.True(alike.Count > 50);
        Assert.All(
            alike,
            one => Assert.InRange(one.Least, Content.Library.Practice.FairView * one.Most, one.Most)
        );
    }

    /// <summary>As one stands in a clinic: a back that hollows is looked at from beside, a hip that hitches from before or behind.</summary>
    [Theory]
    [InlineData("arch", View.Front)]
    [InlineData("round", View.Front)]
    [InlineData("rib-flare", View.Front)]
    [InlineData("pike", View.Front)]
    [InlineData("bulge", View.Top)]
    [InlineData("stance-lean", View.Side)]
    [InlineData("drop", View.Side)]
    [InlineData("hip-hike", View.Side)]
    public void Nobody_looks_across_what_turns(string fault, View never)
    {
        var views = Specs
            .Where(spec => spec.Sought == fault && IsStraight(spec.RungId))
            .Select(spec => spec.View)
            .Distinct()
            .ToList();
        Assert.NotEmpty(views);
        Assert.DoesNotContain(never, views);
    }

    /// <summary>Neither on its side nor turned: its right is away from, or toward, who looks from the side.</summary>
    private static bool IsStraight(string rungId)
    {
        var end = Content.Library.Poses[Content.Library.Rung(rungId).Poses.End];
        return Math.Abs(ContactSolver.Solve(end, BodySize.Typical).Rightward(Bone.Pelvis).Z) > 0.9;
    }

    /// <summary>Nobody stands over somebody who stands.</summary>
    [Fact]
    public void Nobody_is_looked_at_from_the_ceiling()
    {
        Assert.All(
            Specs.Where(spec => spec.View == View.Top),
            spec =>
                Assert.DoesNotContain(EndFamily(spec), new[] { "stance", "half-kneel", "split-stand", "sit" })
        );

        static string EndFamily(ClipSpec spec) =>
            Content.Library.PoseFamilies[Content.Library.Rung(spec.RungId).Poses.End];
    }

    /// <summary>Whatever breaks a rep of a rung has a picture there, and comes in clips.</summary>
    [Fact]
    public void All_faults_that_break_a_rep_are_there()
    {
        var breaking =
            from ladder in Content.Library.Ladders
            from rung in ladder.Rungs
            from code in rung.Faults
            where rung.KindOf(Content.Library.FindFault(code)!) == FaultKind.Breaking
            select (Rung: rung, Fault: code);
        Assert.All(breaking, pair => Assert.Contains(pair.Fault, Room.FaultsOf(pair.Rung)));
        Assert.Contains("bulge", Room.Faults);
    }

    /// <summary>What one sees before anything happens does not tell: rungs, views, bodies and tempo come the same for clean and faulty.</summary>
    [Fact]
    public void Nothing_but_the_movement_tells_a_clean_clip()
    {
        var clean = Specs.Where(spec => spec.Truth is null).ToList();
        var faulty = Specs.Where(spec => spec.Truth is not null).ToList();
        foreach (var view in Enum.GetValues<View>())
        {
            Assert.InRange(
                Share(clean, s => s.View == view) - Share(faulty, s => s.View == view),
                -0.06,
                0.06
            );
        }
        Assert.InRange(Share(clean, s => s.Reps == 0) - Share(faulty, s => s.Reps == 0), -0.06, 0.06);
        Assert.InRange(clean.Average(s => s.Seconds) - faulty.Average(s => s.Seconds), -0.2, 0.2);

        static double Share(List<ClipSpec> of, Func<ClipSpec, bool> which) =>
            of.Count(which) / (double)of.Count;
    }

    /// <summary>How much everything moves, from picture to picture, does not tell them apart: chance that a faulty one moves more, 0.5 for none.</summary>
    [Fact]
    public void A_clean_clip_does_not_look_stiller()
    {
        var moving = Specs
            .Take(160)
            .Select(spec =>
                (Faulty: spec.Truth is not null, spec.Reps, Moved: Moved(Room.Pictures(spec, "")))
            )
            .ToList();
        var pairs =
            from faulty in moving.Where(clip => clip.Faulty)
            from clean in moving.Where(clip => !clip.Faulty && clip.Reps == 0 == (faulty.Reps == 0))
            select faulty.Moved > clean.Moved ? 1.0 : 0.0;
        Assert.InRange(pairs.Average(), 0.38, 0.62);
    }

    /// <summary>Millimetres a point of the body goes from picture to picture, on average.</summary>
    private static double Moved(ClipPictures clip)
    {
        var trunk = clip.Figure.Shapes.ToList().FindIndex(shape => shape.Part == "trunk");
        var head = clip.Figure.Shapes.ToList().FindIndex(shape => shape.Part == "head");
        return clip
            .Frames.Zip(clip.Frames.Skip(1))
            .Average(pair =>
                new[] { trunk, head }.Average(part => Off(pair.First.Shapes[part], pair.Second.Shapes[part]))
            );
    }

    private static double Off(IReadOnlyList<IReadOnlyList<int>> a, IReadOnlyList<IReadOnlyList<int>> b) =>
        a.Zip(b).SelectMany(pair => Points(pair.First).Zip(Points(pair.Second), Vector2.Distance)).Average();

    private static IEnumerable<Vector2> Points(IReadOnlyList<int> flat) =>
        flat.Chunk(2).Select(p => new Vector2(p[0], p[1]));

    /// <summary>
    /// Each clip beside the same one clean: how far the outlines are apart at most, on average of a degree.
    /// </summary>
    [Fact]
    public void More_degree_shows_more()
    {
        var seen = Specs
            .Where(spec => spec.Truth is not null)
            .Take(400)
            .GroupBy(spec => spec.Truth!.Degree)
            .OrderBy(group => group.Key)
            .Select(group => group.Take(14).Average(Seen))
            .ToList();
        Assert.Equal(5, seen.Count);
        Assert.Equal(seen.Order(), seen);
        // As even as the ratio of the degrees asks for, taken as a whole.
        Assert.InRange(seen[4] / seen[0], 3.5, 11);
    }

    /// <summary>How far the outlines are apart from those of the same clip clean, at most, millimetres.</summary>
    private static double Seen(ClipSpec spec)
    {
        var (with, without) = (Room.Pictures(spec, ""), Room.Pictures(spec, "", clean: true));
        return with
            .Frames.Zip(without.Frames)
            .Max(pair =>
                Enumerable
                    .Range(1, pair.First.Shapes.Count - 1)
                    .Where(i => pair.First.Shapes[i].Count > 0 && pair.Second.Shapes[i].Count > 0)
                    .Average(i => Off(pair.First.Shapes[i], pair.Second.Shapes[i]))
            );
    }

    [Fact]
    public void Before_its_moment_nothing_of_a_fault_is_there_and_then_half_of_it()
    {
        foreach (var spec in Specs.Where(s => s.Truth is { Degree: Degree.Gross, Second: > 3 }).Take(20))
        {
            var (with, without) = (Room.Pictures(spec, ""), Room.Pictures(spec, "", clean: true));
            var off = with
                .Frames.Zip(without.Frames)
                .Select(pair => Off(Body(with, pair.First), Body(without, pair.Second)))
                .ToList();
            var half = (int)(spec.Truth!.Second * with.PerSecond);
            var early = half - (int)(spec.Reps == 0 ? 1.2 * with.PerSecond : 2.2 * with.PerSecond);
            Assert.All(off.Take(Math.Max(1, early)), one => Assert.InRange(one, 0, 0.5));
            Assert.InRange(off[half] / off.Max(), 0.3, 0.75);
        }

        static IReadOnlyList<IReadOnlyList<int>> Body(ClipPictures clip, ClipFrame frame) =>
            [
                .. frame
                    .Shapes.Where(
                        (_, i) =>
                            clip.Figure.Shapes[i].Role
                                is ShapeRole.Trunk
                                    or ShapeRole.NearLimb
                                    or ShapeRole.FarLimb
                    )
                    .SelectMany(shape => shape),
            ];
    }

    /// <summary>A mirrored clip is the same picture, left and right changed: from the side, where the near side is the task's, it runs the other way.</summary>
    [Fact]
    public void A_mirrored_clip_is_the_same_seen_in_a_mirror()
    {
        foreach (
            var spec in Specs.Where(s => s.View is View.Side or View.Front && s.Truth is not null).Take(6)
        )
        {
            var mirrored = spec.Mirrored();
            Assert.Equal(spec, mirrored.Mirrored());
            Assert.Equal(spec.Truth!.Side.Other(), mirrored.Truth!.Side);
            var (here, there) = (Room.Pictures(spec, ""), Room.Pictures(mirrored, ""));
            var (a, b) = (Trunk(here, 40), Trunk(there, 40));
            Assert.Equal(a.Min(p => p.X), -b.Max(p => p.X), 1.5);
            Assert.Equal(a.Max(p => p.X), -b.Min(p => p.X), 1.5);
            Assert.Equal(a.Max(p => p.Y), b.Max(p => p.Y), 1.5);
        }

        static List<Vector2> Trunk(ClipPictures clip, int frame)
        {
            var trunk = clip.Figure.Shapes.ToList().FindIndex(shape => shape.Part == "trunk");
            return [.. clip.Frames[frame].Shapes[trunk].SelectMany(Points)];
        }
    }

    /// <summary>Every picture of a body is whole: of joints that a body has, in its frame.</summary>
    [Fact]
    public void Nothing_falls_out_of_the_frame()
    {
        foreach (var spec in Specs.Take(40))
        {
            var clip = Room.Pictures(spec, "");
            Assert.InRange(spec.Seconds, 6, 18);
            Assert.Equal((int)Math.Round(spec.Seconds * clip.PerSecond) + 1, clip.Frames.Count);
            var points = clip.Frames.SelectMany(f => f.Shapes).SelectMany(o => o).SelectMany(Points).ToList();
            Assert.True(
                points.Min(p => p.X) >= clip.Figure.Left
                    && points.Max(p => p.X) <= clip.Figure.Left + clip.Figure.Width
            );
            Assert.True(
                points.Min(p => p.Y) >= clip.Figure.Top
                    && points.Max(p => p.Y) <= clip.Figure.Top + clip.Figure.Height
            );
        }
    }
}
