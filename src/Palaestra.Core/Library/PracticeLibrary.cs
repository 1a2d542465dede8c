using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>All content the rules work on: ladders, faults, precautions, red flags, policies, poses and words.</summary>
/// <param name="KnownDemands">What the body model found for this very library before; none: it is worked out anew.</param>
public sealed record PracticeLibrary(
    string Version,
    IReadOnlyList<Ladder> Ladders,
    IReadOnlyList<Fault> Faults,
    IReadOnlyList<FeltPlace> FeltPlaces,
    IReadOnlyList<Precaution> Precautions,
    IReadOnlyList<DangerSign> DangerSigns,
    IReadOnlyList<Policy> Policies,
    IReadOnlyList<SectorText> Sectors,
    IReadOnlyDictionary<string, Pose> Poses,
    IReadOnlyDictionary<string, string> PoseFamilies,
    IReadOnlyList<FaultPose> FaultPoses,
    IReadOnlyList<ScreenTask> Tasks,
    IReadOnlyList<Position> Positions,
    NormsFile Norms,
    IReadOnlyList<SchoolGroup> Schools,
    IReadOnlyList<Goal> Goals,
    IReadOnlyList<Equipment> Equipment,
    IReadOnlyList<MapStage> TwelveWeeks,
    IReadOnlyList<OutcomeMeasure> Outcomes,
    Cautions Cautions,
    IReadOnlyList<InstrumentSetup> Instruments,
    IReadOnlyList<PhotoSample> PhotoSamples,
    IReadOnlyList<AgeNote> AgeNotes,
    IReadOnlyList<Modifier> Modifiers,
    AbilityModel Ability,
    PracticeModel Practice,
    Simulated Simulated,
    IReadOnlyDictionary<string, Demands>? KnownDemands = null
)
{
    private readonly Dictionary<string, (Ladder Ladder, Rung Rung)> rungs = Ladders
        .SelectMany(ladder => ladder.Rungs.Select(rung => (ladder, rung)))
        .ToDictionary(pair => pair.rung.Id, pair => pair);

    private readonly Dictionary<string, string> successors = Ladders
        .SelectMany(ladder => ladder.Successors ?? new Dictionary<string, string>())
        .ToDictionary(pair => pair.Key, pair => pair.Value);

    private readonly Dictionary<string, Fault> faults = Faults.ToDictionary(fault => fault.Code);

    private readonly Dictionary<string, ScreenTask> tasks = Tasks
        .Concat(Ladders.SelectMany(ladder => ladder.Rungs).Select(ScreenTask.OfRung))
        .ToDictionary(task => task.Id);

    private DemandTable? demands;

    /// <summary>Worked out when first asked for.</summary>
    public DemandTable Demands => LazyInitializer.EnsureInitialized(ref demands, () => new DemandTable(this));

    private SettingLoads? settings;

    /// <summary>What rungs ask over a shorter range, at another height, under a load.</summary>
    public SettingLoads Settings =>
        LazyInitializer.EnsureInitialized(ref settings, () => new SettingLoads(this));

    private RungHeights? heights;

    /// <summary>How high each trained rung stands.</summary>
    public RungHeights Heights => LazyInitializer.EnsureInitialized(ref heights, () => new RungHeights(this));

    /// <summary>What a rung asks of each direction, as shares of the hardest screened rung.</summary>
    public IReadOnlyList<Demand> DemandsOf(Rung rung) => Demands.SharesOf(rung.Id);

    /// <summary>What a rung asks of one direction of the ring when done on a side, as a share of the hardest screened rung; 0 for nothing.</summary>
    public double WeightOf(Rung rung, Sector sector, Side side) =>
        DemandsOf(rung)
            .Where(demand =>
                Terms
                    .Sectors.All(demand.Direction, demand.On, rung.Sides == RungSides.Each ? side : Side.Both)
                    .Contains(sector)
            )
            .Sum(demand => demand.Weight);

    /// <summary>The poses a rung moves through.</summary>
    public IReadOnlyList<Pose> PathOf(Rung rung) => [.. rung.Poses.Path.Select(name => Poses[name])];

    /// <summary>How a fault looks at the end of a rung; none where there is no drawing of it.</summary>
    public Pose? FaultyPose(Rung rung, string fault)
    {
        var family = PoseFamilies[rung.Poses.End];
        return FaultPoses
            .FirstOrDefault(pose => pose.Fault == fault && pose.Families.Contains(family))
            ?.Over(Poses[rung.Poses.End]);
    }

    /// <summary>The rung of that id; none where there is none.</summary>
    public Rung? FindRung(string id) => rungs.TryGetValue(id, out var found) ? found.Rung : null;

    /// <summary>The id a rung has today; its own where it did not move.</summary>
    public string Today(string rungId) => successors.GetValueOrDefault(rungId, rungId);

    /// <exception cref="KeyNotFoundException">The rung is not in the library.</exception>
    public Rung Rung(string id) => rungs[id].Rung;

    /// <exception cref="KeyNotFoundException">The rung is not in the library.</exception>
    public Ladder LadderOf(string rungId) => rungs[rungId].Ladder;

    /// <summary>A task of a screen, the single rungs ("rung-B5") among them; none for no id or an unknown one.</summary>
    public ScreenTask? FindTask(string? id) => id is null ? null : tasks.GetValueOrDefault(id);

    private readonly Dictionary<string, double?> fullDegrees = Tasks
        .Where(task => task.Measure == MeasureKind.Degrees)
        .SelectMany(task =>
            (task.Surfaces ?? [])
                .Select(surface => surface.Rung)
                .Append(task.Rung)
                .Select(rung => (rung, task.Full))
        )
        .Where(pair => pair.rung is not null)
        .DistinctBy(pair => pair.rung)
        .ToDictionary(pair => pair.rung!, pair => pair.Full);

    /// <summary>Degrees of a rung's whole movement, by the task that reads it in degrees; none where none does.</summary>
    public double? FullDegrees(Rung rung) => fullDegrees.GetValueOrDefault(rung.Id);

    /// <summary>What is taken to be at hand where nobody asked: the first piece, a mat.</summary>
    public IReadOnlyList<string> MatOnly => [Equipment[0].Id];

    /// <summary>The ladders whose rungs are trained: all but the tests, and what moved to other ladders.</summary>
    public IEnumerable<Ladder> TrainedLadders => Ladders.Where(ladder => ladder.Trained);

    /// <summary>Those, and what moved: work on them tells of the client.</summary>
    public IEnumerable<Ladder> MeasuredLadders => Ladders.Where(ladder => ladder.Measured);

    /// <exception cref="InvalidOperationException">There is no such precaution.</exception>
    public Precaution Precaution(string id) => Precautions.First(precaution => precaution.Id == id);

    private readonly Dictionary<string, Position> positions = Positions.ToDictionary(position => position.Id);

    /// <exception cref="KeyNotFoundException">The rung is of another library.</exception>
    public Position PositionOf(Rung rung) => positions[rung.Position];

    /// <summary>Something comes back after each rep, where it can be looked at: is the back where it was?</summary>
    public bool ReturnsToCheck(Rung rung) => rung.Moves && PositionOf(rung).Returns;

    /// <summary>Whether a fault of this code is what the rules look for; false for an unknown one.</summary>
    public bool Means(string? code, FaultMeaning meaning) =>
        code is not null && FindFault(code)?.Means == meaning;

    /// <summary>The fault of that code; none where there is none.</summary>
    public Fault? FindFault(string code) => faults.GetValueOrDefault(code);

    /// <summary>None for no id, or one that is not there any more.</summary>
    public Modifier? FindModifier(string? id) =>
        id is null ? null : Modifiers.FirstOrDefault(m => m.Id == id);

    /// <summary>The policy of that id; none where there is none.</summary>
    public Policy? FindPolicy(string id) => Policies.FirstOrDefault(policy => policy.Id == id);

    /// <summary>The policy of an episode that names none.</summary>
    public Policy DefaultPolicy => Policies[0];

    /// <summary>Names of a sector.</summary>
    public SectorText Words(Sector sector) => Sectors.First(text => text.Sector == sector);
}
