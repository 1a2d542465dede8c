using System.Collections.Concurrent;
using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>What a rung asks of each direction in some setting: over a shorter range, at a height, under a load. For a typical body, kept once found.</summary>
public sealed class SettingLoads(PracticeLibrary library)
{
    private readonly ConcurrentDictionary<(string, double, double?, double?), Demands> found = [];

    /// <summary>N·m, the right as the side of the task mirrored. As drawn where a setting does not fit the rung or would not stand.</summary>
    public Demands Of(Rung rung, Side side, Dose setting)
    {
        var demands = setting is { Range: >= 1, Height: null, Load: null }
            ? library.Demands.Of(rung.Id)
            : found.GetOrAdd(
                (rung.Id, setting.Range, setting.Height, setting.Load),
                _ => Work(rung, setting)
            );
        return side == Side.Right ? demands.Mirrored() : demands;
    }

    private Demands Work(Rung rung, Dose setting)
    {
        var path = library.PathOf(rung);
        var changes = new LoadChanges(
            Math.Clamp(setting.Range, 0.01, 1),
            CounterHeight: path.Any(LoadChanges.HasCounter) ? setting.Height : null,
            StepHeight: path.Any(LoadChanges.HasCounter) ? null : setting.Height,
            HeldMass: path.All(pose => LoadChanges.Hands(pose).Count == 0) ? null : setting.Load
        );
        return LoadModel.Of(path, Side.Left, BodySize.Typical, changes).Load?.Demands
            ?? library.Demands.Of(rung.Id);
    }
}
