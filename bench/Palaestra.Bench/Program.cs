using System.Diagnostics;
using System.Globalization;
using Palaestra.Bench;
using Palaestra.Core.Abilities;
using Palaestra.Core.Agreement;
using Palaestra.Core.Body;
using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Practice;
using Palaestra.Core.Progression;
using Palaestra.Core.Screening;
using Palaestra.Core.Signals;
using Palaestra.Instruments;
using Palaestra.Simulation;
using Palaestra.Simulation.Courses;
using Palaestra.Simulation.Instruments;

// Speed of the core on one thread, as rows of a Markdown table; nothing here is asserted.
var library = Read("content");
if (args is ["simulate", var report])
{
    File.WriteAllText(report, SimulationReport.Write(library));
    return;
}
if (args is ["detect", var detection])
{
    File.WriteAllText(detection, DetectionReport.Into(File.ReadAllText(detection), library));
    return;
}
if (args is ["courses", var from, .. var options])
{
    Environment.ExitCode = CourseCommand.Run(options, library, from);
    return;
}
if (args is ["fill", var folder, .. var filling])
{
    LargeClinic.Fill(folder, DateTime.Now);
    if (filling is ["--taps"])
    {
        LargeClinic.Tap(folder);
    }
    return;
}
if (args is ["record", var longFolder])
{
    await LongRecord.Measure(longFolder, library);
    return;
}
if (args is ["taps-of", var tapped, var visitId])
{
    LargeClinic.TapsOf(tapped, Guid.Parse(visitId), Console.Out);
    return;
}
var rungs = library.Ladders.SelectMany(ladder => ladder.Rungs).ToList();
var size = new BodySize(Sex.Female, 1.68, 64);

Row(
    $"demand of the whole library ({rungs.Count} rungs), left by the model, right as its mirror, {LoadModel.Samples} samples each",
    1,
    () =>
    {
        foreach (var rung in rungs)
        {
            var (load, _) = LoadModel.Of(library.PathOf(rung), Side.Left, size, LoadChanges.None);
            _ = load!.Demands.Mirrored();
        }
    }
);
Row(
    "the same with both sides by the model",
    1,
    () =>
    {
        foreach (var rung in rungs)
        {
            _ = LoadModel.Of(library.PathOf(rung), Side.Left, size, LoadChanges.None);
            _ = LoadModel.Of(library.PathOf(rung), Side.Right, size, LoadChanges.None);
        }
    }
);
Row(
    "one drawing, start and end together, poses solved anew",
    rungs.Count,
    () =>
    {
        foreach (var rung in rungs)
        {
            _ = new FigureDrawing(library.PathOf(rung), Side.Left, rung.View).Together("");
        }
    }
);
Row(
    "one answer to a load question",
    rungs.Count,
    () =>
    {
        foreach (var rung in rungs)
        {
            _ = LoadAnswers.Of(new LoadQuestion(size, rung.Id, Changes: new(Range: 0.7)), library);
        }
    }
);

var policy = library.DefaultPolicy;
var client = new SimulatedClient(library, Nature.Typical, 1);
foreach (
    var (rung, side) in rungs
        .Where(r => library.LadderOf(r.Id).Trained)
        .SelectMany(r => r.TaskSides.Select(side => (r, side)))
        .Concat(
            rungs
                .Where(r => library.LadderOf(r.Id).Trained)
                .SelectMany(r => r.TaskSides.Select(side => (r, side)))
        )
)
{
    client.Do(rung, side == Side.Both ? Side.Left : side, policy);
}
IReadOnlyList<CaptureEvent> screen = [.. client.Events.Take(2000)];
var trials = TrialFold.Trials(screen, library, policy.Pain);
var calm = new ClientProfile(new Pain(1, 2, 1), 1, false, []);
Row(
    $"folding a screen of {screen.Count} events into {trials.Count} trials",
    1,
    () => _ = TrialFold.Trials(screen, library, policy.Pain)
);
Row($"findings of those {trials.Count} trials", 1, () => _ = FindingsMaker.Of(trials, calm, policy, library));
var worked = Enumerable
    .Range(0, 3000)
    .Select(set => new AbilityEvidence(
        new DateOnly(2026, 1, 1).AddDays(set / 15),
        Direction.Front,
        Side.Left,
        library.Heights.Of($"B{1 + set % 11}")!.Value,
        8,
        2,
        Guid.Empty
    ))
    .ToList();
var believed = AbilityFindings.BeliefOf(worked, library);
Row("an ability from 30,000 reps on 200 days", 1, () => _ = AbilityFindings.BeliefOf(worked, library));
Row("an ability after one set more", 1, () => _ = believed.After(worked[^1].On.AddDays(3), [worked[0]]).Mean);
Row(
    "proposing a battery",
    1,
    () => _ = BatteryPlanner.Propose(calm, policy, new BatteryQuestion(15, []), library)
);

// A plan for many clients: what differs between them decides how long the search takes, so each is timed once.
var inputs = Enumerable.Range(1, 300).Select(seed => PlanInputOf(seed, library, policy)).ToList();
foreach (var input in inputs.Take(40))
{
    _ = Planner.Propose(input, library, Guid.CreateVersion7);
}
var plans = inputs.ConvertAll(input =>
{
    GC.Collect();
    var watch = Stopwatch.StartNew();
    _ = Planner.Propose(input, library, Guid.CreateVersion7);
    return watch.Elapsed.TotalMilliseconds;
});
plans.Sort();
Console.WriteLine(
    string.Create(
        CultureInfo.InvariantCulture,
        $"| a plan over the whole library with runner-up, five minutes less and more, {plans.Count} simulated clients; 99th percentile {plans[(int)(plans.Count * 0.99)]:0.0} ms, slowest {plans[^1]:0.0} ms | {plans[plans.Count / 2]:0.0#} | {plans[(int)(plans.Count * 0.95)]:0.0#} | {plans.Count} |"
    )
);

