using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using MathNet.Numerics.Random;
using Palaestra.Core.Body;
using Palaestra.Core.Library;

namespace Palaestra.Core.Practice;

/// <summary>All clips of a library, by seed: which there are, what they show, and their pictures.</summary>
public sealed class ClipRoom
{
    /// <summary>Pictures a second: enough for a tremor of six a second, few enough to be sent.</summary>
    public const int PerSecond = 16;

    /// <summary>A fault is drawn up to this share of what the library draws: farther, bodies come apart. Our own.</summary>
    private const double Farthest = 1.3;

    private static readonly ConditionalWeakTable<PracticeLibrary, ClipRoom> Kept = [];

    private readonly PracticeLibrary library;
    private readonly IReadOnlyList<string> faults;
    private readonly ILookup<string, Rung> rungsOf;
    private readonly ConcurrentDictionary<
        (string Rung, string Fault),
        (double[] Millimetres, double[] Along)
    > shown = [];

    /// <summary>The room of a library, kept as long as it is.</summary>
    public static ClipRoom Of(PracticeLibrary library) => Kept.GetValue(library, l => new ClipRoom(l));

    private ClipRoom(PracticeLibrary library)
    {
        this.library = library;
        rungsOf = (
            from ladder in library.Ladders
            from rung in ladder.Rungs
            from fault in FaultsOf(rung)
            select (fault, rung)
        ).ToLookup(pair => pair.fault, pair => pair.rung, StringComparer.Ordinal);
        faults = [.. rungsOf.Select(group => group.Key).Order(StringComparer.Ordinal)];
    }

    /// <summary>Codes of the faults that clips show, in order.</summary>
    public IReadOnlyList<string> Faults => faults;

    /// <summary>Faults of a rung that break a rep and can be drawn.</summary>
    public IReadOnlyList<string> FaultsOf(Rung rung) =>
        [
            .. rung.Faults.Where(code =>
                library.FindFault(code) is { } fault
                && rung.KindOf(fault) == FaultKind.Breaking
                && library.FaultyPose(rung, code) is not null
            ),
        ];

    /// <summary>What is drawn from a seed, in this order; what follows from the same generator is of the body.</summary>
    private sealed record Drawing(
        RandomSource Random,
        bool Clean,
        string Fault,
        Rung Rung,
        Side Side,
        Degree Wanted,
        double ViewPick,
        ClipTiming Timing,
        (int Rep, double Second) Onset
    );

    private Drawing Drawn(int seed)
    {
        var random = new Xoshiro256StarStar(seed);
        var clean = random.NextDouble() < library.Practice.CleanShare;
        var fault = faults[random.Next(faults.Count)];
        var rungs = rungsOf[fault].ToList();
        var rung = rungs[random.Next(rungs.Count)];
        var side = random.Next(2) == 0 ? Side.Left : Side.Right;
        var wanted = (Degree)random.Next(Degrees.All.Count);
        var view = random.NextDouble();
        var timing = new ClipTiming(random, rung);
        return new(random, clean, fault, rung, side, wanted, view, timing, OnsetOf(random, timing));
    }

    /// <summary>What the clip of a seed shows.</summary>
    /// <param name="seed">0 or more.</param>
    public ClipSpec Spec(int seed)
    {
        var drawn = Drawn(seed);
        var view = ViewOf(drawn);
        return new(
            seed,
            drawn.Rung.Id,
            drawn.Fault,
            drawn.Rung.Sides == RungSides.Each ? drawn.Side : Side.Both,
            drawn.Side,
            view,
            drawn.Timing.Held ? 0 : drawn.Timing.Reps.Count,
            drawn.Timing.Seconds,
            drawn.Clean ? null : TruthOf(drawn, view)
        );
    }

    /// <summary>The tempo of a clip.</summary>
    internal ClipTiming TimingOf(int seed) => Drawn(seed).Timing;

