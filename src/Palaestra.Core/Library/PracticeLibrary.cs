using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>All content the rules work on: ladders, faults, precautions, danger signs, policies, poses and words.</summary>
public sealed record PracticeLibrary(
    string Version,
    IReadOnlyList<Ladder> Ladders,
    IReadOnlyList<Fault> Faults,
    IReadOnlyList<FeltPlace> FeltPlaces,
    IReadOnlyList<Precaution> Precautions,
    IReadOnlyList<DangerSign> DangerSigns,
    IReadOnlyList<Policy> Policies,
    IReadOnlyList<SectorText> Sectors,
    IReadOnlyDictionary<string, Pose> Poses
)
{
    private readonly Dictionary<string, (Ladder Ladder, Rung Rung)> rungs = Ladders
        .SelectMany(ladder => ladder.Rungs.Select(rung => (ladder, rung)))
        .ToDictionary(pair => pair.rung.Id, pair => pair);

    private readonly Dictionary<string, Fault> faults = Faults.ToDictionary(fault => fault.Code);

    public Rung? FindRung(string id) => rungs.TryGetValue(id, out var found) ? found.Rung : null;

    /// <exception cref="KeyNotFoundException">The rung is not in the library.</exception>
    public Rung Rung(string id) => rungs[id].Rung;

    /// <exception cref="KeyNotFoundException">The rung is not in the library.</exception>
    public Ladder LadderOf(string rungId) => rungs[rungId].Ladder;

    public Fault? FindFault(string code) => faults.GetValueOrDefault(code);

    public Policy? FindPolicy(string id) => Policies.FirstOrDefault(policy => policy.Id == id);

    public Policy DefaultPolicy => Policies[0];

    public SectorText Words(Sector sector) => Sectors.First(text => text.Sector == sector);
}