// A visit with twenty before it, and such an episode under every policy.
var course = Course.Visits(library, policy, new CourseNature(Weeks: 20), seed: 3);
Row(
    $"deciding a visit with {course.Count - 1} visits before it ({course[^1].Items.Count} exercises), with what would have changed each",
    1,
    () => _ = DecisionEngine.Decide(course[^1], library)
);
Row($"the same without what would have changed it", 1, () => _ = DecisionEngine.Bare(course[^1], library));
Row(
    $"replay of {course.Count} visits under {library.Policies.Count} policies",
    1,
    () => _ = Replay.Of(course, _ => course[^1].Visits, library.Policies, library)
);

// A minute of four channels at 100 Hz: three of a tilt sensor, and pitch once more.
var tilt = library.Instruments.First(i => i.Id == "tilt");
var four = tilt with { Channels = [.. tilt.Channels, tilt.Channels[0]] };
var device = new SimulatedDevice(DeviceKind.Tilt, 1);
device.Begin("gives-way");
var missing = Enumerable.Repeat(double.NaN, 4).ToArray();
List<double[]> minute =
[
    .. Enumerable.Range(0, 6000).Select(_ => device.Sample() is { } s ? [.. s, s[0]] : missing),
];
var rest = new Neutral([.. DeviceKind.Tilt.Rest, DeviceKind.Tilt.Rest[0]]);
Row("a minute of four channels at 100 Hz analysed", 1, () => _ = SignalAnalyser.Of(minute, four, rest));
var (least, most, sum) = (new double[4], new double[4], new double[4]);
Row(
    "the same samples gone through once: sum, least and most of each channel",
    1,
    () =>
    {
        foreach (var sample in minute)
        {
            for (var channel = 0; channel < sample.Length; channel++)
            {
                sum[channel] += sample[channel];
                least[channel] = Math.Min(least[channel], sample[channel]);
                most[channel] = Math.Max(most[channel], sample[channel]);
            }
        }
    }
);

var room = ClipRoom.Of(library);
var clip = 0;
Row("all pictures of a clip, another one each time", 1, () => _ = room.Pictures(room.Spec(clip++), ""));
var chance = new Random(26);
var marked = new AgreementQuestion(
    RatingKind.Categories,
    [
        .. Enumerable
            .Range(0, 200)
            .Select(_ =>
                (IReadOnlyList<Rating>)
                    [.. Enumerable.Range(0, 20).Select(_ => new Rating(chance.Next(4), null))]
            ),
    ]
);
Row("agreement of 20 raters on 200 items, 1,000 draws", 1, () => _ = AgreementAnswers.Of(marked));

static PlanInput PlanInputOf(int seed, PracticeLibrary library, Policy policy)
{
    // Every ladder is climbed, in an order of the seed, by a client with precautions, goals and minutes of the seed.
    var random = new Random(seed);
    var client = new SimulatedClient(library, Nature.Typical, seed);
    var precautions = library
        .Precautions.Where(_ => random.Next(6) == 0)
        .Select(p => new ClientPrecaution(p.Id));
    var pain = random.Next(0, 8);
    var profile = new ClientProfile(new Pain(pain, 8, pain), random.Next(0, 30), false, [.. precautions]);
    foreach (
        var ladder in library.TrainedLadders.Where(l => l.Direction != Direction.None && random.Next(3) > 0)
    )
    {
        foreach (var side in new[] { Side.Left, Side.Right })
        {
            while (
                RungFinder
                    .Search(
                        ladder,
                        side,
                        TrialFold.Trials([.. client.Events], library, policy.Pain),
                        profile,
                        policy,
                        library
                    )
                    .NextRungId
                    is { } next
            )
            {
                client.Do(library.Rung(next), side, policy);
            }
        }
    }
    var trials = TrialFold.Trials([.. client.Events], library, policy.Pain);
    return new PlanInput(
        profile,
        FindingsMaker.Of(trials, profile, policy, library),
        policy.Id,
        SpinalStrategy.Neutral,
        Activation.Brace,
        random.Next(5, 35),
        Goals: [.. library.Goals.Where(_ => random.Next(4) == 0).Select(goal => goal.Id)]
    );
}

static void Row(string what, int per, Action work)
{
    // Until the compiler has had time to put its best code in place, as in a server that has been up for a minute.
    const double warm = 3;
    const int runs = 60;
    for (var start = Stopwatch.StartNew(); start.Elapsed.TotalSeconds < warm; )
    {
        work();
    }
    var times = new double[runs];
    for (var i = 0; i < runs; i++)
    {
        GC.Collect();
        var watch = Stopwatch.StartNew();
        work();
        times[i] = watch.Elapsed.TotalMilliseconds / per;
    }
    Array.Sort(times);
    Console.WriteLine(
        string.Create(
            CultureInfo.InvariantCulture,
            $"| {what} | {times[runs / 2]:0.0#} | {times[(int)(runs * 0.95)]:0.0#} | {runs} |"
        )
    );
}

static PracticeLibrary Read(string folder) =>
    ContentFiles
        .Read(
            Directory
                .EnumerateFiles(folder, "*.json", SearchOption.AllDirectories)
                .Select(path => (Name: Path.GetRelativePath(folder, path).Replace('\\', '/'), path))
                .Where(file => !file.Name.StartsWith("schema/", StringComparison.Ordinal))
                .Where(file => !file.Name.StartsWith("demo/", StringComparison.Ordinal))
                .ToDictionary(file => file.Name, file => File.ReadAllText(file.path))
        )
        .Value!;
