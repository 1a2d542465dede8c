namespace Palaestra.Core.Library;

/// <summary>Lays a clinic's own ladders and poses over ours, without a change to our files.</summary>
public static class Overlay
{
    /// <remarks>
    /// A ladder with an id of ours adds its rungs to it: one with an id of ours takes its place, another follows the rung
    /// named in its "after", or goes to the end. A ladder with a new id stands for itself. A pose of the same name replaces ours.
    /// </remarks>
    public static (Dictionary<string, Ladder> Ladders, PosesFile Poses) Over(
        Dictionary<string, Ladder> ours,
        PosesFile poses,
        Dictionary<string, Ladder> own,
        PosesFile? ownPoses,
        List<FieldError> errors
    )
    {
        var ladders = new Dictionary<string, Ladder>(ours);
        foreach (var (file, ladder) in own)
        {
            var place = ours.FirstOrDefault(pair => pair.Value.Id == ladder.Id).Key;
            if (place is null)
            {
                ladders[$"own {file}"] = ladder;
                continue;
            }
            ladders[place] = Merged(ladders[place], ladder, file, errors);
        }
        var all = new Dictionary<string, PoseEntry>(poses.Poses);
        foreach (var (name, entry) in ownPoses?.Poses ?? new Dictionary<string, PoseEntry>())
        {
            all[name] = entry;
        }
        return (ladders, poses with { Poses = all });
    }

    private static Ladder Merged(Ladder ours, Ladder own, string file, List<FieldError> errors)
    {
        var rungs = ours.Rungs.ToList();
        for (var i = 0; i < own.Rungs.Count; i++)
        {
            var rung = own.Rungs[i];
            var at = rungs.FindIndex(r => r.Id == rung.Id);
            if (at >= 0)
            {
                rungs[at] = rung;
                continue;
            }
            var after = rung.After is null ? rungs.Count - 1 : rungs.FindIndex(r => r.Id == rung.After);
            if (after < 0 && rung.After is not null)
            {
                errors.Add(
                    new($"own {file} rungs[{i}].after", $"There is no rung {rung.After} on ladder {ours.Id}.")
                );
                continue;
            }
            rungs.Insert(after + 1, rung);
        }
        return ours with
        {
            Rungs = rungs,
            OffOrder = (ours.OffOrder ?? new Dictionary<string, string>())
                .Concat(own.OffOrder ?? new Dictionary<string, string>())
                .GroupBy(pair => pair.Key)
                .ToDictionary(group => group.Key, group => group.Last().Value),
        };
    }
}