    /// <summary>The pictures of a clip.</summary>
    /// <param name="words">What the picture is of.</param>
    /// <param name="clean">The same with nothing giving way, to lay over it.</param>
    public ClipPictures Pictures(ClipSpec spec, string words, bool clean = false)
    {
        var (random, _, _, rung, _, wanted, _, timing, onset) = Drawn(spec.Seed);
        var size = BodyOf(random);
        var scene = new ClipScene(library.PathOf(rung), library.FaultyPose(rung, spec.Sought)!, size);
        // A clean one moves as much: at the same moment something harmless happens, the larger the more was wanted.
        var decoy = spec.Truth is null ? DecoyLeast * (1 + (int)wanted) : 0;
        var restless = new Restlessness(
            random,
            library.Poses[rung.Poses.End].Bearing,
            timing.Seconds,
            onset.Second - 0.5,
            decoy
        );
        return new ClipFilm(scene, timing, restless, spec).Pictures(
            PerSecond,
            words,
            clean ? null : spec.Truth
        );
    }

    /// <summary>Degrees of a harmless gesture in the place of the least degree of a fault. Set by eye.</summary>
    private const double DecoyLeast = 4;

    /// <summary>The rep from 0, or the second of a hold, in which something gives way.</summary>
    private static (int Rep, double Second) OnsetOf(RandomSource random, ClipTiming timing)
    {
        var share = random.NextDouble();
        if (timing.Held)
        {
            var first = timing.Reps[0].Out + 1.5;
            return (0, Math.Round(first + share * (timing.Seconds - first - 2.5), 2));
        }
        var rep = (int)(share * timing.Reps.Count);
        return (rep, timing.HalfOf(rep));
    }

    private static BodySize BodyOf(RandomSource random) =>
        new(random.Next(2) == 0 ? Sex.Female : Sex.Male, Math.Round(1.56 + 0.3 * random.NextDouble(), 2));

    /// <summary>One of the fair views from which a fault of this degree can be seen; where there is none, the best.</summary>
    private View ViewOf(Drawing drawn)
    {
        var (shows, along) = ShownBy(drawn.Rung, drawn.Fault);
        var fair = Enum.GetValues<View>()
            .Where(view =>
                along[(int)view] > 0 && along[(int)view] >= library.Practice.FairAxis * along.Max()
            )
            .ToList();
        var most = fair.Max(view => shows[(int)view]);
        var fit = fair.Where(view => shows[(int)view] >= library.Practice.FairView * most)
            .Where(view => Farthest * shows[(int)view] >= Degrees.Millimetres(drawn.Wanted, library.Practice))
            .ToList();
        return fit.Count > 0 ? fit[(int)(drawn.ViewPick * fit.Count)] : fair.MaxBy(view => shows[(int)view]);
    }

    private ClipFault TruthOf(Drawing drawn, View view)
    {
        var shows = ShownBy(drawn.Rung, drawn.Fault).Millimetres[(int)view];
        var degree = Degrees.All.LastOrDefault(d =>
            d <= drawn.Wanted && Farthest * shows >= Degrees.Millimetres(d, library.Practice)
        );
        return new(
            drawn.Fault,
            drawn.Side,
            degree,
            drawn.Timing.Held ? null : drawn.Onset.Rep + 1,
            drawn.Onset.Second,
            Math.Min(Farthest, Degrees.Millimetres(degree, library.Practice) / Math.Max(shows, 1))
        );
    }

    /// <summary>
    /// By view, of a body of 1.70 m: millimetres of the fault as it is drawn, and how far one looks along what turns, 0 from where
    /// nobody looks.
    /// </summary>
    private (double[] Millimetres, double[] Along) ShownBy(Rung rung, string fault) =>
        shown.GetOrAdd(
            (rung.Id, fault),
            key =>
            {
                var (clean, faulty) = (library.Poses[rung.Poses.End], library.FaultyPose(rung, key.Fault)!);
                var scene = new ClipScene([clean], faulty, BodySize.Typical);
                var views = Enum.GetValues<View>();
                return (
                    [.. views.Select(view => ClipVisibility.Millimetres(scene.End, scene.Faulty, view))],
                    [
                        .. views.Select(view =>
                            ClipVisibility.CanLook(scene.End, view, library.Practice)
                                ? ClipVisibility.AlongAxes(clean.Posture, faulty.Posture, view)
                                : 0
                        ),
                    ]
                );
            }
        );
}
